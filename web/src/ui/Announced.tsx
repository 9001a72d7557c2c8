import { useEffect, useRef, useState } from "react";

type Verb = string;
type Props = { states: readonly (readonly [Verb, string])[] };

/** Says politely which verdicts have changed: "Drink: holds. See: tight." */
export function Announced({ states }: Props) {
  const known = useRef<ReadonlyMap<Verb, string> | null>(null);
  const [said, setSaid] = useState("");
  const now = states.map(([verb, state]) => `${verb}: ${state}`).join("|");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the words tell whether anything is another
  useEffect(() => {
    if (states.length === 0) return;
    const before = known.current;
    known.current = new Map(states);
    if (!before) return;
    const changed = states.filter(([verb, state]) => before.get(verb) !== state);
    if (changed.length > 0) setSaid(changed.map(([verb, state]) => `${capital(verb)}: ${state}.`).join(" "));
  }, [now]);
  return (
    <p role="status" aria-live="polite" className="sr-only" data-announced>
      {said}
    </p>
  );
}

function capital(word: string): string {
  return word.slice(0, 1).toUpperCase() + word.slice(1);
}
