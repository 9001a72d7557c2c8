"""Pictures as they come in: looked at, turned upright, made small, without anything beside what one sees."""

import hashlib
import io
import warnings

from PIL import Image, ImageOps, ImageStat, UnidentifiedImageError

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.plan.pictures import Picture
from jolly_trellis.core.quantities import Phrase, phrase

MOST_KEPT_BYTES = 1_500_000
MOST_PIXELS = 60_000_000
LONGEST_PX = 2400
_KINDS = ("PNG", "JPEG")


def read_picture(data: bytes) -> Picture:
    """A picture as it is kept: upright, at most 1.5 MB, re-encoded, so that place, camera and all else are gone.

    A PNG stays one where that is small enough; else it becomes a JPEG, on white.

    Raises: InvalidMeasure: it is no PNG or JPEG, it is damaged, or it has more pixels than any picture.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data), formats=_KINDS) as found:
                if found.width * found.height > MOST_PIXELS:
                    raise _refused(phrase("This picture has more than 60 million points."))
                was = found.format
                found.load()
                upright = ImageOps.exif_transpose(found)
    except (Image.DecompressionBombError, Image.DecompressionBombWarning):
        raise _refused(phrase("This picture has more than 60 million points.")) from None
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, EOFError):
        raise _refused(phrase("This is no picture that can be read, whatever its name ends in.")) from None
    upright.thumbnail((LONGEST_PX, LONGEST_PX))
    if was == "PNG":
        clean = upright.convert("RGBA" if upright.has_transparency_data else "RGB")
        encoded = _png(clean)
        if len(encoded) <= MOST_KEPT_BYTES:
            return _kept("image/png", clean, encoded)
    return _jpeg(_on_white(upright))


def colour_at(picture: Picture, x: float, y: float) -> str:
    """The colour round a place of a picture, "#rrggbb": the mean of a fiftieth of its shorter side each way.

    Args:
        x, y: shares of the picture from its left and its top, 0 to 1.
    """
    with Image.open(io.BytesIO(picture.data), formats=_KINDS) as found:
        image = _on_white(found)
    reach = max(min(image.width, image.height) // 100, 1)
    at = round(x * (image.width - 1)), round(y * (image.height - 1))
    box = (max(at[0] - reach, 0), max(at[1] - reach, 0), at[0] + reach + 1, at[1] + reach + 1)
    spot = image.crop((box[0], box[1], min(box[2], image.width), min(box[3], image.height)))
    red, green, blue = (round(each) for each in ImageStat.Stat(spot).mean)
    return f"#{red:02x}{green:02x}{blue:02x}"


def _refused(message: Phrase) -> InvalidMeasure:
    return InvalidMeasure(path="picture", message=message, limit=phrase("Choose a PNG or a JPEG."))


def _on_white(image: Image.Image) -> Image.Image:
    if not image.has_transparency_data:
        return image.convert("RGB")
    over = image.convert("RGBA")
    white = Image.new("RGBA", over.size, "white")
    white.alpha_composite(over)
    return white.convert("RGB")


def _png(image: Image.Image) -> bytes:
    stream = io.BytesIO()
    bare = Image.new(image.mode, image.size)
    bare.paste(image)
    bare.save(stream, "PNG", optimize=True)
    return stream.getvalue()


def _jpeg(image: Image.Image) -> Picture:
    """As good as it gets within the size that is kept."""
    while True:
        for quality in (85, 75, 65):
            stream = io.BytesIO()
            bare = Image.new("RGB", image.size)
            bare.paste(image)
            bare.save(stream, "JPEG", quality=quality, optimize=True)
            if stream.tell() <= MOST_KEPT_BYTES:
                return _kept("image/jpeg", image, stream.getvalue())
        image = image.resize((max(image.width * 3 // 4, 1), max(image.height * 3 // 4, 1)))


def _kept(kind: str, image: Image.Image, data: bytes) -> Picture:
    return Picture(
        key=hashlib.sha256(data).hexdigest(),
        kind="image/png" if kind == "image/png" else "image/jpeg",
        width_px=image.width,
        height_px=image.height,
        data=data,
    )
