import { Tabs } from "radix-ui";
import type { EventOut, Piece, Problem, Report } from "../../api/types";
import { CardLinks } from "../../ui/CardLinks";
import { CutSheet } from "./CutSheet";
import { DrawingSheet } from "./DrawingSheet";
import { MakingView } from "./MakingView";
import { SideBySide } from "./SideBySide";
import type { PieceDesk } from "./usePieceDesk";

export const VIEW_KEYS = ["drawing", "making", "flat", "compare"] as const;
export type View = (typeof VIEW_KEYS)[number];

type Props = {
  view: View;
  onView: (view: View) => void;
  desk: PieceDesk;
  event: EventOut;
  pieceId: number;
  piece: Piece;
  report: Report | null;
  problem: Problem | null;
};

const VIEWS = [
  ["drawing", "Drawing"],
  ["making", "Making"],
  ["flat", "Cut sheet"],
  ["compare", "Side by side"],
] as const;

/** The sheet on the bench: the drawing, the sheet flat, or all mechanics side by side. */
export function SheetViews({ view, onView, desk, event, pieceId, piece, report, problem }: Props) {
  return (
    <Tabs.Root
      value={view}
      onValueChange={(next) => onView(next as View)}
      className="col-start-1 row-start-1 flex min-h-0 flex-col bg-sheet max-lg:min-h-[480px]"
    >
      <div className="no-print flex min-h-[45px] flex-none flex-wrap border-b border-line/60 px-2">
        <Tabs.List aria-label="Views" className="flex items-stretch gap-1 overflow-x-auto">
          {VIEWS.map(([key, words]) => (
            <Tabs.Trigger
              key={key}
              value={key}
              className="min-h-[44px] min-w-[44px] flex-none whitespace-nowrap border-0 bg-transparent px-2.5 text-[14px] text-soft data-[state=active]:font-semibold data-[state=active]:text-ink data-[state=active]:underline data-[state=active]:decoration-leaf data-[state=active]:decoration-[3px] data-[state=active]:underline-offset-[8px]"
            >
              {words}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <CardLinks
          what={piece.kind === "bouquet" ? "Carry card" : "Bench card"}
          eventId={event.id}
          partId={pieceId}
        />
      </div>
      <Tabs.Content
        value="drawing"
        forceMount
        aria-label="Drawing"
        className="min-h-0 flex-1 data-[state=inactive]:hidden print:!block"
      >
        <DrawingSheet eventId={event.id} desk={desk} piece={piece} report={report} problem={problem} />
      </Tabs.Content>
      <Tabs.Content value="making" className="min-h-0 flex-1">
        <MakingView desk={desk} event={event} piece={piece} report={report} />
      </Tabs.Content>
      <Tabs.Content value="flat" className="min-h-0 flex-1">
        <CutSheet eventId={event.id} pieceId={pieceId} revision={event.revision} />
      </Tabs.Content>
      <Tabs.Content value="compare" className="min-h-0 flex-1">
        <SideBySide
          eventId={event.id}
          revision={event.revision}
          piece={piece}
          onUse={(other, name) => void desk.commit(other, `Use ${name.toLowerCase()}`)}
        />
      </Tabs.Content>
    </Tabs.Root>
  );
}
