import type { Problem, Timed } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { durationText, render } from "../../units/text";
import { clockOf, dateOf, dayWords } from "./times";

type Props = {
  timed: Timed | undefined;
  crew: readonly string[];
  problem: Problem | null;
  onSet: (at: string | null) => void;
  onClose: () => void;
};

/** One task: when, who, why then; its start typed, or let go again. */
export function TaskPanel({ timed, crew, problem, onSet, onClose }: Props) {
  const { system } = useSettings();
  if (!timed) {
    return (
      <aside className="no-print border-l border-line pl-4 text-soft max-lg:border-0 max-lg:pl-0 max-md:hidden">
        <p className="mt-0">
          Press a task to see why it stands where it does. Drag it, or move it with the arrow keys, and it
          stays there; the rest moves round it.
        </p>
      </aside>
    );
  }
  const { task } = timed;
  const who = task.by || timed.crew.map((each) => crew[each] ?? "somebody more").join(", ");
  const fixed = task.stage === "top up";
  return (
    <aside aria-label="The task" className="border-l border-line pl-4 max-lg:border-0 max-lg:pl-0">
      <h2 className="m-0 text-lg leading-snug">{task.name}</h2>
      <dl className="my-1 grid grid-cols-[auto_minmax(0,1fr)] gap-x-3">
        <dt className="text-soft">when</dt>
        <dd className="m-0">
          {dayWords(dateOf(timed.starts_at))}, {clockOf(timed.starts_at)} to {clockOf(timed.ends_at)}
        </dd>
        <dt className="text-soft">takes</dt>
        <dd className="m-0">{durationText(task.minutes / 60)}</dd>
        <dt className="text-soft">who</dt>
        <dd className="m-0">{who}</dd>
        <dt className="text-soft">where</dt>
        <dd className="m-0">{task.where}</dd>
        {task.soonest && (
          <>
            <dt className="text-soft">not before</dt>
            <dd className="m-0">
              {dayWords(dateOf(task.soonest))}, {clockOf(task.soonest)}
            </dd>
          </>
        )}
        {task.latest && (
          <>
            <dt className="text-soft">done by</dt>
            <dd className="m-0">
              {dayWords(dateOf(task.latest))}, {clockOf(task.latest)}
            </dd>
          </>
        )}
      </dl>
      {task.why && <p className="my-1">{task.why[0]?.toUpperCase() + task.why.slice(1)}.</p>}
      {task.gate && <p className="my-1 font-bold text-berry">✕ {render(task.gate, system)}</p>}
      {timed.out_min > 0 && (
        <p className="my-1 text-berry">✕ {durationText(timed.out_min / 60)} outside its bounds.</p>
      )}
      {fixed ? (
        <p className="my-1 text-soft">Its time is set on the bench of the piece, with its water.</p>
      ) : (
        <div className="no-print mt-2 space-y-2">
          <TextField
            label="Starts"
            type="datetime-local"
            value={timed.starts_at.slice(0, 16)}
            path={`locks.${task.key}`}
            problem={problem}
            onCommit={(at) => at && onSet(at)}
          />
          {timed.locked && <Button onClick={() => onSet(null)}>Let it go</Button>}
          {timed.locked && <p className="m-0 text-soft">⚓ Set by hand.</p>}
        </div>
      )}
      <Button look="quiet" className="no-print mt-1" onClick={onClose}>
        Close
      </Button>
    </aside>
  );
}
