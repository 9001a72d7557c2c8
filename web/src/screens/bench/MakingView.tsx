import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useEffect, useState } from "react";
import { api, Refused } from "../../api/client";
import { besideOf, isCarried } from "../../api/kinds";
import type { EventOut, MakingReport, MakingStep, Piece, Report, StemRef } from "../../api/types";
import { Button } from "../../ui/Button";
import { STATE_COLOUR, StateMark } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { TabBar } from "../../ui/TabBar";
import { render } from "../../units/text";
import { MakingDrawing } from "./MakingDrawing";
import { MakingSteps } from "./MakingSteps";
import { MarginCurve } from "./MarginCurve";
import { PullList } from "./PullList";
import { ReadOuts } from "./ReadOuts";
import type { PieceDesk } from "./usePieceDesk";

type Props = { desk: PieceDesk; event: EventOut; piece: Piece; report: Report | null };

const STEP_MS = 520;

/** The piece being made, stem by stem: where it balances, what it needs, and in which order it goes up. */
export function MakingView({ desk, event, piece, report }: Props) {
  const { system } = useSettings();
  const asked = useQuery({
    queryKey: ["making", event.id, event.brief, piece],
    queryFn: ({ signal }) => api.making(event.id, piece, false, signal),
    placeholderData: keepPreviousData,
  });
  const failing = asked.data?.fails_at != null && !asked.isPlaceholderData;
  const mended = useQuery({
    queryKey: ["making-fixes", event.id, event.brief, piece],
    queryFn: ({ signal }) => api.making(event.id, piece, true, signal),
    enabled: failing,
  });
  const making = asked.data && { ...asked.data, fixes: mended.data?.fixes ?? [] };
  const [at, setAt] = useState<number | null>(null);
  const [playing, setPlaying] = useState(false);
  const last = making?.steps.length ?? 0;
  const step = Math.min(at ?? making?.falls_at ?? making?.fails_at ?? last, last);
  useEffect(() => {
    if (!playing) return;
    if (step >= last) {
      setPlaying(false);
      return;
    }
    const timer = window.setTimeout(() => setAt(step + 1), STEP_MS);
    return () => window.clearTimeout(timer);
  }, [playing, step, last]);

  if (!making || !report) {
    const refused = asked.error instanceof Refused ? asked.error.problem : null;
    return (
      <p className="p-4" role={refused ? "alert" : "status"}>
        {refused
          ? `${render(refused.message, system)} ${render(refused.limit, system)}`
          : "Working out the making order…"}
      </p>
    );
  }
  const put = (making_: Partial<Piece["making"]>, label: string) =>
    void desk.commit({ ...piece, making: { ...piece.making, ...making_ } }, label);
  const move = (from: number, to: number) => {
    // The list still shows the order before the last move: moving in it would undo that one.
    if (asked.isPlaceholderData) return;
    const refs = making.steps.map((each) => each.ref);
    const [taken] = refs.splice(from, 1);
    if (!taken) return;
    refs.splice(to, 0, taken);
    setAt(to + 1);
    put({ order: refs as StemRef[] }, `Move ${nameOf(making.steps[from])} in the making order`);
  };
  const pass = (key: string, passed: boolean) =>
    put(
      {
        gates_passed: passed
          ? [...piece.making.gates_passed, key]
          : piece.making.gates_passed.filter((each) => each !== key),
      },
      "Tick a gate",
    );
  return (
    <div className="flex h-full min-h-0 flex-col">
      {last > 0 && (
        <Status
          making={making}
          busy={desk.saving !== "saved" || asked.isFetching}
          seeking={failing && mended.isFetching}
          onFix={(fix) => {
            setAt(null);
            void desk.commit(fix.piece as Piece, render(fix.say, "metric").slice(0, 80));
          }}
          onUsual={() => put({ order: [] }, "Take the usual making order")}
        />
      )}
      {last === 0 ? (
        <p className="m-0 p-4 text-lg">{render(making.say, system)}</p>
      ) : (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] grid-rows-[minmax(0,1fr)] max-lg:grid-cols-1 max-lg:grid-rows-[max-content_max-content]">
          <div className="flex min-h-0 flex-col border-r border-line max-lg:min-h-110">
            <MakingDrawing piece={piece} report={report} making={making} step={step} />
            <MarginCurve
              making={making}
              step={step}
              playing={playing}
              onStep={(next) => {
                setPlaying(false);
                setAt(next);
              }}
              onPlay={() => {
                if (!playing && step >= last) setAt(0);
                setPlaying(!playing);
              }}
            />
          </div>
          <Tabs.Root defaultValue="order" className="flex min-h-0 flex-col">
            <div className="flex flex-none items-center border-b border-line">
              <TabBar
                label="Making lists"
                tabs={[
                  ["order", "Order"],
                  ["pull", "Pull list"],
                  ["balance", "Balance"],
                ]}
              />
            </div>
            <Tabs.Content value="order" className="relative min-h-0 flex-1 overflow-y-auto">
              <MakingSteps
                making={making}
                passed={piece.making.gates_passed}
                beside={besideOf(piece).companions.map((each) => each.name)}
                step={step}
                onStep={(next) => {
                  setPlaying(false);
                  setAt(next);
                }}
                onMove={move}
                onGate={pass}
              />
              {!isCarried(piece) && (
                <label className="flex min-h-11 items-center gap-2 border-t border-line px-3">
                  <input
                    type="checkbox"
                    className="h-5 w-5 accent-leaf"
                    checked={piece.making.propped}
                    onChange={(each) =>
                      put(
                        { propped: each.target.checked },
                        each.target.checked ? "Prop it" : "Take the prop away",
                      )
                    }
                  />
                  Propped, or held by somebody, until the last stem
                </label>
              )}
              {!isCarried(piece) && (
                <label className="flex min-h-11 items-center gap-2 border-t border-line px-3">
                  <input
                    type="checkbox"
                    className="h-5 w-5 accent-leaf"
                    checked={piece.making.water_last}
                    onChange={(each) =>
                      put(
                        { water_last: each.target.checked },
                        each.target.checked ? "Make it dry" : "Put the water in first",
                      )
                    }
                  />
                  Made dry: the water goes in last
                </label>
              )}
            </Tabs.Content>
            <Tabs.Content value="pull" className="relative min-h-0 flex-1 overflow-y-auto">
              <PullList making={making} piece={piece} />
            </Tabs.Content>
            <Tabs.Content value="balance" className="relative min-h-0 flex-1 overflow-y-auto">
              <ReadOuts making={making} />
            </Tabs.Content>
          </Tabs.Root>
        </div>
      )}
    </div>
  );
}

function nameOf(step: MakingStep | undefined): string {
  return step ? `${step.name} ${step.nth}` : "a stem";
}

type StatusProps = {
  making: MakingReport;
  busy: boolean;
  /** Fixes are still being tried out. */
  seeking: boolean;
  onFix: (fix: MakingReport["fixes"][number]) => void;
  onUsual: () => void;
};

function Status({ making, busy, seeking, onFix, onUsual }: StatusProps) {
  const { system } = useSettings();
  const balanced = making.propped || making.fails_at === null;
  const lead = balanced && making.margin !== "wrist moment" && making.state !== "cannot say";
  return (
    <section aria-label="While being made" className="flex-none border-b border-line px-3 py-1.5">
      <p className="m-0 flex items-start gap-2 leading-snug" role="status" data-making={making.state}>
        <span className="mt-0.5">
          <StateMark state={making.state} />
        </span>
        <span>
          <strong className={STATE_COLOUR[making.state]}>
            {lead ? "Keeps its balance all the way. " : ""}
          </strong>
          {render(making.say, system)}
          {making.left_out && <span className="text-berry"> {render(making.left_out, system)}</span>}
        </span>
      </p>
      {seeking && (
        <p className="m-0 pl-7 text-sm text-soft" role="status">
          Trying what would keep it up…
        </p>
      )}
      {(making.fixes.length > 0 || making.kept) && (
        <div className="mt-1 flex flex-wrap gap-1.5">
          {making.fixes.slice(0, 4).map((fix) => (
            <Button
              key={fix.key}
              disabled={busy}
              onClick={() => onFix(fix)}
              className="max-w-full text-sm leading-tight"
            >
              {render(fix.say, system)}
            </Button>
          ))}
          {making.kept && (
            <Button look="quiet" disabled={busy} onClick={onUsual}>
              Take the usual order again
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
