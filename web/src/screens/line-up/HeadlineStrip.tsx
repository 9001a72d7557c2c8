import type { Headline } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { durationText, textOf } from "../../units/text";

const M_PER_YD = 0.9144;

/** What the event comes to, in one line of figures. */
export function HeadlineStrip({ headline }: { headline: Headline }) {
  const { system } = useSettings();
  const metric = system === "metric";
  const [unit, per] = metric ? (["m", 1] as const) : (["yd", M_PER_YD] as const);
  const netting = `${(headline.netting_m / per).toFixed(1)} ${unit}, ${(headline.netting_m2 / per ** 2).toFixed(1)} ${unit}²`;
  const money = (amount: string | null) =>
    amount ? `${headline.at_least ? "at least " : ""}${headline.currency} ${amount}` : "cannot say";
  const shown: readonly (readonly [string, string, boolean?])[] = [
    ["made", String(headline.pieces)],
    ["stems", String(headline.stems)],
    ["work, all hands", durationText(headline.minutes / 60)],
    ["costs", money(headline.cost), !headline.cost],
    ["to ask, tax in", money(headline.price)],
    ["water on show", textOf({ kind: "volume", value: headline.water_l }, system)],
    ["netting", netting],
    ["hangs over people", textOf({ kind: "mass", value: headline.overhead_kg }, system)],
    ["overhead not cleared", String(headline.not_cleared), headline.not_cleared > 0],
    ["pieces that fail", String(headline.failing), headline.failing > 0],
    ...(headline.not_worked_out > 0
      ? [["not worked out", String(headline.not_worked_out), true] as const]
      : []),
  ];
  return (
    <dl
      aria-label="What the event comes to"
      className="m-0 flex flex-none flex-wrap justify-between gap-x-5 gap-y-1 border-b border-line px-4 py-1.5"
    >
      {shown.map(([words, figure, bad]) => (
        <div key={words} className="flex flex-col">
          <dt className="text-xs text-soft">
            <Term word={words}>{words}</Term>
          </dt>
          <dd className={`m-0 text-lead leading-tight ${bad ? "text-berry" : ""}`}>
            {bad && <span aria-hidden="true">✕ </span>}
            {figure}
          </dd>
        </div>
      ))}
    </dl>
  );
}
