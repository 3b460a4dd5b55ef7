"""An inspection camera that is not there: it draws a plausible picture of the inside of an instrument."""

from __future__ import annotations

import math
import random
from io import BytesIO

from PIL import Image, ImageDraw, ImageFilter

from fidicula.devices.ports import DeviceError

_SIZE = (960, 720)
_GAPS = {"post_top": 3, "post_bottom": 0}
"""How far an end gapes in the picture. [pixels]"""


class StandInCamera:
    """fails : it answers every shot with an error, as one whose cable is loose does."""

    label = "simulated inspection camera"

    def __init__(self, *, fails: bool = False) -> None:
        self.fails = fails

    def take(self, shot: str) -> bytes:
        """A drawn picture that says that it is simulated; the same each time for the same shot."""
        if self.fails:
            raise DeviceError("the inspection camera does not answer: look to its cable, or photograph by hand")
        chance = random.Random(shot)
        image = Image.new("RGB", _SIZE, (24, 17, 12))
        draw = ImageDraw.Draw(image)
        _plate(draw, chance, top=shot.endswith("top"))
        _post(draw, chance, top=shot.endswith("top"), gap=_GAPS.get(shot, 1))
        image = _as_through_a_lens(image)
        ImageDraw.Draw(image).text((20, _SIZE[1] - 34), f"simulated: {shot.replace('_', ' ')}", fill=(235, 225, 205))
        out = BytesIO()
        image.save(out, "JPEG", quality=88)
        return out.getvalue()


def _plate(draw: ImageDraw.ImageDraw, chance: random.Random, *, top: bool) -> None:
    """The inside of the top, with its straight grain, or of the back with its flame."""
    edge = 250 if top else 470
    low, high = (0, edge) if top else (edge, _SIZE[1])
    draw.rectangle((0, low, _SIZE[0], high), fill=(146, 104, 62) if top else (150, 98, 54))
    for i in range(0, _SIZE[0], 9):
        shade = chance.randint(-14, 10)
        sway = 0 if top else round(26 * math.sin(i / 60))
        draw.line((i, low, i + sway, high), fill=(134 + shade, 92 + shade, 54 + shade), width=2)


def _post(draw: ImageDraw.ImageDraw, chance: random.Random, *, top: bool, gap: int) -> None:
    """The post against the plate: its end, with whatever gap there is on one side."""
    edge = 250 if top else 470
    left, right = 380, 560
    start, end = (edge + gap, _SIZE[1]) if top else (0, edge - gap)
    draw.rectangle((left, start, right, end), fill=(203, 166, 112))
    for x in range(left + 6, right, 13):
        draw.line((x, start, x + chance.randint(-2, 2), end), fill=(176, 138, 90), width=2)
    if gap:
        y = edge
        draw.polygon([(left, y), (right, y), (right, y + gap * (1 if top else -1))], fill=(20, 12, 8))


def _as_through_a_lens(image: Image.Image) -> Image.Image:
    """A round field that darkens to its rim."""
    field = Image.new("L", _SIZE, 0)
    ImageDraw.Draw(field).ellipse((110, -10, _SIZE[0] - 110, _SIZE[1] + 10), fill=255)
    field = field.filter(ImageFilter.GaussianBlur(50))
    return Image.composite(image.filter(ImageFilter.GaussianBlur(1.2)), Image.new("RGB", _SIZE, (6, 5, 5)), field)
