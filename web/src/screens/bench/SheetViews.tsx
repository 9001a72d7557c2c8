import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import { isCarried } from "../../api/kinds";
import type { EventOut, Piece, Problem, Report, Stock } from "../../api/types";
import { CardLinks } from "../../ui/CardLinks";
import { CutSheet } from "./CutSheet";
import { DrawingSheet } from "./DrawingSheet";
import { MakingView } from "./MakingView";
import { MatchView } from "./MatchView";
import { SideBySide } from "./SideBySide";
import type { PieceDesk } from "./usePieceDesk";

export const VIEW_KEYS = ["drawing", "making", "flat", "compare", "match"] as const;
export type View = (typeof VIEW_KEYS)[number];

type Props = {
  stock: Stock | undefined;
  view: View;
  onView: (view: View) => void;
  /** What stands over the views on a phone. */
  above: ReactNode;
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
  ["match", "A look to match"],
] as const;

/** The sheet on the bench: the drawing, the sheet flat, or all mechanics side by side. */
export function SheetViews({
  stock,
  view,
  onView,
  above,
  desk,
  event,
  pieceId,
  piece,
  report,
  problem,
}: Props) {
  return (
    <Tabs.Root
      value={view}
      onValueChange={(next) => onView(next as View)}
      className="col-start-1 row-start-1 flex min-h-0 flex-col bg-sheet max-lg:min-h-120 max-md:block max-md:min-h-0 max-md:flex-1 max-md:overflow-y-auto"
    >
      {above && (
        <div className="no-print px-2 pt-1 max-md:group-has-data-[sheet=open]/desk:hidden">{above}</div>
      )}
      <div className="no-print flex min-h-11.25 flex-none flex-wrap max-md:group-has-data-[sheet=open]/desk:hidden border-b border-line/60 px-2">
        <Tabs.List aria-label="Views" className="flex items-stretch gap-1 overflow-x-auto">
          {VIEWS.map(([key, words]) => (
            <Tabs.Trigger
              key={key}
              value={key}
              className="min-h-11 min-w-11 flex-none whitespace-nowrap border-0 bg-transparent px-2.5 text-sm text-soft data-[state=active]:font-semibold data-[state=active]:text-ink data-[state=active]:underline data-[state=active]:decoration-leaf data-[state=active]:decoration-3 data-[state=active]:underline-offset-8"
            >
              {words}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <CardLinks
          what={isCarried(piece) ? "Carry card" : "Bench card"}
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
      <Tabs.Content value="match" className="min-h-0 flex-1">
        <MatchView eventId={event.id} desk={desk} piece={piece} report={report} stock={stock} />
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
