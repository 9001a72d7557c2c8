"""The say-it line: free text that sets up or changes a piece, with what was understood and what was not."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace

from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.kinds import AnyPiece
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan_shapes import PlanShape
from jolly_trellis.core.quantities import Phrase, count, length, phrase
from jolly_trellis.core.say.clauses import MOST_PIECES, Clause, Thing, things_of
from jolly_trellis.core.say.line import Asked, Heard, Line, Words
from jolly_trellis.core.say.stems_said import merged, take_stems
from jolly_trellis.core.say.words import (
    FILLED,
    FLOWERS,
    FORMS_SAID,
    HOLDERS,
    LAYER_WORDS,
    LAYERS,
    MATERIALS,
    MESH,
    PLAN_SHAPES,
    SHAPES,
    SIZE,
    SIZE_AFTER,
    SIZE_ALONE,
    SIZES,
    STANDS_TALL,
    TIMES,
    TOGETHER,
)
from jolly_trellis.core.units import UnitSystem, parse_length

_UNDER_THE_RIM_M = 0.01
_HYPHEN = re.compile(r"(?<=\d)-(?=[a-z])")
_CLEAR = r"\bclear(?: glass\b|(?= (?:vase|bowl|cylinder|cube|dish|jar|jug|urn|bucket)))"
_BARE = re.compile(r" +(?P<size>\d+(?:\.\d+)?)(?= *$)")
_LONGER = ("rectangular", "oval")


@dataclass(frozen=True, slots=True, kw_only=True)
class Understood:
    """The piece after a line of text, what was heard, what was not, and what is asked before it can be read."""

    piece: AnyPiece
    heard: tuple[Heard, ...]
    unheard: tuple[Words, ...]
    asked: tuple[Asked, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Around:
    """What words are read with: varieties and nettings, vessels of the stores by key, the unit of bare numbers."""

    conditions: Conditions
    vessels: Mapping[str, Vessel]
    system: UnitSystem


@dataclass(slots=True, kw_only=True)
class Draft:
    """One piece being set up, while its clauses are read."""

    piece: AnyPiece
    line: Line
    around: Around
    before: Vessel
    mouth_m: float | None = None
    long_m: float | None = None
    deep_m: float | None = None
    shape: str | None = None
    manner: str = ""
    noun: tuple[int, int] = (0, 0)
    plan_shape: PlanShape | None = None
    about_vessel: bool = False
    new: bool = False
    counted: bool = False
    fill: float | None = None
    said: list[RecipeLine] = field(default_factory=list)

    def measured(self, text: str) -> float | None:
        """A length as said, m; None where it is none, or nothing."""
        return parse_length(_HYPHEN.sub(" ", text), system=self.around.system) or None


def say_it(
    text: str,
    piece: Piece,
    conditions: Conditions,
    *,
    system: UnitSystem,
    vessels: Mapping[str, Vessel] | None = None,
) -> Understood:
    """Read a line such as "urn 24 across 30 deep, 60 high 70 wide lopsided, 9 quince, 30 tulip" onto a piece.

    Clauses end at commas, semicolons and line ends. A clause with a vessel word speaks of the vessel, and so do sizes
    right after it that the vessel still lacks; others speak of the flowers. Counts with names, singular or plural,
    before or after them, make the recipe; a name that several have, or that is nearly one, is asked about. A line that
    names a vessel sets the piece up, and its stems are the whole recipe; one that does not changes the lines it names.
    What makes a second thing is not read here.

    Args:
        text: as typed, at most a few thousand characters.
        piece: what it is said of.
        conditions: varieties and nettings by key.
        system: unit of bare numbers, centimetres or inches.
        vessels: of the stores, by key; "the low bowl, 20 cm" takes one by its name.
    Returns: the piece after it; nothing is saved.
    """
    around = Around(conditions=conditions, vessels=vessels or {}, system=system)
    line = Line.of(text)
    things = things_of(line, around.vessels)
    if not things:
        return Understood(piece=piece, heard=(), unheard=(), asked=())
    if things[0].start in ("", *ABOUT):
        piece = read_piece(line, things[0], piece, around)
    elif things[0].clauses:
        piece = read_piece(line, replace(things[0], start=""), piece, around)
    return Understood(
        piece=piece,
        heard=line.heard_in(0, len(line.text)),
        unheard=tuple(line.unheard(0, len(line.text))),
        asked=tuple(line.asked),
    )


def read_piece(line: Line, thing: Thing, piece: AnyPiece, around: Around) -> AnyPiece:
    """A piece after what is said of it; what is not read stays in the line."""
    draft = Draft(piece=piece, line=line, around=around, before=piece.vessel)
    for clause in thing.clauses:
        _clause(draft, clause)
    _set_vessel(draft)
    if draft.said:
        kept = () if draft.new else draft.piece.recipe
        draft.piece = replace(draft.piece, recipe=merged(kept, draft.said))
    return draft.piece


def _clause(draft: Draft, clause: Clause) -> None:
    start, end = clause.start, clause.end
    if clause.number is not None:
        draft.piece = replace(draft.piece, quantity=max(1, clause.number))
        draft.counted = True
    if clause.stored is not None:
        _take_stored(draft, clause.stored)
    before = len(draft.said)
    flags = _switches(draft, start, end)
    _mechanic(draft, start, end)
    named = _vessel(draft, clause)
    flowers = FLOWERS.search(draft.line.rest(start, end))
    if flowers:
        draft.line.take(start + flowers.start(), start + flowers.end())
    _sizes(draft, start, end, from_flowers=None if flowers is None else flowers.start(), named=named)
    varieties = draft.around.conditions.varieties
    draft.said += take_stems(draft.line, clause, varieties, sure=True)
    _form(draft, start, end)
    _times(draft, start, end)
    draft.said += take_stems(draft.line, clause, varieties, sure=False)
    mine = draft.said[before:] or draft.said[-1:]
    if mine and ("tube" in flags or "on site" in flags):
        draft.said[-len(mine) :] = [
            replace(
                each,
                water="tube" if "tube" in flags else each.water,
                goes_in="on site" if "on site" in flags else each.goes_in,
            )
            for each in mine
        ]
    if len(draft.said) > before or flowers:
        draft.about_vessel = named


def _switches(draft: Draft, start: int, end: int) -> set[str]:
    """What is on or off; gives what is meant for the stems of the clause."""
    piece, line, flags = draft.piece, draft.line, set[str]()

    def take(pattern: str, meaning: str) -> re.Match[str] | None:
        found = re.search(pattern, line.rest(start, end))
        if found:
            line.take(start + found.start(), start + found.end(), phrase(meaning))
        return found

    if take(_CLEAR, "clear glass"):
        piece = replace(piece, vessel=replace(piece.vessel, clear=True, material="glass"))
    if take(r"\b(?:outdoors?|outside)\b", "it stands outdoors"):
        piece = replace(piece, setting=replace(piece.setting, outdoors=True))
    if take(r"\b(?:indoors?|inside)\b", "it stands indoors"):
        piece = replace(piece, setting=replace(piece.setting, outdoors=False))
    if take(r"\bno tape\b", "no tape"):
        piece = replace(piece, mechanic=replace(piece.mechanic, tape_strips=0))
    if take(r"\bon the floor\b", "on the floor"):
        piece = replace(piece, setting=replace(piece.setting, where="floor"))
    if take(r"\bon (?:a|the) (?:mantel(?:piece)?|ledge|shelf|window ?sill)\b", "on a ledge"):
        piece = replace(piece, setting=replace(piece.setting, where="ledge"))
    if take(r"\b(?:must )?lifts? off\b", "must lift off"):
        piece = replace(piece, must_lift_off=True)
    if take(r"\b(?:leaf[- ])?lin(?:ed|ing)\b(?: with (?:a )?lea(?:f|ves)\b)?", "lined with leaf"):
        piece = replace(piece, lining=True)
    for pattern, share in FILLED.items():
        found = re.search(rf"\b(?:{pattern})\b", line.rest(start, end))
        if found:
            draft.fill = share
            line.take(start + found.start(), start + found.end(), phrase("water: {words}", words=found[0]))
    if take(r"\bin (?:test |water |stem )?tubes\b|\btubed\b", "each stem in a tube"):
        flags.add("tube")
    if take(r"\b(?:added |put in )?on site\b", "put in where it stands"):
        flags.add("on site")
    draft.piece = piece
    return flags


def _times(draft: Draft, start: int, end: int) -> None:
    """How many things, said after them: × 12, 12 of them."""
    found = TIMES.search(draft.line.rest(start, end))
    if found and not draft.counted and int(found["n"] or found["m"]) <= MOST_PIECES:
        draft.counted = True
        number = max(1, int(found["n"] or found["m"]))
        draft.piece = replace(draft.piece, quantity=number)
        draft.line.take(start + found.start(), start + found.end(), phrase("{n} of them", n=count(number)))


def _mechanic(draft: Draft, start: int, end: int) -> None:
    line, mechanic = draft.line, draft.piece.mechanic
    mesh = MESH.search(line.rest(start, end))
    size = draft.measured(mesh["size"]) if mesh else None
    if mesh and size is not None:
        conditions = draft.around.conditions
        near = min(
            conditions.nettings.values(),
            key=lambda each: (abs(each.aperture_m - size), each.finish != conditions.practice.wire),
            default=None,
        )
        if near is not None and abs(near.aperture_m - size) < 0.004:
            mechanic = replace(mechanic, netting=near.key)
            until = mesh.end("size") if "chicken" in mesh[0] else mesh.end()
            line.take(start + mesh.start(), start + until, phrase("netting: {near}", near=near.name))
    layers = LAYERS.search(line.rest(start, end))
    if layers:
        word = layers["n"] or layers["w"]
        number = LAYER_WORDS.get(word) or int(word)
        mechanic = replace(mechanic, layers=number, layer_gap_m=None)
        line.take(start + layers.start(), start + layers.end(), phrase("{n} {n|layer|layers}", n=number))
    for pattern, kinds in _holders(draft.piece):
        found = re.search(rf"\b(?:{pattern})s?\b", line.rest(start, end))
        if not found:
            continue
        if len(kinds) == 1:
            mechanic = replace(mechanic, kind=kinds[0])
            meaning = phrase("mechanic: {name}", name=ABOUT[kinds[0]].name.lower())
            line.take(start + found.start(), start + found.end(), meaning)
        else:
            choices = tuple(ABOUT[each].name.lower() for each in kinds)
            line.ask(start + found.start(), start + found.end(), choices)
        break
    draft.piece = replace(draft.piece, mechanic=mechanic)


def _holders(piece: Piece) -> Iterator[tuple[str, tuple[str, ...]]]:
    """What may hold the stems of a piece, by how it is said, the longest names first, then other words."""
    own = {each.name.lower(): kind for kind, each in ABOUT.items() if each.of == piece.sort}
    if not piece.carried:
        yield from ((pattern, (kind,)) for pattern, kind in TOGETHER.items())
    yield from ((re.escape(name), (own[name],)) for name in sorted(own, key=len, reverse=True))
    if not piece.carried:
        yield from HOLDERS.items()


def _take_stored(draft: Draft, vessel: Vessel) -> None:
    level = min(draft.piece.water_level_m, 0.85 * vessel.inside_depth_m)
    draft.piece = replace(draft.piece, vessel=vessel, water_level_m=max(level, 0.5 * vessel.inside_depth_m))
    draft.new = True


def _vessel(draft: Draft, clause: Clause) -> bool:
    """The vessel word of a clause with the words before it; whether there is one, in it or just before."""
    if clause.noun is None:
        return draft.about_vessel
    draft.shape, draft.noun = clause.noun, clause.noun_at
    draft.new = draft.about_vessel = True
    words = draft.line.rest(*clause.noun_at)
    said = words.split()
    draft.manner = " ".join(clause.manners)
    plan = next((PLAN_SHAPES[word] for word in said[:-1] if word in PLAN_SHAPES), None)
    draft.plan_shape = plan if plan is not None else draft.plan_shape
    shown = " ".join((*clause.manners, clause.noun))
    meaning = phrase("{article} {about_vessel}", article="an" if shown[0] in "aeiou" else "a", about_vessel=shown)
    if plan is not None:
        meaning = phrase("{vessel}, {plan_shape} seen from above", vessel=meaning, plan_shape=plan)
    material = next((MATERIALS[word] for word in said if word in MATERIALS), None)
    draft.line.take(*clause.noun_at, meaning)
    rest = draft.line.rest(clause.start, clause.end)
    after = next((found for word in MATERIALS if (found := re.search(rf"\b{word}\b(?! shavings| wool)", rest))), None)
    if material is None and after:
        material = MATERIALS[after[0]]
        at = clause.start + after.start()
        draft.line.take(at, at + len(after[0]), phrase("made of {material}", material=material))
    if material is not None:
        draft.piece = replace(draft.piece, vessel=replace(draft.piece.vessel, material=material))
    return True


def _sizes(draft: Draft, start: int, end: int, *, from_flowers: int | None, named: bool) -> None:
    """Sizes of the vessel or of the flowers, as many as the clause has."""
    rest = draft.line.rest(start, end)

    def about(at: int) -> bool:
        return named and (from_flowers is None or at < from_flowers)

    for both in SIZES.finditer(rest):
        if about(both.start()):
            _set_sizes(draft, both, start)
    rest = draft.line.rest(start, end)
    ways = [found for pattern in (SIZE, SIZE_AFTER) if (found := pattern.search(rest))]
    if ways:
        first = min(ways, key=lambda each: each.start()).re
        for found in first.finditer(rest):
            size = draft.measured(found["size"])
            if size is not None and size > 0:
                meaning = _set_size(draft, found["way"], size, vessel=about(found.start()))
                draft.line.take(start + found.start(), start + found.end(), meaning)
    if not named or draft.mouth_m is not None:
        return
    rest = draft.line.rest(start, end)
    alone = SIZE_ALONE.search(rest)
    if alone is None and start <= draft.noun[0] < end:
        alone = _BARE.match(rest, draft.noun[1] - start)
    size = draft.measured(alone["size"]) if alone else None
    if alone and size and about(alone.start()):
        draft.mouth_m = size
        draft.line.take(start + alone.start("size"), start + alone.end(), phrase("mouth {v}", v=length(size)))


def _set_sizes(draft: Draft, both: re.Match[str], start: int) -> None:
    """Two or three sizes in a row: of what is longer than wide its long side first."""
    unit = both["uc"] or both["ub"] or ""
    sizes = [
        draft.measured(f"{both[name]} {both[f'u{name}'] or unit}".strip()) for name in ("a", "b", "c") if both[name]
    ]
    longer = (draft.plan_shape or SHAPES[draft.shape or "bowl"][0]) in _LONGER
    if None in sizes or (len(sizes) == 3 and not longer):
        return
    ways = ("long", "wide", "deep") if longer else ("wide", "deep")
    for way, size in zip(ways, sizes, strict=False):
        meaning = _set_size(draft, way, size or 0.0, vessel=True)
        draft.line.hear(start + both.start(), start + both.end(), meaning)
    draft.line.take(start + both.start(), start + both.end())


def _set_size(draft: Draft, way: str, size: float, *, vessel: bool) -> Phrase:
    """Set what a size is of: of the vessel what it still lacks, else of the flowers."""
    high = way in ("high", "tall", "height")
    deep = way in ("deep", "depth") or (high and (draft.shape or "") in STANDS_TALL)
    if vessel and deep and draft.deep_m is None:
        draft.deep_m = size
        return phrase("inside depth {v}", v=length(size))
    if vessel and way in ("long", "length") and draft.long_m is None:
        draft.long_m = size
        return phrase("mouth, long {v}", v=length(size))
    if vessel and not high and way not in ("deep", "depth") and draft.mouth_m is None:
        draft.mouth_m = size
        return phrase("mouth {v}", v=length(size))
    envelope = draft.piece.envelope
    if high:
        draft.piece = replace(draft.piece, envelope=replace(envelope, height_m=size))
        return phrase("flowers high {v}", v=length(size))
    if way in ("deep", "depth"):
        draft.piece = replace(draft.piece, envelope=replace(envelope, depth_m=size))
        return phrase("flowers front to back {v}", v=length(size))
    lengthwise = FORM_RULES[envelope.form].lengthwise
    depth = size if not lengthwise and envelope.depth_m >= envelope.width_m else envelope.depth_m
    draft.piece = replace(draft.piece, envelope=replace(envelope, width_m=size, depth_m=min(depth, size)))
    return phrase("flowers wide {v}", v=length(size))


def _form(draft: Draft, start: int, end: int) -> None:
    taken = ""
    known = {word: each.kind for each in FORM_RULES.values() for word in each.said} | dict(FORMS_SAID)
    for word in sorted(known, key=len, reverse=True):
        for found in re.finditer(rf"\b{word}\b", draft.line.rest(start, end)):
            form = known[word]
            if taken not in ("", form):
                break
            taken = form
            draft.piece = replace(draft.piece, envelope=replace(draft.piece.envelope, form=form))
            draft.line.take(start + found.start(), start + found.end(), phrase("form: {form}", form=form))
            draft.about_vessel = False


def _set_vessel(draft: Draft) -> None:
    """The vessel that shape and sizes make, and how full it is, once all is read."""
    sizes = (draft.mouth_m, draft.deep_m, draft.long_m)
    if draft.shape is not None and all(each is None for each in sizes) and _stored_called(draft):
        return
    if draft.shape is not None or any(each is not None for each in sizes):
        draft.piece = replace(draft.piece, vessel=_made(draft))
        draft.piece = replace(draft.piece, water_level_m=round(0.8 * draft.piece.vessel.inside_depth_m, 3))
    if draft.fill is not None:
        deep = draft.piece.vessel.inside_depth_m
        level = deep - _UNDER_THE_RIM_M if draft.fill == 1.0 else deep * draft.fill
        draft.piece = replace(draft.piece, water_level_m=round(max(level, 0.5 * deep), 3))


def _stored_called(draft: Draft) -> bool:
    """Take the vessel of the stores that is called so without a size, or ask which; whether there is any."""
    called = draft.line.text[slice(*draft.noun)].lower()
    of_stores = [
        each for each in draft.around.vessels.values() if each.name.lower().split(",")[0] in (called, called[:-1])
    ]
    if len(of_stores) == 1:
        _take_stored(draft, of_stores[0])
        meaning = phrase("{vessel}, from the stores", vessel=of_stores[0].name)
        draft.line.hear(*draft.noun, meaning)
    elif of_stores:
        draft.piece = replace(draft.piece, vessel=draft.before)
        names = tuple(each.name for each in sorted(of_stores, key=lambda each: each.mouth_width_m))
        draft.line.asked.append(Asked(words=called, start=draft.noun[0], end=draft.noun[1], choices=names))
    return bool(of_stores)


def _made(draft: Draft) -> Vessel:
    now = draft.piece.vessel
    mouth = draft.mouth_m or now.mouth_depth_m
    deep = draft.deep_m or now.inside_depth_m
    shape, profile = SHAPES.get(draft.shape or "", (now.plan_shape, ()))
    shape = draft.plan_shape or shape
    if shape not in _LONGER and draft.long_m is not None and draft.long_m != mouth:
        shape = "oval" if shape == "round" else "rectangular"
    if draft.shape == "cube" and draft.deep_m is None and draft.mouth_m:
        deep = mouth
    long = draft.long_m or (max(3 * mouth, now.mouth_width_m) if shape in _LONGER else mouth)
    points = profile or tuple(
        (point.height_m / now.inside_depth_m, point.width_m / now.mouth_width_m) for point in now.profile
    )
    name = f"{draft.manner} {draft.shape}".strip() if draft.shape else now.name
    return Vessel(
        name=name,
        plan_shape=shape,
        profile=tuple(
            ProfilePoint(
                height_m=round(share * deep, 5),
                width_m=round(size * (long if shape in _LONGER else mouth), 5),
                depth_m=round(size * mouth, 5),
            )
            for share, size in points
        ),
        wall_m=now.wall_m,
        base_m=now.base_m,
        material=now.material,
        clear=now.clear,
    )
