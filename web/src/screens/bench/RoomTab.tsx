import { X } from "lucide-react";
import type { EventOut, Piece, Problem } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { durationText, textOf } from "../../units/text";
import { BriefFields } from "../line-up/BriefFields";
import { BriefState } from "../line-up/BriefState";
import { useBrief } from "../line-up/useBrief";
import { OwnAir } from "./OwnAir";

type Props = {
  event: EventOut;
  piece: Piece;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
};

/** The room, which all pieces of the event share, and this piece's top-ups. */
export function RoomTab({ event, piece, problem, onCommit }: Props) {
  const { system } = useSettings();
  const desk = useBrief(event);
  return (
    <div className="grid grid-cols-[minmax(0,2.2fr)_minmax(0,1fr)] gap-6 p-3 max-lg:grid-cols-1">
      <div>
        <BriefState desk={desk} />
        <BriefFields event={desk.shown} desk={desk} short />
      </div>
      <div className="flex flex-col gap-4">
        <OwnAir piece={piece} room={event.brief.air} problem={problem} onCommit={onCommit} />
        <section>
          <h2 className="m-0 text-base">Top-ups of this piece</h2>
          {piece.top_ups.length === 0 && (
            <p className="my-1 text-soft">None planned. Drink offers one where it is needed.</p>
          )}
          <ul className="m-0 list-none p-0">
            {piece.top_ups.map((each, index) => (
              <li
                key={`${each.after_h}-${each.volume_l}`}
                className="flex items-center justify-between gap-2"
              >
                <span>
                  {textOf({ kind: "volume", value: each.volume_l }, system)}, {durationText(each.after_h)}{" "}
                  after filling
                </span>
                <Button
                  look="quiet"
                  className="w-11 px-0"
                  onClick={() =>
                    onCommit({ ...piece, top_ups: piece.top_ups.toSpliced(index, 1) }, "Take out a top-up")
                  }
                >
                  <X size={18} aria-hidden="true" />
                  <span className="sr-only">Take out this top-up</span>
                </Button>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}
