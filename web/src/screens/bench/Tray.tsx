import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import { isCarried } from "../../api/kinds";
import type { EventOut, Piece, Problem, Report, Stock } from "../../api/types";
import { Editing } from "../../desk/Editing";
import { TrayFrame } from "../../ui/TrayFrame";
import { VerdictStrip } from "../../ui/VerdictStrip";
import { Passage } from "../Passage";
import { BesideTab } from "./BesideTab";
import { CarriedTab } from "./CarriedTab";
import { CutTray } from "./CutTray";
import { MechanicTab } from "./MechanicTab";
import { PlaceTab } from "./PlaceTab";
import { RoomTab } from "./RoomTab";
import { StemsTab } from "./StemsTab";
import type { PieceDesk } from "./usePieceDesk";
import { VesselTab } from "./VesselTab";

type Props = {
  /** What pulls it taller. */
  edge: ReactNode;
  /** The verdicts, which are its first tab on a phone. */
  verdicts: ReactNode;
  desk: PieceDesk;
  event: EventOut;
  piece: Piece;
  report: Report | null;
  stock: Stock;
  problem: Problem | null;
};

const BOUQUET_TABS = [
  ["cut", "Cut tray"],
  ["stems", "Stems"],
  ["carried", "Bouquet"],
  ["mechanic", "Armature"],
  ["vessel", "Vase"],
  ["place", "Place and road"],
  ["passage", "To the end"],
  ["room", "Room and water"],
] as const;
const WORN_TABS = [
  ["cut", "Cut tray"],
  ["stems", "Heads"],
  ["carried", "Worn"],
  ["mechanic", "Wired as"],
  ["place", "Place and road"],
  ["passage", "To the end"],
  ["room", "Room and water"],
] as const;
const TABS = [
  ["cut", "Cut tray"],
  ["stems", "Stems"],
  ["vessel", "Vessel"],
  ["mechanic", "Mechanic"],
  ["place", "Place and road"],
  ["passage", "To the end"],
  ["beside", "Beside it"],
  ["room", "Room and water"],
] as const;

/** Each verb with its state, as they are announced and shown in one row. */
export function statesOf(report: Report) {
  return report.verdicts.map(({ verb, state }) => [verb, state] as const);
}

/** Under the drawing: what to cut and do, and the few facts that have no place on the drawing. */
export function Tray({ edge, verdicts, desk, event, piece, report, stock, problem }: Props) {
  const commit = (next: Piece, label: string) => void desk.commit(next, label);
  const { edit } = desk;
  const tabs = { standing: TABS, bouquet: BOUQUET_TABS, worn: WORN_TABS }[piece.kind];
  const stems = piece.recipe.reduce((sum, line) => sum + line.count, 0);
  return (
    <Editing edit={edit} see={desk.see} unsee={desk.unsee}>
      <TrayFrame
        label="Tray"
        tabs={tabs.map(([key, words]) => [key, key === "stems" ? `${words} (${stems})` : words] as const)}
        edge={edge}
        verdicts={verdicts}
        strip={(open) => report && <VerdictStrip states={statesOf(report)} onOpen={open} />}
      >
        <Tabs.Content value="cut" forceMount className="data-[state=inactive]:hidden print:!block">
          <CutTray report={report} />
        </Tabs.Content>
        <Tabs.Content value="stems">
          <StemsTab piece={piece} report={report} stock={stock} problem={problem} onCommit={commit} />
        </Tabs.Content>
        <Tabs.Content value="vessel">
          <VesselTab
            piece={piece}
            report={report}
            stock={stock}
            problem={problem}
            onCommit={commit}
            onEdit={edit}
          />
        </Tabs.Content>
        <Tabs.Content value="mechanic">
          <MechanicTab
            piece={piece}
            report={report}
            stock={stock}
            problem={problem}
            onCommit={commit}
            onEdit={edit}
          />
        </Tabs.Content>
        <Tabs.Content value="place">
          <PlaceTab piece={piece} report={report} problem={problem} onCommit={commit} />
        </Tabs.Content>
        <Tabs.Content value="passage">
          <Passage
            passage={piece.passage}
            acts={report?.acts ?? []}
            hung={false}
            carried={isCarried(piece)}
            weighted={piece.kind === "standing" && piece.counterweight !== null}
            problem={problem}
            onCommit={(passage, label) => commit({ ...piece, passage }, label)}
          />
        </Tabs.Content>
        <Tabs.Content value="beside">
          {piece.kind === "standing" && (
            <BesideTab
              piece={piece}
              report={report}
              stock={stock}
              problem={problem}
              onCommit={commit}
              onEdit={edit}
            />
          )}
        </Tabs.Content>
        <Tabs.Content value="carried">
          {isCarried(piece) && (
            <CarriedTab piece={piece} report={report} problem={problem} onCommit={commit} />
          )}
        </Tabs.Content>
        <Tabs.Content value="room">
          <RoomTab event={event} piece={piece} problem={problem} onCommit={commit} />
        </Tabs.Content>
      </TrayFrame>
    </Editing>
  );
}
