"""Drink: whether every cut end stays in water until the event ends, which runs dry first, and what to pour."""

import math
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np

from jolly_trellis.core.books.bodies import CASES, Case
from jolly_trellis.core.books.figures import Figure, Shown, rule
from jolly_trellis.core.books.waiting import Dry, waits_unknown
from jolly_trellis.core.books.water import (
    HEAVY_DRAW,
    HURRIED_FILL,
    MOST_HOURS,
    STEM_END_COVER,
    Course,
    courses,
    hurried_m,
    needed_hours,
)
from jolly_trellis.core.building import spills
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks import drink_cold
from jolly_trellis.core.checks.drink_own import candidates_own, judge_own, missing_own
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.materials.air import COVER_UNDER_FLOWERS, POOL_EVAPORATION, draw_factor
from jolly_trellis.core.materials.vessels import BRIM_GAP
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.setting import TopUp
from jolly_trellis.core.provenance import COMPUTED, Provenance
from jolly_trellis.core.quantities import (
    Phrase,
    Quantity,
    duration,
    joined,
    length,
    level_least,
    level_most,
    phrase,
    ratio,
    volume,
    worded,
)
from jolly_trellis.core.units import duration_text, round_up

NEEDS_NO_WATER = phrase("Nothing in it drinks: keep it dry, out of the sun, and dust it when it is looked over.")
TOP_UP_LEAD_H = rule("A top-up comes before the first dry stem by", "duration", 0.5)
_FIRST_DRY: dict[Case, str] = {
    "typical": "First dry stem: {name}, {after} after filling; the event needs {needed}.",
    "heavy": "On a thirsty day, first dry stem: {name}, {after} after filling; the event needs {needed}.",
    "low": "Filled {short} short, first dry stem: {name}, {after} after filling; the event needs {needed}.",
}
_MOST_TOP_UPS = 6
_MOST_LEVELS = 8


def judge(build: Build) -> Verdict:
    """Drink: from the time it is finished: what runs dry before its water on show goes in, and until the event's end;
    cut ends covered at the start; stems with their own water.
    """
    if keeps_dry(build):
        level = build.piece.water_level_m
        wet = phrase("Nothing in it drinks, and it would spoil in {l} of water: leave the water out.", l=length(level))
        return conclude("drink", [], not_needed=wet if level > 0 else NEEDS_NO_WATER)
    missing = _missing(build) + missing_own(build) + waits_unknown(build.piece, build.conditions, build.acts)
    from_vessel = bool(build.placement.stems.drinks.any())
    findings = [covered(build)] if from_vessel and not _own_store(build) else []
    needed = needed_hours(build.conditions)
    if needed is not None and build.courses is not None:
        for case, going in zip(CASES, build.courses, strict=True):
            findings.append(_lasts(build, case, going, needed))
    findings += waits(build) + drink_cold.judge_air(build)
    return conclude("drink", [*findings, *judge_own(build)], missing=missing, figures=_figures(build))


def keeps_dry(build: Build) -> bool:
    """Whether all that is in a piece is dried, preserved or artificial."""
    own = [variety for _, variety, _, _ in build.placement.stems.lines]
    if build.piece.spill is not None:
        own += [variety for _, variety in spills.lines_of(build.piece.spill, build.conditions)]
    beside = (each.placement.stems.lines for each in build.companions)
    own += [variety for lines in beside for _, variety, _, _ in lines]
    return bool(own) and all(each.lasting for each in own)


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Changes that could mend Drink: top-ups in time, or a higher level from the start."""
    tried = [*drink_cold.candidates(build, verdict)]
    topped = _with_top_ups(build)
    if topped is not None:
        tried.append(topped)
    piece = build.piece
    fullest = piece.vessel.inside_depth_m - BRIM_GAP.value
    level = piece.water_level_m
    while level < fullest - 1e-6 and len(tried) < _MOST_LEVELS:
        level = round(min(round_up(level + 0.005, 0.005), fullest), 4)
        say = phrase("Fill to {level} at the start.", level=level_least(level))
        tried.append(Candidate(key=f"fill-{round(level * 1000)}", say=say, piece=replace(piece, water_level_m=level)))
    return _while_it_waits(build) + tried + candidates_own(build)


def _while_it_waits(build: Build) -> list[Candidate]:
    """Stand it full overnight and pour off before loading; drive with more water; a lid of moss, which lets it."""
    piece, going = build.piece, build.piece.transport
    if going is None or build.waits is None or all(each.after_h is None for each in build.waits):
        return []
    if _own_store(build):
        return _fuller_store(build)
    road = build.stages[-1].level_m
    full = replace(going, overnight_level_m=piece.water_level_m)
    tried = []
    if going.overnight_level_m is None:
        say = phrase(
            "Stand it at {full} overnight, and pour off to {road} before loading.",
            full=level_least(piece.water_level_m),
            road=level_most(road),
        )
        tried.append(Candidate(key="full-overnight", say=say, piece=replace(piece, transport=full)))
    for share in (0.5, 1.0):
        level = round_up(road + share * (piece.water_level_m - road), 0.005)
        if level > piece.water_level_m + 1e-9 or level <= road + 1e-9:
            continue
        wetter = replace(full, water_level_m=level)
        say = phrase("Stand it full overnight and drive with the water at {l}, in a tray.", l=level_least(level))
        tried.append(Candidate(key=f"wetter-{round(100 * share)}", say=say, piece=replace(piece, transport=wetter)))
    here = replace(piece, passage=replace(piece.passage, made="its place"))
    tried.append(Candidate(key="made-there", say=phrase("Make it where it stands."), piece=here))
    lidded = ABOUT[piece.mechanic.kind].with_moss
    if lidded is not None:
        mossed = replace(piece, mechanic=replace(piece.mechanic, kind=lidded), transport=full)
        say = phrase("Put a lid of moss between the wire, and stand it full overnight.")
        tried.append(Candidate(key="lid-of-moss", say=say, piece=mossed))
    return tried


def _fuller_store(build: Build) -> list[Candidate]:
    """Larger cups; or it is made where it stands."""
    piece, going, tried = build.piece, build.piece.transport, []
    if build.mechanic.own_cups:
        for share in (1.5, 2.0, 3.0):
            larger = round(piece.mechanic.cup_ml * share)
            say = phrase("Take cups of {v}.", v=volume(larger / 1000))
            changed = replace(piece, mechanic=replace(piece.mechanic, cup_ml=float(larger)))
            tried.append(Candidate(key=f"cups-{larger}", say=say, piece=changed))
    if going is not None:
        here = replace(piece, passage=replace(piece.passage, made="its place"))
        tried.append(Candidate(key="made-there", say=phrase("Make it where it stands."), piece=here))
    return tried


def _own_store(build: Build) -> Phrase | None:
    """What stems drink from where that is no open water: the mechanic's cups, a soaked block; None for neither."""
    if build.mechanic.own_cups:
        return phrase("on its cups")
    return phrase("on its soaked block") if build.mechanic.absorbed_l > 0 and not build.mechanic.flat else None


def waits(build: Build) -> list[Finding]:
    """What runs dry before the water on show goes in, or a bouquet is taken up, in each case; none where none does."""
    if build.waits is None:
        return []
    return [_waits(build, case, dry) for case, dry in zip(CASES, build.waits, strict=True)]


def _waits(build: Build, case: Case, dry: Dry) -> Finding:
    """The first cut end that runs dry before the water on show goes in, against the hours until then."""
    needed = sum(each.hours for each in build.stages)
    hours = MOST_HOURS if dry.after_h is None else dry.after_h
    bench, road = build.stages[0], build.stages[-1]
    at = "at {bench}" if bench.level_m == road.level_m else "at {bench}, then {road}"
    store = _own_store(build)
    levels = phrase(at, bench=level_most(bench.level_m), road=level_most(road.level_m))
    levels = store or (phrase("in its vase {levels}", levels=levels) if build.piece.carried else levels)
    used = phrase("taken up") if build.piece.carried else phrase("filled")
    if dry.row is None:
        reason = phrase(
            "Finished and standing {levels}, no stem runs dry until it is {used} {needed} later.",
            levels=levels,
            used=used,
            needed=duration(needed),
        )
    else:
        dries = phrase("does not reach the water")
        if hours >= 1 / 12:
            dries = phrase("runs dry after {hours}", hours=duration_text(hours))
        dry_first = phrase(
            "{begins} and standing {levels}, a {name} {dries}; it is {used} {needed} after it was finished.",
            begins=_begins(build, case),
            levels=levels,
            name=build.placement.stems.variety_of(dry.row).name,
            dries=dries,
            used=used,
            needed=duration(needed),
        )
        reason = joined((dry_first, *_filled_sooner(build, hours, has_store=store is not None)))
    return finding(
        check="waits",
        case=case,
        value=duration(max(hours, 0.0)),
        limit=duration(max(needed, 1 / 60)),
        sense="at least",
        reason=reason,
    )


def _filled_sooner(build: Build, hours: float, *, has_store: bool) -> list[Phrase]:
    """What keeps a stem from running dry while it waits, in words; nothing where no time is known."""
    if hours < 1 / 12:
        return [phrase("Stand it fuller.")]
    finished = build.conditions.finished_at
    if finished is None:
        return []
    more = phrase("fill it up again") if has_store else phrase("stand it fuller")
    return [phrase("Fill it by {by} at the latest, or {more}.", by=_clock_at(finished, hours), more=more)]


def _begins(build: Build, case: Case) -> Phrase:
    """How the sentence of a case begins."""
    if case == "heavy":
        return phrase("On a thirsty day, finished")
    if case == "low" and build.mechanic.own_cups:
        return phrase("Its cups not quite full, finished")
    if case == "low" and _own_store(build) is None:
        return phrase("Filled {short} short, finished", short=length(hurried_m(build.stages[0].level_m)))
    return phrase("Finished")


def _missing(build: Build) -> list[Missing]:
    conditions = build.conditions
    asked = (
        (len(build.placement.stems) == 0, facts.RECIPE),
        (build.air is None, facts.ROOM_AIR),
        (conditions.filled_at is None, facts.FILLED_AT),
        (conditions.ends_at is None, facts.ENDS_AT),
    )
    return [fact.missing() for absent, fact in asked if absent]


def covered(build: Build) -> Finding:
    """Every cut end lies 2 cm under the level on show before the event begins."""
    ends = np.where(build.placement.stems.drinks, build.placement.end_height_m, -1.0)
    highest = int(ends.argmax())
    over = build.piece.water_level_m - float(ends[highest])
    name = build.placement.stems.variety_of(highest).name
    words = (
        "The highest cut end, a {name}, lies {over} under the water; {limit} is needed."
        if over > 0
        else "The cut end of a {name} is {over} above the water; it must lie {limit} under it."
    )
    reason = phrase(words, name=name, over=length(abs(over)), limit=STEM_END_COVER.quantity)
    stems = build.placement.stems
    sold = length(stems.longest_m[highest])
    if over < STEM_END_COVER.value and build.placement.wanted_m[highest] > stems.longest_m[highest] - 1e-6:
        short = phrase("It is sold to {sold}: bring the flowers in, or give it a tube.", sold=sold)
        reason = joined((reason, short))
    return finding(
        check="covered",
        case="typical",
        value=length(over),
        limit=STEM_END_COVER.quantity,
        sense="at least",
        reason=reason,
    )


def _lasts(build: Build, case: Case, going: Course, needed: float) -> Finding:
    hours = MOST_HOURS if going.first_dry_h is None else going.first_dry_h
    limit = duration(max(needed, 1 / 6))
    reason = phrase("No stem runs dry within ten days.")
    if going.first_dry_row is not None:
        first = phrase(
            _FIRST_DRY[case],
            name=build.placement.stems.variety_of(going.first_dry_row).name,
            after=duration_text(hours),
            needed=limit,
            short=length(hurried_m(build.piece.water_level_m)),
        )
        fill = volume(_refill_l(build, going, _top_up_h(hours)))
        reason = joined((first, *_top_up_words(build, hours, needed, fill)))
    return finding(
        check="lasts",
        case=case,
        value=duration(hours),
        limit=limit,
        sense="at least",
        reason=reason,
    )


def _top_up_words(build: Build, hours: float, needed: float, fill: Quantity) -> list[Phrase]:
    if hours >= needed:
        return []
    if build.piece.top_ups and build.conditions.topped_up_by is None:
        return [phrase("Nobody is named to top up, so the planned top-ups do not count.")]
    said = [phrase("Top up {fill} by {by}.", fill=fill, by=_clock(build, _top_up_h(hours)))]
    return said if build.conditions.topped_up_by else [*said, phrase("Name who does it in the brief.")]


def _top_up_h(dry_h: float) -> float:
    """When to top up, half an hour before a stem runs dry, hours after filling, down to five minutes."""
    return math.floor(max(dry_h - TOP_UP_LEAD_H.value, 0.0) * 12) / 12


def _refill_l(build: Build, going: Course, after_h: float) -> float:
    """Litres that bring the water back to its level on show at a time, rounded up to 10 ml."""
    level = float(np.interp(after_h, going.hours, going.levels_m))
    short = build.water.volume_at_l(build.piece.water_level_m) - build.water.volume_at_l(level)
    return round_up(max(short, 0.0), 0.01)


def _with_top_ups(build: Build) -> Candidate | None:
    """Add top-ups, each half an hour before a stem would run dry, until none does before the end."""
    needed = needed_hours(build.conditions)
    if needed is None or build.conditions.topped_up_by is None:
        return None
    piece, said = build.piece, list[Phrase]()
    for _ in range(_MOST_TOP_UPS):
        going = courses(piece, build.conditions, build.mechanic, build.placement, build.water)
        if going is None:
            return None
        soonest = min(going, key=lambda each: MOST_HOURS if each.first_dry_h is None else each.first_dry_h)
        if soonest.first_dry_h is None or soonest.first_dry_h >= needed:
            break
        after = _top_up_h(soonest.first_dry_h)
        litres = _refill_l(build, soonest, after)
        if litres <= 0 or (piece.top_ups and after <= piece.top_ups[-1].after_h):
            return None
        piece = replace(piece, top_ups=(*piece.top_ups, TopUp(after_h=after, volume_l=litres)))
        said.append(phrase("{v} by {by}", v=volume(litres), by=_clock(build, after)))
    if not said:
        return None
    return Candidate(key="top-up", say=phrase("Top up {each}.", each=joined(said, ", ")), piece=piece)


def _clock(build: Build, after_h: float) -> str:
    """Time of day so many hours after filling, with the day where it is another one."""
    start = build.conditions.filled_at
    if start is None:
        return worded("{h} after filling", h=duration_text(after_h))
    return _clock_at(start, after_h)


def _clock_at(start: datetime, after_h: float) -> str:
    """Time of day so many hours after another time, to the five minutes before, with the day where it is another."""
    elapsed = start.astimezone(UTC) + timedelta(hours=after_h)
    at = floor_to_minutes(elapsed.astimezone(start.tzinfo), 5)
    return at.strftime("%H:%M") if at.date() == start.date() else at.strftime("%H:%M on %d %b")


def floor_to_minutes(at: datetime, minutes: int) -> datetime:
    """A time brought back to a whole number of minutes past the hour."""
    return at.replace(minute=at.minute - at.minute % minutes, second=0, microsecond=0)


def _figures(build: Build) -> list[Shown]:
    air = build.air
    if air is None or build.courses is None:
        return [STEM_END_COVER]
    typical = build.courses[0]
    litres = build.water.volume_at_l(build.piece.water_level_m)
    draw = float(build.placement.stems.uptake_ml_h.sum()) * draw_factor(air)
    return [
        Figure(label="Water at the level on show", quantity=volume(litres), provenance=COMPUTED),
        Figure(label="Drunk and lost by the end", quantity=volume(typical.drawn_l), provenance=COMPUTED),
        Figure(label="All stems drink", quantity=Quantity(kind="draw", value=draw), provenance=COMPUTED),
        Figure(
            label="This air against 20 °C and 60 %",
            quantity=ratio(draw_factor(air)),
            provenance=Provenance(kind="published", source="FAO Irrigation and Drainage Paper 56, equation 11"),
        ),
        STEM_END_COVER,
        HEAVY_DRAW,
        HURRIED_FILL,
        POOL_EVAPORATION,
        COVER_UNDER_FLOWERS,
    ]
