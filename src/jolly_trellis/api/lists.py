"""Shopping, packing and days before; what it costs; recipe tools."""

from decimal import Decimal
from typing import Annotated, get_args

from fastapi import APIRouter, Query
from fastapi.responses import Response

from jolly_trellis.api.answers import EventChange
from jolly_trellis.api.deps import Connection, CutsDone, Number
from jolly_trellis.api.event_answers import change_out
from jolly_trellis.api.list_models import (
    ApplyScale,
    CostOut,
    GoodsIn,
    GoodsOut,
    HomeIn,
    InsteadIn,
    KeepSplit,
    LastingIn,
    ListsOut,
    MixIn,
    ReachIn,
    ReachOut,
    ReuseIn,
    ScaleRecipe,
    SplitIn,
    SwapIn,
    TickIn,
)
from jolly_trellis.api.models import BasedOn
from jolly_trellis.core.event.buying.orders import orders_of
from jolly_trellis.core.event.needs.hires import out_of_time
from jolly_trellis.core.event.recipes.budget import Split
from jolly_trellis.core.event.recipes.lasting_care import lasting_care
from jolly_trellis.core.event.recipes.recipes import (
    Lasting,
    Mix,
    lasting,
    scale_factor,
    scaled,
    side_shoots,
    tall_and_low,
)
from jolly_trellis.core.event.returning.finished import offers
from jolly_trellis.core.event.returning.reservations import away
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.services import (
    coming_home,
    event_work,
    listing,
    planning,
    price_target,
    quoting,
    recipes,
    reserving,
    searches,
    swapping,
)
from jolly_trellis.services.coming_home import ReturnsState
from jolly_trellis.services.quoting import standing_of
from jolly_trellis.services.reserving import Instead, shortfalls_of
from jolly_trellis.services.swapping import Swapped
from jolly_trellis.store import ticks
from jolly_trellis.store.ticks import Tick, TickedList

router = APIRouter(prefix="/api/events/{event_id}", tags=["lists"])


@router.get("/lists", dependencies=[CutsDone])
def get_lists(event_id: Number, conn: Connection) -> ListsOut:
    work = event_work.work_of(conn, event_id)
    shopping = event_work.shopping_of(conn, work)
    shelves = work.shelves
    return ListsOut(
        name=work.plan.brief.name,
        currency=work.job.costing.currency,
        shopping=shopping,
        shortfalls=list(shortfalls_of(conn, work)),
        days=list(event_work.days_of(work)),
        side_shoots=list(side_shoots(work.needs.stems, work.conditions.varieties, work.needs.shoots)),
        pull=list(recipes.pull_rows(work)),
        orders=list(orders_of(shopping)),
        ticks={each: list(ticks.ticks(conn, event_id, each)) for each in get_args(TickedList)},
        offers=list(
            offers(work.needs, shelves.armatures, shelves.armatures_kept, work.larder.nettings, work.job.reused)
        ),
        hires_out_of_time=list(out_of_time(work.job.hires, away(work.job))),
        returns=coming_home.state_of(conn, work),
        ledger=list(listing.ledger_of(conn, work, shopping)),
        lasting=list(lasting_care(work.job, work.made, work.varieties)),
    )


@router.put("/ticks")
def put_tick(event_id: Number, body: TickIn, conn: Connection) -> dict[TickedList, list[Tick]]:
    """Tick a line of a list, or take the tick away."""
    listing.tick(conn, event_id, body.list, body.line, body.as_tick(body.tick), body.as_tick(body.was))
    return {each: list(ticks.ticks(conn, event_id, each)) for each in get_args(TickedList)}


@router.post("/goods-in", dependencies=[CutsDone])
def goods_in(event_id: Number, body: GoodsIn, conn: Connection) -> GoodsOut:
    """Read what came in from an order's CSV."""
    unknown = listing.came_in(conn, event_id, body.text)
    return GoodsOut(
        unknown=list(unknown), ticks={each: list(ticks.ticks(conn, event_id, each)) for each in get_args(TickedList)}
    )


@router.post("/reuse", response_model=EventChange)
def reuse(event_id: Number, body: ReuseIn, conn: Connection) -> Response:
    """Make so many of a part from finished armatures."""
    state = listing.reuse(conn, event_id, body.part, body.armature, body.number, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


@router.get("/swap")
def try_swap(
    event_id: Number,
    conn: Connection,
    old: Annotated[str, Query(max_length=60)],
    new: Annotated[str, Query(min_length=1, max_length=120)],
) -> Swapped:
    """What another variety in the place of one would change; `new` is its key or any of its names."""
    return swapping.try_swap(conn, event_id, old, new)


@router.post("/swap", response_model=EventChange)
def swap(event_id: Number, body: SwapIn, conn: Connection) -> Response:
    """Swap a variety in everything of the event."""
    state = swapping.swap(conn, event_id, body.old, body.new, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


@router.get("/instead")
def get_instead(event_id: Number, thing: Annotated[str, Query(max_length=140)], conn: Connection) -> list[Instead]:
    """Vessels that are free then and could stand in for one, each tried in every piece."""
    return list(reserving.instead_of(conn, event_id, thing))


@router.post("/instead", response_model=EventChange)
def take_instead(event_id: Number, body: InsteadIn, conn: Connection) -> Response:
    state = reserving.take_instead(conn, event_id, body.thing, body.vessel, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


@router.post("/home")
def come_home(event_id: Number, body: HomeIn, conn: Connection) -> ReturnsState:
    """Take everything back into the stores, in one act."""
    coming_home.come_home(conn, event_id, body.lines)
    return coming_home.state(conn, event_id)


@router.delete("/home")
def not_home(event_id: Number, conn: Connection) -> ReturnsState:
    """Take a homecoming back."""
    coming_home.take_back(conn, event_id)
    return coming_home.state(conn, event_id)


@router.get("/cost")
def get_cost(event_id: Number, conn: Connection) -> CostOut:
    work = event_work.work_of(conn, event_id)
    cost = event_work.cost_of_event(work)
    return CostOut(revision=work.revision, cost=cost, standing=standing_of(work, cost))


@router.post("/quote", response_model=EventChange)
def accept_quote(event_id: Number, body: BasedOn, conn: Connection) -> Response:
    """Keep today's price as what the client has accepted."""
    return change_out(conn, quoting.accept(conn, event_id, base_revision=body.base_revision), body.base_revision)


@router.post("/quote/let-go", response_model=EventChange)
def let_quote_go(event_id: Number, body: BasedOn, conn: Connection) -> Response:
    return change_out(conn, quoting.let_go(conn, event_id, base_revision=body.base_revision), body.base_revision)


@router.get("/target")
def get_target(event_id: Number, conn: Connection) -> ReachOut:
    """What would reach the target, tried in the background; ask again to see how it stands."""
    running = searches.reached(conn, event_id)
    if running.problem is not None:
        raise running.problem
    return ReachOut(reached=running.best, running=not running.done)


@router.post("/target", response_model=EventChange)
def reach_target(event_id: Number, body: ReachIn, conn: Connection) -> Response:
    """Make a change that was tried."""
    state = price_target.apply(conn, event_id, body.key, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


@router.post("/parts/{part_id}/scaled")
def scale_recipe(event_id: Number, part_id: Number, body: ScaleRecipe, conn: Connection) -> list[RecipeLine]:
    """A part's recipe for another size; nothing is saved."""
    part, _ = planning.part_of(conn, event_id, part_id)
    return list(scaled(part.recipe, scale_factor(body.by, body.was_m, body.now_m)))


@router.post("/parts/{part_id}/scale", response_model=EventChange)
def apply_scale(event_id: Number, part_id: Number, body: ApplyScale, conn: Connection) -> Response:
    """Keep a part's recipe for another size."""
    factor = scale_factor(body.scale.by, body.scale.was_m, body.scale.now_m)
    state = recipes.scale(conn, event_id, part_id, factor, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


@router.post("/parts/{part_id}/split")
def split_budget(event_id: Number, part_id: Number, body: SplitIn, conn: Connection) -> Split:
    """What a budget for the stems of one piece buys, as a proposal; nothing is saved."""
    return recipes.split(conn, event_id, part_id, body.budget, body.premium)


@router.post("/parts/{part_id}/split/keep", response_model=EventChange)
def keep_split(event_id: Number, part_id: Number, body: KeepSplit, conn: Connection) -> Response:
    """Keep what a budget buys."""
    state = recipes.keep_split(conn, event_id, part_id, body.budget, body.premium, base_revision=body.base_revision)
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
    recipes.refuse_what_keeps(work, part_id)
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
