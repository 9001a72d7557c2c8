import { besideOf } from "../../api/kinds";
import type { MakingReport, Piece, PullLine } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { cutLengthText, render, shadesText } from "../../units/text";
import { worded } from "../../units/worded";

type Props = { making: MakingReport; piece: Piece };

/** Exactly the stems of this piece in order of use, cut and prepared; what the bunches leave over. */
export function PullList({ making, piece }: Props) {
  const { system } = useSettings();
  const total = making.pull.reduce((sum, line) => sum + line.count, 0);
  const shoots = making.pull.reduce((sum, line) => sum + line.side_shoots, 0);
  return (
    <div className="p-3">
      <p className="mt-0 mb-2 text-md text-soft">
        {worded(
          piece.quantity > 1
            ? "{n} {n|stem|stems} for one piece, bunches for all {pieces}."
            : "{n} {n|stem|stems} for one piece.",
          { n: total, pieces: piece.quantity },
        )}
        {shoots > 0 ? worded(" Up to {n} side {n|shoot|shoots} to save.", { n: shoots }) : ""}
      </p>
      <ol className="m-0 list-none p-0">
        {making.pull.map((line, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a recipe may name one variety twice; its place is its name
          <li key={index} className="border-t border-line py-1.5 leading-snug">
            <p className="m-0 flex items-start gap-2">
              <span
                aria-hidden="true"
                className="mt-1.5 h-3 w-3 flex-none rounded-full border border-ink/40"
                style={{ background: line.colour }}
              />
              <span>
                <strong>
                  {line.count} {line.name}
                </strong>{" "}
                {line.shades.length > 0 && `(${shadesText(line.shades)}) `}
                {line.cuts
                  .map((cut) =>
                    worded("{n} at {l}", { n: cut.count, l: cutLengthText(cut.cut_length_m, system) }),
                  )
                  .join(", ")}
              </span>
            </p>
            <p className="m-0 pl-5 text-sm text-soft">
              {line.preparation.map((each) => render(each, system)).join("; ")}
              {line.side_shoots > 0
                ? worded("; save {n} side {n|shoot|shoots}", { n: line.side_shoots })
                : ""}
              .
            </p>
            <p className="m-0 pl-5 text-sm text-soft">{where(line, piece)}</p>
          </li>
        ))}
      </ol>
    </div>
  );
}

function where(line: PullLine, piece: Piece): string {
  const vessel = besideOf(piece).companions[line.vessel - 1]?.name ?? "the other vessel";
  const from =
    line.first_step === null
      ? "for the spill"
      : worded(line.vessel > 0 ? "from stem {n} on, in {vessel}" : "from stem {n} on", {
          n: line.first_step + 1,
          vessel,
        });
  if (line.bunches === 0) return worded("{from}; counted above.", { from });
  return worded("{from}; {n} {n|bunch|bunches} of {size}, {left} left over.", {
    from,
    n: line.bunches,
    size: line.bunch_size,
    left: line.left_over,
  });
}
