"""Supplies: what is used up or taken along beside netting, frogs and vessels, as it is sold."""

from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from jolly_trellis.core.provenance import ESTIMATE, Provenance
from jolly_trellis.core.ranges import Key, Range, Text

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

    key: Key
    name: Annotated[str, Text(120, least=1)]
    measured_by: MeasuredBy
    pack: Annotated[float, Range("ratio", 0, 10000, above=True)]
    stick_m: Annotated[float | None, Range("length", 0, 10, above=True)] = None
    price: Annotated[float | None, Range("ratio", 0, 10000)] = None
    spare: Annotated[float, Range("ratio", 0, 2)] = 0.0
    supplier: Supplier = "sundries"
    provenance: Provenance = ESTIMATE
