import { useQuery } from "@tanstack/react-query";
import type { CSSProperties } from "react";
import { Link, useParams } from "react-router";
import { api } from "../../api/client";
import { SettingOut } from "../../desk/SettingOut";
import { Announced } from "../../ui/Announced";
import { ConflictStrip } from "../../ui/ConflictStrip";
import { MeasureFirst } from "../../ui/MeasureFirst";
import { QuantityField } from "../../ui/QuantityField";
import { SavedMark } from "../../ui/SavedMark";
import { TextField } from "../../ui/TextField";
import { TopBar } from "../../ui/TopBar";
import { TrayEdge, useTrayHeight } from "../../ui/TrayEdge";
import { useAddress } from "../../ui/useAddress";
import { useNarrow } from "../../ui/useNarrow";
import { useTitle } from "../../ui/useTitle";
import { Ladder } from "./Ladder";
import { SayIt } from "./SayIt";
import { SheetViews, VIEW_KEYS } from "./SheetViews";
import { statesOf, Tray } from "./Tray";
import { usePieceDesk } from "./usePieceDesk";

/** The bench: one piece, drawn to scale and judged while the hand moves. */
export function BenchScreen() {
  const params = useParams();
  const eventId = Number(params.eventId);
  const desk = usePieceDesk(eventId, Number(params.pieceId));
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  const [view, setView] = useAddress("view", VIEW_KEYS);
  const { event, piece, report, problem } = desk;
  const [tray, pull] = useTrayHeight();
  const narrow = useNarrow();
  useTitle(piece?.name, event?.brief.name);

  if (!event || !stock.data) {
    return <SettingOut eventId={eventId} words="Laying out the bench…" problem={problem} />;
  }
  if (!piece) {
    return (
      <>
        <TopBar onUndo={desk.undo} onRedo={desk.redo} undo={event.undo} redo={event.redo} />
        <p className="p-6">
          This piece is not in the plan any more. Undo brings it back, or go to{" "}
          <Link to={`/events/${eventId}`}>the line-up</Link>.
        </p>
      </>
    );
  }
  const verdicts = report ? (
    <Ladder report={report} onFix={desk.fix} busy={desk.saving !== "saved"} />
  ) : (
    <p className="p-4">Nothing can be worked out yet: mend the measure marked on the drawing.</p>
  );
  const sayIt = (
    <SayIt eventId={eventId} piece={piece} onApply={(next) => void desk.commit(next, "Set up as said")} />
  );
  return (
    <div className="flex h-full flex-col print:block print:h-auto">
      <Announced states={report ? statesOf(report) : []} />
      <TopBar onUndo={desk.undo} onRedo={desk.redo} undo={event.undo} redo={event.redo}>
        <Link
          to={`/events/${eventId}`}
          className="flex min-h-11 items-center text-soft underline decoration-line underline-offset-4"
        >
          {event.brief.name}
        </Link>
        <span className="text-line" aria-hidden="true">
          /
        </span>
        <TextField
          label="Name of the piece"
          hideLabel
          value={piece.name}
          path="name"
          problem={problem}
          onCommit={(name) => desk.commit({ ...piece, name }, "Rename the piece")}
          className="min-w-30 shrink max-md:max-w-full"
          inputClass="serif border-transparent bg-transparent text-lg [field-sizing:content] hover:border-line"
        />
        <span className="flex flex-none items-center gap-1 text-soft">
          ×
          <QuantityField
            label="How many of this piece"
            hideLabel
            kind="count"
            value={piece.quantity}
            path="quantity"
            problem={problem}
            onCommit={(quantity) =>
              quantity !== null && void desk.commit({ ...piece, quantity }, "Change the quantity")
            }
            className="w-14"
            inputClass="border-transparent bg-transparent px-1 hover:border-line"
          />
        </span>
        {!narrow && sayIt}
        <span className="ml-auto flex-none">
          <SavedMark saving={desk.saving} />
        </span>
      </TopBar>
      <MeasureFirst />
      {desk.conflict && <ConflictStrip conflict={desk.conflict} onTakeTheirs={desk.takeTheirs} />}
      <main
        style={{ "--tray": `${tray}px` } as CSSProperties}
        className={`group/desk grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_392px] max-lg:grid-cols-1 max-lg:grid-rows-[max-content_max-content_max-content] max-lg:overflow-auto max-md:flex max-md:flex-col max-md:overflow-hidden print:block ${
          view === "drawing" ? "grid-rows-[minmax(0,1fr)_var(--tray)]" : "grid-rows-[minmax(0,1fr)]"
        }`}
      >
        <h1 className="sr-only px-2 text-2xl print:not-sr-only">
          {event.brief.name}: {piece.name} × {piece.quantity}
        </h1>
        <SheetViews
          stock={stock.data}
          view={view}
          onView={setView}
          above={narrow && sayIt}
          desk={desk}
          event={event}
          pieceId={Number(params.pieceId)}
          piece={piece}
          report={report}
          problem={problem}
        />
        {!narrow && (
          <aside className="col-start-2 row-span-full row-start-1 min-h-0 overflow-y-auto border-l border-line max-lg:col-start-1 max-lg:row-span-1 max-lg:row-start-2 max-lg:border-l-0 print:overflow-visible print:border-0">
            {verdicts}
          </aside>
        )}
        {(narrow || view === "drawing") && (
          <Tray
            verdicts={verdicts}
            edge={<TrayEdge height={tray} onPull={pull} />}
            desk={desk}
            event={event}
            piece={desk.own ?? piece}
            report={report}
            stock={stock.data}
            problem={problem}
          />
        )}
      </main>
      <p className="print-only px-2 text-sm">
        Planning figures. Cut netting: gloves, eye protection, ends tucked in. Local rules and your own trial
        decide.
      </p>
    </div>
  );
}
