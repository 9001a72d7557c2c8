"""Supplies: what is used up or taken along beside netting, frogs and vessels, as it is sold."""

from dataclasses import dataclass
from typing import Literal, get_args

from jolly_trellis.core.provenance import ESTIMATE, Provenance

MeasuredBy = Literal["piece", "length", "stick", "mass"]
MEASURED_BY: tuple[MeasuredBy, ...] = get_args(MeasuredBy)
Supplier = Literal["market", "sundries", "hardware", "rigging"]
SUPPLIERS: tuple[Supplier, ...] = get_args(Supplier)


@dataclass(frozen=True, slots=True, kw_only=True)
class Supply:
    """One supply as it is sold.

    `measured_by` says what `pack` counts: pieces, metres of one spool, sticks of `stick_m` each, or kilograms. `price`
    is of a pack, None not known; `spare` the share that is taken beyond what is needed; `supplier` who sells it.
    """

    key: str
    name: str
    measured_by: MeasuredBy
    pack: float
    stick_m: float | None = None
    price: float | None = None
    spare: float = 0.0
    supplier: Supplier = "sundries"
    provenance: Provenance = ESTIMATE
