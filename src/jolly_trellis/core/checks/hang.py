"""Hang: what hangs free from a standing piece, its spill, against its netting and its hook."""

from dataclasses import replace

from jolly_trellis.core.books.bodies import Case
from jolly_trellis.core.books.figures import Figure, Shown, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.spills import TENSION_PER_CELL
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.piece import Spill
from jolly_trellis.core.plan.standing import standing
from jolly_trellis.core.provenance import COMPUTED, Provenance
from jolly_trellis.core.quantities import length, mass, phrase, pull, worded
from jolly_trellis.core.stems.shades import with_count
from jolly_trellis.core.units import round_up

CONTINGENCY = rule("Load counted over the take-off, for what is forgotten", "ratio", 1.10, cautious="up")
HANDLING = rule("Load counted over that, for hands and fitting", "ratio", 1.25, cautious="up")


def design_load_n(mass_kg: float) -> float:
    """What a hanging mass counts as: m·g × 1.10 × 1.25, newtons. Source: statics; the factors are estimates."""
    return mass_kg * GRAVITY_M_S2 * CONTINGENCY.value * HANDLING.value


def judge(build: Build) -> Verdict:
    """Hang: the spill's weight against its netting as a chain, and against the rating somebody stated for its hook."""
    sized, spill = build.spill, build.piece.spill
    if sized is None or spill is None:
        words = "It is carried; nothing hangs." if build.piece.carried else "It stands; nothing hangs."
        return conclude("hang", [], not_needed=phrase(words))
    findings = []
    cases: tuple[tuple[Case, float], ...] = (("typical", sized.hanging_kg), ("heavy", sized.hanging_heavy_kg))
    for case, kg in cases:
        load = pull(design_load_n(kg))
        limit = pull(sized.strength_n)
        reason = phrase(
            "The spill weighs {kg} and counts as {load} on its netting, which bears {limit}.",
            kg=mass(kg),
            load=load,
            limit=limit,
        )
        findings.append(
            finding(check="netting chain", case=case, value=load, limit=limit, sense="at most", reason=reason)
        )
        findings += _hook(spill, case, kg)
    return conclude("hang", findings, missing=_missing(spill), figures=_figures(build))


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """A wider strip, or a shorter spill."""
    spill = build.piece.spill
    if spill is None:
        return []
    piece = standing(build.piece)
    tried = []
    for share in (1.3, 1.7, 2.2):
        wide = round_up(spill.width_m * share, 0.01)
        say = phrase("Make the spill {w} wide, flat.", w=length(wide))
        tried.append(
            Candidate(
                key=f"wider-{round(share * 10)}", say=say, piece=replace(piece, spill=replace(spill, width_m=wide))
            )
        )
    for share in (0.8, 0.6, 0.45):
        short = round_up(spill.drop_m * share, 0.01)
        fewer = tuple(with_count(line, max(1, round(line.count * share))) for line in spill.recipe)
        say = phrase("Let the spill hang {d}, with as many stems the fewer.", d=length(short))
        shorter = replace(spill, drop_m=short, recipe=fewer)
        tried.append(Candidate(key=f"shorter-{round(share * 100)}", say=say, piece=replace(piece, spill=shorter)))
    return tried


def _hook(spill: Spill, case: Case, kg: float) -> list[Finding]:
    if spill.held_by != "hook" or spill.hook_n is None or spill.hook_stated_by is None:
        return []
    load, limit = pull(design_load_n(kg)), pull(spill.hook_n)
    reason = phrase(
        "The spill counts as {load} on its hook, which {hook_stated_by} rates at {limit}.",
        load=load,
        limit=limit,
        hook_stated_by=spill.hook_stated_by,
    )
    return [finding(check="hook", case=case, value=load, limit=limit, sense="at most", reason=reason)]


def _missing(spill: Spill) -> list[Missing]:
    if spill.held_by != "hook":
        return []
    asked = ((spill.hook_n is None, facts.SPILL_HOOK), (spill.hook_stated_by is None, facts.SPILL_HOOK_BY))
    return [fact.missing() for absent, fact in asked if absent]


def _figures(build: Build) -> list[Shown]:
    sized, spill = build.spill, build.piece.spill
    if sized is None or spill is None:
        return []
    figures: list[Shown] = [
        Figure(label="Spill, finished", quantity=mass(sized.hanging_kg), provenance=COMPUTED),
        Figure(label="Spill, heavy", quantity=mass(sized.hanging_heavy_kg), provenance=COMPUTED),
        TENSION_PER_CELL,
        CONTINGENCY,
        HANDLING,
    ]
    if spill.hook_n is not None and spill.hook_stated_by:
        stated = Provenance(kind="measured", source=worded("stated by {who}", who=spill.hook_stated_by))
        figures.append(Figure(label="Hook, working rating", quantity=pull(spill.hook_n), provenance=stated))
    return figures
