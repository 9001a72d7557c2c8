"""Drink in a bouquet: cut ends in the vase's water before, and hours out of water while it is carried."""

from dataclasses import replace

from jolly_trellis.core.books.figures import Figure, Shown, rule
from jolly_trellis.core.books.waiting import waits_unknown
from jolly_trellis.core.books.water import STEM_END_COVER
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks import drink_cold
from jolly_trellis.core.checks.drink import NEEDS_NO_WATER, covered, keeps_dry, waits
from jolly_trellis.core.checks.drink_own import own_lasts
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.materials.air import draw_factor
from jolly_trellis.core.materials.vessels import BRIM_GAP
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.kinds import is_carried, is_worn
from jolly_trellis.core.plan.recipe import StemTube
from jolly_trellis.core.provenance import COMMON_PRACTICE, COMPUTED, Provenance
from jolly_trellis.core.quantities import duration, length, phrase, ratio

COOLER_MOST = rule("Longest wait of a finished bouquet in the cooler", "duration", 48.0, COMMON_PRACTICE)


_FULLER = (0.25, 0.5, 0.75, 1.0)


def judge(build: Build) -> Verdict:
    """Drink: in the vase before, in the cooler, and out of water in the hand against what each variety bears."""
    if len(build.placement.stems) == 0 or not is_carried(build.piece):
        return conclude("drink", [], missing=[facts.RECIPE.missing()])
    bouquet, air = build.piece, build.air
    if keeps_dry(build):
        return conclude("drink", [], not_needed=NEEDS_NO_WATER)
    missing = [
        fact.missing()
        for absent, fact in ((bouquet.carried_h is None, facts.CARRIED), (air is None, facts.CARRIED_AIR))
        if absent
    ]
    findings: list[Finding] = []
    if not is_worn(bouquet):
        missing += waits_unknown(build.piece, build.conditions, build.acts)
        findings = [covered(build), *waits(build)]
    findings += drink_cold.judge_air(build)
    if bouquet.passage.cooled is not None:
        findings.append(_cooler(24 * bouquet.passage.cooled.days))
    if air is not None and bouquet.carried_h is not None:
        for line, variety, _, _ in build.placement.stems.lines:
            carried = replace(line, water="none") if line.water == "vessel" else line
            words, hours = "the hours in the hand need {needed}.", bouquet.carried_h
            findings += own_lasts(carried, variety, [(hours, air)], hours, words=words)
    return conclude("drink", findings, missing=missing, figures=_figures(build))


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Water in the vase; a wet wrap or tubes on those that fade first; fewer days in the cooler."""
    piece = build.piece
    if not is_carried(piece):
        return []
    tried: list[Candidate] = [*drink_cold.candidates(build, verdict)]
    needed = float(build.placement.end_height_m.max(initial=0.0)) + STEM_END_COVER.value + 0.005
    if piece.water_level_m < needed <= piece.vessel.inside_depth_m:
        level = round(needed, 3)
        say = phrase("Fill the vase to {l}.", l=length(level))
        tried.append(Candidate(key="fill", say=say, piece=replace(piece, water_level_m=level)))
    tried += _fuller_vase(build)
    lasts = {line.variety: build.conditions.varieties[line.variety].dry_hold_h for line in piece.recipe}
    dry = sorted(
        (line for line in piece.recipe if line.water in ("vessel", "none")), key=lambda each: lasts[each.variety]
    )
    for kind, words in (
        ("wrap", "Wet-wrap the ends of the {names}."),
        ("tube", "Put a full stem tube on each {names}."),
    ):
        for number in range(1, len(dry) + 1):
            wet = dry[:number]
            names = ", ".join(build.conditions.varieties[line.variety].name for line in wet)
            recipe = tuple(
                (
                    replace(line, water="wrap", wrap_ml=None)
                    if kind == "wrap"
                    else replace(line, water="tube", tube=StemTube())
                )
                if line in wet
                else line
                for line in piece.recipe
            )
            say = phrase(words, names=names)
            tried.append(Candidate(key=f"{kind}-{number}", say=say, piece=replace(piece, recipe=recipe)))
    cooled = piece.passage.cooled
    if cooled is not None and cooled.days > 1:
        later = replace(piece, passage=replace(piece.passage, cooled=replace(cooled, days=1.0)))
        tried.append(Candidate(key="later", say=phrase("Make it the day before."), piece=later))
    return tried


def _fuller_vase(build: Build) -> list[Candidate]:
    """More water in the vase while it waits, and on the road with it."""
    piece, going = build.piece, build.piece.transport
    if going is None or build.waits is None or all(each.after_h is None for each in build.waits):
        return []
    fullest = piece.vessel.inside_depth_m - BRIM_GAP.value
    tried = []
    for share in _FULLER:
        level = round(piece.water_level_m + share * (fullest - piece.water_level_m), 3)
        if level <= piece.water_level_m:
            continue
        say = phrase("Stand and drive it with the vase filled to {l}.", l=length(level))
        riding = replace(going, water_level_m=level, overnight_level_m=None)
        changed = replace(piece, water_level_m=level, transport=riding)
        tried.append(Candidate(key=f"vase-{round(1000 * level)}", say=say, piece=changed))
    return tried


def _cooler(hours: float) -> Finding:
    reason = phrase("It waits {h} in the cooler; {limit} is the most.", h=duration(hours), limit=COOLER_MOST.quantity)
    return finding(
        check="cooler",
        case="typical",
        value=duration(hours),
        limit=COOLER_MOST.quantity,
        sense="at most",
        reason=reason,
    )


def _figures(build: Build) -> list[Shown]:
    air, bouquet = build.air, build.piece
    found: list[Shown] = [STEM_END_COVER, COOLER_MOST]
    if is_carried(bouquet) and bouquet.carried_h is not None:
        stated = Provenance(kind="measured", source="entered by you")
        found.insert(0, Figure(label="Carried out of water", quantity=duration(bouquet.carried_h), provenance=stated))
    if air is not None:
        found.append(
            Figure(label="This air against 20 °C and 60 %", quantity=ratio(draw_factor(air)), provenance=COMPUTED)
        )
    return found
