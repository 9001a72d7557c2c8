"""The catalogue that ships: complete, consistent, every figure with its provenance."""

from typing import get_args

import pytest

from jolly_trellis.catalog import loaders
from jolly_trellis.catalog.columns import rows_of
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.stems import HeadForm, Stiffness, Thirst, Variety, check_kind
from jolly_trellis.core.materials.vessels import Material, Vessel, check_vessel, volume_below_l
from jolly_trellis.core.plan_shapes import SHAPES
from jolly_trellis.core.provenance import PROVENANCE_KINDS


def test_there_are_at_least_forty_varieties_with_their_own_keys() -> None:
    keys = [each.key for each in loaders.varieties()]
    assert len(keys) >= 40
    assert len(keys) == len(set(keys))


@pytest.mark.parametrize("variety", loaders.varieties(), ids=lambda each: each.key)
def test_a_variety_is_complete_and_plausible(variety: Variety) -> None:
    assert variety.form in get_args(HeadForm)
    assert variety.stiffness in get_args(Stiffness)
    assert variety.thirst in get_args(Thirst)
    assert 0.001 <= variety.stem_diameter_m <= 0.02
    assert 0.01 <= variety.head_diameter_m <= 0.3
    assert 0.001 <= variety.mass_kg <= 0.25
    assert 0.1 <= variety.head_fraction <= 0.85
    assert variety.heavy_mass_kg is None or variety.heavy_mass_kg > variety.mass_kg
    assert variety.uptake_ml_h == 0 if variety.lasting else 0.15 <= variety.uptake_ml_h <= 5
    check_kind(variety)
    assert variety.sold_lengths_m == tuple(sorted(variety.sold_lengths_m))
    assert variety.bunch_size >= 1
    groups = variety.provenance
    for each in (groups.size, groups.mass, groups.uptake, groups.dry_hold, groups.hazard):
        assert each.kind in PROVENANCE_KINDS
        assert each.source


@pytest.mark.parametrize("netting", loaders.nettings(), ids=lambda each: each.key)
def test_a_netting_makes_a_net(netting: nets.Netting) -> None:
    assert 0.1 < nets.mass_per_area_kg_m2(netting) < 1.5
    assert netting.provenance.kind in PROVENANCE_KINDS


@pytest.mark.parametrize(("key", "vessel"), loaders.vessels(), ids=lambda each: str(each)[:20])
def test_a_vessel_holds_water(key: str, vessel: Vessel) -> None:
    check_vessel(vessel)
    assert vessel.plan_shape in SHAPES
    assert vessel.material in get_args(Material)
    assert 0.05 < volume_below_l(vessel, vessel.inside_depth_m) < 30, key
    assert vessel.provenance == "estimate"


def test_a_row_with_an_unknown_provenance_is_refused() -> None:
    text = "key,name,aperture_mm,wire_mm,finish,roll_width_m,roll_length_m,size_provenance\n"
    text += "x,x,25,0.9,coated,0.5,10,rumour\n"
    [(line, thing, refused)] = rows_of("netting", text)
    assert (line, thing) == (2, None)
    assert refused is not None
    assert "rumour" in refused.why
