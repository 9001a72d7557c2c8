import { useQuery } from "@tanstack/react-query";
import { Scissors } from "lucide-react";
import { Link } from "react-router";
import { api } from "../../api/client";
import type { Rig, RigReport } from "../../api/types";
import { lookOf } from "../../drawing/rig";
import { Button } from "../../ui/Button";
import { MissingFacts } from "../../ui/MissingFacts";
import { STATE_COLOUR, StateMark } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { useTrade } from "../../ui/useTrade";
import { render, textOf } from "../../units/text";
import { worded } from "../../units/worded";
import { PartsPanel } from "./PartsPanel";
import { ORDER, tabOf } from "./tabOf";
import type { Chosen } from "./types";

type Props = {
  eventId: number;
  partId: number;
  rig: Rig;
  report: RigReport;
  trying: boolean;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  onSnip: (cut: number) => void;
  onCommit: (rig: Rig, label: string) => void;
};

const SHOWN_TO = 1.4;
const CASES = { whole: "as hung", uneven: "one line a little long", "one gone": "one line gone" } as const;
const BAR = { holds: "bg-leaf", tight: "bg-marigold", fails: "bg-berry", cut: "" } as const;

/** Whether it may hang: the verdict and what is missing, every line and point by what it uses, what it all weighs. */
export function HangPanel({
  eventId,
  partId,
  rig,
  report,
  trying,
  chosen,
  onChoose,
  onSnip,
  onCommit,
}: Props) {
  const { system } = useSettings();
  const { verdict } = report;
  const cleared = verdict.state === "holds" || verdict.state === "tight" || verdict.state === "not needed";
  return (
    <section aria-label="Hang" className={`p-3 ${trying ? "opacity-60" : ""}`}>
      <h2 className="m-0 flex items-center gap-2 text-xl" data-hang={verdict.state}>
        <StateMark state={verdict.state} />
        <Term word="hang">Hang</Term>{" "}
        <span className={STATE_COLOUR[verdict.state]}>
          <Term word={verdict.state} />
        </span>
        {!cleared && (
          <strong className="ml-auto rounded border-2 border-berry px-2 py-0.5 text-base text-berry uppercase">
            Not cleared
          </strong>
        )}
      </h2>
      <MissingFacts facts={verdict.missing} tabOf={tabOf} order={ORDER} />
      {verdict.state !== "cannot say" && (
        <p className="mt-1 mb-2 leading-snug">{render(verdict.reason, system)}</p>
      )}
      {!trying &&
        (verdict.state === "fails" || verdict.state === "tight" || verdict.state === "cannot say") && (
          <Fixes eventId={eventId} partId={partId} rig={rig} onCommit={onCommit} />
        )}
      <table className="w-full border-collapse text-sm">
        <caption className="sr-only">Lines and what they bear</caption>
        <thead>
          <tr className="text-left text-soft">
            <th className="font-normal">Line, worst case</th>
            <th className="w-20 font-normal">use</th>
            <th className="text-right font-normal">cut</th>
            <th className="w-11">
              <span className="sr-only">Snip</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {report.lines.map((line, index) => (
            <tr
              // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place
              key={index}
              className={`border-t border-line ${chosen === `line-${index}` ? "bg-sheet" : ""}`}
            >
              <td className="py-0.5 leading-tight">
                <button
                  type="button"
                  onClick={() => onChoose(`line-${index}`)}
                  className="min-h-11 w-full border-0 bg-transparent p-0 pr-2 text-left"
                >
                  <span className="underline decoration-line underline-offset-2">{line.name}</span>
                  <span className="block text-soft">
                    {line.design_n >= 1e6
                      ? "cannot hold"
                      : textOf({ kind: "pull", value: line.design_n }, system)}
                    {`, ${CASES[line.governs]}`}
                  </span>
                </button>
              </td>
              <td>
                <Bar use={line.use} />
              </td>
              <td className="text-right whitespace-nowrap">
                {line.pieces
                  ? worded(
                      rig.lines[index]?.spec.kind === "strap" ? "{n} {n|strap|straps}" : "{n} {n|tie|ties}",
                      {
                        n: line.pieces,
                      },
                    )
                  : textOf({ kind: "cut_length", value: line.cut_length_m }, system)}
              </td>
              <td>
                <Button look="quiet" title={`Snip ${line.name}`} onClick={() => onSnip(index)}>
                  <Scissors size={16} aria-hidden="true" />
                  <span className="sr-only">Snip {line.name}</span>
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3 className="mt-3 mb-0 text-base">Hang points</h3>
      <table className="w-full border-collapse text-sm">
        <tbody>
          {report.points.map((point, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its place
            <tr key={index} className="border-t border-line">
              <td className="py-1">
                {point.name}
                {point.use === null && (
                  <span className="block text-berry">nobody has stated what it carries</span>
                )}
              </td>
              <td className="w-20">{point.use !== null && <Bar use={point.use} />}</td>
              <td className="text-right whitespace-nowrap">
                {textOf({ kind: "pull", value: point.pull_n }, system)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <PartsPanel rig={rig} report={report} />
      {rig.below !== "nobody" && (
        <p className="mt-2 mb-0 text-sm text-soft">
          Planning figures. The building's owner rates its points; a competent rigger and local rules decide
          what hangs over people. Nobody stands under it while it goes up.
        </p>
      )}
      <p className="no-print mt-2 mb-0 text-sm">
        <Link to="/figures">Where every figure comes from</Link>
      </p>
    </section>
  );
}

/** What would clear it: each tried out before it is offered. */
function Fixes({ eventId, partId, rig, onCommit }: Pick<Props, "eventId" | "partId" | "rig" | "onCommit">) {
  const { system } = useSettings();
  const asked = useQuery({
    queryKey: ["rig-fixes", eventId, partId, rig],
    queryFn: ({ signal }) => api.rigFixes(eventId, partId, rig, signal),
  });
  if (asked.isPending) return <p className="mt-0 mb-2 text-sm text-soft">Looking for what would mend it…</p>;
  return (
    <ul className="no-print mt-0 mb-2 list-none space-y-1.5 p-0" aria-label="Fixes">
      {(asked.data ?? []).map((fix) => (
        <li key={fix.key}>
          <Button
            className="w-full justify-between"
            onClick={() => onCommit(fix.rig, render(fix.say, "metric").slice(0, 80))}
          >
            <span className="py-1 text-left leading-snug">{render(fix.say, system)}</span>
            <span className={`flex flex-none items-center gap-1 text-sm ${STATE_COLOUR[fix.state_after]}`}>
              <StateMark state={fix.state_after} size={14} />
              {fix.utilisation_after === null ? fix.state_after : fix.utilisation_after.toFixed(2)}
            </span>
          </Button>
        </li>
      ))}
    </ul>
  );
}

function Bar({ use }: { use: number }) {
  const tightFrom = useTrade()?.tight_from;
  return (
    <span className="flex items-center gap-1">
      <span className="meter relative block h-3 w-10 rounded-sm bg-line/50" aria-hidden="true">
        <span
          className={`absolute inset-y-0 left-0 rounded-sm ${BAR[lookOf(use, tightFrom)]}`}
          style={{ width: `${(Math.min(use, SHOWN_TO) / SHOWN_TO) * 100}%` }}
        />
        <span className="absolute -inset-y-0.5 w-0.5 bg-ink" style={{ left: `${100 / SHOWN_TO}%` }} />
      </span>
      {use > 9.99 ? ">9.99" : use.toFixed(2)}
    </span>
  );
}
