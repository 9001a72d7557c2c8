import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { EventChange, EventOut, EventStanding, PartOut, Problem, Verdict } from "../../api/types";
import { isPiece, isRig, piecesOf, placeOf, rigsOf } from "../../desk/change";
import { SettingOut } from "../../desk/SettingOut";
import { useEvent } from "../../desk/useEvent";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { ConflictStrip } from "../../ui/ConflictStrip";
import { EventNav } from "../../ui/EventNav";
import { PrintTitle } from "../../ui/PrintTitle";
import { SEVERITY, STATE_COLOUR, StateMark } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { TopBar } from "../../ui/TopBar";
import { useFirstFocus } from "../../ui/useFirstFocus";
import { useTitle } from "../../ui/useTitle";
import { useStarts } from "../../ui/useTrade";
import { useWrites } from "../../ui/useWrites";
import { render, textOf } from "../../units/text";
import { BeamLine } from "./BeamLine";
import { Beginning } from "./Beginning";
import { EventFiles } from "./EventFiles";
import { HeadlineStrip } from "./HeadlineStrip";
import { NewRig, RigList } from "./HungWork";
import { NewerFigures } from "./NewerFigures";
import { SayParts } from "./SayParts";
import { TableLine } from "./TableLine";
import { TheBrief } from "./TheBrief";

/** The line-up: the pieces of an event at one scale, and what to settle next, worst first. */
export function EventScreen() {
  const eventId = Number(useParams().eventId);
  const { system } = useSettings();
  const { event: now, error, fetching, current, lay, reload } = useEvent(eventId);
  useTitle(now?.brief.name);
  const standing = useQuery({
    queryKey: ["standing", eventId],
    queryFn: () => api.standing(eventId),
    enabled: now !== null,
  });
  const { send, problem, setProblem, conflict, forget } = useWrites();
  const attempt = (does: (revision: number) => Promise<EventChange>, words: string) =>
    send(
      async (again) => lay(await does(again?.revision ?? (await current())?.revision ?? 0), again),
      "once",
      words,
    );
  /** Another one like it, under a name that nothing has yet. */
  const copy = (part: PartOut["part"]) => {
    const names = new Set(now?.parts.map((each) => each.part.name));
    let name = `${part.name}, copy`;
    for (let nth = 2; names.has(name); nth += 1) name = `${part.name}, copy ${nth}`;
    const made = { ...part, name: name.length > 120 ? part.name : name };
    return attempt((revision) => api.addPart(eventId, revision, made), "Copy it all the same");
  };
  const takeOther = async () => {
    forget();
    await reload();
  };
  if (!now) {
    const reason = error instanceof Refused ? error.problem : null;
    return <SettingOut eventId={eventId} words="Setting out the line-up…" problem={reason} />;
  }
  return (
    <div className="flex h-full flex-col">
      <TopBar
        undo={now.undo}
        redo={now.redo}
        onUndo={() => void attempt((revision) => api.undo(eventId, revision), "Undo all the same")}
        onRedo={() => void attempt((revision) => api.redo(eventId, revision), "Redo all the same")}
      >
        <Link
          to="/?all"
          className="flex min-h-11 items-center text-soft underline decoration-line underline-offset-4"
        >
          Events
        </Link>
        <span className="text-line" aria-hidden="true">
          /
        </span>
        <h1 className="m-0 min-w-0 text-xl leading-tight [overflow-wrap:anywhere]">{now.brief.name}</h1>
        <span className="truncate text-soft max-xl:hidden" title={now.brief.place}>
          {now.brief.place}
        </span>
        {fetching && (
          <span role="status" className="flex-none text-sm text-soft max-md:hidden">
            reckoning…
          </span>
        )}
        <Link to="/stores" className="ml-auto flex min-h-11 flex-none items-center">
          The stores
        </Link>
      </TopBar>
      <PrintTitle>{[now.brief.name, now.brief.place].filter(Boolean).join(", ")}</PrintTitle>
      <EventNav eventId={eventId} />
      {conflict && <ConflictStrip conflict={conflict} onTakeTheirs={() => void takeOther()} />}
      {problem && (
        <p role="alert" className="m-0 flex-none border-b border-berry bg-sheet px-4 py-2 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
      <main className="min-h-0 flex-1 overflow-y-auto print:overflow-visible">
        {!now.newest_figures && (
          <NewerFigures
            event={now}
            onTake={() =>
              void attempt(
                (revision) => api.takeNewerFigures(eventId, revision),
                "Take the newer figures all the same",
              )
            }
          />
        )}
        {standing.data && standing.data.headline.pieces > 0 && (
          <HeadlineStrip headline={standing.data.headline} />
        )}
        <div className="grid grid-cols-[minmax(0,1fr)_360px] max-lg:grid-cols-1 print:block">
          <div className="min-w-0">
            {rigsOf(now).length > 0 && <BeamLine event={now} />}
            <TableLine event={now} />
          </div>
          <section
            aria-label="To settle next"
            className="relative border-l border-line max-lg:border-t max-lg:border-l-0 print:border-0"
          >
            <div className="p-3 lg:absolute lg:inset-0 lg:overflow-y-auto print:static">
              <div className="flex items-baseline justify-between gap-3">
                <h2 className="m-0 text-xl">To settle next</h2>
                <a href="#brief" className="no-print flex min-h-11 items-center text-md">
                  The brief
                </a>
              </div>
              <SettleList event={now} settle={standing.data?.to_settle ?? null} />
            </div>
          </section>
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)] gap-6 p-4 max-lg:grid-cols-1">
          <section>
            <h2 className="m-0 text-xl">Pieces</h2>
            <SayParts event={now} onAdd={(does) => attempt(does, "Add it all the same")} />
            <PieceList
              event={now}
              onCopy={(part) => void copy(part)}
              onRemove={(id) =>
                void attempt((revision) => api.removePart(eventId, id, revision), "Remove it all the same")
              }
            />
            <NewPiece event={now} onProblem={setProblem} />
            <h2 className="mt-5 mb-0 flex items-baseline gap-4 text-xl">
              Hung and mounted work
              <Link
                to={`/events/${eventId}/survey`}
                className="no-print inline-flex min-h-11 items-center text-md font-normal"
              >
                Survey of the place
              </Link>
            </h2>
            <RigList
              event={now}
              onCopy={(part) => void copy(part)}
              onRemove={(id) =>
                void attempt((revision) => api.removePart(eventId, id, revision), "Remove it all the same")
              }
            />
            <NewRig event={now} onProblem={setProblem} />
          </section>
          <section className="no-print">
            <h2 id="brief" className="m-0 mb-1 text-xl">
              The brief
            </h2>
            <TheBrief event={now} asks={standing.data?.asks ?? []} />
            <EventFiles eventId={eventId} />
          </section>
        </div>
      </main>
    </div>
  );
}

/** Something of the line-up that is judged: its name, where it is worked on, whether it hangs, one of its verdicts. */
type Open = {
  readonly name: string;
  readonly to: string;
  readonly hangs: boolean;
  readonly verdict: Verdict;
};

/** Verdicts that fail or are tight, worst first; "cannot say" for want of a fact comes after what fails. */
function openVerdicts(event: EventOut): Open[] {
  return event.parts
    .flatMap((each) =>
      verdictsOf(each).map((verdict) => ({
        name: each.part.name,
        to: placeOf(each),
        hangs: isRig(each),
        verdict,
      })),
    )
    .filter(({ verdict }) => verdict.state !== "holds" && verdict.state !== "not needed")
    .toSorted((a, b) => weigh(b) - weigh(a));
}

function verdictsOf(each: PartOut): readonly Verdict[] {
  if (isPiece(each)) return each.report?.verdicts ?? [];
  return each.report ? [each.report.verdict] : [];
}

/** What is not cleared to hang over people comes before all that stands. */
function weigh({ hangs, verdict }: Open): number {
  const over = hangs && verdict.state !== "tight" ? 1000 : 0;
  return over + SEVERITY[verdict.state] * 100 + (verdict.governing?.utilisation ?? 0);
}

function OpenRow({ event, open }: { event: EventOut; open: Open }) {
  const { system } = useSettings();
  const { name, to, verdict } = open;
  return (
    <li>
      <Link
        to={`/events/${event.id}/${to}`}
        className="grid grid-cols-[20px_minmax(0,1fr)] gap-2 py-1.5 text-ink no-underline hover:underline"
      >
        <StateMark state={verdict.state} />
        <span className="leading-snug">
          <strong>
            {name}:{" "}
            <span className="capitalize">
              <Term word={verdict.verb} />
            </span>{" "}
            <span className={STATE_COLOUR[verdict.state]}>
              <Term word={verdict.state} />.
            </span>
          </strong>{" "}
          {render(verdict.reason, system)}
        </span>
      </Link>
    </li>
  );
}

function SettleList({ event, settle }: { event: EventOut; settle: EventStanding["to_settle"] | null }) {
  const { system } = useSettings();
  const open = openVerdicts(event);
  const broken = event.parts.filter((each) => each.problem);
  if (event.parts.length === 0) return <p className="mt-1 text-soft">Add a piece first.</p>;
  if (open.length === 0 && broken.length === 0 && settle?.length === 0) {
    return <p className="mt-1 text-soft">Every piece holds.</p>;
  }
  const first = open.filter(({ verdict }) => verdict.state !== "tight").slice(0, 8);
  const then = open.filter(({ verdict }) => verdict.state === "tight").slice(0, 8 - first.length);
  return (
    <ul className="mt-1 mb-0 list-none space-y-1 p-0">
      {broken.map((each) => (
        <li key={each.id}>
          <Link to={`/events/${event.id}/${placeOf(each)}`} className="block py-1.5 text-berry">
            {each.part.name}: {each.problem && render(each.problem.message, system)}
          </Link>
        </li>
      ))}
      {first.map((each) => (
        <OpenRow key={`${each.to}-${each.verdict.verb}`} event={event} open={each} />
      ))}
      {settle?.map((each) => (
        <li key={render(each.say, system)}>
          <Link
            to={each.screen === "brief" ? "#brief" : `/events/${event.id}/${each.screen}`}
            onClick={() => each.screen === "brief" && document.getElementById("brief")?.scrollIntoView()}
            className="grid grid-cols-[20px_minmax(0,1fr)] gap-2 py-1.5 text-ink no-underline hover:underline"
          >
            <StateMark state={["day", "roll", "lists"].includes(each.screen) ? "fails" : "cannot say"} />
            <span className="leading-snug">
              <strong className="capitalize">{each.screen}:</strong> {render(each.say, system)}
            </span>
          </Link>
        </li>
      ))}
      {then.map((each) => (
        <OpenRow key={`${each.to}-${each.verdict.verb}`} event={event} open={each} />
      ))}
    </ul>
  );
}

type ListProps = {
  event: EventOut;
  onCopy: (part: PartOut["part"]) => void;
  onRemove: (id: number) => void;
};

function PieceList({ event, onCopy, onRemove }: ListProps) {
  const { system } = useSettings();
  return (
    <ul className="mt-1 mb-3 list-none divide-y divide-line p-0">
      {piecesOf(event).map(({ id, part: piece, report }) => (
        <li key={id} className="flex flex-wrap items-center gap-x-2">
          <Link
            to={`/events/${event.id}/pieces/${id}`}
            className="flex min-h-12 min-w-45 flex-1 items-center gap-2"
          >
            <span className="serif text-lg">{piece.name}</span> × {piece.quantity}
          </Link>
          <span className="ml-auto text-soft">
            {report?.balance
              ? textOf({ kind: "mass", value: report.balance.mass_kg }, system)
              : "weight not known"}
          </span>
          <Button
            look="quiet"
            className="no-print"
            onClick={() => onCopy(piece)}
            aria-label={`Copy ${piece.name}`}
          >
            Copy
          </Button>
          <Button
            look="quiet"
            className="no-print"
            onClick={() => onRemove(id)}
            aria-label={`Remove ${piece.name}`}
          >
            Remove
          </Button>
        </li>
      ))}
    </ul>
  );
}

function NewPiece({ event, onProblem }: { event: EventOut; onProblem: (problem: Problem) => void }) {
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  const starts = useStarts("standing or carried");
  const [key, setKey] = useState("");
  const [start, setStart] = useState("vessel");
  const [stems, setStems] = useState(true);
  const go = useNavigate();
  const begins = useFirstFocus<HTMLButtonElement>(event.parts.length === 0 && stock.data !== undefined);
  if (!stock.data) return null;
  const chosen = starts.find((each) => each.key === start);
  const inVessel = chosen?.asks !== "a vase";
  const usual = chosen?.vessel ? stock.data.vessels[chosen.vessel]?.name : undefined;
  const options = [
    ["", usual ? `its usual one: ${usual}` : inVessel ? "a vessel I measure now" : "a narrow vase"],
    ...Object.entries(stock.data.vessels)
      .filter(([each]) => !stock.data.holdings.vessel?.[each]?.retired)
      .map(([each, vessel]) => [each, vessel.name]),
  ] as [string, string][];
  const add = async () => {
    try {
      const { added } = await api.beginPart(event.id, event.revision, start, key || null, stems);
      void go(`/events/${event.id}/pieces/${added}`, { state: { measure: chosen?.measure } });
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      onProblem(reason.problem);
    }
  };
  return (
    <div className="no-print">
      <div className="flex items-end gap-2">
        <Choice
          label="New piece"
          value={start}
          options={starts.map((each) => [each.key, each.name] as const)}
          onCommit={setStart}
          className="min-w-0 flex-1"
        />
        <Choice
          label={inVessel ? "In" : "Waits in"}
          value={key}
          options={options}
          onCommit={setKey}
          className="min-w-0 flex-1"
        />
        <Button ref={begins} look="solid" onClick={() => void add()}>
          Add the piece
        </Button>
      </div>
      {chosen && <Beginning start={chosen} stems={stems} onStems={setStems} />}
    </div>
  );
}
