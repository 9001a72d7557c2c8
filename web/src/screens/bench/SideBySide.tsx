import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, Refused } from "../../api/client";
import type { Option, Piece } from "../../api/types";
import { Shapes } from "../../drawing/Drawing";
import { boundsOf } from "../../drawing/look";
import { project } from "../../drawing/project";
import type { View } from "../../drawing/seeing";
import { stemsOf } from "../../drawing/stems";
import { Button } from "../../ui/Button";
import { STATE_COLOUR, StateMark } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { useKit } from "../../ui/useTrade";
import { render, textOf } from "../../units/text";
import { worded } from "../../units/worded";

type Props = {
  eventId: number;
  revision: number;
  piece: Piece;
  onUse: (piece: Piece, name: string) => void;
};

/** Every mechanic that can apply, sized and judged for this piece, the best first, each with its reason. */
export function SideBySide({ eventId, revision, piece, onUse }: Props) {
  const { system } = useSettings();
  const options = useQuery({
    queryKey: ["choose", eventId, revision, piece],
    queryFn: ({ signal }) => api.choose(eventId, piece, signal),
    placeholderData: (before) => before,
  });
  if (options.error) {
    const { error } = options;
    return (
      <p role="alert" className="p-4 text-berry">
        {error instanceof Refused
          ? `${render(error.problem.message, system)} ${render(error.problem.limit, system)}`
          : "The mechanics could not be compared. Change something and look again."}
      </p>
    );
  }
  if (!options.data) {
    return (
      <p className="p-4" role="status">
        Sizing and judging every mechanic for this piece…
      </p>
    );
  }
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard
    <div className="h-full overflow-y-auto p-3" tabIndex={0}>
      <ol className="m-0 grid list-none grid-cols-3 gap-3 p-0 max-lg:grid-cols-1">
        {options.data.map((option, index) => (
          <Card
            key={option.kind}
            option={option}
            place={index + 1}
            piece={piece}
            onUse={() => onUse(option.piece, option.name)}
          />
        ))}
      </ol>
    </div>
  );
}

type CardProps = { option: Option; place: number; piece: Piece; onUse: () => void };

function Card({ option, place, piece, onUse }: CardProps) {
  const { system } = useSettings();
  const chosen = option.kind === piece.mechanic.kind;
  const made = option.mechanic;
  return (
    <li
      data-kind={option.kind}
      className={`flex flex-col rounded border p-2 ${chosen ? "border-marigold" : "border-line"} ${made ? "" : "border-dashed"}`}
    >
      <h2 className="m-0 flex items-baseline gap-2 text-base">
        <span className="text-soft">{place}</span> {option.name}
        {chosen && <span className="ml-auto font-sans text-xs font-normal text-marigold">on the bench</span>}
      </h2>
      <p className="m-0 text-xs text-soft">{option.what}</p>
      <div className="flex gap-2">
        <Sketch option={option} />
        <ul className="m-0 grid list-none content-center gap-0.5 p-0 text-xs">
          {option.rungs.map((rung) => (
            <li key={rung.verb} className={`flex items-center gap-1 ${STATE_COLOUR[rung.state]}`}>
              <StateMark state={rung.state} size={12} />
              <span className="w-11 capitalize">{rung.verb}</span>
              <span className="text-ink">
                {rung.utilisation === null
                  ? ""
                  : rung.utilisation > 9.99
                    ? ">9.99"
                    : rung.utilisation.toFixed(2)}
              </span>
            </li>
          ))}
        </ul>
      </div>
      <p className="mt-1 mb-1 text-sm leading-snug">{render(option.why, system)}</p>
      {made && (
        <p className="mt-auto mb-1 text-xs text-soft">
          {worded("{n} {n|stem|stems}", { n: made.capacity })} ·{" "}
          {textOf({ kind: "mass", value: made.mass_kg }, system)} ·{" "}
          {made.price === null ? "no price" : `${made.price.toFixed(2)}`} · {Math.round(made.minutes)} min ·
          used {made.uses}×{made.compostable ? " · compostable" : ""}
        </p>
      )}
      {made && !chosen && (
        <Button className="w-full justify-center" onClick={onUse}>
          Use this
        </Button>
      )}
    </li>
  );
}

const CUT: View = { turn_rad: 0, raised_rad: 0, cut: true };

/** A small section: vessel, mechanic, stems; as on the drawing sheet. */
function Sketch({ option }: { option: Option }) {
  const kit = useKit();
  const flats = useMemo(
    () => (kit ? project(option.picture, stemsOf(option.stems), CUT, kit) : []),
    [option, kit],
  );
  const { xMin, xMax, yMin, yMax } = boundsOf(flats);
  return (
    <svg
      viewBox={`${xMin} ${-yMax} ${xMax - xMin} ${yMax - yMin}`}
      className="drawing h-29.5 min-w-0 flex-1"
      role="img"
      aria-label={`Section with ${option.name.toLowerCase()}`}
    >
      <g transform="scale(1 -1)">
        <Shapes scene={flats} />
      </g>
    </svg>
  );
}
