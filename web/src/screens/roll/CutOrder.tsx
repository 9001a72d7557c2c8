import type { CutStep, MaterialPlan } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { cutLengthText, render } from "../../units/text";

type Props = {
  plan: MaterialPlan;
  steps: readonly CutStep[];
  lit: number | null;
  onLight: (item: number | null) => void;
};

/** The pieces by number, and the cuts in order. */
export function CutOrder({ plan, steps, lit, onLight }: Props) {
  const { system } = useSettings();
  const say = (value: number) => cutLengthText(value, system);
  return (
    <div className="mt-4 grid grid-cols-2 gap-6 max-lg:grid-cols-1">
      <div>
        <h3 className="m-0 text-lg">Pieces</h3>
        <table className="w-full border-collapse">
          <tbody>
            {plan.items.map((item) => (
              <tr
                key={item.key}
                onPointerEnter={() => onLight(item.key)}
                onPointerLeave={() => onLight(null)}
                className={`border-b border-line ${lit === item.key ? "bg-sheet" : ""}`}
              >
                <td className="py-1 pr-2 text-right text-soft">{item.key + 1}</td>
                <td className="py-1 pr-2 text-right whitespace-nowrap">{item.quantity} ×</td>
                <td className="py-1 pr-2">{item.label}</td>
                <td className="py-1 text-right whitespace-nowrap">
                  {item.width_m > 0 && `${say(item.width_m)} × `}
                  {say(item.length_m)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {steps.length > 0 && plan.material === "netting" && (
        <div>
          <h3 className="m-0 text-lg">Order of cuts</h3>
          <p className="mt-0 mb-1 text-sm text-soft">
            Gloves and eye protection: cut wire springs. Tuck every end in.
          </p>
          <ol className="m-0 pl-7">
            {steps.map((step, index) => (
              <li
                // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
                key={index}
                className="py-0.5"
              >
                {plan.stocks.length > 1 && <span className="text-soft">Roll {step.stock + 1}. </span>}
                {render(step.say, system)}
              </li>
            ))}
          </ol>
        </div>
      )}
      {steps.length > 0 && plan.sticks && (
        <div>
          <h3 className="m-0 text-lg">Stick by stick</h3>
          <ol className="m-0 list-none p-0">
            {steps.map((step, index) => (
              <li
                // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
                key={index}
                className="py-0.5"
              >
                {render(step.say, system)}
              </li>
            ))}
          </ol>
        </div>
      )}
    </div>
  );
}
