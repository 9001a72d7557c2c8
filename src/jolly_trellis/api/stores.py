"""The stores, and where every figure comes from."""

import re
import unicodedata

from fastapi import APIRouter

from jolly_trellis.api.deps import Connection
from jolly_trellis.api.models import AddedVessel, AddVessel, FigureOut, StockOut, TopicOut
from jolly_trellis.core.figures import all_figures
from jolly_trellis.core.vessels import check_vessel
from jolly_trellis.store import stock
from jolly_trellis.store.connection import transaction

router = APIRouter(prefix="/api", tags=["stores"])


@router.get("/stock")
def get_stock(conn: Connection) -> StockOut:
    return StockOut(vessels=stock.vessels(conn), nettings=stock.nettings(conn), varieties=stock.varieties(conn))


@router.post("/stock/vessels", status_code=201)
def add_vessel(body: AddVessel, conn: Connection) -> AddedVessel:
    vessel = body.vessel.to_core()
    check_vessel(vessel)
    with transaction(conn):
        key = _free_key(vessel.name, set(stock.vessels(conn)))
        stock.add_vessel(conn, key, vessel)
    return AddedVessel(key=key, vessel=vessel)


@router.get("/figures")
def get_figures() -> list[TopicOut]:
    return [
        TopicOut(
            topic=topic,
            figures=[
                FigureOut(
                    label=each.label,
                    quantity=each.quantity,
                    provenance=each.provenance.kind,
                    source=each.provenance.source,
                )
                for each in figures
            ],
        )
        for topic, figures in all_figures()
    ]


def _free_key(name: str, taken: set[str]) -> str:
    """A key made of a name: plain letters, digits and dashes, numbered where it is taken."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    stem = re.sub(r"[^a-z0-9]+", "-", plain).strip("-") or "vessel"
    key, number = stem, 2
    while key in taken:
        key, number = f"{stem}-{number}", number + 1
    return key
