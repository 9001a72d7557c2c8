"""Counts with names: the lines of a recipe that are said."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine, Shade
from jolly_trellis.core.quantities import count, phrase
from jolly_trellis.core.say.clauses import Clause
from jolly_trellis.core.say.line import Line
from jolly_trellis.core.say.names import find_varieties, nearest_name, role_of
from jolly_trellis.core.say.words import COLOURS, OF, ROLES, SMALL, STEMS, STEMS_AFTER, number_of
from jolly_trellis.core.stems.shades import with_count

_MOST = 400
_WORD = re.compile(r"[a-z][a-z'-]*")


@dataclass(frozen=True, slots=True, kw_only=True)
class _Named:
    """The variety some words name, or several; from which to which place; their role."""

    varieties: tuple[Variety, ...]
    start: int
    end: int
    role: str | None
    shade: str = ""


def take_stems(line: Line, clause: Clause, varieties: Mapping[str, Variety], *, sure: bool) -> Iterator[RecipeLine]:
    """Counts with names of a clause; what is not sure to be a name is asked about in a second reading."""
    rest = line.rest(clause.start, clause.end)
    if clause.each is not None and clause.each > _MOST:
        return
    if clause.each is not None:
        yield from _each_of(line, clause, clause.each, varieties)
        return
    for found in STEMS.finditer(rest):
        if found["n"] == "a" and not found["bunch"]:
            continue
        yield from _taken(line, clause.start, rest, found, varieties, sure=sure)
    rest = line.rest(clause.start, clause.end)
    for found in STEMS_AFTER.finditer(rest):
        yield from _taken(line, clause.start, rest, found, varieties, sure=True)


def _taken(
    line: Line, offset: int, rest: str, found: re.Match[str], varieties: Mapping[str, Variety], *, sure: bool
) -> Iterator[RecipeLine]:
    named = _named(rest, found.start("name"), found.end("name"), varieties)
    start = offset + found.start()
    end = offset + max(found.end("n"), found.end("name") if named is None else named.end)
    number = number_of(found["n"])
    if named is not None and len(named.varieties) == 1 and number >= 1:
        (variety,) = named.varieties
        number *= variety.bunch_size if found.re is STEMS and found["bunch"] else 1
        if number > _MOST:
            return
        role = ROLES[named.role] if named.role else role_of(variety)
        shown = f"{named.shade} {variety.name}".strip()
        shades = (Shade(name=named.shade, colour=COLOURS[named.shade], count=number),) if named.shade else ()
        line.take(start, end, phrase("{n} {variety} ({role})", n=count(number), variety=shown, role=role))
        yield RecipeLine(variety=variety.key, count=number, role=role, shades=shades)
    elif sure:
        return
    elif named is not None and len(named.varieties) > 1:
        line.ask(offset + named.start, offset + named.end, tuple(each.name for each in named.varieties))
        line.take(start, end)
    elif named is None:
        words = _core(rest, found.start("name"), found.end("name"))
        near = nearest_name(_joined(words), varieties) if words else None
        if near is not None:
            at = offset + words[0][1]
            line.ask(at, offset + words[-1][1] + len(words[-1][0]), (near,))
            line.take(start, at)


def _each_of(line: Line, clause: Clause, number: int, varieties: Mapping[str, Variety]) -> Iterator[RecipeLine]:
    """As many of every variety that the clause names."""
    words = _core(line.rest(clause.start, clause.end), 0, clause.end - clause.start)
    while words:
        for until in range(len(words), 0, -1):
            found = find_varieties(_joined(words[:until]), varieties, exactly=True)
            if len(found) == 1:
                last, at = words[until - 1]
                role = role_of(found[0])
                meaning = phrase("{n} {variety} ({role})", n=count(number), variety=found[0].name, role=role)
                line.take(clause.start + words[0][1], clause.start + at + len(last), meaning)
                yield RecipeLine(variety=found[0].key, count=number, role=role)
                words = words[until:]
                break
        else:
            words = words[1:]


def _core(rest: str, start: int, end: int) -> list[tuple[str, int]]:
    """The words of a stretch with their places, but "stems of" before them and small words after them."""
    skipped = OF.match(rest[start:end])
    start += skipped.end() if skipped else 0
    words = [(each[0].strip("'-") or each[0], each.start() + start) for each in _WORD.finditer(rest[start:end])]
    while words and words[-1][0] in SMALL:
        words.pop()
    while words and words[0][0] in SMALL:
        words.pop(0)
    return words


def _named(rest: str, start: int, end: int, varieties: Mapping[str, Variety]) -> _Named | None:
    """The longest run of words, from the first on, that names a variety; its role may stand before it."""
    words = _core(rest, start, end)
    role = words.pop(0)[0] if words and words[0][0] in ROLES else None
    for colour in (" ".join(word for word, _ in words[:2]), words[0][0] if words else ""):
        beyond = words[len(colour.split()) :]
        if colour in COLOURS and beyond and not find_varieties(_joined(words), varieties, exactly=True):
            plain = _named(rest, beyond[0][1], end, varieties)
            if plain is not None:
                return replace(plain, start=words[0][1], role=role, shade=colour)
    for until in range(len(words), 0, -1):
        found = find_varieties(_joined(words[:until]), varieties, exactly=until < len(words))
        if found:
            twice = until < len(words) and found == find_varieties(_joined(words[until:]), varieties)
            last, at = words[-1] if twice else words[until - 1]
            return _Named(varieties=found, start=words[0][1], end=at + len(last), role=role)
    return None


def _joined(words: list[tuple[str, int]]) -> str:
    return " ".join(word for word, _ in words)


def merged(kept: tuple[RecipeLine, ...], said: list[RecipeLine]) -> tuple[RecipeLine, ...]:
    """Lines said take the place of lines of the same variety; new ones come after."""
    by_variety: dict[str, RecipeLine] = {}
    for each in said:
        own = by_variety.setdefault(each.variety, each)
        if own is not each:
            shades = (*own.shades, *each.shades)
            by_variety[each.variety] = replace(own, count=min(own.count + each.count, _MOST), shades=shades)
    lines = [_counted(line, by_variety.pop(line.variety)) if line.variety in by_variety else line for line in kept]
    return (*lines, *by_variety.values())


def _counted(line: RecipeLine, said: RecipeLine) -> RecipeLine:
    """A line with as many stems as were said; its shades stay where none were said and there are stems for them."""
    shades = said.shades or (line.shades if sum(each.count for each in line.shades) <= said.count else ())
    return replace(with_count(line, said.count), shades=shades)
