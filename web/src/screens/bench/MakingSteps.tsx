import { ArrowDown, ArrowUp, Flag } from "lucide-react";
import { Fragment, useEffect, useRef, useState } from "react";
import type { Gate, MakingReport, MakingStep, Moment } from "../../api/types";
import { StateMark } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { cutLengthText, render, textOf } from "../../units/text";
import { worded } from "../../units/worded";

type Props = {
  making: MakingReport;
  /** Keys of the gates that are ticked. */
  passed: readonly string[];
  /** Names of the other vessels, in their order. */
  beside: readonly string[];
  step: number;
  onStep: (step: number) => void;
  onMove: (from: number, to: number) => void;
  onGate: (key: string, passed: boolean) => void;
};

/** The stems in order with the gates between them; a stem is moved by dragging, by its arrows, or with Alt and ↑ ↓. */
export function MakingSteps({ making, passed, beside, step, onStep, onMove, onGate }: Props) {
  const [dragged, setDragged] = useState<number | null>(null);
  const current = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (step > 0) current.current?.scrollIntoView({ block: "nearest" });
  }, [step]);
  const last = making.steps.length;
  const gatesAt = (at: number) => making.gates.filter((gate) => gate.before === at);
  return (
    <ol className="m-0 list-none p-0" aria-label="Making order">
      {making.steps.map((each, index) => (
        <Fragment key={`${each.ref.vessel}-${each.ref.line}-${each.ref.nth}`}>
          {gatesAt(index).map((gate) => (
            <GateRow key={gate.key} gate={gate} passed={passed.includes(gate.key)} onGate={onGate} />
          ))}
          <li
            ref={index === step - 1 ? current : null}
            draggable
            onDragStart={() => setDragged(index)}
            onDragOver={(event) => event.preventDefault()}
            onDrop={() => {
              if (dragged !== null && dragged !== index) onMove(dragged, index);
              setDragged(null);
            }}
            data-step={index + 1}
            data-falls={each.moment?.falls ?? false}
            className={`flex items-center border-b border-line/60 ${index === step - 1 ? "bg-marigold/15" : ""} ${index >= step ? "text-soft" : ""}`}
          >
            <button
              type="button"
              aria-current={index === step - 1 ? "step" : undefined}
              onClick={() => onStep(index + 1)}
              onKeyDown={(event) => {
                const way = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : 0;
                if (!way) return;
                event.preventDefault();
                const to = index + way;
                if (event.altKey && to >= 0 && to < last) onMove(index, to);
                else onStep(Math.min(Math.max(step + way, 0), last));
              }}
              className="flex min-h-11 min-w-0 flex-1 items-center gap-2 border-0 bg-transparent px-2 text-left"
            >
              <span className="w-6 flex-none text-right text-sm text-soft">{index + 1}</span>
              <span
                aria-hidden="true"
                className="h-3.5 w-3.5 flex-none rounded-full border border-ink/40"
                style={{ background: each.colour }}
              />
              <StemWords step={each} where={beside[each.ref.vessel - 1]} current={index === step - 1} />
              <StateMark state={each.moment?.state ?? "cannot say"} size={15} />
            </button>
            <MoveButtons
              name={`${each.name} ${each.nth}`}
              first={index === 0}
              last={index === last - 1}
              onUp={() => onMove(index, index - 1)}
              onDown={() => onMove(index, index + 1)}
            />
          </li>
        </Fragment>
      ))}
      {gatesAt(last).map((gate) => (
        <GateRow key={gate.key} gate={gate} passed={passed.includes(gate.key)} onGate={onGate} />
      ))}
    </ol>
  );
}

function marginOf(moment: Moment): string {
  if (moment.ledge_ratio === null) return `tips at ${((moment.tip_angle_rad * 180) / Math.PI).toFixed(0)}°`;
  return moment.ledge_ratio > 9.9 ? "nothing leans out" : `held ${moment.ledge_ratio.toFixed(2)} ×`;
}

type WordsProps = { step: MakingStep; where: string | undefined; current: boolean };

function StemWords({ step, where, current }: WordsProps) {
  const { system } = useSettings();
  const { moment } = step;
  const margin = step.lay || (moment ? marginOf(moment) : "cannot say");
  const water = textOf({ kind: "length", value: step.water_level_m }, system);
  return (
    <span className="min-w-0 flex-1 py-0.5 leading-tight">
      <span className="block">
        <strong>{step.name}</strong> {worded("{nth} of {of}", { nth: step.nth, of: step.of })}
        {step.stems > 1 ? worded(", {n} together", { n: step.stems }) : ""}
        {where ? worded(" in {vessel}", { vessel: where }) : ""}
      </span>
      <span className="block text-sm text-soft">
        {step.side} · {cutLengthText(step.cut_length_m, system)} ·{" "}
        {moment?.falls ? <strong className="text-berry">falls</strong> : margin}
      </span>
      {current && (
        <span className="block text-xs text-soft">
          {step.phase}; sway {step.sway_use.toFixed(2)} of what is allowed at the end;{" "}
          {(100 * step.crowding).toFixed(0)} % of the seats taken
          {step.lay ? "" : `; water at ${water}`}
        </span>
      )}
    </span>
  );
}

function MoveButtons(props: {
  name: string;
  first: boolean;
  last: boolean;
  onUp: () => void;
  onDown: () => void;
}) {
  const look =
    "flex h-11 w-11 items-center justify-center border-0 bg-transparent text-soft disabled:opacity-30";
  return (
    <span className="flex flex-none">
      <button type="button" className={look} disabled={props.first} onClick={props.onUp}>
        <ArrowUp size={16} aria-hidden="true" />
        <span className="sr-only">{props.name} earlier</span>
      </button>
      <button type="button" className={look} disabled={props.last} onClick={props.onDown}>
        <ArrowDown size={16} aria-hidden="true" />
        <span className="sr-only">{props.name} later</span>
      </button>
    </span>
  );
}

type GateProps = { gate: Gate; passed: boolean; onGate: Props["onGate"] };

function GateRow({ gate, passed, onGate }: GateProps) {
  const { system } = useSettings();
  return (
    <li className="border-b border-line/60 bg-leaf/10" data-gate={gate.key}>
      <label className="flex min-h-11 items-center gap-2 px-2 text-md leading-tight">
        <input
          type="checkbox"
          className="h-5 w-5 flex-none accent-leaf"
          checked={passed}
          onChange={(event) => onGate(gate.key, event.target.checked)}
        />
        <Flag size={15} aria-hidden="true" className="flex-none text-leaf" />
        <span className={passed ? "text-soft line-through" : ""}>{render(gate.say, system)}</span>
      </label>
    </li>
  );
}
