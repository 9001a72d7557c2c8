import { useQuery } from "@tanstack/react-query";
import { type CSSProperties, useCallback, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { Edit, Rig } from "../../api/types";
import { Editing } from "../../desk/Editing";
import { SettingOut } from "../../desk/SettingOut";
import { Announced } from "../../ui/Announced";
import { Button } from "../../ui/Button";
import { CardLinks } from "../../ui/CardLinks";
import { ConflictStrip } from "../../ui/ConflictStrip";
import { MeasureFirst } from "../../ui/MeasureFirst";
import { SavedMark } from "../../ui/SavedMark";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { TopBar } from "../../ui/TopBar";
import { TrayEdge, useTrayHeight } from "../../ui/TrayEdge";
import { useNarrow } from "../../ui/useNarrow";
import { useTitle } from "../../ui/useTitle";
import { render } from "../../units/text";
import { HangPanel } from "./HangPanel";
import { RigDrawing } from "./RigDrawing";
import { RigTray } from "./RigTray";
import { SnipStory } from "./SnipStory";
import type { Chosen, Snipped, Tool } from "./types";
import { useRigDesk } from "./useRigDesk";

/** The rig: one hung piece from the front and from above, settling while the hand moves; its lines can be snipped. */
export function RigScreen() {
  const params = useParams();
  const eventId = Number(params.eventId);
  const rigId = Number(params.rigId);
  const desk = useRigDesk(eventId, rigId);
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  const { system } = useSettings();
  const [chosen, setChosen] = useState<Chosen>("");
  const [snipped, setSnipped] = useState<Snipped | null>(null);
  const [tool, setTool] = useState<Tool>("hand");
  const survey = useQuery({ queryKey: ["survey", eventId], queryFn: () => api.survey(eventId) });
  const { event, rig, problem } = desk;
  const [tray, pull] = useTrayHeight();
  const narrow = useNarrow();
  useTitle(rig?.name, event?.brief.name);

  const snip = useCallback(
    async (cut: number) => {
      if (!rig) return;
      try {
        setSnipped({ cut, steps: await api.snip(eventId, rigId, rig, cut), at: 0 });
      } catch (reason) {
        if (!(reason instanceof Refused)) throw reason;
        setSnipped(null);
      }
    },
    [eventId, rigId, rig],
  );
  useEffect(() => {
    const onKey = (key: KeyboardEvent) => {
      if (key.target instanceof HTMLInputElement || key.target instanceof HTMLSelectElement) return;
      if (key.key === "Escape") setSnipped(null);
      if (key.key.toLowerCase() === "s" && !key.ctrlKey && !key.metaKey && chosen.startsWith("line-")) {
        void snip(Number(chosen.slice(5)));
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [chosen, snip]);

  if (!event || !stock.data) {
    return <SettingOut eventId={eventId} words="Putting up the rig…" problem={problem} />;
  }
  const bar = { undo: event.undo, redo: event.redo, onUndo: desk.undo, onRedo: desk.redo };
  if (!rig) {
    return (
      <>
        <TopBar {...bar} />
        <p className="p-6">
          This hung piece is not in the plan any more. Undo brings it back, or go to{" "}
          <Link to={`/events/${eventId}`}>the line-up</Link>.
        </p>
      </>
    );
  }
  const commit = (next: Rig, label: string) => {
    setSnipped(null);
    void desk.commit(next, label);
  };
  const edit = (what: Edit) => {
    setSnipped(null);
    void desk.edit(what);
  };
  const verdicts = (
    <>
      {snipped && (
        <SnipStory
          rig={rig}
          snipped={snipped}
          onShow={(at) => setSnipped({ ...snipped, at })}
          onBack={() => setSnipped(null)}
        />
      )}
      {desk.report ? (
        <HangPanel
          eventId={eventId}
          partId={rigId}
          rig={rig}
          report={desk.report}
          trying={desk.trying}
          chosen={chosen}
          onChoose={setChosen}
          onSnip={(cut) => void snip(cut)}
          onCommit={commit}
        />
      ) : (
        <div className="p-4">
          <p className="mt-0">Nothing can be worked out yet: it goes on as said above.</p>
          <ol className="m-0 pl-6 leading-relaxed">
            <li>Draw or type its path under Path.</li>
            <li>Hang or tie every place, and move each point to where it is.</li>
            <li>Put its flowers in.</li>
            <li>Say who rates each hang point.</li>
          </ol>
        </div>
      )}
    </>
  );
  return (
    <div className="flex h-full flex-col print:block print:h-auto">
      <Announced states={desk.report ? [["hang", desk.report.verdict.state]] : []} />
      <TopBar {...bar}>
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
          label="Name of the hung piece"
          hideLabel
          value={rig.name}
          path="name"
          problem={problem}
          onCommit={(name) => commit({ ...rig, name }, "Rename the hung piece")}
          className="min-w-30 shrink max-md:max-w-full"
          inputClass="serif border-transparent bg-transparent text-lg [field-sizing:content] hover:border-line"
        />
        <a
          className="link-action no-print ml-auto text-sm"
          href={`/api/events/${eventId}/parts/${rigId}/patterns.svg`}
          target="_blank"
          rel="noreferrer"
        >
          Pattern
        </a>
        <CardLinks what="Rig card" eventId={eventId} partId={rigId} />
        <SavedMark saving={desk.saving} />
      </TopBar>
      <MeasureFirst />
      {desk.conflict && <ConflictStrip conflict={desk.conflict} onTakeTheirs={desk.takeTheirs} />}
      {problem && (
        <p role="alert" className="m-0 flex-none border-b border-berry bg-sheet px-4 py-2 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
      <main
        style={{ "--tray": `${tray}px` } as CSSProperties}
        className="group/desk grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_392px] grid-rows-[minmax(0,1fr)_var(--tray)] max-lg:grid-cols-1 max-lg:grid-rows-[460px_auto_auto] max-lg:overflow-auto max-md:flex max-md:flex-col max-md:overflow-hidden print:block"
      >
        <h1 className="sr-only px-2 text-2xl print:not-sr-only">
          {event.brief.name}: {rig.name}
        </h1>
        <section
          className="relative flex min-h-0 flex-col bg-sheet max-md:flex-1 print:h-105"
          aria-label="Rig drawing"
        >
          <RigDrawing
            desk={desk}
            rig={rig}
            snipped={snipped}
            chosen={chosen}
            onChoose={setChosen}
            tool={tool}
            onTool={setTool}
          />
          {chosen.startsWith("line-") && !snipped && (
            <Button
              look="solid"
              className="no-print absolute bottom-3 left-3 z-20"
              onClick={() => void snip(Number(chosen.slice(5)))}
            >
              Snip this line <kbd className="ml-1 rounded border border-current px-1 text-xs">S</kbd>
            </Button>
          )}
        </section>
        {!narrow && (
          <aside className="col-start-2 row-span-full row-start-1 min-h-0 overflow-y-auto border-l border-line max-lg:col-start-1 max-lg:row-span-1 max-lg:row-start-2 max-lg:border-l-0 print:overflow-visible print:border-0">
            {verdicts}
          </aside>
        )}
        <Editing edit={edit} see={desk.see} unsee={desk.unsee}>
          <RigTray
            verdicts={verdicts}
            edge={<TrayEdge height={tray} onPull={pull} />}
            eventId={eventId}
            survey={survey.data ?? null}
            tool={tool}
            onTool={setTool}
            rig={desk.own ?? rig}
            report={desk.report}
            stock={stock.data}
            problem={problem}
            chosen={chosen}
            onChoose={setChosen}
            onCommit={commit}
            onEdit={edit}
          />
        </Editing>
      </main>
      <p className="print-only px-2 text-sm">
        Planning figures. The building's owner and a competent rigger decide what may hang; local rules come
        first.
      </p>
    </div>
  );
}
