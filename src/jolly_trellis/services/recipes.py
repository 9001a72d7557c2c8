"""Recipes of an event as a person works with them: pull lists, scaling, the cost of one piece."""

import sqlite3
from dataclasses import dataclass, replace
from decimal import Decimal

from jolly_trellis.core.building.build import build
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.cost.cost import PieceCost
from jolly_trellis.core.event.job import name_of, quantity_of
from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.putting import puts_of
from jolly_trellis.core.event.recipes.budget import Split, split_budget
from jolly_trellis.core.event.recipes.recipes import scaled
from jolly_trellis.core.placement.place import surface_m2
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.stems.shades import shade_counts
from jolly_trellis.services import event_work, planning
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.planning import EventState, NotFound


@dataclass(frozen=True, slots=True, kw_only=True)
class PullRow:
    """Stems of one variety that go on the bench for one piece: for one of it, and for all of them; no more.

    `shades` has how many of each for one, those of none under an empty name; empty: it has no shades.
    """

    piece_id: int
    piece: str
    variety: str
    name: str
    each: int
    quantity: int
    there: bool
    shades: tuple[tuple[str, int], ...] = ()


def pull_rows(work: EventWork) -> tuple[PullRow, ...]:
    """The pull list of every piece: exactly the recipe, in its order."""
    rows = []
    for made in work.made.works:
        for put in puts_of(made, work.conditions.varieties):
            line = put.line
            variety = work.conditions.varieties.get(line.variety)
            rows.append(
                PullRow(
                    piece_id=made.id,
                    piece=name_of(made),
                    variety=line.variety,
                    name=variety.name if variety is not None else line.variety,
                    each=line.count,
                    quantity=quantity_of(made),
                    there=put.there,
                    shades=tuple(shade_counts(line).items()) if line.shades else (),
                )
            )
    return tuple(rows)


def scale(conn: sqlite3.Connection, event_id: int, piece_id: int, factor: float, *, base_revision: int) -> EventState:
    """Keep a part's recipe times a factor. Raises NotFound, Stale, InvalidMeasure."""
    part, _ = planning.part_of(conn, event_id, piece_id)
    changed: Part = replace(part, recipe=scaled(part.recipe, factor))
    return planning.put_part(conn, event_id, piece_id, changed, base_revision=base_revision, label="Scale the recipe")


def cost_of_piece(work: EventWork, piece_id: int) -> PieceCost:
    """What one piece costs. Raises NotFound."""
    for each in event_work.cost_of_event(work).pieces:
        if each.piece_id == piece_id:
            return each
    raise NotFound(f"piece {piece_id}")


def labour_of(cost: PieceCost) -> Decimal:
    """Labour of a piece. Raises InvalidMeasure: an hour of work has no price."""
    if cost.labour is None:
        raise InvalidMeasure(
            path="costing.rate_per_h",
            message=phrase("What an hour of work costs is not known."),
            limit=phrase("Give it first."),
        )
    return cost.labour


def split(conn: sqlite3.Connection, event_id: int, piece_id: int, budget: Decimal, premium: float) -> Split:
    """A proposal of what a budget for the stems of one piece buys. Raises NotFound, InvalidMeasure."""
    piece, brief = planning.piece_of(conn, event_id, piece_id)
    conditions = conditions_of(conn, brief)
    with conditions.figures.open():
        made = build(piece, conditions)
        return split_budget(
            piece.recipe,
            conditions.varieties,
            budget=budget,
            premium=premium,
            surface_m2=surface_m2(piece.envelope, made.rim_z_m),
        )


def keep_split(
    conn: sqlite3.Connection, event_id: int, piece_id: int, budget: Decimal, premium: float, *, base_revision: int
) -> EventState:
    """Keep what was proposed. Raises NotFound, Stale, InvalidMeasure."""
    piece, _ = planning.piece_of(conn, event_id, piece_id)
    changed = replace(piece, recipe=split(conn, event_id, piece_id, budget, premium).recipe)
    label = f"Split {budget} between its stems"
    return planning.put_part(conn, event_id, piece_id, changed, base_revision=base_revision, label=label)


def refuse_what_keeps(work: EventWork, part_id: int) -> None:
    """Raises InvalidMeasure: everything in the part keeps already, so that there is nothing fresh to compare."""
    own = [need.variety for need in work.needs.stems if need.piece_id == part_id]
    if own and all(key in work.varieties and work.varieties[key].lasting for key in own):
        raise InvalidMeasure(
            path="months",
            message=phrase("It is dried, preserved or artificial already."),
            limit=phrase(
                "To see it in fresh, swap its varieties under Lists, By variety: what changes is told first."
            ),
        )
