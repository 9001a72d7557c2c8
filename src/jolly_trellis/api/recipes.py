"""Proven recipes: kept by name, scaled for a size, deleted and brought back."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.sent import In, Sent
from jolly_trellis.core.event.recipes.proven import PROVEN, Proven, stems_for
from jolly_trellis.core.event.starting.starts import STARTS
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.services import proven as services
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import proven as store
from jolly_trellis.store.proven import KeptRecipe

router = APIRouter(prefix="/api/recipes", tags=["recipes"])


class KeepRecipe(In):
    recipe: Annotated[Proven, Sent()]


class SizeIn(In):
    """The size wanted: metres of a length or diameter, m² of an area, a number."""

    size: Annotated[float, Field(le=1000)]


class RecipesOut(BaseModel):
    """Recipes of the studio by number, those deleted that can be brought back, and those that work is begun with, by
    the key of their start.
    """

    kept: list[KeptRecipe]
    deleted: list[KeptRecipe]
    usual: dict[str, Proven]


@router.get("")
def list_recipes(conn: Connection) -> RecipesOut:
    usual = {
        key: Proven(name=STARTS[key].name, by=each.by, size=each.size, recipe=each.recipe)
        for key, each in PROVEN.items()
        if key in STARTS
    }
    return RecipesOut(kept=list(store.recipes(conn)), deleted=list(store.recipes(conn, deleted=True)), usual=usual)


@router.post("", status_code=201)
def keep_recipe(body: KeepRecipe, conn: Connection) -> RecipesOut:
    services.keep(conn, body.recipe)
    return list_recipes(conn)


@router.post("/usual/{start}/scaled")
def scale_usual(start: str, body: SizeIn) -> list[RecipeLine]:
    """The recipe that a start is begun with, for a size."""
    if start not in PROVEN:
        raise NotFound(f"start {start}")
    return list(stems_for(PROVEN[start], body.size))


@router.post("/{number}/scaled")
def scale_kept(number: Number, body: SizeIn, conn: Connection) -> list[RecipeLine]:
    return list(services.scaled_for(conn, number, body.size))


@router.delete("/{number}")
def delete_recipe(number: Number, conn: Connection) -> RecipesOut:
    services.delete(conn, number)
    return list_recipes(conn)


@router.post("/{number}/bring-back")
def bring_back_recipe(number: Number, conn: Connection) -> RecipesOut:
    services.bring_back(conn, number)
    return list_recipes(conn)
