"""Reading and writing quantities in metric and in inches, pounds and fluid ounces.

The core computes in SI throughout; this module serves print, export and the tests. The screen has the same
rules in `web/src/units`, and both are held to one table of cases in `tests/units_cases.json`.
"""

import math
import re
from typing import Literal

from jolly_trellis.core.quantities import Phrase, Quantity

UnitSystem = Literal["metric", "inch"]

INCH_M = 0.0254
POUND_KG = 0.45359237
US_FLUID_OUNCE_L = 0.0295735295625
US_QUART_L = 32 * US_FLUID_OUNCE_L
POUND_FORCE_N = 4.4482216152605
KILOGRAM_FORCE_N = 9.80665

LONG_M = 10.0  # from here on lengths are said in metres, or feet
MOST_CHARACTERS = 40
MOST_GAUGE = 40
_LENGTH_UNITS_M = {
    "m": 1.0,
    "cm": 0.01,
    "mm": 0.001,
    "in": INCH_M,
    "inch": INCH_M,
    "inches": INCH_M,
    '"': INCH_M,
    "″": INCH_M,
    "ft": 12 * INCH_M,
    "'": 12 * INCH_M,
    "′": 12 * INCH_M,
}
# Imperial standard wire gauge, metres; a table, not a formula (BS 3737, published).
IMPERIAL_GAUGE_M: dict[float, float] = {
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
}
_WORDS_M = {
    "metre": 1.0,
    "metres": 1.0,
    "meter": 1.0,
    "meters": 1.0,
    "centimetre": 0.01,
    "centimetres": 0.01,
    "centimeter": 0.01,
    "centimeters": 0.01,
    "millimetre": 0.001,
    "millimetres": 0.001,
    "millimeter": 0.001,
    "millimeters": 0.001,
    "foot": 12 * INCH_M,
    "feet": 12 * INCH_M,
}
_FRACTIONS = {"¼": " 1/4", "½": " 1/2", "¾": " 3/4", "⅛": " 1/8", "⅜": " 3/8", "⅝": " 5/8", "⅞": " 7/8"}
_FEET_AND_INCHES = re.compile(r"^(?P<feet>\d+)\s*(?:ft|foot|feet|'|′)\s*(?P<rest>\d.*)$")
_GROUPED = re.compile(r"(?<![\d.,])\d{1,3}(?:,\d{3})+(?![\d,])")
_NUMBER = r"(?:(?P<whole>\d+)[ -]+)?(?P<top>\d+)/(?P<bottom>\d+)|(?P<decimal>\d*[.,]?\d+)"
_LENGTH = re.compile(rf"^(?P<sign>-)?(?:{_NUMBER})\s*(?P<unit>[a-z]+|[\"″'′])?$")
_SLOT = re.compile(r"\{(\w+)\}")


def parse_length(
    text: str, *, system: UnitSystem = "metric", cell_m: float | None = None, bare: str | None = None
) -> float | None:
    """Read a length as typed: "36", "36cm", "14 1/4 in", "10¾", "5'6\"", "0,5 m", "12 cells", or a wire as "20 swg".

    A gauge without its standard is ambiguous, and is not read; nor is "1,200", which may be one and a fifth, nor what
    is longer than anyone would type.

    Args:
        text: what was typed.
        system: the unit of a bare number where `bare` says none, centimetres or inches.
        cell_m: pitch of one cell in metres; without it "cells" cannot be read.
        bare: the unit of a bare number, as it is shown in the field it is typed into.
    Returns:
        Length in metres, or None where the text is no length. The sign is kept for the caller to judge.
    Source: definition of the inch (international inch, 25.4 mm exactly).
    """
    if len(text) > MOST_CHARACTERS:
        return None
    plain = _plain_number(text)
    feet = _FEET_AND_INCHES.match(plain)
    if feet is not None:
        inches = parse_length(feet["rest"], bare="in")
        return None if inches is None else int(feet["feet"]) * 12 * INCH_M + inches
    match = None if _GROUPED.search(plain) else _LENGTH.match(plain)
    if match is None:
        return None
    if match["decimal"]:
        number = float(match["decimal"].replace(",", "."))
    else:
        if int(match["bottom"]) == 0:
            return None
        number = int(match["whole"] or 0) + int(match["top"]) / int(match["bottom"])
    number = -number if match["sign"] else number
    unit = match["unit"]
    if unit in ("cell", "cells"):
        return None if cell_m is None else number * cell_m
    if unit is None:
        unit = bare or ("cm" if system == "metric" else "in")
    if unit in ("awg", "swg"):
        if unit == "swg":
            return IMPERIAL_GAUGE_M.get(number)
        return american_gauge_m(number) if 0 <= number <= MOST_GAUGE else None
    scale = _LENGTH_UNITS_M.get(unit, _WORDS_M.get(unit))
    return None if scale is None else number * scale


def _plain_number(text: str) -> str:
    """What was typed in small letters, fractions of one sign written out."""
    plain = text.strip().lower()
    for sign, written in _FRACTIONS.items():
        plain = plain.replace(sign, written)
    return plain.strip()


def american_gauge_m(gauge: float) -> float:
    """Diameter of a wire of the American wire gauge: 0.127·92^((36 − n)/39) mm, in metres.

    Args:
        gauge: n, 0-40.
    Source: ASTM B258 (published).
    """
    return 0.000127 * 92 ** ((36 - gauge) / 39)


def round_up(value: float, step: float) -> float:
    """Round up to the next whole step, ignoring a millionth of a step of noise.

    Source: definition.
    """
    return math.ceil(value / step - 1e-6) * step


def cut_length_text(length_m: float, system: UnitSystem) -> str:
    """A length as one would cut it: up to the next half centimetre or quarter inch."""
    if system == "metric":
        return f"{_trim(round_up(length_m * 100, 0.5), 1)} cm"
    return f"{_inch_fraction(round_up(length_m / INCH_M, 0.25), 4)} in"


def level_text(level_m: float, system: UnitSystem, *, up: bool) -> str:
    """A water level as one marks it: to the millimetre or the eighth of an inch, up or down."""
    step = 0.001 if system == "metric" else INCH_M / 8
    steps = math.ceil(level_m / step - 1e-6) if up else math.floor(level_m / step + 1e-6)
    return text_of(Quantity(kind="length", value=steps * step), system)


def text_of(quantity: Quantity, system: UnitSystem) -> str:
    """A quantity in words for one unit system, rounded as people read it."""
    value = quantity.value
    match quantity.kind:
        case "length":
            if abs(value) >= LONG_M:
                return _long(value, system)
            if system == "inch":
                return f"{_inches(value / INCH_M)} in"
            return f"{_trim(value * 1000, 1)} mm" if abs(value) < 0.01 else f"{_trim(value * 100, 1)} cm"
        case "cut_length":
            return cut_length_text(value, system)
        case "level_most" | "level_least":
            return level_text(value, system, up=quantity.kind == "level_least")
        case "mass":
            if system == "inch":
                pounds = value / POUND_KG
                return f"{_trim(pounds * 16, 1)} oz" if abs(pounds) < 1 else f"{_trim(pounds, 2)} lb"
            digits = 1 if abs(value) < 0.00995 else 0
            return f"{_trim(value * 1000, digits)} g" if abs(value) < 1 else f"{_trim(value, 2)} kg"
        case "volume":
            if system == "inch":
                return f"{_trim(value / US_FLUID_OUNCE_L, 1)} fl oz"
            return f"{_trim(value * 1000, 0)} ml" if abs(value) < 1 else f"{_trim(value, 2)} L"
        case "force":
            return f"{_trim(value / POUND_FORCE_N, 2)} lbf" if system == "inch" else f"{_trim(value, 1)} N"
        case "pull":
            if system == "inch":
                return f"{_trim(value / POUND_FORCE_N, 2)} lbf"
            return f"{_trim(value, 1)} N ({_trim(value / KILOGRAM_FORCE_N, 1)} kg)"
        case "line_force":
            return (
                f"{_trim(value / POUND_FORCE_N * INCH_M, 2)} lbf/in" if system == "inch" else f"{_trim(value, 1)} N/m"
            )
        case "area":
            return f"{_trim(value / INCH_M**2, 1)} in²" if system == "inch" else f"{_trim(value * 1e4, 1)} cm²"
        case "warming":
            return f"{_trim(value * 9 / 5, 0)} °F" if system == "inch" else f"{_trim(value, 1)} °C"
        case "price_m":
            return f"{_trim(value * 0.9144, 2)} a yard" if system == "inch" else f"{_trim(value, 2)} a metre"
        case "price_kg":
            return f"{_trim(value * POUND_KG, 2)} a pound" if system == "inch" else f"{_trim(value, 2)} a kilogram"
        case "price_l":
            return f"{_trim(value * US_QUART_L, 2)} a quart" if system == "inch" else f"{_trim(value, 2)} a litre"
        case "price_m2":
            return f"{_trim(value * 0.9144**2, 2)} a yd²" if system == "inch" else f"{_trim(value, 2)} a m²"
        case "temperature":
            return f"{_trim(value * 9 / 5 + 32, 0)} °F" if system == "inch" else f"{_trim(value, 1)} °C"
        case _:
            return _text_alike(quantity)


def render(sentence: Phrase, system: UnitSystem) -> str:
    """Fill the slots of a sentence in one unit system; braces that are no slot stay as they are."""

    def fill(match: re.Match[str]) -> str:
        quantity = sentence.quantities.get(match[1])
        return match[0] if quantity is None else text_of(quantity, system)

    return _SLOT.sub(fill, sentence.text)


def duration_text(hours: float) -> str:
    """A time span as "6 h 20 min", down to the minute."""
    minutes = math.floor(hours * 60 + 1e-6)
    whole, rest = divmod(minutes, 60)
    if whole == 0:
        return f"{rest} min"
    return f"{whole} h" if rest == 0 else f"{whole} h {rest} min"


def _text_alike(quantity: Quantity) -> str:
    """Kinds that read the same in both unit systems."""
    value = quantity.value
    match quantity.kind:
        case "duration":
            return duration_text(value)
        case "angle":
            return f"{_trim(math.degrees(value), 1)}°"
        case "moment":
            return f"{_trim(value, 2)} N·m"
        case "energy":
            return f"{_trim(value, 2)} J"
        case "pressure":
            return f"{_trim(value / 1000, 2)} kPa"
        case "density":
            return f"{_trim(value, 0)} kg/m³"
        case "areal_mass":
            return f"{_trim(value, 3)} kg/m²"
        case "linear_mass":
            return f"{_trim(value * 10, 2)} g/cm"
        case "draw":
            return f"{_trim(value, 2)} ml/h"
        case "acceleration":
            return f"{_trim(value, 5)} m/s²"
        case "stiffness":
            return f"{_trim(value, 2)} N·m²"
        case "count":
            return f"{value:.0f}"
        case "speed":
            return f"{_trim(value, 1)} m/s"
        case "per_speed":
            return f"{_trim(value, 2)} for each m/s"
        case "evaporation":
            return f"{_trim(value, 0)} ml/h for each m² and kPa"
        case "minutes":
            return f"{_trim(value, 2)} min"
        case _:
            return _trim(value, 3 if abs(value) < 0.1 else 2)


def _trim(value: float, digits: int) -> str:
    """Fixed digits, halves away from zero, without trailing zeros or a minus on zero."""
    scale = 10**digits
    text = f"{math.copysign(math.floor(abs(value) * scale + 0.5 + 1e-9) / scale, value):.{digits}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text == "-0" else text


def _long(length_m: float, system: UnitSystem) -> str:
    """A length as one says it of rolls and ropes: metres to the centimetre, feet with whole inches."""
    if system == "metric":
        return f"{_trim(length_m, 2)} m"
    inches = math.floor(abs(length_m) / INCH_M + 0.5)
    feet = f"{inches // 12} ft" + (f" {inches % 12} in" if inches % 12 else "")
    return feet if length_m > 0 else f"-{feet}"


def _inches(inches: float) -> str:
    """Inches to the nearest eighth, under a quarter to the sixteenth; what is finer, as wire is, in thousandths."""
    between = abs(inches * 8 - round(inches * 8)) > 1e-3
    if between and abs(inches) < 0.125:
        return _trim(inches, 3)
    return _inch_fraction(inches, 16 if abs(inches) < 0.25 else 8)


def _inch_fraction(inches: float, parts: int) -> str:
    """Inches to the nearest part, as "11 3/4"."""
    sign = "-" if inches < 0 else ""
    total = math.floor(abs(inches) * parts + 0.5)
    whole, rest = divmod(total, parts)
    if rest == 0:
        return f"{sign}{whole}"
    shrink = math.gcd(rest, parts)
    fraction = f"{rest // shrink}/{parts // shrink}"
    return f"{sign}{whole} {fraction}" if whole else f"{sign}{fraction}"
