import { type State, StateMark } from "./StateMark";

type Props = { states: readonly (readonly [string, State])[]; onOpen: () => void };

/** All verdicts in one row, for a thumb: pressed, they say why. */
export function VerdictStrip({ states, onOpen }: Props) {
  const said = states.map(([verb, state]) => `${verb} ${state}`).join(", ");
  return (
    <button
      type="button"
      aria-label={`Verdicts: ${said}`}
      className="no-print flex min-h-12 w-full flex-none items-center justify-around border-0 border-b border-line bg-sheet p-0"
      onClick={onOpen}
    >
      {states.map(([verb, state]) => (
        <span
          key={verb}
          aria-hidden="true"
          className="flex flex-col items-center text-xs leading-tight capitalize"
        >
          <StateMark state={state} size={16} />
          {verb}
        </span>
      ))}
    </button>
  );
}
