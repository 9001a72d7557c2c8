"""Choosing a mechanic: every kind that can apply, sized, judged, ranked, with the reason in words."""

from dataclasses import dataclass, fields, replace

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.building.piece_checks import check_piece
from jolly_trellis.core.checks.verdicts import State, Verb, Verdict
from jolly_trellis.core.drawing.picture import NOTHING_DRAWN, Picture, Stems
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.judging.evaluate import all_stems, cells_of, checks_of, judge_all
from jolly_trellis.core.judging.pictures import bare_picture
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.frogs import Frog, FrogKind
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.mechanics.about import About
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.kinds import AnyPiece
from jolly_trellis.core.plan.piece import Mechanic, MechanicKind, Piece
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, joined, phrase
from jolly_trellis.core.stems.stem_set import expand

LEAST_CELL = rule("Smallest cell chosen for a vessel", "length", 0.018, COMMON_PRACTICE)
NO_PRICE = 99.0
FREE_ACTS = ("top-up", "fill", "order")
_BANDS: tuple[State, ...] = ("holds", "tight", "cannot say")
_MOST_ACTS = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Rung:
    """One verdict of one option, short."""

    verb: Verb
    state: State
    utilisation: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Option:
    """One mechanic for this piece at its best: what it would be, how it is judged, why it stands where it does.

    `piece` is the piece with it, and with the one `change` that costs nothing where that is needed, else None.
    `mechanic` is None, and `rungs` empty, where it cannot be made for this vessel. `ruled_out` says which wish of the
    event rules it out, empty where none does.
    """

    kind: MechanicKind
    name: str
    what: str
    piece: AnyPiece
    change: Phrase | None
    mechanic: SizedMechanic | None
    rungs: tuple[Rung, ...]
    worst: float
    fails: tuple[Verb, ...]
    ruled_out: str
    why: Phrase
    picture: Picture
    stems: Stems


def choose(
    piece: Piece,
    conditions: Conditions,
    *,
    on_hand: frozenset[str] | None,
    retired: frozenset[str] = frozenset(),
) -> tuple[Option, ...]:
    """Size and judge every mechanic for a vessel, envelope and recipe, and rank them.

    What the studio's schools and switches rule out comes last of what can be made; before that the fewest verdicts
    that fail, then the worst of the others by its state, what is used again before what is not, the price of one use,
    minutes.

    Args:
        piece: its mechanic is replaced by each kind in turn; netting and frog are picked from the stores.
        conditions: as for `evaluate`.
        on_hand: keys of nettings, frogs and bought mechanics the studio has, for "only what is in the store"; None
            asks nothing.
        retired: keys the studio no longer uses: nettings and frogs are not picked, mechanics are ruled out.
    Raises: InvalidMeasure: the piece cannot be, whatever its mechanic.
    """
    with conditions.figures.open():
        check_piece(replace(piece, mechanic=Mechanic()))
        used = replace(
            conditions,
            nettings={key: each for key, each in conditions.nettings.items() if key not in retired},
            frogs={key: each for key, each in conditions.frogs.items() if key not in retired},
        )
        options = [_option(piece, used, about, on_hand, retired) for about in ABOUT.values() if about.of == piece.sort]
        ranked = sorted(options, key=_rank)
        first = ranked[0]
        if first.mechanic is not None and not first.fails and not first.ruled_out:
            ranked[0] = replace(first, why=_why_first(first, ranked[1:]))
        return tuple(ranked)


def usable_netting(piece: Piece, conditions: Conditions) -> Netting | None:
    """The netting for a recipe: the smallest cell, from 18 mm, that the thickest stem passes; the wire as practised.

    None where no netting in the stores passes it.

    Source: a ≥ 1.1·d_max (common practice); the smallest such cell holds most firmly.
    """
    stems = expand(piece.recipe, conditions.varieties)
    widest = float(stems.diameter_m.max(initial=0.005))
    least = max(nets.PASSING_FACTOR.value * widest, LEAST_CELL.value)
    fits = [each for each in conditions.nettings.values() if nets.aperture_m(each) >= least - 1e-9]
    wanted = [each for each in fits if each.finish == conditions.practice.wire] or fits
    return min(wanted, key=nets.aperture_m, default=None)


def usable_frog(piece: Piece, conditions: Conditions, kind: FrogKind) -> Frog | None:
    """The widest frog of a kind that sits on this floor and under this rim; None where none does."""
    floor = piece.vessel.profile[0]
    room = min(floor.width_m, floor.depth_m) - 0.002
    fits = [
        each
        for each in conditions.frogs.values()
        if each.kind == kind and each.width_m <= room and each.height_m <= piece.vessel.inside_depth_m
    ]
    return max(fits, key=lambda each: each.width_m, default=None)


def choice_of(piece: Piece, conditions: Conditions, kind: MechanicKind) -> Mechanic:
    """The mechanic of a kind for this piece, everything else worked out."""
    about = ABOUT[kind]
    netting = usable_netting(piece, conditions) if about.netting else None
    frog = usable_frog(piece, conditions, about.frog) if about.frog else None
    now = piece.mechanic
    return Mechanic(
        kind=kind,
        netting=netting.key if netting else now.netting if about.netting else None,
        frog=frog.key if frog else None,
        tape_width_m=now.tape_width_m,
        squeeze=now.squeeze,
    )


def _option(
    piece: Piece, conditions: Conditions, about: About, on_hand: frozenset[str] | None, retired: frozenset[str]
) -> Option:
    choice = choice_of(piece, conditions, about.kind)
    tried = replace(piece, mechanic=choice)
    try:
        made = build(tried, conditions)
        verdicts = judge_all(made)
    except CoreError as problem:
        return Option(
            kind=about.kind,
            name=about.name,
            what=about.what,
            piece=tried,
            change=None,
            mechanic=None,
            rungs=(),
            worst=99.0,
            fails=(),
            ruled_out="",
            why=joined((problem.message, problem.limit)),
            picture=NOTHING_DRAWN,
            stems=Stems(),
        )
    made, verdicts, change = _at_its_best(made, verdicts)
    ruled = _ruled_out(made, about, on_hand, retired)
    rungs = tuple(Rung(verb=each.verb, state=each.state, utilisation=each.utilisation) for each in verdicts)
    fails = tuple(each.verb for each in verdicts if each.state == "fails")
    worst = max((each.utilisation or 0.0 for each in verdicts), default=0.0)
    return Option(
        kind=about.kind,
        name=about.name,
        what=about.what,
        piece=made.piece.dealt_afresh(),
        change=change,
        mechanic=made.mechanic,
        rungs=rungs,
        worst=worst,
        fails=fails,
        ruled_out=ruled,
        why=_why(verdicts, ruled, change),
        picture=bare_picture(made.piece, made.mechanic, cells_of(made), made.raised_m),
        stems=_as_drawn(all_stems(made)),
    )


def _at_its_best(made: Build, verdicts: tuple[Verdict, ...]) -> tuple[Build, tuple[Verdict, ...], Phrase | None]:
    """The piece with the one change for nothing (a top-up, a fill, another order) that leaves fewest failing."""
    best, fails, change = (made, verdicts), _failing(verdicts), None
    for check, verdict in zip(checks_of(made), verdicts, strict=True):
        if verdict.state != "fails":
            continue
        for each in [free for free in check.candidates(made, verdict) if free.key in FREE_ACTS][:_MOST_ACTS]:
            try:
                other = build(each.piece, made.conditions)
            except CoreError:
                continue
            again = judge_all(other)
            if _failing(again) < fails:
                best, fails, change = (other, again), _failing(again), each.say
    return *best, change


def _failing(verdicts: tuple[Verdict, ...]) -> int:
    return sum(each.state == "fails" for each in verdicts)


def _ruled_out(made: Build, about: About, on_hand: frozenset[str] | None, retired: frozenset[str]) -> str:
    piece, practice = made.piece, made.conditions.practice
    if about.kind in retired:
        return "the studio has retired it"
    if practice.no_single_use_plastic and made.mechanic.single_use_plastic:
        return "it takes single-use plastic"
    if practice.only_in_store and on_hand is not None:
        asked: list[str | None] = [
            key for key, used in ((piece.mechanic.netting, about.netting), (piece.mechanic.frog, about.frog)) if used
        ]
        if about.bought:
            asked.append(about.kind)
        if any(key not in on_hand for key in asked):
            return "the stores have none on hand"
    if piece.must_lift_off and not made.mechanic.lifts_off:
        return "it does not lift off"
    if piece.vessel.clear and made.mechanic.shows and not piece.lining:
        return "it shows through clear glass"
    return ""


def _rank(option: Option) -> tuple[object, ...]:
    made = option.mechanic
    if made is None:
        return (2, 0, 0, 0, 0.0, 0.0)
    price = NO_PRICE if made.price is None else made.price / max(made.uses, 1)
    return (int(bool(option.ruled_out)), len(option.fails), _band(option), int(made.uses <= 1), price, made.minutes)


def _band(option: Option) -> int:
    """The worst state of the verdicts that do not fail: 0 holds, 1 tight, 2 cannot say."""
    return max((_BANDS.index(each.state) for each in option.rungs if each.state in _BANDS), default=0)


def _why(verdicts: tuple[Verdict, ...], ruled: str, change: Phrase | None) -> Phrase:
    said = _why_alone(verdicts, ruled)
    if change is None:
        return said
    return joined((said, phrase("With this: {change}", change=change)))


def _why_alone(verdicts: tuple[Verdict, ...], ruled: str) -> Phrase:
    if ruled:
        return phrase("Ruled out: {ruled}.", ruled=ruled)
    failing = [each for each in verdicts if each.state == "fails"]
    if failing:
        worst = max(failing, key=lambda each: each.utilisation or 0.0)
        names = " and ".join(each.verb.capitalize() for each in failing)
        return joined((phrase("Fails on {names}.", names=names), worst.reason))
    nearest = max(verdicts, key=lambda each: each.utilisation or 0.0)
    return phrase(
        "Nothing fails; nearest its limit is {verb} at {used}.",
        verb=nearest.verb.capitalize(),
        used=f"{nearest.utilisation or 0:.2f}",
    )


def _why_first(first: Option, others: list[Option]) -> Phrase:
    made = first.mechanic
    uses = made.uses if made is not None else 1
    why = replace(first.why, text=first.why.text[0].lower() + first.why.text[1:])
    said = [phrase("First: {why}", why=why)]
    if uses > 1:
        said.append(phrase("It is used about {uses} times.", uses=uses))
    second = next(
        (each for each in others if each.mechanic is not None and not each.fails and not each.ruled_out), None
    )
    if second is not None and second.mechanic is not None:
        if _band(second) > _band(first):
            beats = "The next, {name}, comes nearer its limits."
        elif second.mechanic.uses <= 1 < uses:
            beats = "The next, {name}, does as well, but once only."
        elif _rank(second)[4] != _rank(first)[4]:
            beats = "The next, {name}, does as well, but costs more for each use."
        else:
            beats = "The next, {name}, does as well, but takes longer."
        said.append(phrase(beats, name=second.name.lower()))
    return joined(said)


def _as_drawn(stems: Stems) -> Stems:
    """Only what is drawn of stems."""
    return Stems(**{each.name: getattr(stems, each.name) for each in fields(Stems)})
