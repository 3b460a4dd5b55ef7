"""Photographs on their way in: turned upright, sized, and without what a camera writes beside the picture."""

from __future__ import annotations

from dataclasses import dataclass
from io import BytesIO

from PIL import Image, ImageOps

LONGEST_EDGE = 2400
"""Of a picture that is kept: a crack is still seen in it. [pixels]"""

SMALL_EDGE = 320
"""Of the small one in a list. [pixels]"""

MOST_PIXELS = 150_000_000
"""A picture of more is taken for an attempt to fill the machine."""

_QUALITY = 86
_SMALL_QUALITY = 78


class PictureError(Exception):
    """The file is no picture that can be kept. The message is a sentence for the user."""


@dataclass(frozen=True)
class Picture:
    """jpeg, small : as files.  width, height : of the large one. [pixels]"""

    jpeg: bytes
    small: bytes
    width: int
    height: int


def kept_picture(data: bytes) -> Picture:
    """A photograph as it is kept: a JPEG without place, time or owner of the camera.

    data : a file as the camera wrote it.  Raises PictureError for what is no picture, or too large a one.
    """
    try:
        with Image.open(BytesIO(data)) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise PictureError("the picture has too many points: a smaller one will do")
            opened.draft("RGB", (LONGEST_EDGE, LONGEST_EDGE))
            # The camera says in the file how it was held; turned here, or it would lie on its side without that.
            upright = ImageOps.exif_transpose(opened)
            colours = opened.info.get("icc_profile")
            plain = _on_white(upright)
    except PictureError:
        raise
    except Image.DecompressionBombError as error:
        raise PictureError("the picture has too many points: a smaller one will do") from error
    except (OSError, ValueError, SyntaxError) as error:
        raise PictureError("this is no picture that can be read: a JPEG, PNG or WebP from a camera will do") from error
    plain.thumbnail((LONGEST_EDGE, LONGEST_EDGE), Image.Resampling.LANCZOS)
    small = plain.copy()
    small.thumbnail((SMALL_EDGE, SMALL_EDGE), Image.Resampling.LANCZOS)
    return Picture(
        jpeg=_written(plain, _QUALITY, colours),
        small=_written(small, _SMALL_QUALITY, colours),
        width=plain.width,
        height=plain.height,
    )


def _on_white(image: Image.Image) -> Image.Image:
    if image.mode in ("RGBA", "LA", "PA") or "transparency" in image.info:
        with_alpha = image.convert("RGBA")
        paper = Image.new("RGB", with_alpha.size, "white")
        paper.paste(with_alpha, mask=with_alpha.getchannel("A"))
        return paper
    return image.convert("RGB")


def _written(image: Image.Image, quality: int, colours: bytes | None) -> bytes:
    out = BytesIO()
    # A fresh file: nothing of what the camera wrote beside the picture comes along but what its colours mean.
    image.save(out, "JPEG", quality=quality, icc_profile=colours)
    return out.getvalue()
