"""Shopping, packing and days before; what it costs; recipe tools."""

from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field

from jolly_trellis.api.answers import EventChange
from jolly_trellis.api.deps import Connection, CutsDone, Number
from jolly_trellis.api.event_answers import change_out
from jolly_trellis.api.models import BasedOn
from jolly_trellis.api.sent import In
from jolly_trellis.core.event.cost import EventCost
from jolly_trellis.core.event.days_before import VarietyDays
from jolly_trellis.core.event.recipes import (
    Lasting,
    Mix,
    ScaleBy,
    SideShoots,
    lasting,
    scale_factor,
    scaled,
    side_shoots,
    tall_and_low,
)
from jolly_trellis.core.event.reservations import Shortfall
from jolly_trellis.core.event.shopping import Shopping
from jolly_trellis.core.plan.piece import RecipeLine
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange import price_sheets
from jolly_trellis.exchange.page import Paper
from jolly_trellis.exchange.price_sheets import Reader
from jolly_trellis.exchange.shopping_list import write_csv, write_pdf
from jolly_trellis.services import event_work, planning, recipes
from jolly_trellis.services.recipes import PullRow
from jolly_trellis.services.reserving import shortfalls_of
from jolly_trellis.services.stamps import stamp_of
from jolly_trellis.services.stores import free_key

router = APIRouter(prefix="/api/events/{event_id}", tags=["lists"])


class ScaleRecipe(In):
    """Two sizes of what is covered: metres of a length or diameter, square metres of an area."""

    by: ScaleBy
    was_m: Annotated[float, Field(le=1000)]
    now_m: Annotated[float, Field(le=1000)]


class ApplyScale(BasedOn):
    scale: ScaleRecipe


class MixIn(In):
    tables: Annotated[int, Field(ge=0, le=1000)]
    stands: Annotated[int, Field(ge=0, le=1000)]
    places_in_van: Annotated[int, Field(ge=0, le=1000)]
    hands: Annotated[int, Field(ge=0, le=100)]
    minutes_each: Annotated[float, Field(gt=0, le=600)] = 15.0
    minutes_there_are: Annotated[float, Field(ge=0, le=5000)]


class LastingIn(In):
    months: Annotated[int, Field(ge=1, le=120)] | None = None


class ListsOut(BaseModel):
    """Everything to buy and pack, what other events want as well, the days before, side shoots, stems of each piece as
    they are pulled.
    """

    name: str
    currency: str
    shopping: Shopping
    shortfalls: list[Shortfall]
    days: list[VarietyDays]
    side_shoots: list[SideShoots]
    pull: list[PullRow]


class CostOut(BaseModel):
    """What it costs, with the revision of the event it is reckoned from."""

    revision: int
    cost: EventCost


@router.get("/lists", dependencies=[CutsDone])
def get_lists(event_id: Number, conn: Connection) -> ListsOut:
    work = event_work.work_of(conn, event_id)
    return ListsOut(
        name=work.plan.brief.name,
        currency=work.job.costing.currency,
        shopping=event_work.shopping_of(conn, work),
        shortfalls=list(shortfalls_of(conn, work)),
        days=list(event_work.days_of(work)),
        side_shoots=list(side_shoots(work.needs.stems, work.conditions.varieties)),
        pull=list(recipes.pull_rows(work)),
    )


@router.get("/shopping.csv", dependencies=[CutsDone])
def shopping_csv(event_id: Number, conn: Connection) -> Response:
    work = event_work.work_of(conn, event_id)
    text = write_csv(event_work.shopping_of(conn, work))
    headers = {"Content-Disposition": f'attachment; filename="{free_key(work.plan.brief.name, set())}-shopping.csv"'}
    return Response(text, media_type="text/csv; charset=utf-8", headers=headers)


@router.get("/shopping.pdf", dependencies=[CutsDone])
def shopping_pdf(event_id: Number, conn: Connection, paper: Paper = "A4", system: UnitSystem = "metric") -> Response:
    work = event_work.work_of(conn, event_id)
    name, currency = work.plan.brief.name, work.job.costing.currency
    shopping = event_work.shopping_of(conn, work)
    page = write_pdf(shopping, stamp=stamp_of(conn, event_id), currency=currency, paper=paper, system=system)
    headers = {"Content-Disposition": f'inline; filename="{free_key(name, set())}-shopping.pdf"'}
    return Response(page, media_type="application/pdf", headers=headers)


@router.get("/cost")
def get_cost(event_id: Number, conn: Connection) -> CostOut:
    work = event_work.work_of(conn, event_id)
    return CostOut(revision=work.revision, cost=event_work.cost_of_event(work))


@router.get("/cost.csv")
def cost_csv(event_id: Number, conn: Connection, reader: Reader = "studio") -> Response:
    """What it costs as CSV; the client's has no costs."""
    work = event_work.work_of(conn, event_id)
    text = price_sheets.write_csv(event_work.cost_of_event(work), reader)
    file = f"{free_key(work.plan.brief.name, set())}-price-{reader}.csv"
    headers = {"Content-Disposition": f'attachment; filename="{file}"'}
    return Response(text, media_type="text/csv; charset=utf-8", headers=headers)


@router.get("/cost.pdf")
def cost_pdf(event_id: Number, conn: Connection, reader: Reader = "studio", paper: Paper = "A4") -> Response:
    """What it costs as a paper; the client's has no costs."""
    work = event_work.work_of(conn, event_id)
    cost = event_work.cost_of_event(work)
    page = price_sheets.write_pdf(cost, reader, stamp=stamp_of(conn, event_id), paper=paper)
    file = f"{free_key(work.plan.brief.name, set())}-price-{reader}.pdf"
    headers = {"Content-Disposition": f'inline; filename="{file}"'}
    return Response(page, media_type="application/pdf", headers=headers)


@router.post("/parts/{part_id}/scaled")
def scale_recipe(event_id: Number, part_id: Number, body: ScaleRecipe, conn: Connection) -> list[RecipeLine]:
    """A piece's recipe for another size; nothing is saved."""
    piece, _ = planning.piece_of(conn, event_id, part_id)
    return list(scaled(piece.recipe, scale_factor(body.by, body.was_m, body.now_m)))


@router.post("/parts/{part_id}/scale", response_model=EventChange)
def apply_scale(event_id: Number, part_id: Number, body: ApplyScale, conn: Connection) -> Response:
    """Keep a piece's recipe for another size."""
    factor = scale_factor(body.scale.by, body.scale.was_m, body.scale.now_m)
    state = recipes.scale(conn, event_id, part_id, factor, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


@router.post("/mix")
def mix(event_id: Number, body: MixIn) -> Mix:
    """How many tables can have a tall piece, and what keeps it from being more."""
    return tall_and_low(
        tables=body.tables,
        stands=body.stands,
        places_in_van=body.places_in_van,
        hands=body.hands,
        minutes_each=body.minutes_each,
        minutes_there_are=body.minutes_there_are,
    )


@router.post("/parts/{part_id}/lasting")
def compare_lasting(event_id: Number, part_id: Number, body: LastingIn, conn: Connection) -> Lasting:
    """One of a piece in dried and preserved stems against fresh ones that are renewed."""
    work = event_work.work_of(conn, event_id)
    cost = recipes.cost_of_piece(work, part_id)
    each = Decimal(cost.quantity)
    stems = sum(need.count for need in work.needs.stems if need.piece_id == part_id) // cost.quantity
    return lasting(
        stems=stems,
        fresh_stems_cost=cost.stems / each,
        other_cost=(cost.mechanics + cost.consumables) / each,
        labour=recipes.labour_of(cost) / each,
        months=body.months,
    )
