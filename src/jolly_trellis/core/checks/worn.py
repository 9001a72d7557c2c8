"""What is worn, judged: wires that hold their heads, what it weighs where it is worn, hours without water."""

from jolly_trellis.core.books.bodies import Case, centre_of, in_hand
from jolly_trellis.core.books.figures import Constant, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.materials.stems import cut_mass_kg, heavy_factor
from jolly_trellis.core.mechanics.sized import WornOn
from jolly_trellis.core.mechanics.worn import WIRE_HOLDS, WIRED_STEM
from jolly_trellis.core.plan import facts
from jolly_trellis.core.quantities import length, mass, phrase

WEARS: dict[WornOn, Constant] = {
    "lapel": rule("A buttonhole that a lapel carries, up to", "mass", 0.045),
    "wrist": rule("A corsage easily worn on a wrist, up to", "mass", 0.12),
    "head": rule("A crown easily worn on a head, up to", "mass", 0.40),
}


def judge_hold(build: Build) -> Verdict:
    """Hold: the heaviest head against what the thickest wire holds up."""
    lines = build.placement.stems.lines
    if not lines:
        return conclude("hold", [], missing=[facts.RECIPE.missing()])
    thickest = max(WIRE_HOLDS)
    weights = [(cut_mass_kg(each, WIRED_STEM.value) * heavy_factor(each), each.name) for _, each, _, _ in lines]
    heaviest, name = max(weights)
    value, limit = mass(heaviest), WIRE_HOLDS[thickest].quantity
    reason = phrase(
        "The heaviest head, a {name}, weighs {v} on its wire; wire of {thick} holds {limit}.",
        name=name,
        v=value,
        thick=length(thickest),
        limit=limit,
    )
    found = finding(check="wire", case="heavy", value=value, limit=limit, sense="at most", reason=reason)
    return conclude("hold", [found], figures=list(WIRE_HOLDS.values()))


def judge_lift(build: Build) -> Verdict:
    """Lift: what it weighs where it is worn, as planned and heavy."""
    worn = build.mechanic.worn
    if len(build.placement.stems) == 0 or not worn:
        return conclude("lift", [], missing=[facts.RECIPE.missing()])
    cases: tuple[Case, ...] = ("typical", "heavy")
    return conclude("lift", [_weighs(build, case, worn) for case in cases], figures=[WEARS[worn]])


def _weighs(build: Build, case: Case, worn: WornOn) -> Finding:
    value, limit = mass(centre_of(in_hand(build, case)).mass_kg), WEARS[worn].quantity
    words = "As planned it weighs {v}; {limit} is easily worn on the {worn}."
    if case == "heavy":
        words = "With heavy stems it weighs {v}; {limit} is easily worn on the {worn}."
    reason = phrase(words, v=value, limit=limit, worn=worn)
    return finding(check="worn", case=case, value=value, limit=limit, sense="at most", reason=reason)


def judge_stand(build: Build) -> Verdict:
    """Stand: nothing stands."""
    del build
    return conclude("stand", [], not_needed=phrase("It is worn: nothing of it stands."))


def judge_travel(build: Build) -> Verdict:
    """Travel: it lies in its box."""
    del build
    return conclude("travel", [], not_needed=phrase("It lies in a lined box, cool, until it is put on."))


def judge_hide(build: Build) -> Verdict:
    """Hide: its back lies on cloth or hair."""
    del build
    return conclude("hide", [], not_needed=phrase("Its wires are taped over, and its back lies on cloth or hair."))


def no_candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Nothing is offered: fewer or lighter heads are the florist's to choose."""
    del build, verdict
    return []
