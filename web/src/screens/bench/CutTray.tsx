import { memo } from "react";
import type { Part, Quantity, Report } from "../../api/types";
import { useSettings } from "../../ui/settings";
import type { UnitSystem } from "../../units/parse";
import { cutLengthText, render, textOf } from "../../units/text";
import { worded } from "../../units/worded";

/** What to cut, fold, tape, fill and push in, in order; and the stems by cut length. */
export const CutTray = memo(function CutTray({ report }: { report: Report | null }) {
  const { system } = useSettings();
  if (!report) return <p className="p-4">Nothing to cut yet.</p>;
  const names = [...new Set(report.cut_list.map((group) => group.name))];
  const { flat, parts } = report.mechanic;
  const sheet = flat[0]?.sheet;
  return (
    <div className="grid grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)] gap-5 p-3 max-lg:grid-cols-1">
      <section>
        <h2 className="m-0 text-lead">
          {sheet ? (
            <>
              Sheet {cutLengthText(sheet.width_m, system)} × {cutLengthText(sheet.length_m, system)}
              <span className="ml-2 font-sans text-md text-soft">
                {worded("{across} {across|cell|cells} × {rows} {rows|row|rows}", {
                  across: sheet.cells_across,
                  rows: sheet.rows_along,
                })}
                {flat.length > 1 ? worded(", and {n} more", { n: flat.length - 1 }) : ""}
              </span>
            </>
          ) : (
            report.mechanic.name
          )}
        </h2>
        <ol className="mt-1.5 mb-0 space-y-1 pl-5 leading-snug">
          {report.steps.map((step) => (
            <li key={step.kind + step.say.text}>
              {render(step.say, system)}
              {step.caution && <span className="text-berry"> {step.caution}</span>}
            </li>
          ))}
        </ol>
        <p className="mt-2 mb-0 text-md text-soft">
          Parts: {[...parts, ...report.extras].map((part) => partText(part, system)).join("; ") || "none"}.
        </p>
      </section>
      <section>
        <h2 className="m-0 text-lead">Stems by cut length</h2>
        {names.length === 0 ? (
          <p className="mt-1 text-soft">No stems yet: add them under Stems.</p>
        ) : (
          <table className="mt-1 w-full border-collapse">
            <tbody>
              {names.map((name) => (
                <tr key={name} className="border-t border-line align-top">
                  <th scope="row" className="py-1 pr-3 text-left font-normal">
                    {name}
                  </th>
                  <td className="flex flex-wrap py-1">
                    {report.cut_list
                      .filter((group) => group.name === name)
                      .map((group) => (
                        <span
                          key={group.cut_length_m}
                          className={`mr-3 whitespace-nowrap ${group.sold ? "" : "text-berry"}`}
                        >
                          <strong>{group.count}</strong> at {cutLengthText(group.cut_length_m, system)}
                          {group.sold ? "" : " (not sold so long)"}
                        </span>
                      ))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
    </div>
  );
});

function partText(part: Part, system: UnitSystem): string {
  const sizes = part.sizes.map((size: Quantity) =>
    size.kind === "length" ? cutLengthText(size.value, system) : textOf(size, system),
  );
  const number = part.quantity > 1 ? `${part.quantity} × ` : "";
  return `${number}${part.name}${sizes.length ? ` ${sizes.join(" × ")}` : ""}`;
}
