"""Photographs on their way in: turned upright, sized, in plain colours, and the picture alone."""

from __future__ import annotations

from dataclasses import dataclass
from io import BytesIO

from PIL import Image, ImageCms, ImageOps

LONGEST_EDGE = 2400
"""Of a picture that is kept: a crack is still seen in it. [pixels]"""

SMALL_EDGE = 320
"""Of the small one in a list. [pixels]"""

MOST_PIXELS = 40_000_000
"""Of a picture that is taken. [pixels]"""

FORMS = ("JPEG", "PNG", "WEBP")

# The limit is ours, below, and not the library's, which only warns.
Image.MAX_IMAGE_PIXELS = None

_QUALITY = 86
_SMALL_QUALITY = 78
_OF_PHONES = (b"heic", b"heix", b"heim", b"heis", b"hevc", b"mif1", b"msf1", b"avif")
_UNREADABLE = "this is no picture that can be read: a JPEG, PNG or WebP from a camera will do"
_TOO_MANY = f"the picture has over {MOST_PIXELS // 1_000_000} million points: a smaller one will do"


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
    """A photograph as it is kept: a JPEG in sRGB without place, time, owner or words of the camera.

    data : a file as the camera wrote it.  Raises PictureError for what is no picture, or too large a one.
    """
    if data[4:8] == b"ftyp" and data[8:12] in _OF_PHONES:
        raise PictureError("this is a HEIC or AVIF picture: set the camera to JPEG, or share it as JPEG")
    try:
        with Image.open(BytesIO(data), formats=FORMS) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise PictureError(_TOO_MANY)
            profile = opened.info.get("icc_profile")
            opened.draft("RGB", (LONGEST_EDGE, LONGEST_EDGE))
            # Made small first: everything after it then takes little room, whatever came in.
            opened.thumbnail((LONGEST_EDGE, LONGEST_EDGE), Image.Resampling.LANCZOS)
            # The camera says in the file how it was held; turned here, or it would lie on its side without that.
            upright = ImageOps.exif_transpose(opened)
            plain = _on_white(_in_srgb(upright, profile))
    except PictureError:
        raise
    except MemoryError:
        raise
    except Exception as error:  # a decoder stumbles over a broken file in many ways, and all of them mean that
        raise PictureError(_UNREADABLE) from error
    small = plain.copy()
    small.thumbnail((SMALL_EDGE, SMALL_EDGE), Image.Resampling.LANCZOS)
    return Picture(
        jpeg=_written(plain, _QUALITY), small=_written(small, _SMALL_QUALITY), width=plain.width, height=plain.height
    )


def _in_srgb(image: Image.Image, profile: bytes | None) -> Image.Image:
    """Its colours as every screen shows them; a profile that cannot be read says nothing about them."""
    if not profile or image.mode not in ("RGB", "RGBA", "L", "CMYK"):
        return image
    target = "RGBA" if image.mode == "RGBA" else "RGB"
    try:
        source = ImageCms.ImageCmsProfile(BytesIO(profile))
        converted = ImageCms.profileToProfile(image, source, ImageCms.createProfile("sRGB"), outputMode=target)
    except (ImageCms.PyCMSError, OSError, ValueError):
        return image
    return converted or image


def _on_white(image: Image.Image) -> Image.Image:
    if image.mode in ("RGBA", "LA", "PA") or "transparency" in image.info:
        with_alpha = image.convert("RGBA")
        paper = Image.new("RGB", with_alpha.size, "white")
        paper.paste(with_alpha, mask=with_alpha.getchannel("A"))
        return paper
    if image.mode.startswith("I;16"):
        # Sixteen bits of grey: the upper eight.
        return image.point(lambda value: value / 256).convert("L").convert("RGB")
    return image.convert("RGB")


def _written(image: Image.Image, quality: int) -> bytes:
    out = BytesIO()
    # Nothing of what the camera wrote beside the picture: a picture without it is saved without it.
    image.info.clear()
    image.save(out, "JPEG", quality=quality)
    return out.getvalue()


def small_of(jpeg: bytes) -> bytes:
    """The small picture of one that was kept before. Raises PictureError for what is no JPEG, or too large."""
    try:
        with Image.open(BytesIO(jpeg), formats=("JPEG",)) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise PictureError(_TOO_MANY)
            opened.draft("RGB", (SMALL_EDGE, SMALL_EDGE))
            small = opened.convert("RGB")
            small.thumbnail((SMALL_EDGE, SMALL_EDGE), Image.Resampling.LANCZOS)
    except PictureError:
        raise
    except Exception as error:  # as above
        raise PictureError(_UNREADABLE) from error
    return _written(small, _SMALL_QUALITY)
