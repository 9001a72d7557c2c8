"""The words and patterns that the say-it line knows: vessels, forms, roles, materials, sizes, counts."""

import re

from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.materials.vessels import Material
from jolly_trellis.core.plan_shapes import PlanShape

# Shapes of vessels by the word people use: plan shape, then (share of depth, share of mouth) from the floor up.
SHAPES: dict[str, tuple[PlanShape, tuple[tuple[float, float], ...]]] = {
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
# Plan shapes as they are said before a vessel.
PLAN_SHAPES: dict[str, PlanShape] = {
    "round": "round",
    "square": "square",
    "oval": "oval",
    "rectangular": "rectangular",
    "oblong": "rectangular",
}
ALL_ROLES: tuple[Role, ...] = ("margin", "line", "focal", "filler", "base", "airy")
ROLES: dict[str, Role] = {str(role): role for role in ALL_ROLES}
MATERIALS: dict[str, Material] = {
    "glass": "glass",
    "ceramic": "glazed",
    "glazed": "glazed",
    "terracotta": "unglazed",
    "zinc": "metal",
    "metal": "metal",
    "plastic": "plastic",
    "wooden": "wood",
}
NUMBER = r"(?:\d+[ -]\d+/\d+|\d+/\d+|\d*[.,]?\d+)"
UNIT = r"(?:mm|cm|m|inches|inch|in|ft|\"|″|'|′)"
SIZE = re.compile(
    rf"(?P<size>{NUMBER}\s*{UNIT}?)\s*(?P<way>across|wide|deep|high|tall|long|diameter|depth|height|width)\b"
)
SIZE_BEFORE = re.compile(rf"(?P<size>{NUMBER}\s*{UNIT})(?=\s|$|,)")
MESH = re.compile(rf"(?P<size>{NUMBER}\s*{UNIT}?)\s*(?:wire|netting|mesh|cells?)\b")
LAYERS = re.compile(r"(?P<n>one|two|three|four|[1-4])[ -]layers?\b|(?P<w>single|double)[ -]layer\b")
TIMES = re.compile(r"(?:×|x|times)\s*(?P<n>\d{1,3})\b|(?P<m>\d{1,3})\s*(?:of them|pieces)\b")
STEMS = re.compile(r"(?P<n>\d{1,4})\s+(?P<name>[a-z][a-z' -]*)")
WORDS = {"one": 1, "two": 2, "three": 3, "four": 4, "single": 1, "double": 2}
SMALL = {
    "a",
    "an",
    "the",
    "of",
    "with",
    "in",
    "and",
    "on",
    "it",
    "is",
    "please",
    "some",
    "stems",
    "stem",
    "for",
    "to",
}
CLOSE = 0.72
