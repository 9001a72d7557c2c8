import { useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { Problem, Survey, SurveyBeam, SurveyOut, SurveyPoint } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { ConflictStrip } from "../../ui/ConflictStrip";
import { PrintTitle } from "../../ui/PrintTitle";
import { QuantityField } from "../../ui/QuantityField";
import { SavedMark } from "../../ui/SavedMark";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { TopBar } from "../../ui/TopBar";
import { useTitle } from "../../ui/useTitle";
import { useHangPoints, useUsual } from "../../ui/useTrade";
import { asksWhose, unreached } from "../../ui/useWriteLine";
import { useWrites } from "../../ui/useWrites";
import { render } from "../../units/text";
import { worded } from "../../units/worded";
import { AXES } from "../rig/kinds";
import { Beams } from "./Beams";

const BARE: Survey = {
  points: [],
  beams: [],
  room_width_m: null,
  room_depth_m: null,
  room_height_m: null,
};
const ROOM = [
  ["Room, wide", "room_width_m"],
  ["Room, deep", "room_depth_m"],
  ["Ceiling, over the floor", "room_height_m"],
] as const;

/** The survey of a place: its hang points and fixings, what each may carry and who says so; for every event there. */
export function SurveyScreen() {
  const eventId = Number(useParams().eventId);
  const client = useQueryClient();
  const { system } = useSettings();
  const event = useQuery({ queryKey: ["event", eventId], queryFn: () => api.event(eventId) });
  const asked = useQuery({ queryKey: ["survey", eventId], queryFn: () => api.survey(eventId) });
  const { send, saving, problem, conflict, forget } = useWrites();
  /** The survey as it was set and is not saved yet: it stays on the screen. */
  const [pending, setPending] = useState<Survey | null>(null);
  const newest = useRef<Survey>(BARE);
  /** What this window began from: what it sends is told from that. */
  const began = useRef<Survey>(BARE);
  const now = asked.data;
  const usual = useUsual();
  useTitle("Survey of the place", event.data?.brief.name);
  if (!now) {
    return (
      <>
        <TopBar />
        <p className="p-6" role="status">
          {asked.error instanceof Refused
            ? `${render(asked.error.problem.message, system)} ${render(asked.error.problem.limit, system)}`
            : "Fetching the survey…"}
        </p>
      </>
    );
  }
  const keep = async (next: SurveyOut) => {
    client.setQueryData(["survey", eventId], next);
    await client.invalidateQueries({ queryKey: ["event", eventId] });
  };
  const revision = () => client.getQueryData<SurveyOut>(["survey", eventId])?.revision ?? now.revision;
  if (!pending) {
    newest.current = now.survey;
    began.current = now.survey;
  }
  /** One write at a time, each of the whole survey; what hangs there is judged anew. */
  const put = (change: (points: readonly SurveyPoint[]) => readonly SurveyPoint[]) =>
    write((all) => ({ ...all, points: [...change(all.points)] }));
  const write = (change: (survey: Survey) => Survey) => {
    const next = change(newest.current);
    newest.current = next;
    setPending(next);
    void send(async (again, last) => {
      const rests = { was: began.current, chosen: again?.chosen ?? null };
      try {
        const kept = await api.putSurvey(eventId, revision(), next, rests);
        await keep(kept);
        newest.current = withKeys(newest.current, kept.survey);
        began.current = withKeys(next, kept.survey);
      } catch (reason) {
        // what was typed stays where both changed it, until somebody has chosen
        if (!unreached(reason) && !asksWhose(reason)) setPending(null);
        throw reason;
      }
      if (last()) setPending(null);
    }, "whole");
  };
  const putBack = () =>
    void send(async (again) => keep(await api.putSurveyBack(eventId, again?.revision ?? revision())));
  const takeOther = async () => {
    setPending(null);
    forget();
    await client.invalidateQueries({ queryKey: ["survey", eventId] });
  };
  const shown = pending ?? now.survey;
  const { points, beams } = shown;
  const unasked = now.open.filter((each) => each.length > 0).length;
  const undo = now.can_put_back ? "The last change of the survey" : null;
  return (
    <div className="flex h-full flex-col">
      <TopBar undo={undo} redo={null} onUndo={putBack}>
        <Link
          to={`/events/${eventId}`}
          className="flex min-h-11 items-center text-soft underline decoration-line underline-offset-4"
        >
          {event.data?.brief.name ?? "The line-up"}
        </Link>
        <span className="text-line" aria-hidden="true">
          /
        </span>
        <h1 className="m-0 min-w-0 text-xl leading-tight">Survey of {now.place || "the place"}</h1>
        <span className="ml-auto" />
        <SavedMark saving={conflict && pending ? "asked" : saving} />
      </TopBar>
      <PrintTitle>{`${event.data?.brief.name ?? "The event"}: survey of ${now.place || "the place"}`}</PrintTitle>
      {conflict && (
        <ConflictStrip what="the survey" conflict={conflict} onTakeTheirs={() => void takeOther()} />
      )}
      {problem && (
        <p role="alert" className="m-0 flex-none border-b border-berry bg-sheet px-4 py-2 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
      <main className="min-h-0 flex-1 overflow-y-auto p-4 print:overflow-visible">
        {!now.place && (
          <p className="mt-0">
            A survey is kept with its place. Name the place in{" "}
            <Link to={`/events/${eventId}`}>the brief</Link> first.
          </p>
        )}
        <p className="mt-0 mb-3 max-w-4xl text-soft">
          Kept with the place, for every piece and every event there. Ask the owner or a competent person for
          the working load of each point. Whatever hangs on a point with a question open is not cleared.
        </p>
        {points.length === 0 && now.place && (
          <p className="mt-0">No point yet. Add the first, and ask what it may carry.</p>
        )}
        {points.length > 0 && (
          <p className="mt-0 mb-2" role="status">
            {unasked === 0
              ? "Every question is answered."
              : worded("{n} of {all} {all|point|points} {n|has|have} a question open.", {
                  n: unasked,
                  all: points.length,
                })}
          </p>
        )}
        <ul className="m-0 list-none space-y-2 p-0">
          {points.map((point, index) => (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
              key={index}
              data-path={`points.${point.key}`}
              className="border-b border-line pb-2"
            >
              <Row
                point={point}
                index={index}
                open={now.open[index] ?? []}
                beams={beams}
                problem={problem}
                onCommit={(next) =>
                  put((all) => all.map((each, at) => (at === index ? { ...each, ...next } : each)))
                }
                onRemove={() => put((all) => all.filter((_, at) => at !== index))}
              />
            </li>
          ))}
        </ul>
        <Button
          className="no-print mt-3"
          look="solid"
          disabled={!now.place || !usual}
          onClick={() => usual && put((all) => [...all, fresh(all, usual.surveyed)])}
        >
          Add a point
        </Button>
        <div className="mt-5 flex flex-wrap gap-3">
          {ROOM.map(([label, key]) => (
            <QuantityField
              key={key}
              label={label}
              kind="length"
              optional
              placeholder="not measured"
              value={shown[key]}
              path={key}
              problem={problem}
              onCommit={(value) => write((all) => ({ ...all, [key]: value }))}
              className="w-44"
            />
          ))}
        </div>
        <Beams
          beams={beams}
          disabled={!now.place}
          problem={problem}
          onCommit={(next) => write((all) => ({ ...all, beams: next }))}
        />
      </main>
    </div>
  );
}

/** A survey whose new points and beams have the keys they were given when they were kept. */
function withKeys(survey: Survey, kept: Survey): Survey {
  const keyed = <T extends { readonly key: string; readonly name: string }>(
    rows: readonly T[],
    of: readonly T[],
  ) =>
    rows.map((row) => (row.key ? row : { ...row, key: of.find(({ name }) => name === row.name)?.key ?? "" }));
  return { ...survey, points: keyed(survey.points, kept.points), beams: keyed(survey.beams, kept.beams) };
}

/** The first point as is usual, each one after it as far to the right of the last. */
function fresh(all: readonly SurveyPoint[], usual: SurveyPoint): SurveyPoint {
  const last = all.at(-1);
  const taken = new Set(all.map((each) => each.name));
  let number = all.length + 1;
  while (taken.has(`point ${number}`)) number += 1;
  const { kind, y_m, z_m, stated_by, stated_on, beam } = last ?? usual;
  const x_m = (last?.x_m ?? 0) + (last ? usual.x_m : 0);
  return { ...usual, key: "", name: `point ${number}`, kind, x_m, y_m, z_m, stated_by, stated_on, beam };
}

type RowProps = {
  point: SurveyPoint;
  index: number;
  open: readonly string[];
  beams: readonly SurveyBeam[];
  problem: Problem | null;
  onCommit: (next: Partial<SurveyPoint>) => void;
  onRemove: () => void;
};

function Row({ point, index, open, beams, problem, onCommit, onRemove }: RowProps) {
  const bare = index > 0;
  const kinds = useHangPoints();
  const about = kinds.about(point.kind);
  const words = (
    label: string,
    key: "name" | "stated_by" | "stated_on" | "made_for" | "note",
    placeholder: string,
  ) => (
    <TextField
      label={label}
      hideLabel={bare && "row"}
      placeholder={placeholder}
      value={point[key] ?? ""}
      path={`points.${index}.${key}`}
      problem={problem}
      onCommit={(text) => onCommit({ [key]: key === "name" || key === "note" ? text : text.trim() || null })}
    />
  );
  const rating = (label: string, key: "rating_n" | "pull_out_n") => (
    <QuantityField
      label={label}
      hideLabel={bare && key === "rating_n" && "row"}
      kind="force"
      optional
      placeholder="ask"
      value={point[key]}
      path={`points.${index}.${key}`}
      problem={problem}
      onCommit={(value) => onCommit({ [key]: value })}
    />
  );
  return (
    <>
      <div className="grid grid-cols-[1.2fr_1.2fr_0.8fr_0.8fr_0.8fr_0.9fr_1.6fr_1fr_1.6fr_44px] items-end gap-1.5 max-lg:grid-cols-2 max-lg:border-t max-lg:border-line max-lg:py-2 print:grid-cols-5">
        {words("Name", "name", "")}
        <Choice
          label="Kind"
          hideLabel={bare && "row"}
          value={point.kind}
          options={kinds.options}
          onCommit={(kind) => onCommit({ kind })}
        />
        {AXES.map(([axis, label]) => (
          <QuantityField
            key={axis}
            label={label}
            hideLabel={bare && "row"}
            kind="length"
            value={point[axis]}
            path={`points.${index}.${axis}`}
            problem={problem}
            onCommit={(value) => value !== null && onCommit({ [axis]: value })}
          />
        ))}
        {rating("May carry", "rating_n")}
        {words("Stated by", "stated_by", "ask who")}
        {words("On", "stated_on", "date")}
        {words("Note", "note", "")}
        <Button look="quiet" className="no-print" title={`Remove ${point.name}`} onClick={onRemove}>
          <X size={16} aria-hidden="true" />
          <span className="sr-only">Remove {point.name}</span>
        </Button>
      </div>
      <div className="mt-1 flex flex-wrap items-end gap-3 pl-4">
        {(beams.length > 0 || point.beam !== null) && (
          <Choice
            label={`${point.name}: is on`}
            value={point.beam ?? ""}
            options={[
              ["", "no beam named"],
              ...beams.filter(({ key }) => key).map((each) => [each.key, each.name] as const),
              ...(point.beam && !beams.some(({ key }) => key === point.beam)
                ? [[point.beam, `${point.beam}, gone`] as const]
                : []),
            ]}
            onCommit={(beam) => onCommit({ beam: beam || null })}
          />
        )}
        {about?.in_wall && rating(`${point.name}: straight out of the wall`, "pull_out_n")}
        {about?.part && words(`${point.name}: made for`, "made_for", "such as a sliding door of 60 kg")}
        {point.rating_n !== null && (
          <QuantityField
            label={`${point.name}: rated for pulls off plumb up to`}
            kind="angle"
            optional
            placeholder="straight down only"
            value={point.rated_within_rad}
            path={`points.${index}.rated_within_rad`}
            problem={problem}
            onCommit={(value) => onCommit({ rated_within_rad: value })}
          />
        )}
      </div>
      <p className="m-0 mt-0.5 text-sm">
        {open.length > 0 ? (
          <span className="text-berry">△ still to ask: {open.join("; ")}</span>
        ) : point.rating_n === null ? (
          <span className="text-berry">✕ nothing hangs from this</span>
        ) : (
          <span className="text-leaf">✓ answered</span>
        )}
      </p>
    </>
  );
}
