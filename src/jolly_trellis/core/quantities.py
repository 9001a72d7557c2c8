"""Quantities with a kind, and sentences that carry them, so that one sentence reads in either unit system.

The core never writes "3.6 cm" into a sentence. It writes "{sway}" and hands over the sway in metres; the
screen and the printer put it in centimetres or inches.
"""

import re
from collections.abc import Callable, Iterable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from typing import Literal

QuantityKind = Literal[
    "length",  # m
    "cut_length",  # m, said as one would cut it: up to the next half centimetre or quarter inch
    "level_most",  # m, a water level that may not be passed: rounded down, to the millimetre or 1/8 in
    "level_least",  # m, a water level that must be reached: rounded up
    "mass",  # kg
    "volume",  # L
    "duration",  # h
    "angle",  # rad
    "force",  # N
    "pull",  # N, said with the weight it feels like beside it
    "moment",  # N·m
    "energy",  # J
    "pressure",  # Pa
    "density",  # kg/m3
    "areal_mass",  # kg/m2
    "linear_mass",  # kg/m
    "draw",  # ml/h
    "temperature",  # °C
    "acceleration",  # m/s²
    "stiffness",  # N·m²
    "line_force",  # N/m
    "area",  # m²
    "speed",  # m/s
    "per_speed",  # s/m
    "warming",  # K
    "evaporation",  # ml/h for each m² and kPa
    "minutes",  # min, fractions too
    "price_m",  # money for a metre
    "price_kg",  # money for a kilogram
    "price_l",  # money for a litre
    "price_m2",  # money for a square metre
    "price",  # money
    "ratio",  # 1
    "count",  # 1
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Quantity:
    """A number with its kind; the unit is the SI (or trade) unit noted beside each kind above."""

    kind: QuantityKind
    value: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Phrase:
    """A sentence with {slots}, and the quantity that fills each slot."""

    text: str
    quantities: Mapping[str, Quantity] = field(default_factory=dict)


def one_or_more(number: float) -> int:
    """Which form of a plural English takes: 0 for one, 1 for any other number."""
    return 0 if number == 1 else 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Language:
    """Sentences by their English ones, with the same slots, and which form of a plural a number takes.

    What it does not know stays English.
    """

    sentences: Mapping[str, str]
    form: Callable[[float], int] = one_or_more

    @contextmanager
    def spoken(self) -> Iterator[None]:
        """Sentences that are made in here are in this language."""
        token = _language.set(self)
        try:
            yield
        finally:
            _language.reset(token)


_language: ContextVar[Language] = ContextVar("language", default=Language(sentences={}))  # noqa: B039
_SLOT = re.compile(r"\{(\w+)(?:\|([^{}]*))?\}")


def spoken_now() -> Language:
    """The language that sentences are made in here."""
    return _language.get()


def phrase(template: str, /, **slots: Quantity | Phrase | str | int) -> Phrase:
    """Make a sentence; each keyword fills the {slot} of its name.

    A quantity is written when the sentence is read, in the units of whoever reads it; a name, a number or another
    sentence is written in at once. `{n|stem|stems}` is the form that the number in slot `n` takes.
    """
    language = _language.get()
    text = language.sentences.get(template, template)
    quantities = {name: slot for name, slot in slots.items() if isinstance(slot, Quantity)}
    if len(quantities) == len(slots) and "|" not in text:
        return Phrase(text=text, quantities=quantities)

    def fill(match: re.Match[str]) -> str:
        slot = slots.get(match[1])
        if match[2] is not None:
            number = slot.value if isinstance(slot, Quantity) else float(str(slot))
            return match[2].split("|")[language.form(number)]
        if isinstance(slot, Phrase):
            inner = apart(slot, match[1], quantities)
            quantities.update(inner.quantities)
            return inner.text
        return match[0] if slot is None or isinstance(slot, Quantity) else _plain(str(slot), slots)

    return Phrase(text=_SLOT.sub(fill, text), quantities=quantities)


def worded(template: str, /, **slots: str | int) -> str:
    """Words of names and numbers alone, the same in both unit systems: a `phrase` that is written at once."""
    return phrase(template, **slots).text


def _plain(name: str, slots: Mapping[str, object]) -> str:
    """A name that has braces in it, so that no slot is seen there."""
    return _SLOT.sub(lambda match: f"({match[1]})" if match[1] in slots else match[0], name)


def apart(sentence: Phrase, mark: str, taken: Mapping[str, Quantity]) -> Phrase:
    """A sentence whose slots are called otherwise where another quantity has their name."""
    clash = {name for name, value in sentence.quantities.items() if taken.get(name, value) != value}
    if not clash:
        return sentence
    text = _SLOT.sub(lambda match: f"{{{match[1]}_{mark}}}" if match[1] in clash else match[0], sentence.text)
    return Phrase(
        text=text,
        quantities={f"{name}_{mark}" if name in clash else name: each for name, each in sentence.quantities.items()},
    )


def joined(sentences: Iterable[Phrase], between: str = " ") -> Phrase:
    """One sentence after another, or parts of one with a mark between them."""
    texts: list[str] = []
    quantities: dict[str, Quantity] = {}
    for index, each in enumerate(sentences):
        own = apart(each, str(index), quantities)
        texts.append(own.text)
        quantities |= own.quantities
    return Phrase(text=between.join(texts), quantities=quantities)


def length(value_m: float) -> Quantity:
    """A length in metres."""
    return Quantity(kind="length", value=float(value_m))


def cut_length(value_m: float) -> Quantity:
    """A length to cut, in metres; written up to the next half centimetre or quarter inch."""
    return Quantity(kind="cut_length", value=float(value_m))


def level_most(value_m: float) -> Quantity:
    """A water level in metres that may not be passed; written down to the millimetre or the eighth of an inch."""
    return Quantity(kind="level_most", value=float(value_m))


def level_least(value_m: float) -> Quantity:
    """A water level in metres that must be reached; written up to the millimetre or the eighth of an inch."""
    return Quantity(kind="level_least", value=float(value_m))


def mass(value_kg: float) -> Quantity:
    """A mass in kilograms."""
    return Quantity(kind="mass", value=float(value_kg))


def volume(value_l: float) -> Quantity:
    """A volume in litres."""
    return Quantity(kind="volume", value=float(value_l))


def duration(value_h: float) -> Quantity:
    """A time span in hours."""
    return Quantity(kind="duration", value=float(value_h))


def angle(value_rad: float) -> Quantity:
    """An angle in radians."""
    return Quantity(kind="angle", value=float(value_rad))


def force(value_n: float) -> Quantity:
    """A force in newtons."""
    return Quantity(kind="force", value=float(value_n))


def pull(value_n: float) -> Quantity:
    """A force of hung work in newtons, said with the weight that it feels like beside it."""
    return Quantity(kind="pull", value=float(value_n))


def moment(value_n_m: float) -> Quantity:
    """A moment in newton metres."""
    return Quantity(kind="moment", value=float(value_n_m))


def energy(value_j: float) -> Quantity:
    """An energy in joules."""
    return Quantity(kind="energy", value=float(value_j))


def ratio(value: float) -> Quantity:
    """A pure number."""
    return Quantity(kind="ratio", value=float(value))


def count(value: float) -> Quantity:
    """A whole number of things."""
    return Quantity(kind="count", value=float(value))
