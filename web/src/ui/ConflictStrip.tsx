import { useEffect, useRef, useState } from "react";
import type { Both } from "../api/types";
import { textOf } from "../units/text";
import { worded } from "../units/worded";
import { Button } from "./Button";
import { useSettings } from "./settings";
import type { Conflict } from "./useWriteLine";

type Props = { conflict: Conflict; onTakeTheirs: () => void /** What two windows are on. */; what?: string };

/**
 * Two windows on one plan, survey or stores. What both changed is asked about field by field, what is typed stays
 * until then; otherwise it is told what the other one changed, and both ways out.
 */
export function ConflictStrip({ conflict, onTakeTheirs, what = "the plan" }: Props) {
  const strip = useRef<HTMLElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    const inside = strip.current;
    return () => {
      const at = document.activeElement;
      if (before instanceof HTMLElement && (at === document.body || inside?.contains(at))) before.focus();
    };
  }, []);
  const both = conflict.problem.both ?? [];
  return (
    <section
      ref={strip}
      role="alert"
      className="no-print flex flex-none flex-wrap items-center gap-3 border-b border-berry bg-sheet px-4 py-2"
    >
      {both.length > 0 ? (
        <Choosing key={both.map((each) => each.path).join()} both={both} conflict={conflict} />
      ) : (
        <Told conflict={conflict} onTakeTheirs={onTakeTheirs} what={what} />
      )}
    </section>
  );
}

/** What both windows changed, a row each. */
function Choosing({ both, conflict }: { both: readonly Both[]; conflict: Conflict }) {
  const say = useSaying();
  const [theirs, setTheirs] = useState<readonly string[]>([]);
  const names = both.map((each) => nameOf(each.path));
  return (
    <>
      <div className="min-w-0 flex-1">
        <strong className="text-berry">Changed in another window too. Which is meant?</strong>
        {both.map((each, at) => {
          const other = theirs.includes(each.path);
          return (
            <div
              key={each.path}
              role="group"
              aria-label={names[at]}
              className="flex flex-wrap items-center gap-2 py-1"
            >
              <span className="min-w-32">{names[at]}</span>
              <Button
                look={other ? "plain" : "solid"}
                aria-pressed={!other}
                onClick={() => setTheirs(theirs.filter((path) => path !== each.path))}
              >
                Mine: {say(each.path, each.mine)}
              </Button>
              <Button
                look={other ? "solid" : "plain"}
                aria-pressed={other}
                onClick={() => setTheirs([...theirs.filter((path) => path !== each.path), each.path])}
              >
                The other: {say(each.path, each.now)}
              </Button>
            </div>
          );
        })}
      </div>
      <Button
        look="solid"
        onClick={() =>
          conflict.again(
            both.map((each) => each.path).filter((path) => !theirs.includes(path)),
            theirs,
          )
        }
      >
        Save it so
      </Button>
    </>
  );
}

/** What the other window changed, where this one's change cannot be laid over it field by field. */
function Told({ conflict, onTakeTheirs, what }: Required<Props>) {
  const say = useSaying();
  const differences = conflict.problem.differences ?? [];
  return (
    <>
      <div className="min-w-0 flex-1">
        <strong className="text-berry">Changed in another window meanwhile:</strong>{" "}
        {differences.length === 0
          ? `${what}.`
          : differences
              .slice(0, 4)
              .map((each) =>
                each.path === "figures"
                  ? "it is planned with other figures"
                  : `${nameOf(each.path)}: ${say(each.path, each.was)} → ${say(each.path, each.now)}`,
              )
              .join("; ")}
        {differences.length > 4 ? worded(" and {n} more", { n: differences.length - 4 }) : ""}
      </div>
      <Button look="solid" onClick={() => conflict.again([], [])}>
        {conflict.words}
      </Button>
      <Button onClick={onTakeTheirs}>Take the other</Button>
    </>
  );
}

function useSaying(): (path: string, value: unknown) => string {
  const { system } = useSettings();
  return (path, value) => {
    if (value === null || value === undefined || value === "") return "nothing";
    if (typeof value === "number" && path.endsWith("_m")) return textOf({ kind: "length", value }, system);
    if (typeof value === "number" && path.endsWith("_kg")) return textOf({ kind: "mass", value }, system);
    if (typeof value === "boolean") return value ? "yes" : "no";
    if (Array.isArray(value)) return worded("a list of {n}", { n: value.length });
    if (typeof value === "object")
      return String((value as { name?: string; kind?: string }).name ?? "another one");
    return String(value);
  };
}

/** A field by the words it has on the screen; by its path where it is not there. */
function nameOf(path: string): string {
  if (path === "") return "all of it";
  const field = document.querySelector<HTMLInputElement>(`[data-path="${CSS.escape(path)}"]`);
  const words = field?.labels?.[0]?.textContent?.trim();
  if (words) return words;
  return path
    .replace(/_(m|kg|l|h|n|rad)$/, "")
    .replaceAll("_", " ")
    .replaceAll(".", ", ")
    .replace(/\b(\d+)\b/g, (_, at) => `no. ${Number(at) + 1}`);
}
