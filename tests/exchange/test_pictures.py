"""Pictures as they come in: re-encoded, upright, without place data, small; and whatever is none is refused."""

import io
import struct
import zlib
from random import Random
from typing import Any

import pytest
from PIL import Image
from PIL.PngImagePlugin import PngInfo

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.exchange.pictures import LONGEST_PX, MOST_KEPT_BYTES, colour_at, read_picture


def encoded(image: Image.Image, kind: str, **more: Any) -> bytes:
    stream = io.BytesIO()
    image.save(stream, kind, **more)
    return stream.getvalue()


def noise(wide: int, high: int) -> Image.Image:
    return Image.frombytes("RGB", (wide, high), Random(7).randbytes(wide * high * 3))


def test_place_and_camera_are_gone_and_what_lay_on_its_side_stands_up() -> None:
    exif = Image.Exif()
    exif[0x010F] = "camera"
    exif[0x0112] = 6  # the camera was held on its side
    exif.get_ifd(0x8825)[1] = "N"
    found = read_picture(encoded(noise(60, 40), "JPEG", exif=exif))
    assert (found.kind, found.width_px, found.height_px) == ("image/jpeg", 40, 60)
    assert b"camera" not in found.data
    with Image.open(io.BytesIO(found.data)) as kept:
        assert dict(kept.getexif()) == {}
        assert kept.size == (40, 60)


def test_a_png_stays_one_and_keeps_no_text() -> None:
    info = PngInfo()
    info.add_text("Comment", "at the back door")
    found = read_picture(encoded(Image.new("RGBA", (30, 20), (200, 0, 0, 120)), "PNG", pnginfo=info))
    assert (found.kind, found.width_px, found.height_px) == ("image/png", 30, 20)
    assert b"back door" not in found.data


def test_a_large_one_becomes_small_enough_and_the_same_one_has_the_same_key() -> None:
    data = encoded(noise(2600, 1900), "PNG")
    assert len(data) > MOST_KEPT_BYTES
    found = read_picture(data)
    assert len(found.data) <= MOST_KEPT_BYTES
    assert max(found.width_px, found.height_px) <= LONGEST_PX
    assert found.key == read_picture(data).key


def bomb() -> bytes:
    """A PNG of a few bytes that says it is 60,000 × 60,000."""
    head = struct.pack(">IIBBBBB", 60_000, 60_000, 8, 2, 0, 0, 0)

    def chunk(kind: bytes, body: bytes) -> bytes:
        return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))

    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 9)) + chunk(b"IEND", b"")


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"not a picture",
        b"<svg xmlns='http://www.w3.org/2000/svg'/>",
        encoded(Image.new("RGB", (9, 9)), "GIF"),
        encoded(noise(50, 50), "PNG")[:400],
        encoded(noise(50, 50), "JPEG")[:200],
        bomb(),
    ],
    ids=["nothing", "text", "svg", "gif", "half a png", "half a jpeg", "bomb"],
)
def test_what_is_no_picture_is_refused_in_a_sentence(data: bytes) -> None:
    with pytest.raises(InvalidMeasure) as told:
        read_picture(data)
    assert told.value.path == "picture"
    assert told.value.limit.text == "Choose a PNG or a JPEG."


def test_the_colour_round_a_place_is_the_mean_of_what_is_there() -> None:
    halves = Image.new("RGB", (200, 100), (10, 20, 30))
    halves.paste((200, 100, 50), (100, 0, 200, 100))
    found = read_picture(encoded(halves, "PNG"))
    assert [colour_at(found, x, 0.5) for x in (0.0, 0.25, 1.0)] == ["#0a141e", "#0a141e", "#c86432"]
    between = colour_at(found, 0.5, 0.5)
    assert "#0a141e" < between < "#c86432"
    through = read_picture(encoded(Image.new("RGBA", (20, 20), (0, 0, 0, 0)), "PNG"))
    assert colour_at(through, 0.5, 0.5) == "#ffffff"
