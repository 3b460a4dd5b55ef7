"""What the page of the bass bar says."""

from __future__ import annotations

from fidicula.core.fitting.post import BlankChoice
from fidicula.numerals import number, short, signed

TITLE = "Bass bar and bridge width"
NOTHING_READ = "Bar and feet not measured. The blanks are compared once both are read with the card gauge."
NO_BLANKS = "No blanks on the shelf list. Add their widths to compare them."
CAUTION = "The post is taken down and set with slack strings: a top that carries them without it gives way."
LABELS = {
    "target": "bar inside the foot, target",
    "foot_width": "width over the feet",
    "bar_inset": "bar inside the foot",
    "post_across": "post's top from the middle, toward the treble",
    "post_behind": "post's top behind the foot, to its middle",
    "room": "room for the post",
}
BLANKS_TITLE = "Nearest blanks in stock"
BLANKS_HEAD = ("width", "bar inside", "off target")
BLANKS_SAYS = "The nearest is marked."
FIT = {
    "tighter": "tighter there: shortened and refitted first, a post too tight cracks the top",
    "same": "as firm there as here",
    "looser": "looser there: it will not hold, and a longer one is made",
}


def finding(*, inset: float, foot: float, target: float) -> str:
    off = inset - target
    if abs(off) < 0.05:
        return f"The bar lies {short(inset)} inside the foot of a bridge {short(foot)} wide, as wanted."
    side = "too far inside" if off > 0 else "too near the edge"
    return (
        f"The bar lies {short(inset)} inside the foot of a bridge {short(foot)} wide: {number(abs(off))} {side}. "
        f"A bridge {number(abs(2 * off))} {'narrower' if off > 0 else 'wider'} would have it right."
    )


def nearest(best: BlankChoice | None) -> str:
    if best is None:
        return NO_BLANKS
    return f"Of the blanks on hand {short(best.width)} comes nearest: the bar {number(best.bar_inset, 2)} inside."


def takes(*, best: BlankChoice | None, inset: float, foot: float) -> dict[str, list[str]]:
    """What each way to decide takes."""
    blank = "no blank on hand"
    if best is not None:
        blank = f"a blank {short(best.width)} wide, the bar {number(best.bar_inset, 2)} inside its foot"
    return {
        "other_width": [blank, "the post mirrors the bar: it moves with the foot"],
        "stays": [f"the bar stays {short(inset)} inside the foot of {short(foot)}"],
    }


def why_inset(*, width: float, foot: float, inset: float) -> str:
    return f"{short(width)} ÷ 2 − ({short(foot)} ÷ 2 − {short(inset)}): the bar stays where it is."


def why_across(*, width: float, inset: float, thick: float, mirrors: bool) -> list[str]:
    return [
        f"{short(width)} ÷ 2 − {number(inset, 2)} − {short(thick)} ÷ 2, the post {short(thick)} thick.",
        "It mirrors the bar." if mirrors else "The school keeps an inset of its own.",
    ]


def why_behind(*, setback: float, thick: float, source: str) -> str:
    return f"{short(setback)} + {short(thick)} ÷ 2. {source}"


def why_room(*, top_slope: float, back_slope: float, by: float, fit: str) -> list[str]:
    return [
        f"The plates close by {short(top_slope)}° and {short(back_slope)}° outward",
        f"over {signed(by, 2)} mm.",
        f"A post that fits is {FIT[fit]}.",
    ]
