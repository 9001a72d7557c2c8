import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import type { EventOut, Piece, Problem, Report, Stock } from "../../api/types";
import { TabBar } from "../../ui/TabBar";
import { useAddress } from "../../ui/useAddress";
import { BesideTab } from "./BesideTab";
import { BouquetTab } from "./BouquetTab";
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
  ["bouquet", "Bouquet"],
  ["mechanic", "Armature"],
  ["vessel", "Vase"],
  ["place", "Place and road"],
  ["room", "Room and water"],
] as const;
const TABS = [
  ["cut", "Cut tray"],
  ["stems", "Stems"],
  ["vessel", "Vessel"],
  ["mechanic", "Mechanic"],
  ["place", "Place and road"],
  ["beside", "Beside it"],
  ["room", "Room and water"],
] as const;

/** Under the drawing: what to cut and do, and the few facts that have no place on the drawing. */
export function Tray({ edge, desk, event, piece, report, stock, problem }: Props) {
  const commit = (next: Piece, label: string) => void desk.commit(next, label);
  const tabs = piece.kind === "bouquet" ? BOUQUET_TABS : TABS;
  const [tab, setTab] = useAddress<string>(
    "tab",
    tabs.map(([key]) => key),
  );
  const stems = piece.recipe.reduce((sum, line) => sum + line.count, 0);
  return (
    <Tabs.Root
      value={tab}
      onValueChange={setTab}
      className="relative col-start-1 row-start-2 flex min-h-0 flex-col border-t max-lg:row-start-3 border-line print:border-0"
    >
      {edge}
      <TabBar
        label="Tray"
        tabs={tabs.map(([key, words]) => [key, key === "stems" ? `${words} (${stems})` : words] as const)}
        className="no-print flex-none border-b border-line px-2"
      />
      <div className="min-h-0 flex-1 overflow-y-auto print:overflow-visible">
        <Tabs.Content value="cut" forceMount className="data-[state=inactive]:hidden print:!block">
          <CutTray report={report} />
        </Tabs.Content>
        <Tabs.Content value="stems">
          <StemsTab piece={piece} report={report} stock={stock} problem={problem} onCommit={commit} />
        </Tabs.Content>
        <Tabs.Content value="vessel">
          <VesselTab piece={piece} report={report} stock={stock} problem={problem} onCommit={commit} />
        </Tabs.Content>
        <Tabs.Content value="mechanic">
          <MechanicTab piece={piece} report={report} stock={stock} problem={problem} onCommit={commit} />
        </Tabs.Content>
        <Tabs.Content value="place">
          <PlaceTab piece={piece} report={report} problem={problem} onCommit={commit} />
        </Tabs.Content>
        <Tabs.Content value="beside">
          {piece.kind === "standing" && (
            <BesideTab piece={piece} report={report} stock={stock} problem={problem} onCommit={commit} />
          )}
        </Tabs.Content>
        <Tabs.Content value="bouquet">
          {piece.kind === "bouquet" && (
            <BouquetTab piece={piece} report={report} problem={problem} onCommit={commit} />
          )}
        </Tabs.Content>
        <Tabs.Content value="room">
          <RoomTab event={event} piece={piece} problem={problem} onCommit={commit} />
        </Tabs.Content>
      </div>
    </Tabs.Root>
  );
}
