"""Pictures that a studio keeps of its things and its work."""

from dataclasses import dataclass
from typing import Literal

PictureKind = Literal["image/png", "image/jpeg"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Picture:
    """A picture: its key (SHA-256 of its bytes), what it is, its size in pixels, its bytes."""

    key: str
    kind: PictureKind
    width_px: int
    height_px: int
    data: bytes
