"""The words and patterns that the say-it line knows: vessels, forms, roles, materials, sizes, counts."""

import re
from collections.abc import Mapping

from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.materials.vessels import Material
from jolly_trellis.core.plan_shapes import PlanShape

# Shapes of vessels by the word people use: plan shape, then (share of depth, share of mouth) from the floor up.
SHAPES: Mapping[str, tuple[PlanShape, tuple[tuple[float, float], ...]]] = {
    "bowl": ("round", ((0.0, 0.6), (0.4, 0.88), (1.0, 1.0))),
    "dish": ("round", ((0.0, 0.8), (1.0, 1.0))),
    "urn": ("round", ((0.0, 0.5), (0.6, 1.05), (0.85, 0.92), (1.0, 1.0))),
    "vase": ("round", ((0.0, 0.6), (0.45, 1.15), (1.0, 1.0))),
    "cylinder": ("round", ((0.0, 1.0), (1.0, 1.0))),
    "bucket": ("round", ((0.0, 0.78), (1.0, 1.0))),
    "jug": ("round", ((0.0, 0.8), (0.5, 1.2), (1.0, 1.0))),
    "compote": ("round", ((0.0, 0.45), (0.4, 0.8), (1.0, 1.0))),
    "cube": ("square", ((0.0, 1.0), (1.0, 1.0))),
    "trough": ("rectangular", ((0.0, 0.93), (1.0, 1.0))),
    "oval": ("oval", ((0.0, 0.7), (1.0, 1.0))),
}
# Other words for a shape of vessel.
ALSO_CALLED: Mapping[str, str] = {
    "pedestal bowl": "compote",
    "footed bowl": "compote",
    "window box": "trough",
    "planter": "trough",
    "pitcher": "jug",
    "basin": "bowl",
    "pail": "bucket",
    "jar": "cylinder",
    "glass tube": "cylinder",
}
# Vessels that stand higher than wide: of them "tall" speaks of the vessel, of others of the flowers.
STANDS_TALL = frozenset({"vase", "cylinder", "bucket", "jug"})
# Words before a vessel that give no size; they stay in its name.
MANNERS = ("low", "small", "large", "little", "big", "tall", "wide", "deep", "long", "shallow", "bud", "footed")
# Plan shapes as they are said before a vessel.
PLAN_SHAPES: Mapping[str, PlanShape] = {
    "round": "round",
    "square": "square",
    "oval": "oval",
    "rectangular": "rectangular",
    "oblong": "rectangular",
}
# Colours as florists call them, as shades of a variety.
COLOURS: Mapping[str, str] = {
    "white": "#f5f2ea",
    "ivory": "#f2ead6",
    "cream": "#f0e4c4",
    "blush": "#f0d3cd",
    "pale pink": "#f1cfd6",
    "pink": "#e39bb0",
    "dusty pink": "#c99aa0",
    "hot pink": "#d63a7e",
    "peach": "#f2b899",
    "apricot": "#eda36b",
    "coral": "#e8765f",
    "salmon": "#e88b76",
    "orange": "#e07a2c",
    "pale yellow": "#f4e7a0",
    "yellow": "#ecc53a",
    "rust": "#a9542f",
    "red": "#b8232f",
    "deep red": "#7d1424",
    "burgundy": "#6a1830",
    "plum": "#5d2a4d",
    "purple": "#6d4a94",
    "mauve": "#a88ab5",
    "blue": "#5a77b8",
    "pale blue": "#a9bfe0",
    "green": "#8aa86a",
    "brown": "#7a5740",
    "black": "#2c2430",
}
ALL_ROLES: tuple[Role, ...] = ("margin", "line", "focal", "filler", "base", "airy")
ROLES: Mapping[str, Role] = {str(role): role for role in ALL_ROLES}
MATERIALS: Mapping[str, Material] = {
    "glass": "glass",
    "ceramic": "glazed",
    "glazed": "glazed",
    "china": "glazed",
    "terracotta": "unglazed",
    "clay": "unglazed",
    "zinc": "metal",
    "metal": "metal",
    "plastic": "plastic",
    "wooden": "wood",
    "wood": "wood",
}
# What holds stems, by words beside the name of each mechanic; several kinds: it is asked which.
TOGETHER: Mapping[str, str] = {
    r"(?:pin |flower )?frog (?:and|with) (?:some )?(?:chicken )?wire(?: over (?:it|the top))?": "frog_with_wire",
    r"(?:a )?ball of (?:chicken )?wire|(?:chicken )?wire ball": "string_ball",
}
HOLDERS: Mapping[str, tuple[str, ...]] = {
    r"(?:pin|needle) (?:frog|holder)": ("pin_frog",),
    r"hair ?pin frog": ("loop_frog",),
    r"glass frog": ("holed_frog",),
    r"(?:flower )?frog": ("pin_frog", "cage_frog", "loop_frog", "holed_frog"),
    r"stacked (?:chicken )?wire|(?:chicken )?wire,? stacked|stacked": ("stacked_pair",),
    r"wood wool|shavings": ("wood_shavings",),
    r"grid of tape|taped grid": ("tape_grid",),
    r"(?:willow|branch|twig) nest": ("branch_tangle",),
    r"chicken wire|wire netting": ("folded_cushion",),
}
# Forms by words beside those of the form table.
FORMS_SAID: Mapping[str, str] = {
    "all round": "dome",
    "one[- ]sided": "fan",
    "asymmetrical": "sweep",
}
FILLED: Mapping[str, float] = {
    r"half[- ]full": 0.5,
    r"three[- ]quarters full": 0.75,
    r"two[- ]thirds full": 2 / 3,
    r"(?:filled |full )?to the brim|brim[- ]?full": 1.0,
}
# Other things to begin with, by the key of their start.
STARTS_SAID: Mapping[str, str] = {
    "ring": "ring",
    "hoop": "hoop",
    "garland": "garland",
    "snake": "garland",
    "swag": "wall_roll",
    "wall roll": "wall_roll",
    "runner": "runner",
    "ground drift": "drift",
    "drift": "drift",
    "arch section": "arch_section",
    "section of (?:an |the )?arch": "arch_section",
    "(?:whole |flower )?arch": "arch",
    "panel": "panel",
    "cloud": "cloud",
    "cascade": "cascade",
    "column crawl": "column",
    "crawl up (?:a|the) column": "column",
    "one[- ]sided bouquet": "one_sided",
    "bouquet": "star_lattice",
    "posy": "hand_spiral",
    "posie": "hand_spiral",
    "buttonhole": "buttonhole",
    "boutonnieres?": "buttonhole",
    "corsage": "corsage",
    "(?:flower |hair )?crown": "crown",
}
HELD = ("one_sided", "star_lattice", "hand_spiral", "buttonhole", "corsage", "crown")  # starts held or worn: by number
# Starts whose words hold the word of a vessel: they are looked for before vessels are.
VESSEL_STARTS_SAID: Mapping[str, str] = {
    "bowls? on (?:an? |the )?(?:columns?|stands?|plinths?|pedestals?)": "tall_bowl",
    "urns? with (?:an? )?(?:inserts?|inner bowls?)": "urn",
    "cups down (?:a|the) tables?": "cups",
    "twig bowls?": "twig_bowl",
    "dense vases?": "dense_vase",
    "ledge (?:pieces?|arrangements?)": "ledge",
}
_TO_NINETEEN = (
    "one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen "
    "eighteen nineteen"
)
ONES = {word: n for n, word in enumerate(_TO_NINETEEN.split(), 1)}
_TENS = "twenty thirty forty fifty sixty seventy eighty ninety"
TENS = {word: 10 * n for n, word in enumerate(_TENS.split(), 2)}
_ONE = "|".join(sorted(ONES, key=len, reverse=True))
_TEN = "|".join(TENS)
COUNT = (
    rf"(?:half a dozen|(?:(?:{_ONE}|a|\d{{1,2}}) )?dozen|a hundred|(?:a )?(?:pair|couple)(?: of)?"
    rf"|(?:{_TEN})(?:[- ](?:{_ONE}))?|(?:{_ONE})(?!-)|\d{{1,4}}(?![\d.,½¼¾⅛⅜⅝⅞/]))"
)
NUMBER = r"(?:\d+[ -]\d+/\d+|\d+/\d+|\d*[½¼¾⅛⅜⅝⅞]|\d*[.,]?\d+)"
UNIT = r"(?:mm|cm|metres|meters|m|inches|inch|in|ft|foot|feet|\"|″|'|′)(?![a-z])"
LONG = rf"{NUMBER}(?:[ -]?{UNIT})?"
WAYS = r"(?:across|wide|deep|high|tall|long|diameter|depth|height|width|length)"
SIZE = re.compile(rf"(?<![\d.,/])(?P<size>{LONG})(?: of)?[ -]*(?:in )?(?P<way>{WAYS})\b")
SIZE_AFTER = re.compile(rf"\b(?P<way>diameter|depth|height|width|length)(?: of)? (?P<size>{LONG})(?![\w.,/])")
SIZES = re.compile(
    rf"(?<![\d.,/])(?P<a>{NUMBER}) ?(?P<ua>{UNIT})? ?(?:x|×|by) ?(?P<b>{NUMBER}) ?(?P<ub>{UNIT})?"
    rf"(?: ?(?:x|×|by) ?(?P<c>{NUMBER}) ?(?P<uc>{UNIT})?)?(?![\w])"
)
SIZE_ALONE = re.compile(rf"(?<![\d.,/])(?P<size>{NUMBER}[ -]?{UNIT})(?=[\s,]|$)")
MESH = re.compile(rf"(?P<size>{LONG}) *(?:chicken wire|wire|netting|mesh|cells?)\b")
LAYERS = re.compile(r"\b(?:(?P<n>one|two|three|four|[1-4])[ -]layers?|(?P<w>single|double)[ -]layer)(?: of)?\b")
TIMES = re.compile(r"(?:×|\bx|\btimes) ?(?P<n>\d{1,3})\b|\b(?P<m>\d{1,3}) (?:of them|pieces)\b")
EACH = re.compile(rf"(?<![\w.,/])(?P<n>{COUNT}) (?:stems )?(?:each of|of each of|of each):? (?P<list>[^\d;\n]+)")
BETWEEN = re.compile(r",|\band\b")
STEMS = re.compile(rf"(?<![\w.,/])(?P<n>{COUNT}|a) ?(?:x |× ?)?(?P<bunch>bunch(?:es)?)?(?P<name>[ a-z][a-z' -]*)")
STEMS_AFTER = re.compile(r"(?P<name>[a-z][a-z' -]*?)(?: ?× ?| x ?|: ?| )(?P<n>\d{1,4})(?: stems)?(?=\s*(?:$|[,;]))")
OF = re.compile(r"^ *(?:of )?(?:stems?|branch(?:es)?|sprays|heads|sprigs)(?: of)? ")
FLOWERS = re.compile(r"\b(?:flowers?|arrangements?|overall|finished|blooms)\b")
LAYER_WORDS = {"one": 1, "two": 2, "three": 3, "four": 4, "single": 1, "double": 2}
_SMALL = (
    "a an the of with in and on it is please some stems stem for to each per its over top made make using from at by "
    "about roughly style them branches branch bunch bunches sprays"
)
SMALL = frozenset(_SMALL.split())
CLOSE = 0.72


def number_of(words: str) -> int:
    """A count as said: 12, twelve, thirty-five, a dozen, half a dozen, three dozen, a pair of, a hundred."""
    said = words.strip().replace("-", " ")
    if said.isdigit():
        return int(said)
    if said == "half a dozen":
        return 6
    if said.endswith("dozen"):
        before = said.removesuffix("dozen").strip()
        return 12 * (1 if before in ("", "a") else int(before) if before.isdigit() else ONES[before])
    if "pair" in said or "couple" in said:
        return 2
    if said == "a hundred":
        return 100
    return 1 if said == "a" else sum(TENS.get(word) or ONES[word] for word in said.split())
