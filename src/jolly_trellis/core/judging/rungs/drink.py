"""Drink: whether every cut end stays under water to the end, with what evaporates and is drunk."""

from jolly_trellis.core.checks import drink, drink_carried, worn
from jolly_trellis.core.judging.rung import declare

DRINK = declare(
    "drink",
    place=30,
    asks="Whether every cut end stays under water to the end, with what evaporates and is drunk.",
    standing=(drink.judge, drink.candidates),
    bouquet=(drink_carried.judge, drink_carried.candidates),
    worn=(drink_carried.judge, worn.no_candidates),
)
