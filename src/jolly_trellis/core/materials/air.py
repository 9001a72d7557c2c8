"""Air and how fast it makes flowers drink and water vanish."""

import math
from dataclasses import dataclass
from typing import Annotated

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.provenance import Provenance
from jolly_trellis.core.quantities import Quantity, phrase
from jolly_trellis.core.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class Air:
    """The air of a place: °C, relative humidity 0-1, draught in m/s, and whether the sun is on the piece."""

    temperature_c: Annotated[float, Range("temperature", -5, 50)]
    relative_humidity: Annotated[float, Range("ratio", 0, 1)]
    speed_m_s: Annotated[float, Range("ratio", 0, 5)] = 0.1
    sun: bool = False


FAO_56 = Provenance(kind="published", source="FAO Irrigation and Drainage Paper 56, equation 11")
MAGNUS_SCALE = measure("Saturation vapour pressure at 0 °C", "pressure", 610.8, FAO_56)
REFERENCE_TEMPERATURE_C = 20.0
REFERENCE_HUMIDITY = 0.60
SUN_WARMING = measure("Leaves in sun are warmer than the air by", "warming", 8.0)
DRAW_FACTOR_LEAST = rule("Least the air slows drinking", "ratio", 0.3)
DRAW_FACTOR_MOST = rule("Most the air speeds drinking", "ratio", 3.0)
POOL_EVAPORATION = measure(
    "Evaporation of still water",
    "evaporation",
    131.0,
    Provenance(kind="from memory", source="still-water pool equation of the ASHRAE handbooks"),
)
POOL_DRAUGHT = measure(
    "Draught's share in evaporation",
    "per_speed",
    0.88,
    Provenance(kind="from memory", source="still-water pool equation of the ASHRAE handbooks"),
)
COVER_UNDER_MOSS = measure("Evaporation under moss against open water", "ratio", 0.2)
COVER_UNDER_FLOWERS = measure("Evaporation under flowers against open water", "ratio", 0.4)


def saturation_vapour_pressure_kpa(temperature_c: float) -> float:
    """Saturation vapour pressure over water: 0.6108·exp(17.27·T/(T + 237.3)), kPa.

    Args:
        temperature_c: air temperature, -10 to 60 °C.
    Raises:
        InvalidMeasure: outside that range.
    Source: FAO Irrigation and Drainage Paper 56, equation 11.
    """
    if not -10 <= temperature_c <= 60:
        raise InvalidMeasure(
            path="air.temperature_c",
            message=phrase("Air of {t} is out of range.", t=Quantity(kind="temperature", value=temperature_c)),
            limit=phrase(
                "Give {low} to {high}.",
                low=Quantity(kind="temperature", value=-10),
                high=Quantity(kind="temperature", value=60),
            ),
        )
    return MAGNUS_SCALE.value / 1000 * math.exp(17.27 * temperature_c / (temperature_c + 237.3))


def vapour_pressure_deficit_kpa(air: Air) -> float:
    """How dry the air is for a leaf: es(T) − RH·es(T); in sun the leaf is 8 K warmer than the air, kPa.

    Raises: InvalidMeasure: humidity outside 0-1 or temperature out of range.
    Source: FAO-56; the warming in sun is an estimate.
    """
    if not 0 <= air.relative_humidity <= 1:
        raise InvalidMeasure(
            path="air.relative_humidity",
            message=phrase(
                "A humidity of {relative_humidity} % is out of range.",
                relative_humidity=f"{air.relative_humidity * 100:.0f}",
            ),
            limit=phrase("Give 0 to 100 %."),
        )
    leaf = saturation_vapour_pressure_kpa(air.temperature_c + (SUN_WARMING.value if air.sun else 0.0))
    return leaf - air.relative_humidity * saturation_vapour_pressure_kpa(air.temperature_c)


def draw_factor(air: Air) -> float:
    """Drinking in this air against 20 °C and 60 %: ratio of the deficits, kept within 0.3-3.

    Source: proportion to the deficit and its bounds are estimates.
    """
    reference = Air(temperature_c=REFERENCE_TEMPERATURE_C, relative_humidity=REFERENCE_HUMIDITY)
    factor = vapour_pressure_deficit_kpa(air) / vapour_pressure_deficit_kpa(reference)
    return min(max(factor, DRAW_FACTOR_LEAST.value), DRAW_FACTOR_MOST.value)


def evaporation_ml_h(area_m2: float, air: Air, cover: float) -> float:
    """Water lost from a surface: 131·A·(1 + 0.88·v)·VPD·cover, ml/h.

    Args:
        area_m2: of the water surface.
        air: its deficit and draught.
        cover: 1 open, 0.4 under flowers, 0.2 under moss.
    Valid for: still or slow air, to 0.5 m/s.
    Source: still-water pool equation of the ASHRAE handbooks (from memory).
    """
    speed = 1 + POOL_DRAUGHT.value * air.speed_m_s
    return POOL_EVAPORATION.value * area_m2 * speed * max(vapour_pressure_deficit_kpa(air), 0.0) * cover
