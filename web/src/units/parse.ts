/** Reading quantities as typed. The same cases as the Python side, held to one table by the tests. */

export type UnitSystem = "metric" | "inch";

const INCH_M = 0.0254;
const MOST_CHARACTERS = 40;
const MOST_GAUGE = 40;
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
  lbs: 0.45359237,
  gram: 0.001,
  grams: 0.001,
  kilogram: 1,
  kilograms: 1,
  ounce: 0.45359237 / 16,
  ounces: 0.45359237 / 16,
  pound: 0.45359237,
  pounds: 0.45359237,
};
const WORDS_M: Readonly<Record<string, number>> = {
  metre: 1,
  metres: 1,
  meter: 1,
  meters: 1,
  centimetre: 0.01,
  centimetres: 0.01,
  centimeter: 0.01,
  centimeters: 0.01,
  millimetre: 0.001,
  millimetres: 0.001,
  millimeter: 0.001,
  millimeters: 0.001,
  foot: 12 * INCH_M,
  feet: 12 * INCH_M,
};
const FRACTIONS: Readonly<Record<string, string>> = {
  "¼": " 1/4",
  "½": " 1/2",
  "¾": " 3/4",
  "⅛": " 1/8",
  "⅜": " 3/8",
  "⅝": " 5/8",
  "⅞": " 7/8",
};
const FEET_AND_INCHES = /^(\d+)\s*(?:ft|foot|feet|'|′)\s*(\d.*)$/;
const POUNDS_AND_OUNCES = /^(\d+)\s*(?:lb|lbs|pound|pounds)\s*(\d.*)$/;
const GROUPED = /(?<![\d.,])\d{1,3}(?:,\d{3})+(?![\d,])/;
const TYPED = /^(-)?(?:(?:(\d+)[ -]+)?(\d+)\/(\d+)|(\d*[.,]?\d+))\s*([a-zµ°]+|["″'′%])?$/;

/** What was typed in small letters, fractions of one sign written out. */
function plain(text: string): string {
  return text
    .toLowerCase()
    .replace(/[¼½¾⅛⅜⅝⅞]/g, (sign) => FRACTIONS[sign] ?? sign)
    .trim();
}

/** The part of a text that may be a thousand or a fraction, as "1,200" may: it is asked about, and not read. */
export function ambiguous(text: string): string | null {
  return GROUPED.exec(text)?.[0] ?? null;
}

/** A typed number and its unit, or null where the text is neither. */
export function parseNumber(text: string): { number: number; unit: string | null } | null {
  const match = ambiguous(text) ? null : TYPED.exec(plain(text));
  if (!match) return null;
  const [, sign, whole, top, bottom, decimal, unit] = match;
  let number: number;
  if (decimal !== undefined) number = Number(decimal.replace(",", "."));
  else if (Number(bottom) === 0) return null;
  else number = Number(whole ?? 0) + Number(top) / Number(bottom);
  return { number: sign ? -number : number, unit: unit ?? null };
}

/**
 * A length in metres: "36", "36cm", "14 1/4 in", "10¾", "5'6\"", "12 cells"; null where the text is no length.
 * A bare number is in `bare`, the unit the field shows; else in centimetres or inches.
 */
export function parseLength(
  text: string,
  system: UnitSystem,
  cellM?: number,
  bare?: string | null,
): number | null {
  if (text.length > MOST_CHARACTERS) return null;
  const feet = FEET_AND_INCHES.exec(plain(text));
  if (feet) {
    const inches = parseLength(feet[2] ?? "", "inch", undefined, "in");
    return inches === null ? null : Number(feet[1]) * 12 * INCH_M + inches;
  }
  const typed = parseNumber(text);
  if (!typed) return null;
  const unit = typed.unit ?? bare ?? (system === "metric" ? "cm" : "in");
  if (unit === "cell" || unit === "cells") return cellM === undefined ? null : typed.number * cellM;
  if (unit === "awg") {
    return typed.number >= 0 && typed.number <= MOST_GAUGE
      ? 0.000127 * 92 ** ((36 - typed.number) / 39)
      : null;
  }
  if (unit === "swg") return IMPERIAL_GAUGE_M[typed.number] ?? null;
  const scale = LENGTH_UNITS_M[unit] ?? WORDS_M[unit];
  return scale === undefined ? null : typed.number * scale;
}

/** A mass in kilograms: "880 g", "1 1/2 lb", "2 lb 4 oz"; a bare number is in `bare`, else in grams or ounces. */
export function parseMass(text: string, system: UnitSystem, bare?: string | null): number | null {
  const pounds = POUNDS_AND_OUNCES.exec(plain(text));
  if (pounds) {
    const ounces = parseMass(pounds[2] ?? "", "inch", "oz");
    return ounces === null ? null : Number(pounds[1]) * 0.45359237 + ounces;
  }
  const typed = parseNumber(text);
  if (!typed) return null;
  const scale = MASS_UNITS_KG[typed.unit ?? bare ?? (system === "metric" ? "g" : "oz")];
  return scale === undefined ? null : typed.number * scale;
}

const VOLUME_UNITS_L: Readonly<Record<string, number>> = {
  ml: 0.001,
  cl: 0.01,
  l: 1,
  litre: 1,
  litres: 1,
  liter: 1,
  liters: 1,
  oz: 0.0295735295625,
  floz: 0.0295735295625,
};

/** A volume in litres: "1.5 L", "500 ml", "16 fl oz"; a bare number is in `bare`, else in litres or fluid ounces. */
export function parseVolume(text: string, system: UnitSystem, bare?: string | null): number | null {
  const typed = parseNumber(text.toLowerCase().replace(/fl\.? ?oz/, "floz"));
  if (!typed) return null;
  const unit = typed.unit ?? bare?.replace(/fl\.? ?oz/, "floz") ?? (system === "metric" ? "l" : "floz");
  const scale = VOLUME_UNITS_L[unit.toLowerCase()];
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

/** A working load is stamped and stated as a weight as often as a force. */
const FORCE_UNITS_N: Readonly<Record<string, number>> = {
  n: 1,
  kn: 1000,
  lbf: 4.4482216152605,
  kg: 9.80665,
  g: 0.00980665,
  lb: 4.4482216152605,
  lbs: 4.4482216152605,
};

/** A force in newtons: "60 N", "13 lbf", or what weighs as much: "20 kg"; a bare number is newtons or pounds-force. */
export function parseForce(text: string, system: UnitSystem): number | null {
  const typed = parseNumber(text);
  if (!typed) return null;
  const scale = FORCE_UNITS_N[typed.unit ?? (system === "metric" ? "n" : "lbf")];
  return scale === undefined ? null : typed.number * scale;
}

/** A time span in hours: "2.5", "2 h 30 min", "45 min", "2 days"; a bare number is hours. */
export function parseHours(text: string): number | null {
  const parts = /^(?:(\d*[.,]?\d+)\s*h)?\s*(?:(\d+)\s*(?:min)?)?$/i.exec(text.trim());
  if (parts && (parts[1] !== undefined || /min/i.test(text))) {
    return Number((parts[1] ?? "0").replace(",", ".")) + Number(parts[2] ?? 0) / 60;
  }
  const typed = parseNumber(text);
  if (!typed) return null;
  if (typed.unit === "d" || typed.unit === "day" || typed.unit === "days") return typed.number * 24;
  return typed.unit === null ? typed.number : null;
}

/** The unit of a text such as "5 mm" or "1.65 L": what a bare number typed over it is in. */
export function unitShown(shown: string): string | null {
  return /([a-zA-Z][a-zA-Z .]*)$/.exec(shown)?.[1]?.trim().toLowerCase() ?? null;
}
