import { describe, expect, test } from "vitest";
import { ambiguous, parseHours, parseLength, parseMass } from "../../web/src/units/parse";
import { cutLengthText, textOf } from "../../web/src/units/text";
import cases from "../units_cases.json";

/** The screen reads and writes quantities exactly as the Python side does: one table for both. */
type Row = readonly unknown[];
const rows = (name: keyof typeof cases) => cases[name] as unknown as readonly Row[];
const near = (found: unknown, expected: unknown) => {
  if (typeof expected === "number") expect(found).toBeCloseTo(expected, 6);
  else expect(found ?? null).toEqual(expected ?? null);
};

describe("what is typed is read as people mean it, or asked about", () => {
  test.each(rows("parse_length"))("the length %j in %s", (text, system, cell, expected, bare) => {
    near(
      parseLength(text as string, system as "metric", (cell as number) ?? undefined, bare as "cm"),
      expected,
    );
  });
  test.each(rows("parse_mass"))("the weight %j in %s", (text, system, expected, bare) => {
    near(parseMass(text as string, system as "metric", bare as "kg"), expected);
  });
  test.each(rows("parse_hours"))("the hours %j", (text, expected) =>
    near(parseHours(text as string), expected),
  );
  test.each(rows("ambiguous"))("whether %j may be two things", (text, expected) =>
    near(ambiguous(text as string), expected),
  );
});

describe("quantities are written alike", () => {
  test.each(rows("text_of"))("%s %d in %s", (kind, value, system, expected) =>
    expect(textOf({ kind: kind as "length", value: value as number }, system as "metric")).toBe(expected),
  );
  test.each(rows("cut_length"))("a cut of %d in %s", (value, system, expected) =>
    expect(cutLengthText(value as number, system as "metric")).toBe(expected),
  );
});
