import { memo, useState } from "react";
import { Link } from "react-router";
import type { Figure, Fix, Report, Verdict } from "../../api/types";
import { Button } from "../../ui/Button";
import { MissingFacts } from "../../ui/MissingFacts";
import { SEVERITY, STATE_COLOUR, StateMark } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { render, textOf } from "../../units/text";
import { ORDER, tabOf } from "./tabOf";

type Props = { report: Report; onFix: (verb: string, key: string) => void; busy: boolean };

const SHOWN_TO = 1.4;
/** The load cases in words: as it is planned, with all that may weigh more, with the least water it comes to. */
const CASES: Readonly<Record<string, string>> = {
  typical: "as planned",
  heavy: "with heavy stems",
  low: "with low water",
};
const BAR: Record<string, string> = { holds: "bg-leaf", tight: "bg-marigold", fails: "bg-berry" };

/** The verdict ladder: eight rungs of utilisation with a mark at 1.0; the open rung says why and what to do. */
export const Ladder = memo(function Ladder({ report, onFix, busy }: Props) {
  const worst = report.verdicts.reduce((a, b) => (rank(b) > rank(a) ? b : a));
  const [chosen, setChosen] = useState<string | null>(null);
  const open = chosen ?? worst.verb;
  return (
    <section aria-label="Verdicts" className="p-3">
      <MissingFacts facts={report.verdicts.flatMap((each) => each.missing)} tabOf={tabOf} order={ORDER} />
      <ol className="m-0 list-none p-0">
        {report.verdicts.map((verdict) => (
          <Rung
            key={verdict.verb}
            verdict={verdict}
            tried={report.fixes_tried}
            open={open === verdict.verb}
            onOpen={() => setChosen(open === verdict.verb ? "" : verdict.verb)}
            onFix={onFix}
            busy={busy}
          />
        ))}
      </ol>
      {report.notices.length > 0 && <Notices report={report} />}
      <p className="no-print mt-3 text-sm text-soft">
        Planning figures; your own trial decides. <Link to="/figures">Where every figure comes from</Link>
      </p>
    </section>
  );
});

function rank(verdict: Verdict): number {
  return SEVERITY[verdict.state] * 100 + (verdict.governing?.utilisation ?? 0);
}

type RungProps = {
  verdict: Verdict;
  tried: boolean;
  open: boolean;
  onOpen: () => void;
  onFix: (verb: string, key: string) => void;
  busy: boolean;
};

function Rung({ verdict, tried, open, onOpen, onFix, busy }: RungProps) {
  const { system } = useSettings();
  const used = verdict.governing?.utilisation ?? null;
  const share = used === null ? 0 : Math.min(used, SHOWN_TO) / SHOWN_TO;
  return (
    <li className="border-b border-line last:border-b-0" data-verb={verdict.verb} data-state={verdict.state}>
      <button
        type="button"
        aria-expanded={open}
        onClick={onOpen}
        className="grid min-h-11.5 w-full grid-cols-[22px_62px_minmax(0,1fr)_104px] items-center gap-2 border-0 bg-transparent text-left"
      >
        <StateMark state={verdict.state} />
        <span className="serif text-lead capitalize">
          <Term word={verdict.verb} />
        </span>
        <span className="meter relative block h-3.5 rounded-sm bg-line/50" aria-hidden="true">
          <span
            className={`absolute inset-y-0 left-0 rounded-sm ${BAR[verdict.state] ?? ""}`}
            style={{ width: `${share * 100}%` }}
          />
          <span className="absolute -inset-y-1 w-0.5 bg-ink" style={{ left: `${100 / SHOWN_TO}%` }} />
        </span>
        <span className={`text-right text-md ${STATE_COLOUR[verdict.state]}`}>
          <Term word={verdict.state} />
          {used !== null && (
            <span className="ml-1 text-ink">
              <Term word="use">{used > 9.99 ? "over 9.99" : used.toFixed(2)}</Term>
            </span>
          )}
        </span>
      </button>
      {open && (
        <div className="pb-3 pl-7.5">
          <p className="m-0 leading-snug">{render(verdict.reason, system)}</p>
          {verdict.governing && (
            <p className="mt-1 mb-0 text-sm text-soft">
              {verdict.governing.check}, <Term word={CASES[verdict.governing.case] ?? ""} />:{" "}
              {textOf(verdict.governing.value, system)}; {verdict.governing.sense}{" "}
              {textOf(verdict.governing.limit, system)}
            </p>
          )}
          {verdict.fixes.length > 0 && (
            <ul className="no-print mt-2 mb-0 list-none space-y-1.5 p-0">
              {verdict.fixes.map((fix) => (
                <li key={fix.key}>
                  <Button
                    className="w-full justify-between"
                    disabled={busy}
                    onClick={() => onFix(verdict.verb, fix.key)}
                  >
                    <span className="py-1 leading-snug">{render(fix.say, system)}</span>
                    <span
                      className={`flex flex-none items-center gap-1 text-sm ${STATE_COLOUR[fix.state_after]}`}
                    >
                      <StateMark state={fix.state_after} size={14} />
                      {fix.utilisation_after.toFixed(2)}
                    </span>
                  </Button>
                  {fix.worse.length > 0 && <p className="m-0 mt-0.5 text-sm text-berry">{worseWords(fix)}</p>}
                </li>
              ))}
            </ul>
          )}
          {verdict.state === "fails" && verdict.fixes.length === 0 && (
            <p className="no-print mt-2 mb-0 text-sm text-soft">
              {tried
                ? "Nothing tried here mends this, alone or two together."
                : "Looking for what would mend it…"}
              {tried && verdict.tried.length > 0 && (
                <> Tried: {verdict.tried.map((each) => render(each, system)).join(" ")}</>
              )}
            </p>
          )}
          {(verdict.findings.length > 1 || verdict.figures.length > 0) && <Details verdict={verdict} />}
        </div>
      )}
    </li>
  );
}

/** What a fix makes worse elsewhere: "Hold goes from holds to fails." */
function worseWords(fix: Fix): string {
  return fix.worse
    .map(
      ({ verb, before, after }) =>
        `${verb[0]?.toUpperCase()}${verb.slice(1)} goes from ${before} to ${after}.`,
    )
    .join(" ");
}

function Details({ verdict }: { verdict: Verdict }) {
  const { system } = useSettings();
  return (
    <details className="no-print mt-2 text-sm">
      <summary className="min-h-11 cursor-pointer py-3 text-soft">Figures and where they come from</summary>
      <table className="mt-1 w-full border-collapse">
        <tbody>
          {verdict.findings.map((each) => (
            <tr key={`${each.check}-${each.case}`} className="border-t border-line align-top">
              <td className="py-1 pr-2">
                {each.check}, {CASES[each.case]}
              </td>
              <td className="py-1 pr-2 whitespace-nowrap">{textOf(each.value, system)}</td>
              <td className="py-1 text-right">
                {each.utilisation > 9.99 ? "over 9.99" : each.utilisation.toFixed(2)}
              </td>
            </tr>
          ))}
          {verdict.figures.map((each) => (
            <FigureRow key={each.label} figure={each} />
          ))}
        </tbody>
      </table>
    </details>
  );
}

function FigureRow({ figure }: { figure: Figure }) {
  const { system } = useSettings();
  return (
    <tr className="border-t border-line align-top text-soft">
      <td className="py-1 pr-2">{figure.label}</td>
      <td className="py-1 pr-2 whitespace-nowrap">{textOf(figure.quantity, system)}</td>
      <td className="py-1 text-right" title={figure.provenance.source}>
        {figure.provenance.kind}
      </td>
    </tr>
  );
}

function Notices({ report }: { report: Report }) {
  const { system } = useSettings();
  return (
    <section className="mt-3 rounded border border-line p-2">
      <h2 className="m-0 text-md">Worth knowing</h2>
      <ul className="mt-1 mb-0 list-disc pl-5 text-md leading-snug">
        {report.notices.map((notice) => (
          <li key={notice.say.text + notice.path}>{render(notice.say, system)}</li>
        ))}
      </ul>
    </section>
  );
}
