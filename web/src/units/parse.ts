/** Reading quantities as typed. The same cases as the Python side, held to one table by the tests. */

export type UnitSystem = "metric" | "inch";

const INCH_M = 0.0254;
const LENGTH_UNITS_M: Readonly<Record<string, number>> = {
  m: 1,
  cm: 0.01,
  mm: 0.001,
  in: INCH_M,
  inch: INCH_M,
  inches: INCH_M,
  '"': INCH_M,
  "″": INCH_M,
  ft: 12 * INCH_M,
  "'": 12 * INCH_M,
  "′": 12 * INCH_M,
};
/** Imperial standard wire gauge: a table, not a formula. A gauge without its standard is ambiguous and not read. */
const IMPERIAL_GAUGE_M: Readonly<Record<number, number>> = {
  10: 0.003251,
  12: 0.002642,
  14: 0.002032,
  16: 0.001626,
  18: 0.001219,
  19: 0.001016,
  20: 0.000914,
  21: 0.000813,
  22: 0.000711,
  23: 0.00061,
  24: 0.000559,
  26: 0.000457,
  28: 0.000376,
  30: 0.000315,
};
const MASS_UNITS_KG: Readonly<Record<string, number>> = {
  g: 0.001,
  kg: 1,
  oz: 0.45359237 / 16,
  lb: 0.45359237,
};
const TYPED = /^(-)?(?:(?:(\d+)[ -]+)?(\d+)\/(\d+)|(\d*[.,]?\d+))\s*([a-zµ°]+|["″'′%])?$/;

/** A typed number and its unit, or null where the text is neither. */
export function parseNumber(text: string): { number: number; unit: string | null } | null {
  const match = TYPED.exec(text.trim().toLowerCase());
  if (!match) return null;
  const [, sign, whole, top, bottom, decimal, unit] = match;
  let number: number;
  if (decimal !== undefined) number = Number(decimal.replace(",", "."));
  else if (Number(bottom) === 0) return null;
  else number = Number(whole ?? 0) + Number(top) / Number(bottom);
  return { number: sign ? -number : number, unit: unit ?? null };
}

/** A length in metres: "36", "36cm", "14 1/4 in", "12 cells"; null where the text is no length. */
export function parseLength(text: string, system: UnitSystem, cellM?: number): number | null {
  const typed = parseNumber(text);
  if (!typed) return null;
  const unit = typed.unit ?? (system === "metric" ? "cm" : "in");
  if (unit === "cell" || unit === "cells") return cellM === undefined ? null : typed.number * cellM;
  if (unit === "awg") return 0.000127 * 92 ** ((36 - typed.number) / 39);
  if (unit === "swg") return IMPERIAL_GAUGE_M[typed.number] ?? null;
  const scale = LENGTH_UNITS_M[unit];
  return scale === undefined ? null : typed.number * scale;
}

/** A mass in kilograms: "880", "880 g", "1 1/2 lb"; a bare number is grams or ounces. */
export function parseMass(text: string, system: UnitSystem): number | null {
  const typed = parseNumber(text);
  if (!typed) return null;
  const scale = MASS_UNITS_KG[typed.unit ?? (system === "metric" ? "g" : "oz")];
  return scale === undefined ? null : typed.number * scale;
}

const VOLUME_UNITS_L: Readonly<Record<string, number>> = {
  ml: 0.001,
  cl: 0.01,
  l: 1,
  oz: 0.0295735295625,
  floz: 0.0295735295625,
};

/** A volume in litres: "1.5 L", "500 ml", "16 fl oz"; a bare number is litres or fluid ounces. */
export function parseVolume(text: string, system: UnitSystem): number | null {
  const typed = parseNumber(text.toLowerCase().replace(/fl\.? ?oz/, "floz"));
  if (!typed) return null;
  const scale = VOLUME_UNITS_L[typed.unit ?? (system === "metric" ? "l" : "floz")];
  return scale === undefined ? null : typed.number * scale;
}

/** A temperature in °C: a bare number is °C or °F by the unit system. */
export function parseTemperature(text: string, system: UnitSystem): number | null {
  const typed = parseNumber(text);
  if (!typed) return null;
  const unit = (typed.unit ?? (system === "metric" ? "c" : "f")).replace("°", "");
  if (unit === "c") return typed.number;
  return unit === "f" ? ((typed.number - 32) * 5) / 9 : null;
}

/** A share 0-1 typed in percent. */
export function parsePercent(text: string): number | null {
  const typed = parseNumber(text);
  return typed && (typed.unit === null || typed.unit === "%") ? typed.number / 100 : null;
}

/** A plain number. */
export function parseCount(text: string): number | null {
  const typed = parseNumber(text);
  return typed && typed.unit === null ? typed.number : null;
}

const FORCE_UNITS_N: Readonly<Record<string, number>> = { n: 1, kn: 1000, lbf: 4.4482216152605 };

/** A force in newtons: "60 N", "13 lbf"; a bare number is newtons or pounds-force. A weight in kilograms is not read. */
export function parseForce(text: string, system: UnitSystem): number | null {
  const typed = parseNumber(text);
  if (!typed) return null;
  const scale = FORCE_UNITS_N[typed.unit ?? (system === "metric" ? "n" : "lbf")];
  return scale === undefined ? null : typed.number * scale;
}

/** A time span in hours: "2.5", "2 h 30 min", "45 min", "2 days"; a bare number is hours. */
export function parseHours(text: string): number | null {
  const parts = /^(?:(\d*[.,]?\d+)\s*h)?\s*(?:(\d+)\s*min)?$/i.exec(text.trim());
  if (parts && (parts[1] !== undefined || parts[2] !== undefined)) {
    return Number((parts[1] ?? "0").replace(",", ".")) + Number(parts[2] ?? 0) / 60;
  }
  const typed = parseNumber(text);
  if (!typed) return null;
  if (typed.unit === "d" || typed.unit === "day" || typed.unit === "days") return typed.number * 24;
  return typed.unit === null ? typed.number : null;
}
