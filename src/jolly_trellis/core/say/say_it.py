"""The say-it line: free text that sets up or changes a piece, with what was understood and what was not."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.plan.kinds import AnyPiece
from jolly_trellis.core.plan.piece import Conditions, Mechanic, MechanicKind, Piece, RecipeLine
from jolly_trellis.core.plan_shapes import PlanShape
from jolly_trellis.core.quantities import Phrase, count, length, phrase
from jolly_trellis.core.say.names import find_variety, role_of
from jolly_trellis.core.say.words import (
    LAYERS,
    MATERIALS,
    MESH,
    PLAN_SHAPES,
    ROLES,
    SHAPES,
    SIZE,
    SIZE_BEFORE,
    SMALL,
    STEMS,
    TIMES,
    WORDS,
)
from jolly_trellis.core.units import UnitSystem, parse_length


@dataclass(frozen=True, slots=True, kw_only=True)
class Heard:
    """Some words, and what they were taken to mean."""

    words: str
    meaning: Phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """Words that fit nothing, and the nearest thing that there is."""

    words: str
    nearest: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Understood:
    """The piece after a line of text, what was heard, what was not, and what may have been meant."""

    piece: AnyPiece
    heard: tuple[Heard, ...]
    unheard: tuple[str, ...]
    offers: tuple[Offer, ...]


@dataclass(slots=True, kw_only=True)
class _Draft:
    """The piece being set up, while one line is read."""

    piece: AnyPiece
    heard: list[Heard] = field(default_factory=list)
    unheard: list[str] = field(default_factory=list)
    offers: list[Offer] = field(default_factory=list)
    mouth_m: float | None = None
    long_m: float | None = None
    deep_m: float | None = None
    shape: str | None = None
    plan_shape: PlanShape | None = None
    recipe: list[RecipeLine] = field(default_factory=list)

    def hear(self, words: str, meaning: Phrase) -> None:
        self.heard.append(Heard(words=words.strip(), meaning=meaning))


def say_it(
    text: str,
    piece: Piece,
    conditions: Conditions,
    *,
    system: UnitSystem,
    vessels: Mapping[str, Vessel] | None = None,
) -> Understood:
    """Read a line such as "urn 24 across 30 deep, 60 high 70 wide lopsided, 9 quince, 30 tulip" onto a piece.

    Clauses end at commas, semicolons and line ends. A clause with a vessel word speaks of the vessel; sizes in others
    speak of the flowers. Counts with variety names, singular or plural, make the recipe; a name that is nearly one is
    not taken, but offered. A line that names a vessel sets the piece up, and its stems are the whole recipe; one that
    does not changes the lines it names.

    Args:
        text: as typed, at most a few thousand characters.
        piece: what it is said of.
        conditions: varieties and nettings by key.
        system: unit of bare numbers, centimetres or inches.
        vessels: of the stores, by key; "the low bowl, 20 cm" takes one by its name.
    Returns: the piece after it; nothing is saved.
    """
    draft = _Draft(piece=piece)
    for clause in re.split(r"[;\n]|,(?!\d)|\band\b(?=\s+\d)", text.lower()[:4000]):
        rest = clause.strip(" .")
        if rest:
            _clause(draft, rest, conditions, system, vessels or {})
    _set_vessel(draft)
    if draft.recipe:
        kept = () if draft.shape is not None else draft.piece.recipe
        draft.piece = replace(draft.piece, recipe=_merged(kept, draft.recipe))
    return Understood(
        piece=draft.piece, heard=tuple(draft.heard), unheard=tuple(draft.unheard), offers=tuple(draft.offers)
    )


def _clause(
    draft: _Draft, rest: str, conditions: Conditions, system: UnitSystem, vessels: Mapping[str, Vessel]
) -> None:
    rest = _switches(draft, rest)
    rest = _mechanic(draft, rest, conditions, system)
    rest = _stored_vessel(draft, rest, vessels)
    about_vessel = next((word for word in SHAPES if re.search(rf"\b{word}s?\b", rest)), None)
    if about_vessel:
        draft.shape = about_vessel
        rest = _plan_shape(draft, rest, about_vessel)
        rest = re.sub(rf"\b{about_vessel}s?\b", " ", rest, count=1)
        article = "an" if about_vessel[0] in "aeiou" else "a"
        draft.hear(about_vessel, phrase("{article} {about_vessel}", article=article, about_vessel=about_vessel))
        for word, material in MATERIALS.items():
            if re.search(rf"\b{word}\b", rest):
                vessel = replace(draft.piece.vessel, material=material)
                draft.piece = replace(draft.piece, vessel=vessel)
                draft.hear(word, phrase("made of {material}", material=material))
                rest = re.sub(rf"\b{word}\b", " ", rest, count=1)
    rest = _sizes(draft, rest, system, vessel=about_vessel is not None)
    rest = _stems(draft, rest, conditions, sure=True)
    known = {word: each.kind for each in FORM_RULES.values() for word in each.said}
    for word in sorted(known, key=len, reverse=True):
        if re.search(rf"\b{word}\b", rest):
            form = known[word]
            draft.piece = replace(draft.piece, envelope=replace(draft.piece.envelope, form=form))
            draft.hear(word, phrase("form: {form}", form=form))
            rest = re.sub(rf"\b{word}\b", " ", rest, count=1)
            break
    rest = _stems(draft, rest, conditions, sure=False)
    left = [word for word in re.findall(r"[^\s]+", rest) if word not in SMALL]
    if left:
        draft.unheard.append(" ".join(left))


def _switches(draft: _Draft, rest: str) -> str:
    piece = draft.piece

    def take(pattern: str, changed: Piece, meaning: str) -> None:
        nonlocal rest, piece
        found = re.search(pattern, rest)
        if found:
            piece = changed
            draft.hear(found[0], phrase(meaning))
            rest = rest.replace(found[0], " ", 1)

    take(r"\bclear glass\b", replace(piece, vessel=replace(piece.vessel, clear=True, material="glass")), "clear glass")
    take(
        r"\b(?:outdoors?|outside)\b",
        replace(piece, setting=replace(piece.setting, outdoors=True)),
        "it stands outdoors",
    )
    take(
        r"\b(?:indoors?|inside)\b", replace(piece, setting=replace(piece.setting, outdoors=False)), "it stands indoors"
    )
    bare = replace(piece.mechanic, tape_strips=0)
    take(r"\bno tape\b", replace(piece, mechanic=bare), "no tape")
    take(r"\bon the floor\b", replace(piece, setting=replace(piece.setting, where="floor")), "on the floor")
    take(r"\b(?:must )?lifts? off\b", replace(piece, must_lift_off=True), "must lift off")
    take(r"\b(?:leaf[- ])?lin(?:ed|ing)\b", replace(piece, lining=True), "lined with leaf")
    times = TIMES.search(rest)
    if times:
        number = int(times["n"] or times["m"])
        piece = replace(piece, quantity=max(1, min(number, 500)))
        draft.hear(times[0], phrase("{n} of them", n=count(piece.quantity)))
        rest = rest.replace(times[0], " ", 1)
    draft.piece = piece
    return rest


def _mechanic(draft: _Draft, rest: str, conditions: Conditions, system: UnitSystem) -> str:
    mechanic: Mechanic = draft.piece.mechanic
    names: list[tuple[str, MechanicKind]] = [(about.name.lower(), kind) for kind, about in ABOUT.items()]
    for name, kind in sorted(names, key=lambda each: -len(each[0])):
        if re.search(rf"\b{re.escape(name)}\b", rest):
            mechanic = replace(mechanic, kind=kind)
            draft.hear(name, phrase("mechanic: {name}", name=name))
            rest = rest.replace(name, " ", 1)
            break
    layers = LAYERS.search(rest)
    if layers:
        word = layers["n"] or layers["w"]
        number = WORDS.get(word) or int(word)
        mechanic = replace(mechanic, layers=number, layer_gap_m=None)
        draft.hear(layers[0], phrase("{n} {n|layer|layers}", n=number))
        rest = rest.replace(layers[0], " ", 1)
    mesh = MESH.search(rest)
    if mesh:
        size = parse_length(mesh["size"], system=system)
        if size is not None:
            finish = conditions.practice.wire
            near = min(
                conditions.nettings.values(),
                key=lambda each: (abs(each.aperture_m - size), each.finish != finish),
                default=None,
            )
            if near is not None and abs(near.aperture_m - size) < 0.004:
                mechanic = replace(mechanic, netting=near.key)
                draft.hear(mesh[0], phrase("netting: {near}", near=near.name))
                rest = rest.replace(mesh[0], " ", 1)
    draft.piece = replace(draft.piece, mechanic=mechanic)
    return rest


def _plan_shape(draft: _Draft, rest: str, vessel: str) -> str:
    """A square dish, an oval bowl: the plan shape said before the vessel."""
    found = re.search(rf"\b({'|'.join(PLAN_SHAPES)})\s+(?={vessel}s?\b)", rest)
    if found is None:
        return rest
    draft.plan_shape = PLAN_SHAPES[found[1]]
    draft.hear(found[1], phrase("{plan_shape} seen from above", plan_shape=draft.plan_shape))
    return rest[: found.start()] + rest[found.end() :]


def _stored_vessel(draft: _Draft, rest: str, vessels: Mapping[str, Vessel]) -> str:
    for vessel in sorted(vessels.values(), key=lambda each: -len(each.name)):
        for name in (vessel.name.lower(), vessel.name.lower().replace(",", "")):
            if name in rest:
                level = min(draft.piece.water_level_m, 0.85 * vessel.inside_depth_m)
                draft.piece = replace(
                    draft.piece, vessel=vessel, water_level_m=max(level, 0.5 * vessel.inside_depth_m)
                )
                draft.hear(name, phrase("{vessel}, from the stores", vessel=vessel.name))
                return rest.replace(name, " ", 1)
    return rest


def _sizes(draft: _Draft, rest: str, system: UnitSystem, *, vessel: bool) -> str:
    for found in list(SIZE.finditer(rest)):
        size = parse_length(found["size"], system=system)
        if size is None or size <= 0:
            continue
        way = found["way"]
        meaning = _set_size(draft, way, size, vessel=vessel)
        draft.hear(found[0], phrase("{meaning} {v}", v=length(size), meaning=meaning))
        rest = rest.replace(found[0], " ", 1)
    if vessel and draft.mouth_m is None:
        alone = SIZE_BEFORE.search(rest)
        size = parse_length(alone["size"], system=system) if alone else None
        if alone and size:
            draft.mouth_m = size
            draft.hear(alone[0], phrase("mouth {v}", v=length(size)))
            rest = rest.replace(alone[0], " ", 1)
    return rest


def _set_size(draft: _Draft, way: str, size: float, *, vessel: bool) -> str:
    if vessel:
        if way in ("across", "wide", "diameter", "width"):
            draft.mouth_m = size
            return "mouth"
        if way == "long":
            draft.long_m = size
            return "mouth, long"
        draft.deep_m = size
        return "inside depth"
    envelope = draft.piece.envelope
    if way in ("high", "tall", "height"):
        draft.piece = replace(draft.piece, envelope=replace(envelope, height_m=size))
        return "flowers high"
    if way in ("deep", "depth"):
        draft.piece = replace(draft.piece, envelope=replace(envelope, depth_m=size))
        return "flowers front to back"
    depth = (
        size if not FORM_RULES[envelope.form].lengthwise and envelope.depth_m >= envelope.width_m else envelope.depth_m
    )
    draft.piece = replace(draft.piece, envelope=replace(envelope, width_m=size, depth_m=min(depth, size)))
    return "flowers wide"


def _stems(draft: _Draft, rest: str, conditions: Conditions, *, sure: bool) -> str:
    """Take counts with names: where `sure`, only those that are varieties; else also offer the nearest."""
    for found in list(STEMS.finditer(rest)):
        said = re.sub(r"\s+", " ", found["name"]).strip(" -'")
        words = said.split()
        role = next((word for word in words if word in ROLES), None)
        name = " ".join(word for word in words if word not in ROLES and word not in ("stems", "stem", "of"))
        if not name:
            continue
        variety, nearest = find_variety(name, conditions.varieties)
        number = int(found["n"])
        if variety is None:
            if sure:
                continue
            if nearest is not None:
                draft.offers.append(Offer(words=name, nearest=nearest))
            draft.unheard.append(found[0].strip())
        elif number < 1:
            draft.unheard.append(found[0].strip())
        else:
            line_role = ROLES[role] if role else role_of(variety)
            draft.recipe.append(RecipeLine(variety=variety.key, count=number, role=line_role))
            draft.hear(
                found[0],
                phrase("{n} {variety} ({line_role})", n=count(number), variety=variety.name, line_role=line_role),
            )
        rest = rest.replace(found[0], " ", 1)
    return rest


def _set_vessel(draft: _Draft) -> None:
    """The vessel that shape and sizes make, once the whole line is read."""
    if draft.shape is None and draft.mouth_m is None and draft.deep_m is None and draft.long_m is None:
        return
    now = draft.piece.vessel
    mouth = draft.mouth_m or now.mouth_depth_m
    deep = draft.deep_m or now.inside_depth_m
    shape, profile = SHAPES.get(draft.shape or "", (now.plan_shape, ()))
    shape = draft.plan_shape or shape
    if draft.shape == "cube" and draft.deep_m is None and draft.mouth_m:
        deep = mouth
    long = draft.long_m or (max(3 * mouth, now.mouth_width_m) if shape in ("rectangular", "oval") else mouth)
    points = profile or tuple(
        (point.height_m / now.inside_depth_m, point.width_m / now.mouth_width_m) for point in now.profile
    )
    vessel = Vessel(
        name=draft.shape or now.name,
        plan_shape=shape,
        profile=tuple(
            ProfilePoint(
                height_m=round(share * deep, 5),
                width_m=round(size * (long if shape in ("rectangular", "oval") else mouth), 5),
                depth_m=round(size * mouth, 5),
            )
            for share, size in points
        ),
        wall_m=now.wall_m,
        base_m=now.base_m,
        material=now.material,
        clear=now.clear,
    )
    level = round(0.8 * deep, 3)
    draft.piece = replace(draft.piece, vessel=vessel, water_level_m=level)


def _merged(kept: tuple[RecipeLine, ...], said: list[RecipeLine]) -> tuple[RecipeLine, ...]:
    """Lines said take the place of lines of the same variety; new ones come after."""
    by_variety = {line.variety: line for line in said}
    merged = [
        replace(line, count=by_variety.pop(line.variety).count) if line.variety in by_variety else line
        for line in kept
    ]
    return (*merged, *by_variety.values())
