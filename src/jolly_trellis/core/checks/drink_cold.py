"""Drink in cold and heat: no state of a piece colder than its varieties bear, none so hot that flowers cook."""

from collections.abc import Iterator
from dataclasses import replace

from jolly_trellis.core.acts.stances import lines_that_ride
from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, Sense, Verdict
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.provenance import FROM_MEMORY
from jolly_trellis.core.quantities import Phrase, Quantity, duration, phrase

HEAT_MOST = rule("Air that flowers stand no longer than half an hour", "temperature", 35.0, FROM_MEMORY)
HEAT_FOR = rule("Hours in hot air that do no harm", "duration", 0.5, FROM_MEMORY)
_A_DEGREE = 0.1
_WHERE = {"cooler": "the cool room", "bench": "the workshop", "road": "the van", "show": "the place"}


def judge_air(build: Build) -> list[Finding]:
    """What is too cold for a variety that is there, and what is too hot for any, in each state of a piece.

    Source: least temperatures of the varieties, from memory; heat from memory.
    """
    there = lines_that_ride(build.acts)
    rides = [build.piece.recipe[at].variety for at in sorted(there)]
    states: list[tuple[str, float, float, list[str]]] = [
        (each.place, each.air.temperature_c, each.hours, rides) for each in build.stages
    ]
    if build.air is not None:
        shown = [line.variety for line in build.piece.recipe]
        states.append(("show", build.air.temperature_c, HEAT_FOR.value, shown))
    found: list[Finding] = []
    for place, celsius, hours, keys in states:
        fresh = [build.conditions.varieties[key] for key in dict.fromkeys(keys)]
        fresh = [each for each in fresh if not each.lasting]
        found += _cold(place, celsius, fresh)
        if fresh and hours >= HEAT_FOR.value - 1e-9:
            found += _hot(place, celsius)
    return found


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """A cool room that is no colder than the most tender bears; none at all."""
    piece, cooled = build.piece, build.piece.passage.cooled
    if cooled is None or not any(each.check == "cold" for each in verdict.findings):
        return []
    fresh = [build.conditions.varieties[line.variety] for line in piece.recipe]
    least = max((each.least_c for each in fresh if not each.lasting), default=0.0)
    milder = replace(cooled, temperature_c=least)
    say = phrase("Keep the cool room at {t}.", t=Quantity(kind="temperature", value=least))
    mild = replace(piece, passage=replace(piece.passage, cooled=milder))
    none = replace(piece, passage=replace(piece.passage, cooled=None))
    return [
        Candidate(key="milder", say=say, piece=mild),
        Candidate(key="not-cooled", say=phrase("Leave it out of the cool room."), piece=none),
    ]


def _cold(place: str, celsius: float, fresh: list[Variety]) -> Iterator[Finding]:
    for each in fresh:
        if celsius < each.least_c:
            words = "In {where} it is {t}; {variety} is chilled below {least}."
            yield _past(
                "cold",
                celsius,
                each.least_c,
                "at least",
                phrase(
                    words, where=_WHERE[place], variety=each.name, t=_degrees(celsius), least=_degrees(each.least_c)
                ),
            )


def _hot(place: str, celsius: float) -> Iterator[Finding]:
    if celsius > HEAT_MOST.value:
        words = "In {where} it is {t} for {h} or more; over {most} flowers cook."
        said = phrase(
            words, where=_WHERE[place], t=_degrees(celsius), h=duration(HEAT_FOR.value), most=HEAT_MOST.quantity
        )
        yield _past("heat", celsius, HEAT_MOST.value, "at most", said)


def _past(check: str, celsius: float, limit_c: float, sense: Sense, reason: Phrase) -> Finding:
    """Degrees are no share of one another: each degree past the limit counts a tenth."""
    return Finding(
        check=check,
        case="typical",
        value=_degrees(celsius),
        limit=_degrees(limit_c),
        sense=sense,
        utilisation=1.0 + _A_DEGREE * abs(celsius - limit_c),
        reason=reason,
    )


def _degrees(celsius: float) -> Quantity:
    return Quantity(kind="temperature", value=celsius)
