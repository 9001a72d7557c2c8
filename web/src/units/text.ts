/** Writing quantities in one unit system. The same rules as the Python side, held to one table by the tests. */
import type { Phrase, Quantity } from "../api/types";
import type { UnitSystem } from "./parse";

const INCH_M = 0.0254;
const POUND_KG = 0.45359237;
const US_FLUID_OUNCE_L = 0.0295735295625;
const POUND_FORCE_N = 4.4482216152605;
const KILOGRAM_FORCE_N = 9.80665;
/** From here on lengths are said in metres, or feet. */
const LONG_M = 10;

export function trim(value: number, digits: number): string {
  const scale = 10 ** digits;
  const rounded = (Math.sign(value) * Math.floor(Math.abs(value) * scale + 0.5 + 1e-9)) / scale;
  const fixed = rounded.toFixed(digits);
  const short = fixed.includes(".") ? fixed.replace(/0+$/, "").replace(/\.$/, "") : fixed;
  return short === "-0" ? "0" : short;
}

export function inchFraction(inches: number, parts: number): string {
  const sign = inches < 0 ? "-" : "";
  const total = Math.floor(Math.abs(inches) * parts + 0.5);
  const whole = Math.floor(total / parts);
  let top = total % parts;
  if (top === 0) return `${sign}${whole}`;
  let bottom = parts;
  while (top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  return whole ? `${sign}${whole} ${top}/${bottom}` : `${sign}${top}/${bottom}`;
}

/** Inches to the nearest eighth, under a quarter to the sixteenth; what is finer, as wire is, in thousandths. */
function inchText(inches: number): string {
  const between = Math.abs(inches * 8 - Math.round(inches * 8)) > 1e-3;
  if (between && Math.abs(inches) < 0.125) return trim(inches, 3);
  return inchFraction(inches, Math.abs(inches) < 0.25 ? 16 : 8);
}

export function durationText(hours: number): string {
  const minutes = Math.floor(hours * 60 + 1e-6);
  const whole = Math.floor(minutes / 60);
  const rest = minutes % 60;
  if (whole === 0) return `${rest} min`;
  return rest === 0 ? `${whole} h` : `${whole} h ${rest} min`;
}

/** A quantity in words, rounded as people read it. */
export function textOf(quantity: Quantity, system: UnitSystem): string {
  const { kind, value } = quantity;
  const inch = system === "inch";
  switch (kind) {
    case "length":
      if (Math.abs(value) >= LONG_M) return longText(value, system);
      if (inch) return `${inchText(value / INCH_M)} in`;
      return Math.abs(value) < 0.01 ? `${trim(value * 1000, 1)} mm` : `${trim(value * 100, 1)} cm`;
    case "cut_length":
      return cutLengthText(value, system);
    case "level_most":
    case "level_least": {
      const step = inch ? INCH_M / 8 : 0.001;
      const steps = kind === "level_least" ? Math.ceil(value / step - 1e-6) : Math.floor(value / step + 1e-6);
      return textOf({ kind: "length", value: steps * step }, system);
    }
    case "mass": {
      if (!inch)
        return Math.abs(value) < 1
          ? `${trim(value * 1000, Math.abs(value) < 0.00995 ? 1 : 0)} g`
          : `${trim(value, 2)} kg`;
      const pounds = value / POUND_KG;
      return Math.abs(pounds) < 1 ? `${trim(pounds * 16, 1)} oz` : `${trim(pounds, 2)} lb`;
    }
    case "volume":
      if (inch) return `${trim(value / US_FLUID_OUNCE_L, 1)} fl oz`;
      return Math.abs(value) < 1 ? `${trim(value * 1000, 0)} ml` : `${trim(value, 2)} L`;
    case "force":
      return inch ? `${trim(value / POUND_FORCE_N, 2)} lbf` : `${trim(value, 1)} N`;
    case "pull":
      if (inch) return `${trim(value / POUND_FORCE_N, 2)} lbf`;
      return `${trim(value, 1)} N (${trim(value / KILOGRAM_FORCE_N, 1)} kg)`;
    case "line_force":
      return inch ? `${trim((value / POUND_FORCE_N) * INCH_M, 2)} lbf/in` : `${trim(value, 1)} N/m`;
    case "area":
      return inch ? `${trim(value / INCH_M ** 2, 1)} in²` : `${trim(value * 1e4, 1)} cm²`;
    case "warming":
      return inch ? `${trim((value * 9) / 5, 0)} °F` : `${trim(value, 1)} °C`;
    case "price_m":
      return inch ? `${trim(value * 0.9144, 2)} a yard` : `${trim(value, 2)} a metre`;
    case "price_kg":
      return inch ? `${trim(value * POUND_KG, 2)} a pound` : `${trim(value, 2)} a kilogram`;
    case "price_l":
      return inch ? `${trim(value * 32 * US_FLUID_OUNCE_L, 2)} a quart` : `${trim(value, 2)} a litre`;
    case "price_m2":
      return inch ? `${trim(value * 0.9144 ** 2, 2)} a yd²` : `${trim(value, 2)} a m²`;
    case "temperature":
      return inch ? `${trim((value * 9) / 5 + 32, 0)} °F` : `${trim(value, 1)} °C`;
    default:
      return textAlike(quantity);
  }
}

function textAlike({ kind, value }: Quantity): string {
  switch (kind) {
    case "duration":
      return durationText(value);
    case "angle":
      return `${trim((value * 180) / Math.PI, 1)}°`;
    case "moment":
      return `${trim(value, 2)} N·m`;
    case "energy":
      return `${trim(value, 2)} J`;
    case "pressure":
      return `${trim(value / 1000, 2)} kPa`;
    case "density":
      return `${trim(value, 0)} kg/m³`;
    case "areal_mass":
      return `${trim(value, 3)} kg/m²`;
    case "linear_mass":
      return `${trim(value * 10, 2)} g/cm`;
    case "draw":
      return `${trim(value, 2)} ml/h`;
    case "acceleration":
      return `${trim(value, 5)} m/s²`;
    case "stiffness":
      return `${trim(value, 2)} N·m²`;
    case "count":
      return value.toFixed(0);
    case "speed":
      return `${trim(value, 1)} m/s`;
    case "per_speed":
      return `${trim(value, 2)} for each m/s`;
    case "evaporation":
      return `${trim(value, 0)} ml/h for each m² and kPa`;
    case "minutes":
      return `${trim(value, 2)} min`;
    default:
      return trim(value, Math.abs(value) < 0.1 ? 3 : 2);
  }
}

/** A length as one says it of rolls and ropes: metres to the centimetre, feet with whole inches. */
export function longText(lengthM: number, system: UnitSystem): string {
  if (system === "metric") return `${trim(lengthM, 2)} m`;
  const inches = Math.floor(Math.abs(lengthM) / INCH_M + 0.5);
  const feet = `${Math.floor(inches / 12)} ft${inches % 12 ? ` ${inches % 12} in` : ""}`;
  return lengthM < 0 ? `-${feet}` : feet;
}

/** Fill the slots of a sentence. */
export function render(sentence: Phrase, system: UnitSystem): string {
  return sentence.text.replace(/\{(\w+)\}/g, (slot, name: string) => {
    const quantity = sentence.quantities?.[name];
    return quantity ? textOf(quantity as Quantity, system) : slot;
  });
}

/** A length as one would cut it: up to the next half centimetre or quarter inch. */
export function cutLengthText(lengthM: number, system: UnitSystem): string {
  const roundUp = (value: number, step: number) => Math.ceil(value / step - 1e-6) * step;
  if (system === "metric") return `${trim(roundUp(lengthM * 100, 0.5), 1)} cm`;
  return `${inchFraction(roundUp(lengthM / INCH_M, 0.25), 4)} in`;
}

/** How many of each shade: "12 white, 18 blush"; those of none are of the variety's own colour. */
export function shadesText(shades: readonly (readonly [string, number])[]): string {
  return shades.map(([name, number]) => `${number} ${name || "its own colour"}`).join(", ");
}
