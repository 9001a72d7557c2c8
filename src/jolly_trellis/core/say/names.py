"""A variety by what people call it, and the role it most often plays."""

from collections.abc import Iterator, Mapping
from difflib import get_close_matches

from jolly_trellis.core.materials.stems import Role, Variety
from jolly_trellis.core.say.words import CLOSE


def role_of(variety: Variety) -> Role:
    """The role a variety most often plays: leaves base, branches and spikes line, large heads focal, else filler.

    Source: common practice, no source.
    """
    if variety.form == "leaf":
        return "base"
    if variety.branch or variety.form in ("spike", "tassel"):
        return "line"
    if variety.form == "spray" and variety.thirst == "low" and variety.mass_kg < 0.03:
        return "airy"
    return "focal" if variety.form in ("disc", "ball") and variety.head_diameter_m >= 0.075 else "filler"


def find_varieties(name: str, varieties: Mapping[str, Variety], *, exactly: bool = False) -> tuple[Variety, ...]:
    """Every variety that a name as said may be: singular or plural, by its own name, else by another, else a part.

    Args:
        exactly: only a whole name counts, no part of one.
    Returns: one where it is clear, several where it must be asked, none where nothing is called so.
    """
    ways = (_is_named, _is_also_called) if exactly else (_is_named, _is_also_called, _begins, _has_word)
    for fits in ways:
        for said in singulars(name):
            found = tuple(each for each in varieties.values() if fits(each, said))
            if found:
                return found
    return ()


def nearest_name(name: str, varieties: Mapping[str, Variety]) -> str | None:
    """The name of the variety that is written most like it, of all its names; None where none is near."""
    names: dict[str, str] = {}
    for each in varieties.values():
        shown = each.name.lower()
        for called in (shown, shown.split(",")[0], *also_called(each)):
            names.setdefault(called, shown)
    near = get_close_matches(name.strip(), names, n=1, cutoff=CLOSE - 0.15)
    return names[near[0]] if near else None


def also_called(variety: Variety) -> Iterator[str]:
    """Every other name of a variety in small letters, its botanical one too."""
    yield from (each.lower() for each in variety.names)
    if variety.botanical:
        yield variety.botanical.lower()


def singulars(name: str) -> list[str]:
    """A name as said, and what it may be the plural of, the likeliest first."""
    said = name.strip()
    forms = [said]
    if said.endswith("ies"):
        forms.append(said[:-3] + "y")
    if said.endswith("es"):
        forms.append(said[:-2])
    if said.endswith("s"):
        forms.append(said[:-1])
    words = said.split()
    if len(words) > 1 and words[0].endswith("s"):
        first = f"{words[0][:-3]}y" if words[0].endswith("ies") else words[0][:-1]
        forms.append(" ".join((first, *words[1:])))
    return forms


def _is_named(variety: Variety, said: str) -> bool:
    return said in (variety.name.lower(), variety.key, variety.key.replace("-", " "))


def _is_also_called(variety: Variety, said: str) -> bool:
    return said in also_called(variety)


def _begins(variety: Variety, said: str) -> bool:
    shown = variety.name.lower()
    return shown.startswith(said + " ") or shown.split(",")[0] == said


def _has_word(variety: Variety, said: str) -> bool:
    return any(said in name.replace(",", "").split() for name in (variety.name.lower(), *also_called(variety)))
