/** Reading one figure of the book in the very unit that it is shown in; another unit is not converted but refused. */
import type { Quantity } from "../api/types";
import {
  parseCount,
  parseForce,
  parseHours,
  parseLength,
  parseMass,
  parseNumber,
  parseVolume,
  type UnitSystem,
  unitShown,
} from "./parse";
import { textOf } from "./text";

const INCH_M = 0.0254;
const POUND_KG = 0.45359237;
const POUND_FORCE_N = 4.4482216152605;

/** The words behind the number where a quantity is shown, and what one of them is in the unit the program keeps. */
function shownIn(kind: Quantity["kind"], inch: boolean): readonly [string, number] {
  switch (kind) {
    case "angle":
      return ["°", Math.PI / 180];
    case "moment":
      return ["N·m", 1];
    case "energy":
      return ["J", 1];
    case "pressure":
      return ["kPa", 1000];
    case "density":
      return ["kg/m³", 1];
    case "areal_mass":
      return ["kg/m²", 1];
    case "linear_mass":
      return ["g/cm", 0.1];
    case "stiffness":
      return ["N·m²", 1];
    case "draw":
      return ["ml/h", 1];
    case "speed":
      return ["m/s", 1];
    case "per_speed":
      return ["for each m/s", 1];
    case "evaporation":
      return ["ml/h for each m² and kPa", 1];
    case "minutes":
      return ["min", 1];
    case "line_force":
      return inch ? ["lbf/in", POUND_FORCE_N / INCH_M] : ["N/m", 1];
    case "area":
      return inch ? ["in²", INCH_M ** 2] : ["cm²", 1e-4];
    case "warming":
      return inch ? ["°F", 5 / 9] : ["°C", 1];
    case "price_m":
      return inch ? ["a yard", 1 / 0.9144] : ["a metre", 1];
    case "price_l":
      return inch ? ["a quart", 1 / (32 * 0.0295735295625)] : ["a litre", 1];
    case "price_m2":
      return inch ? ["a yd²", 1 / 0.9144 ** 2] : ["a m²", 1];
    case "price_kg":
      return inch ? ["a pound", 1 / POUND_KG] : ["a kilogram", 1];
    default:
      return ["", 1];
  }
}

/**
 * A typed figure in the unit the program keeps it in; null where it is no number, or one in another unit. A bare number
 * is in the unit of the text it is typed over.
 */
export function parseFigure(
  text: string,
  kind: Quantity["kind"],
  system: UnitSystem,
  shown: string,
): number | null {
  const over = unitShown(shown);
  switch (kind) {
    case "length":
    case "cut_length":
    case "level_most":
    case "level_least":
      return parseLength(text, system, undefined, over);
    case "mass":
      return parseMass(text, system, over);
    case "volume":
      return parseVolume(text, system, over);
    case "force":
      return parseForce(text, system);
    case "duration":
      return over === "min" && !/h/.test(shown) && parseCount(text) !== null
        ? (parseCount(text) ?? 0) / 60
        : parseHours(text);
    case "temperature": {
      const typed = parseNumber(text.replace(/\s*°\s*[cf]$/i, ""));
      if (!typed || typed.unit !== null) return null;
      return system === "inch" ? ((typed.number - 32) * 5) / 9 : typed.number;
    }
    default: {
      const [unit, scale] = shownIn(kind, system === "inch");
      const bare = unit && text.trim().endsWith(unit) ? text.trim().slice(0, -unit.length) : text;
      const typed = parseNumber(bare);
      return typed && typed.unit === null ? typed.number * scale : null;
    }
  }
}

/** What to type for a figure, by example. */
export function askForFigure(quantity: Quantity, system: UnitSystem): string {
  return `Type it as it is shown, such as ${textOf(quantity, system)}.`;
}
