"""A composition of several vessels: a check judged on each of them, and answered as one."""

from collections.abc import Callable
from dataclasses import replace

from jolly_trellis.core.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.piece import Companion, Piece, Setting
from jolly_trellis.core.quantities import Phrase
from jolly_trellis.core.verdicts import Finding, Verdict, conclude

Judge = Callable[[Build], Verdict]
Inverse = Callable[[Build, Verdict], list[Candidate]]


def judged(judge: Judge) -> Judge:
    """The check on every vessel of a composition: the worst of them governs, and is named."""

    def judge_all(build: Build) -> Verdict:
        own = judge(build)
        findings, missing = list(own.findings), list(own.missing)
        for made, each in zip(build.companions, build.piece.companions, strict=True):
            verdict = judge(made)
            findings += [_named(each, found) for found in verdict.findings]
            missing += [f"{words} ({each.name})" for words in verdict.missing if words not in own.missing]
        return conclude(own.verb, findings, missing=missing, figures=own.figures, not_needed=own.reason)

    return judge_all


def mended(inverse: Inverse, judge: Judge) -> Inverse:
    """The fixes of the piece's own vessel, and of every companion that is not well by itself."""

    def inverse_all(build: Build, verdict: Verdict) -> list[Candidate]:
        tried = inverse(build, verdict) if judge(build).state in ("fails", "tight") else []
        for index, (made, each) in enumerate(zip(build.companions, build.piece.companions, strict=True)):
            alone = judge(made)
            if alone.state in ("fails", "tight"):
                tried += [_put_back(build.piece, index, each, found) for found in inverse(made, alone)]
        return tried

    return inverse_all


def _named(companion: Companion, found: Finding) -> Finding:
    text = f"{companion.name.capitalize()}: {found.reason.text}"
    return replace(found, reason=Phrase(text=text, quantities=found.reason.quantities))


def _put_back(piece: Piece, index: int, companion: Companion, found: Candidate) -> Candidate:
    """A candidate of a companion taken as a piece, put back beside the piece it belongs to."""
    after = found.piece
    changed = replace(
        companion,
        vessel=after.vessel,
        envelope=after.envelope,
        mechanic=after.mechanic,
        water_level_m=after.water_level_m,
        recipe=after.recipe,
        ballast_kg=after.ballast_kg,
    )
    companions = (*piece.companions[:index], changed, *piece.companions[index + 1 :])
    say = Phrase(text=f"{companion.name.capitalize()}: {found.say.text}", quantities=found.say.quantities)
    whole = replace(piece, companions=companions, transport=after.transport, setting=_setting(piece, after))
    return Candidate(key=f"beside{index + 1}-{found.key}", say=say, piece=whole)


def _setting(piece: Piece, after: Piece) -> Setting:
    return replace(piece.setting, people=after.setting.people, foot_material=after.setting.foot_material)
