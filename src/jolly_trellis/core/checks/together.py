"""A composition of several vessels: a check judged on each of them, and answered as one."""

from dataclasses import replace

from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate, Check, Inverse, Judge, proven
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude
from jolly_trellis.core.missing import of_one_more
from jolly_trellis.core.plan.piece import Companion, Piece
from jolly_trellis.core.plan.setting import Setting
from jolly_trellis.core.plan.standing import Standing, standing
from jolly_trellis.core.quantities import Phrase, joined, phrase


def on_each(check: Check) -> Check:
    """A check of one vessel as that of a composition: on every vessel of it."""
    judge, candidates = check.judge, check.candidates
    return replace(check, judge=judged(judge), candidates=mended(candidates, judge))


def judged(judge: Judge) -> Judge:
    """The check on every vessel of a composition: the worst of them governs, and is named."""

    def judge_all(build: Build) -> Verdict:
        own = judge(build)
        findings, missing = list(own.findings), list(own.missing)
        for at, (made, each) in enumerate(zip(build.companions, build.piece.companions, strict=True)):
            verdict = judge(made)
            findings += [_named(each, found) for found in verdict.findings]
            missing += [
                of_one_more(fact, under=f"companions.{at}", name=each.name)
                for fact in verdict.missing
                if fact not in own.missing
            ]
        return conclude(own.verb, findings, missing=missing, figures=own.figures, not_needed=own.reason)

    return judge_all


def mended(inverse: Inverse, judge: Judge) -> Inverse:
    """The fixes of every vessel that is not well by itself; where several are not, also the first of each together."""

    def inverse_all(build: Build, verdict: Verdict) -> list[Candidate]:
        del verdict
        tried: list[Candidate] = []
        firsts: list[Candidate | None] = []
        whole = standing(build.piece)
        vessels = [(build, None), *zip(build.companions, range(len(build.companions)), strict=True)]
        for made, index in vessels:
            alone = judge(made)
            if alone.state not in ("fails", "tight"):
                continue
            found = inverse(made, alone)
            tried += found if index is None else [_put_back(standing(build.piece), index, each) for each in found]
            if alone.state == "fails":
                mends = proven(found, made, judge)
                first = Candidate(key=mends[0].key, say=mends[0].say, piece=mends[0].piece) if mends else None
                if first is not None:
                    first = first if index is None else _put_back(whole, index, first)
                    changed = standing(first.piece)
                    whole = changed if index is not None else replace(changed, companions=whole.companions)
                firsts.append(first)
        mended_all = [each for each in firsts if each is not None]
        if len(firsts) > 1 and len(mended_all) == len(firsts):
            tried.insert(0, Candidate(key="each", say=joined([each.say for each in mended_all]), piece=whole))
        return tried

    return inverse_all


def _named(companion: Companion, found: Finding) -> Finding:
    return replace(found, reason=_of(companion, found.reason))


def _of(companion: Companion, said: Phrase) -> Phrase:
    return phrase("{vessel}: {said}", vessel=companion.name.capitalize(), said=said)


def _put_back(piece: Standing, index: int, found: Candidate) -> Candidate:
    """A candidate of a companion taken as a piece, put back beside the piece it belongs to."""
    after, companion = found.piece, piece.companions[index]
    changed = replace(
        companion,
        vessel=after.vessel,
        envelope=after.envelope,
        mechanic=after.mechanic,
        water_level_m=after.water_level_m,
        recipe=after.recipe,
        ballast_kg=after.ballast_kg,
        top_ups=after.top_ups,
    )
    companions = (*piece.companions[:index], changed, *piece.companions[index + 1 :])
    say = _of(companion, found.say)
    whole = replace(piece, companions=companions, transport=after.transport, setting=_setting(piece, after))
    return Candidate(key=f"beside{index + 1}-{found.key}", say=say, piece=whole)


def _setting(piece: Piece, after: Piece) -> Setting:
    return replace(piece.setting, people=after.setting.people, foot_material=after.setting.foot_material)
