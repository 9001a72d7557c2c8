import { describe, expect, test } from "vitest";
import type { Problem } from "../../web/src/api/types";
import { type Action, bare, type Desk, reduce } from "../../web/src/desk/state";
import type { Conflict } from "../../web/src/ui/useWriteLine";

type Bowl = { readonly level: number };
const WRONG: Problem = {
  code: "measure",
  path: "level",
  message: { text: "Too much.", quantities: {} },
  limit: { text: "Give less.", quantities: {} },
};
const CONFLICT: Conflict = {
  problem: { ...WRONG, code: "stale" },
  words: "Keep mine over it",
  again: () => {},
};

function after(...actions: readonly Action<Bowl, string>[]): Desk<Bowl, string> {
  return actions.reduce<Desk<Bowl, string>>((desk, action) => reduce(desk, action), bare());
}
const tried = (level: number): Action<Bowl, string> => ({ type: "try", part: { level } });

describe("what is tried", () => {
  test("is shown at once, with what was told of the one before it until its own answer comes", () => {
    const desk = after(tried(1), { type: "told", question: 0, told: "one" }, tried(2));
    expect(desk.trial).toEqual({ part: { level: 2 }, told: "one" });
  });

  test("is told by the answer to a question that still counts, which takes an old refusal away", () => {
    const desk = after(tried(1), { type: "untold", question: 0, problem: WRONG }, tried(2), {
      type: "told",
      question: 0,
      told: "two",
    });
    expect([desk.trial?.told, desk.problem]).toEqual(["two", null]);
  });

  test.each<Action<Bowl, string>>([
    { type: "told", question: 0, told: "late" },
    { type: "untold", question: 0, problem: WRONG },
  ])("is not touched by a late $type: it was given up, or written, meanwhile", (late) => {
    for (const action of [{ type: "drop" }, { type: "write", part: { level: 3 } }] as const) {
      const desk = after(tried(1), action);
      expect(reduce(desk, late)).toBe(desk);
    }
  });

  test("is gone when it is given up, with what was refused of it", () => {
    const desk = after(tried(1), { type: "untold", question: 0, problem: WRONG }, { type: "drop" });
    expect(desk).toEqual({ trial: null, problem: null, conflict: null, question: 1 });
  });

  test("is not told an answer where nothing is tried any more", () => {
    expect(after({ type: "told", question: 0, told: "x" }).trial).toBeNull();
  });
});

describe("a write", () => {
  const part = { level: 4 };

  test("shows what was sent until it is kept, and then what is kept", () => {
    const sent = after(tried(4), { type: "told", question: 0, told: "four" }, { type: "write", part });
    expect(sent.trial).toEqual({ part, told: "four" });
    expect(reduce(sent, { type: "kept", part }).trial).toBeNull();
  });

  test("that is kept leaves what a hand has begun to try meanwhile", () => {
    const desk = after({ type: "write", part }, tried(5), { type: "kept", part });
    expect(desk.trial?.part).toEqual({ level: 5 });
  });

  test("of which only the program knows the outcome shows that when it is kept", () => {
    expect(after({ type: "write", part: null }, { type: "kept", part: null }).trial).toBeNull();
  });

  test("that is refused goes back to what is kept, and says why", () => {
    const desk = after({ type: "write", part }, { type: "refused", problem: WRONG });
    expect([desk.trial, desk.problem]).toEqual([null, WRONG]);
  });

  test("that does not reach the program stays on the screen", () => {
    const desk = after({ type: "write", part }, { type: "unreached", problem: WRONG });
    expect([desk.trial?.part, desk.problem]).toEqual([part, WRONG]);
  });

  test("that comes after another window's offers both ways out; the next write takes the offer away", () => {
    const stale = after({ type: "write", part }, { type: "stale", conflict: CONFLICT });
    expect([stale.trial, stale.conflict]).toEqual([null, CONFLICT]);
    expect(reduce(stale, { type: "write", part }).conflict).toBeNull();
    expect(reduce(stale, { type: "drop" }).conflict).toBeNull();
  });
});
