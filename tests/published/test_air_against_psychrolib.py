"""Vapour pressure against FAO-56 and against psychrolib (ASHRAE's formulas)."""

import psychrolib
import pytest

from jolly_trellis.core.materials.air import Air, saturation_vapour_pressure_kpa, vapour_pressure_deficit_kpa

psychrolib.SetUnitSystem(psychrolib.SI)

# FAO Irrigation and Drainage Paper 56, Annex 2, Table 2.3: saturation vapour pressure, kPa.
FAO_56_TABLE = {20.0: 2.338, 30.0: 4.243}


@pytest.mark.parametrize(("temperature", "pressure"), sorted(FAO_56_TABLE.items()))
def test_saturation_pressure_of_the_fao_table(temperature: float, pressure: float) -> None:
    assert saturation_vapour_pressure_kpa(temperature) == pytest.approx(pressure, abs=0.0006)


@pytest.mark.parametrize("temperature", [0.1, *range(1, 46)])
def test_saturation_pressure_agrees_with_psychrolib_to_0_15_percent(temperature: float) -> None:
    other = psychrolib.GetSatVapPres(float(temperature)) / 1000
    assert saturation_vapour_pressure_kpa(float(temperature)) == pytest.approx(other, rel=0.0015)


@pytest.mark.parametrize(("temperature", "humidity"), [(12, 0.7), (20, 0.6), (28, 0.45), (35, 0.2)])
def test_the_deficit_agrees_with_psychrolib(temperature: float, humidity: float) -> None:
    other = psychrolib.GetVaporPressureDeficit(
        float(temperature), psychrolib.GetHumRatioFromRelHum(float(temperature), humidity, 101325.0), 101325.0
    )
    mine = vapour_pressure_deficit_kpa(Air(temperature_c=float(temperature), relative_humidity=humidity))
    assert mine == pytest.approx(other / 1000, rel=0.002)
