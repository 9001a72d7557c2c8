"""The stores, what can be chosen, and where every figure comes from."""

import sqlite3
from dataclasses import replace
from typing import Annotated

from fastapi import APIRouter, Query
from fastapi.responses import Response

from jolly_trellis.api.deps import BaseRevision, Connection
from jolly_trellis.api.papers import PAPERS
from jolly_trellis.api.store_models import (
    PUT_THINGS,
    AboutOut,
    AddPicture,
    CheckFill,
    ColourOut,
    DrawVessel,
    FittingOut,
    FormOut,
    HoldingOut,
    ImportOut,
    ImportTable,
    Kept,
    LineOut,
    OutlineOut,
    PointKindOut,
    PutCurrency,
    PutHolding,
    PutThing,
    ReadOutline,
    RefusedOut,
    SchoolOut,
    ShapeOut,
    StartOut,
    StockOut,
    StoreOut,
    TradeOut,
    VesselDrawn,
    ViewOut,
)
from jolly_trellis.catalog.about import STORES, column_of
from jolly_trellis.catalog.rows import HeldKind, StoreKind
from jolly_trellis.core.checks.verdicts import TIGHT_FROM
from jolly_trellis.core.drawing.heads import HEADS
from jolly_trellis.core.drawing.vessels import drawn_vessel
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.starting.starts import STARTS
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.glossary import GLOSSARY
from jolly_trellis.core.materials.vessels import check_vessel
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.plan.practice import SCHOOLS
from jolly_trellis.core.plan_shapes import SHAPES
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.lines import LINES
from jolly_trellis.core.say.words import COLOURS
from jolly_trellis.exchange import vessel_outline
from jolly_trellis.exchange.pictures import colour_at
from jolly_trellis.exchange.vessel_outline import FillCheck
from jolly_trellis.services import pictures, stores
from jolly_trellis.services.gate import Based
from jolly_trellis.store import codec, stock, stock_history

router = APIRouter(prefix="/api", tags=["stores"])


@router.get("/stock")
def get_stock(conn: Connection) -> StockOut:
    place = stock_history.place(conn)
    every = {about.plural: stock.things(conn, kind) for kind, about in STORES.items()}
    return StockOut(
        revision=stock.revision(conn),
        currency=stock.currency(conn),
        undo=place.undo,
        redo=place.redo,
        deleted=list(stock_history.deleted(conn)),
        drawn={key: list(drawn_vessel(each)) for key, each in every["vessels"].items()},
        holdings={
            kind: {key: HoldingOut(**codec.to_plain(each)) for key, each in held.items()}
            for kind, held in stock.holdings(conn).items()
        },
        **every,
    )


@router.get("/trade")
def get_trade() -> TradeOut:
    return TradeOut(
        mechanics=[
            AboutOut(
                kind=each.kind,
                name=each.name,
                what=each.what,
                netting=each.netting,
                frog=each.frog,
                tapes=each.tapes,
                bought=each.bought,
                of=each.of,
                reads=sorted(each.reads),
                moss_round=each.moss_round,
            )
            for each in ABOUT.values()
        ],
        stores=[
            StoreOut(
                kind=each.kind,
                plural=each.plural,
                title=each.title,
                views=[
                    ViewOut(words=view.words, columns=[column_of(each, field) for field in view.fields])
                    for view in each.views
                ],
            )
            for each in STORES.values()
        ],
        papers=list(PAPERS.values()),
        glossary=list(GLOSSARY),
        tight_from=TIGHT_FROM,
        colours=[ColourOut(name=name, colour=colour) for name, colour in COLOURS.items()],
        lines=[
            LineOut(
                kind=each.kind,
                rated=each.rated,
                usual_m=each.usual_m,
                usual_n=each.usual_n,
                fittings=[FittingOut(fitting=key, done=way.done) for key, way in each.fittings.items()],
            )
            for each in LINES.values()
        ],
        forms=[FormOut(kind=each.kind, name=each.name) for each in FORM_RULES.values()],
        shapes=[
            ShapeOut(kind=each.kind, even=each.even, outline=each.outline.round(6).tolist())
            for each in SHAPES.values()
        ],
        heads=list(HEADS.values()),
        hang_points=[
            PointKindOut(
                kind=each.kind,
                name=each.name,
                never=bool(each.never),
                in_wall=each.in_wall,
                part=each.part,
            )
            for each in POINTS.values()
        ],
        starts=[
            StartOut(
                key=each.key,
                kind=each.kind,
                name=each.name,
                asks=each.asks,
                measure=list(each.measure),
                vessel=each.vessel,
                by=each.by,
            )
            for each in STARTS.values()
        ],
        usual=USUAL,
        schools=[
            SchoolOut(field=each.field, question=each.question, answers=list(each.answers), why=each.why)
            for each in SCHOOLS
        ],
    )


@router.put("/stock/currency")
def put_currency(body: PutCurrency, conn: Connection, base_revision: BaseRevision) -> StockOut:
    """Say which currency the prices of the stores are in."""
    with stores.based_on(conn, base_revision):
        stores.put_currency(conn, body.currency)
    return get_stock(conn)


@router.post("/pictures", status_code=201)
def add_picture(body: AddPicture, conn: Connection) -> Kept:
    """Take a picture in, re-encoded and without place data; its key."""
    return _kept(conn, pictures.keep(conn, body.data).key)


@router.get("/pictures/{key}/colour")
def picture_colour(
    key: str, conn: Connection, x: Annotated[float, Query(ge=0, le=1)], y: Annotated[float, Query(ge=0, le=1)]
) -> ColourOut:
    """The colour round a place of a picture, given as shares of it from its left and its top."""
    return ColourOut(name="", colour=colour_at(pictures.picture_of(conn, key), x, y))


@router.get("/pictures/{key}")
def get_picture(key: str, conn: Connection) -> Response:
    found = pictures.picture_of(conn, key)
    return Response(found.data, media_type=found.kind)


@router.post("/vessel-drawing")
def vessel_drawing(body: DrawVessel) -> VesselDrawn:
    """How a vessel looks, kept or not. Raises InvalidMeasure."""
    check_vessel(body.vessel)
    return VesselDrawn(drawn=list(drawn_vessel(body.vessel)))


def _route_things(kind: StoreKind, body: type[PutThing], *, added: bool) -> None:
    """The doors of one kind: a thing put under its key, and one that is added singly."""

    def put_thing(key: str, body: PutThing, conn: Connection, base_revision: BaseRevision) -> Kept:
        was = getattr(body, "was", None)
        based = Based(revision=base_revision, was=was and replace(was, key=key), chosen=body.chosen)
        stores.put_over(conn, kind, key, replace(getattr(body, kind), key=key), based)
        return _kept(conn, key)

    def add_thing(body: PutThing, conn: Connection, base_revision: BaseRevision) -> Kept:
        with stores.based_on(conn, base_revision, touches=False):
            key = stores.add(conn, kind, getattr(body, kind))
        return _kept(conn, key)

    for does in (put_thing, add_thing):
        does.__annotations__["body"] = body
    router.add_api_route(f"/stock/{kind}/{{key}}", put_thing, methods=["PUT"], name=f"put_{kind}")
    if added:
        router.add_api_route(f"/stock/{kind}", add_thing, methods=["POST"], status_code=201, name=f"add_{kind}")


for _kind, _body in PUT_THINGS.items():
    _route_things(_kind, _body, added=STORES[_kind].added)


@router.post("/stock/{kind}/{key}/copy", status_code=201)
def copy(kind: StoreKind, key: str, conn: Connection, base_revision: BaseRevision) -> Kept:
    with stores.based_on(conn, base_revision, touches=False):
        key = stores.copy(conn, kind, key)
    return _kept(conn, key)


@router.delete("/stock/{kind}/{key}")
def delete(kind: StoreKind, key: str, conn: Connection, base_revision: BaseRevision) -> StockOut:
    """Take a thing out of the stores; it can be brought back."""
    with stores.based_on(conn, base_revision):
        stores.delete(conn, kind, key)
    return get_stock(conn)


@router.post("/stock/{kind}/{key}/bring-back")
def bring_back(kind: StoreKind, key: str, conn: Connection, base_revision: BaseRevision) -> StockOut:
    with stores.based_on(conn, base_revision):
        stores.bring_back(conn, kind, key)
    return get_stock(conn)


@router.post("/stock/undo")
def undo(conn: Connection, base_revision: BaseRevision) -> StockOut:
    with stores.based_on(conn, base_revision):
        stores.travel(conn, back=True)
    return get_stock(conn)


@router.post("/stock/redo")
def redo(conn: Connection, base_revision: BaseRevision) -> StockOut:
    with stores.based_on(conn, base_revision):
        stores.travel(conn, back=False)
    return get_stock(conn)


@router.put("/stock/{kind}/{key}/holding")
def put_holding(kind: HeldKind, key: str, body: PutHolding, conn: Connection, base_revision: BaseRevision) -> Kept:
    was = None if body.was is None else body.was.to_core()
    based = Based(revision=base_revision, was=was, chosen=body.chosen)
    stores.count_over(conn, kind, key, body.to_core(), based)
    return _kept(conn, key)


@router.get("/tables/{kind}.csv")
def export_table(kind: StoreKind, conn: Connection) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{kind}.csv"'}
    return Response(stores.export_table(conn, kind), media_type="text/csv; charset=utf-8", headers=headers)


@router.post("/tables/{kind}")
def import_table(kind: StoreKind, body: ImportTable, conn: Connection, base_revision: BaseRevision) -> ImportOut:
    with stores.based_on(conn, base_revision, touches=not body.dry_run):
        done = stores.import_table(conn, kind, body.text, dry_run=body.dry_run)
    return ImportOut(
        added=list(done.added),
        changed=list(done.changed),
        unchanged=done.unchanged,
        refused=[RefusedOut(line=each.line, column=each.column, why=each.why) for each in done.refused],
        written=done.written,
    )


@router.post("/outline")
def read_outline(body: ReadOutline) -> OutlineOut:
    if body.written_as == "table":
        return OutlineOut(profile=list(vessel_outline.read_table(body.text, system=body.system)))
    if body.inside_depth_m is None:
        raise InvalidMeasure(
            path="inside_depth_m",
            message=phrase("A drawing has no scale of its own."),
            limit=phrase("Give the inside depth of the vessel."),
        )
    points = vessel_outline.read_svg(body.text, inside_depth_m=body.inside_depth_m, half=body.half)
    return OutlineOut(profile=list(points))


@router.post("/fill-check")
def check_fill(body: CheckFill) -> FillCheck:
    vessel = body.vessel
    check_vessel(vessel)
    return vessel_outline.check_fill(vessel, body.poured_l)


def _kept(conn: sqlite3.Connection, key: str) -> Kept:
    return Kept(key=key, revision=stock.revision(conn))
