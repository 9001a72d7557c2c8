"""Drink for stems with water of their own, or none: tubes, wet wraps, dry hold; and thirsty varieties anywhere."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from jolly_trellis.core.acts.stances import lines_that_ride, rides_flowered
from jolly_trellis.core.books.bodies import Case
from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.water import HEAVY_DRAW, needed_hours
from jolly_trellis.core.building import spills
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.plan.standing import standing
from jolly_trellis.core.quantities import count, duration, joined, length, phrase, volume
from jolly_trellis.core.stems.dry_life import lasts_h, reserve_of
from jolly_trellis.core.stems.tubes import caps_asked, caps_unsure
from jolly_trellis.core.units import duration_text

SHALLOW = rule("A bowl is shallow for thirsty stems under", "length", 0.12)
LARGER_TUBE = StemTube(inner_diameter_m=0.02, length_m=0.12, stem_in_m=0.09)
_WATERLESS = 2.0


def missing_own(build: Build) -> list[Missing]:
    """Facts that stems with their own water still lack: a tube leaned over whose cap nobody vouches for."""
    piece, varieties = build.piece, build.conditions.varieties
    hanging = () if piece.spill is None else piece.spill.recipe
    return [
        *caps_asked(piece.recipe, varieties, path="recipe"),
        *caps_asked(hanging, varieties, path="spill.recipe"),
    ]


def judge_own(build: Build) -> list[Finding]:
    """Tubes, wraps and dry life against the hours to the end, and thirsty varieties.

    What goes in before the piece travels has been out of deep water since the piece was finished.
    """
    needed, air = needed_hours(build.conditions), build.air
    findings: list[Finding] = []
    for line, variety, rides in _lines(build):
        findings += _thirsty(build, line, variety, rides=rides)
        if needed is None or air is None or line.water == "vessel":
            continue
        waits = [(each.hours, each.air) for each in build.stages] if rides else []
        asked = needed + sum(hours for hours, _ in waits)
        words = "the event needs {needed}." if not waits else "from its making to the end it needs {needed}."
        findings += own_lasts(line, variety, [*waits, (needed, air)], asked, words=words)
    return findings


def own_lasts(
    line: RecipeLine, variety: Variety, stretches: Sequence[tuple[float, Air]], needed_h: float, *, words: str
) -> list[Finding]:
    """How long stems of one line last on what they have with them, against the hours asked of them.

    Args:
        stretches: hours and the air of each, one after the other.
        needed_h: hours asked.
        words: how the sentence ends, with {needed} in it.
    """
    reserve = reserve_of(line, variety)
    if reserve is None or caps_unsure(line):
        return []
    if line.water == "none":
        dry = lasts_h(reserve, stretches)
        return [_lasts(variety, "typical", "with no water", dry, needed_h, words=words)]
    where, water = {"tube": "in a tube", "cup": "in a spike cup"}.get(line.water, "in a wet wrap"), reserve.water_ml
    cases: tuple[tuple[Case, float], ...] = (("typical", 1.0), ("heavy", HEAVY_DRAW.value))
    return [
        _lasts(
            variety,
            case,
            where,
            lasts_h(reserve, stretches, thirst=thirst),
            needed_h,
            words=words,
            water_ml=water,
        )
        for case, thirst in cases
    ]


def _lines(build: Build) -> Iterator[tuple[RecipeLine, Variety, bool]]:
    """Every recipe line with its variety, and whether it rides in its place; a spill's too: what hangs in netting has
    no vessel to drink from.
    """
    riding = [build.piece.recipe[at] for at in lines_that_ride(build.acts)]
    for line, variety, _, _ in build.placement.stems.lines:
        yield line, variety, line in riding
    spill = build.piece.spill
    if spill is not None:
        for line, variety in spills.lines_of(spill, build.conditions):
            dry = replace(line, water="none") if line.water == "vessel" else line
            yield dry, variety, rides_flowered(build.acts)


def candidates_own(build: Build) -> list[Candidate]:
    """Give dry stems tubes, fuller tubes, or the vessel; place thirsty ones on site."""
    piece, tried, rides = build.piece, [], lines_that_ride(build.acts)
    for index, line in enumerate(piece.recipe):
        changes: list[tuple[str, str, RecipeLine]] = []
        name = build.conditions.varieties[line.variety].name
        if line.water in ("none", "wrap"):
            changes.append(
                ("tube", "Put a full stem tube on each {name}.", replace(line, water="tube", tube=StemTube()))
            )
        if line.water != "vessel":
            changes.append(("vessel", "Let the {name} drink from the vessel.", replace(line, water="vessel")))
        thirsty = build.conditions.varieties[line.variety].thirst == "thirsty"
        if thirsty and index in rides:
            there = replace(line, goes_in="on site", goes_in_n=None)
            changes.append(("site", "Put the {name} in on site.", there))
        if line.water == "tube":
            tilt = (line.tube or StemTube()).tilt_rad
            big = replace(LARGER_TUBE, tilt_rad=tilt, cap_seals=(line.tube or StemTube()).cap_seals)
            changes.append(("larger", "Give the {name} larger tubes, 20 × 120 mm.", replace(line, tube=big)))
        for key, say, changed in changes:
            recipe = (*piece.recipe[:index], changed, *piece.recipe[index + 1 :])
            tried.append(
                Candidate(key=f"{key}{index}", say=phrase(say, name=name), piece=replace(piece, recipe=recipe))
            )
    return [*_all_on_site(build), *tried, *_spill_candidates(build)]


def _all_on_site(build: Build) -> list[Candidate]:
    """Every thirsty line put in on site at once, where more than one is not."""
    piece = build.piece
    known = build.conditions.varieties
    rides = lines_that_ride(build.acts)
    waits = [line for at, line in enumerate(piece.recipe) if known[line.variety].thirst == "thirsty" and at in rides]
    if len(waits) < 2:
        return []
    names = ", ".join(known[line.variety].name for line in waits)
    recipe = tuple(
        replace(line, goes_in="on site", goes_in_n=None) if line in waits else line for line in piece.recipe
    )
    return [
        Candidate(
            key="site", say=phrase("Put the {names} in on site.", names=names), piece=replace(piece, recipe=recipe)
        )
    ]


def _spill_candidates(build: Build) -> list[Candidate]:
    """Tubes on the stems of a spill."""
    spill = build.piece.spill
    if spill is None:
        return []
    piece = standing(build.piece)
    dry = [line for line in spill.recipe if line.water in ("vessel", "none")]
    lasts = {line.variety: build.conditions.varieties[line.variety].dry_hold_h for line in dry}
    order = sorted(dry, key=lambda line: lasts[line.variety])
    tried = []
    for size, words, tube in (("spill", "stem tube", StemTube()), ("spilllarger", "larger stem tube", LARGER_TUBE)):
        for number in range(1, len(order) + 1):
            wet = order[:number]
            recipe = tuple(replace(line, water="tube", tube=tube) if line in wet else line for line in spill.recipe)
            names = ", ".join(build.conditions.varieties[line.variety].name for line in wet)
            say = phrase("Put a full {words} on each {names} of the spill.", words=words, names=names)
            changed = replace(piece, spill=replace(spill, recipe=recipe))
            tried.append(Candidate(key=f"{size}-{number}", say=say, piece=changed))
    return tried


def _lasts(
    variety: Variety,
    case: Case,
    where: str,
    hours: float,
    needed: float,
    *,
    words: str,
    water_ml: float | None = None,
) -> Finding:
    limit = duration(max(needed, 1 / 6))
    begins = (
        "{variety} {where} lasts {hours};" if water_ml is None else "{variety} {where} can reach {water}: {hours};"
    )
    lasts = phrase(
        begins,
        variety=variety.name.capitalize(),
        where=where,
        hours=duration_text(hours),
        water=volume((water_ml or 0.0) / 1000),
    )
    return finding(
        check=f"own water, {variety.name}",
        case=case,
        value=duration(hours),
        limit=limit,
        sense="at least",
        reason=joined((lasts, phrase(words, needed=limit))),
    )


def _thirsty(build: Build, line: RecipeLine, variety: Variety, *, rides: bool) -> list[Finding]:
    """A thirsty variety is never without water, and goes into a shallow bowl on site only."""
    if variety.thirst != "thirsty":
        return []
    depth = build.piece.vessel.inside_depth_m
    waterless = line.water == "none"
    shallow = line.water == "vessel" and depth < SHALLOW.value and rides
    if not waterless and not shallow:
        return []
    words = "{variety} is thirsty: into a bowl {deep} deep only on site."
    if waterless:
        words = "{variety} is thirsty: never without water."
    return [
        Finding(
            check=f"thirsty, {variety.name}",
            case="typical",
            value=count(0),
            limit=count(1),
            sense="at least",
            utilisation=_WATERLESS,
            reason=phrase(words, variety=variety.name.capitalize(), deep=length(depth)),
        )
    ]
