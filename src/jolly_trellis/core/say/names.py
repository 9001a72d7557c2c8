"""A variety by what people call it, and the role it most often plays."""

from collections.abc import Mapping
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


def find_variety(name: str, varieties: Mapping[str, Variety]) -> tuple[Variety | None, str | None]:
    """A variety by a name as said, singular or plural; else None and the nearest name, if any is near."""
    forms = _singulars(name)
    for said in forms:
        for variety in varieties.values():
            if said in (variety.name.lower(), variety.key, variety.key.replace("-", " ")):
                return variety, None
    for said in forms:
        called = [each for each in varieties.values() if said in _names(each)]
        if len(called) == 1:
            return called[0], None
        if called:
            return None, called[0].name.lower()
    for said in forms:
        begun = [each for each in varieties.values() if each.name.lower().startswith(said + " ")]
        begun = begun or [each for each in varieties.values() if each.name.lower().split(",")[0] == said]
        if len(begun) == 1:
            return begun[0], None
        within = [each for each in varieties.values() if said in each.name.lower().replace(",", "").split()]
        if len(within) == 1:
            return within[0], None
    names: dict[str, str] = {}
    for each in varieties.values():
        shown = each.name.lower()
        for name in (shown, shown.split(",")[0], *_names(each)):
            names.setdefault(name, shown)
    near = get_close_matches(forms[0], names, n=1, cutoff=CLOSE - 0.15)
    return None, names[near[0]] if near else None


def _names(variety: Variety) -> set[str]:
    """Every other name of a variety, its botanical one and the first word of that too."""
    botanical = variety.botanical.lower()
    return {each.lower() for each in variety.names} | ({botanical} if botanical else set())


def _singulars(name: str) -> list[str]:
    said = name.strip()
    forms = [said]
    if said.endswith("ies"):
        forms.append(said[:-3] + "y")
    if said.endswith("es"):
        forms.append(said[:-2])
    if said.endswith("s"):
        forms.append(said[:-1])
    return forms
