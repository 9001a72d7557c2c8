/** What a field shows of a quantity: as short as it can be, and read back as what is kept. */
import {
  ambiguous,
  parseCount,
  parseForce,
  parseHours,
  parseLength,
  parseMass,
  parsePercent,
  parseTemperature,
  parseVolume,
  type UnitSystem,
  unitShown,
} from "./parse";
import { inchFraction, textOf, trim } from "./text";

export type FieldKind =
  | "length"
  | "mass"
  | "volume"
  | "temperature"
  | "percent"
  | "count"
  | "angle"
  | "ratio"
  | "force"
  | "duration";

const INCH_M = 0.0254;
const POUND_KG = 0.45359237;
const OUNCE_KG = POUND_KG / 16;
const FLUID_OUNCE_L = 0.0295735295625;
const POUND_FORCE_N = 4.4482216152605;
const SAME_SHARE = 1e-9;

const ASK: Record<FieldKind, string> = {
  length: "Type a length, such as 36 cm, 14 1/4 in or 12 cells.",
  mass: "Type a weight, such as 880 g or 2 lb 4 oz.",
  temperature: "Type a temperature, such as 22 °C or 72 °F.",
  percent: "Type a share, such as 50 %.",
  count: "Type a whole number, such as 12.",
  force: "Type a load, such as 20 kg, 200 N or 45 lb.",
  duration: "Type a time, such as 2 h 30 min.",
  volume: "Type a volume, such as 1.5 L or 500 ml.",
  angle: "Type an angle in degrees, such as 90.",
  ratio: "Type a number, such as 0.7.",
};

/** A quantity as typed; null where the text is none of its kind. A bare number is in the unit of what it is typed over. */
export function readField(
  kind: FieldKind,
  text: string,
  system: UnitSystem,
  shown: string,
  cellM?: number,
): number | null {
  const bare = unitShown(shown);
  switch (kind) {
    case "length":
      return parseLength(text, system, cellM, bare);
    case "mass":
      return parseMass(text, system, bare);
    case "volume":
      return parseVolume(text, system, bare);
    case "angle": {
      const degrees = parseCount(text.replace(/°/, ""));
      return degrees === null ? null : (degrees * Math.PI) / 180;
    }
    case "temperature":
      return parseTemperature(text, system);
    case "force":
      return parseForce(text, system);
    case "duration":
      return parseHours(text);
    case "percent":
      return parsePercent(text);
    case "count": {
      const number = parseCount(text);
      return number !== null && Number.isInteger(number) ? number : null;
    }
    default:
      return parseCount(text);
  }
}

/** What to type instead of what cannot be read; of "1,200", which of its two meanings it has. */
export function askFor(kind: FieldKind, text: string): string {
  const grouped = ambiguous(text);
  if (!grouped) return ASK[kind];
  return `Is that ${grouped.replaceAll(",", "")} or ${grouped.replace(",", ".")}? Type it without the comma.`;
}

/** A value as its field shows it: rounded as the program rounds, with more digits only where they were typed. */
export function showField(kind: FieldKind, value: number | null, system: UnitSystem): string {
  if (value === null) return "";
  const ways = written(kind, value, system);
  const spare = Math.max(Math.abs(value), 1) * SAME_SHARE;
  const exact = ways.find((text) => {
    const read = readField(kind, text, system, text);
    return read !== null && Math.abs(read - value) <= spare;
  });
  // what was typed in the other system lies between the marks of this one; of small sizes every digit counts
  const close = kind === "length" && (system === "inch" || Math.abs(value) < 0.01);
  const nearest = close ? ways.at(-1) : ways[0];
  return exact ?? nearest ?? "";
}

/** Ways to write a value, from the roundest to the finest that is of use. */
function written(kind: FieldKind, value: number, system: UnitSystem): readonly string[] {
  const inch = system === "inch";
  const digits = (number: number, unit: string, ...steps: readonly number[]) =>
    steps.map((step) => `${trim(number, step)}${unit}`);
  switch (kind) {
    case "length": {
      if (!inch)
        return Math.abs(value) < 0.01 ? digits(value * 1000, " mm", 1, 2) : digits(value * 100, " cm", 1, 2);
      const inches = value / INCH_M;
      if (Math.abs(inches) < 0.25)
        return [textOf({ kind: "length", value }, "inch"), `${trim(inches, 3)} in`];
      return [8, 16].map((parts) => `${inchFraction(inches, parts)} in`);
    }
    case "mass":
      if (!inch)
        return Math.abs(value) < 0.00995
          ? digits(value * 1000, " g", 1, 2)
          : Math.abs(value) < 1
            ? digits(value * 1000, " g", 0, 1)
            : digits(value, " kg", 2, 3);
      return Math.abs(value) < POUND_KG
        ? digits(value / OUNCE_KG, " oz", 1, 2)
        : digits(value / POUND_KG, " lb", 2, 3);
    case "volume":
      if (!inch) return Math.abs(value) < 1 ? digits(value * 1000, " ml", 0, 1) : digits(value, " L", 2, 3);
      return digits(value / FLUID_OUNCE_L, " fl oz", 1, 2);
    case "force":
      return inch ? digits(value / POUND_FORCE_N, " lbf", 2) : digits(value, " N", 1, 2);
    case "temperature":
      return inch ? digits((value * 9) / 5 + 32, " °F", 0, 1) : digits(value, " °C", 1);
    case "percent":
      return digits(value * 100, " %", 0, 1);
    case "ratio":
      return digits(value, "", 2, 3, 4);
    case "angle":
      return digits((value * 180) / Math.PI, "°", 0, 1);
    default:
      return [textOf({ kind, value }, system)];
  }
}

/** How far an arrow key goes: by what a tape or a scale has marks for at that size. */
export function stepOf(kind: FieldKind, value: number, system: UnitSystem): number {
  const metric = system === "metric";
  const size = Math.abs(value);
  if (kind === "length") {
    if (metric) return size < 0.0199 ? 0.001 : 0.005;
    return size < 0.999 * INCH_M ? INCH_M / 16 : INCH_M / 4;
  }
  if (kind === "mass") {
    if (metric) return size < 0.05 ? 0.001 : size < 1 ? 0.02 : 0.1;
    return size < POUND_KG ? OUNCE_KG / 4 : OUNCE_KG;
  }
  if (kind === "volume") return metric ? (size < 0.2 ? 0.01 : 0.1) : FLUID_OUNCE_L;
  if (kind === "angle") return Math.PI / 36;
  if (kind === "ratio") return size < 0.2 ? 0.01 : 0.1;
  if (kind === "duration") return 0.25;
  if (kind === "temperature") return metric ? 1 : 5 / 9;
  if (kind === "force") return metric ? 5 : POUND_FORCE_N;
  return kind === "percent" ? 0.05 : 1;
}

/** A value one step on; it never passes nothing on the way down. */
export function stepped(kind: FieldKind, value: number, by: number, system: UnitSystem): number {
  const next = value + by * stepOf(kind, value, system);
  const fine = kind === "mass" || kind === "volume" ? 1e-6 : 1e-5;
  const rounded = Math.round(next / fine) * fine;
  return value > 0 && rounded < 0 ? 0 : rounded;
}
