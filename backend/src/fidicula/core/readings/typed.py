"""A measurement as someone or a caliper typed it."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from fidicula.core.errors import CoreError, UnreadableError

MM_PER_INCH = 25.4

_UNITS = {
    "": 1.0,
    "mm": 1.0,
    "cm": 10.0,
    "in": MM_PER_INCH,
    "inch": MM_PER_INCH,
    '"': MM_PER_INCH,
    "″": MM_PER_INCH,
}
_THOUSANDS = re.compile(r"(?<=[0-9])\s(?=[0-9]{3}(?![0-9]))")
_SPLIT = re.compile(r"[0-9.,]\s+[0-9.,]")
_PATTERN = re.compile(r"(?P<sign>[+\-−]?)(?P<number>\d+(?:[.,]\d*)?|[.,]\d+)(?P<unit>[a-zA-Z\"″]*)", re.ASCII)
_FRACTION = re.compile(
    r"(?P<sign>[+\-−]?)(?:(?P<whole>\d{1,3})[ \-+]\s*)?(?P<over>\d{1,3})/(?P<under>2|4|8|16|32|64)"
    r"\s*(?P<unit>|in|inch|\"|″)",
    re.ASCII | re.IGNORECASE,
)
"""A fraction as it stands on an inch rule: 13/64, 1 3/64 in. It can be nothing but inches."""
_TOO_MANY_DIGITS = 12


def millimetres(typed: str, *, what: str = "the reading") -> float:
    """The value of a typed measurement. [mm]

    typed : digits with a decimal point or comma, and perhaps a sign and a trailing mm, cm or in; or a fraction of an
    inch as rules have them, such as 13/64 or 1 3/64.
    what : names the measure in the error's sentence.
    Raises UnreadableError naming `typed` for anything else, and CoreError for a negative value.
    Nothing is rounded, and a decimal mark is never taken for a thousands mark.
    """
    value, negative = _read(typed, what)
    if negative and value > 0:
        raise CoreError(
            "typed", sentence=f"{what} cannot be negative; it was typed as {typed.strip()[:40]}", value=typed
        )
    return value


def signed_millimetres(typed: str, *, what: str = "the reading") -> float:
    """The value of a typed measurement that may be below 0, such as a hump under a straightedge. [mm]

    typed, what : as for `millimetres`. Raises UnreadableError naming `typed`.
    """
    value, negative = _read(typed, what)
    return -value if negative else value


Side = Literal["near", "middle", "far"]
_SIDES: dict[str, Side] = {"near": "near", "mid": "middle", "middle": "middle", "far": "far"}
_WITH_SIDE = re.compile(r"(?P<rest>.*?)\s*(?P<side>near|mid|middle|far)(?:\s+side)?\s*", re.IGNORECASE | re.DOTALL)


def to_a_side(typed: str) -> tuple[str, Side | None]:
    """What was typed without the side of the post that it was read to, and that side; None where no side is named.

    typed : such as “5.2 far”, “5,2 mm mid” or “5.2” alone.
    """
    match = _WITH_SIDE.fullmatch(typed)
    return (typed, None) if match is None else (match["rest"], _SIDES[match["side"].lower()])


@dataclass(frozen=True)
class _Other:
    """A quantity that is no length. ends : what may follow its digits.  is_none : what other words are told."""

    ends: tuple[str, ...]
    is_none: str


_OTHERS = {
    "°": _Other(("°", "º"), "is no angle; type degrees, for instance 158"),
    "%": _Other(("%",), "is no share; type per cent, for instance 48"),
    "°C": _Other(("°C", "°c", "°", "C", "c"), "is no temperature; type degrees Celsius, for instance 20"),
    "taps": _Other(("taps", "tap"), "are no taps; type how many, for instance 2"),
    "cents": _Other(("cents", "cent", "ct"), "is no interval; type cents, for instance -12"),
    "N": _Other(("N",), "is no tension; type newtons, for instance 54"),
    "h": _Other(("hours", "h"), "are no hours; type how many, for instance 7"),
    "g": _Other(("g",), "is no mass; type grams, for instance 2.1"),
    "Hz": _Other(("Hz", "hz", "HZ"), "is no pitch; type hertz, for instance 442"),
}


def in_unit(unit: str, typed: str, *, what: str, signed: bool = False) -> float:
    """The value of something typed that is no length: an angle, a share, a temperature, a pitch, taps.

    unit : °, %, °C, Hz, g, taps, cents, N or h, which may also stand behind the digits.
    typed : digits with a decimal point or comma.
    what : names it in the error.  signed : it may be below 0.
    Raises UnreadableError naming `typed`, also for a unit of length, and CoreError for a negative value.
    """
    other = _OTHERS[unit]
    text = typed.strip()
    for end in other.ends:
        if text.endswith(end):
            text = text.removesuffix(end).strip()
            break
    if text and not (text[-1].isdecimal() or text[-1] in ".,"):
        raise UnreadableError("typed", sentence=f"{what}: “{typed.strip()[:40]}” {other.is_none}", value=typed)
    return signed_millimetres(text, what=what) if signed else millimetres(text, what=what)


def signed_number(typed: str, *, what: str = "the figure") -> float:
    """The value of a typed figure that may be below 0, such as a change. [mm, or the figure's own unit]

    typed, what : as for `millimetres`. Raises UnreadableError naming `typed`.
    """
    value, negative = _read(typed, what)
    return -value if negative else value


def _read(typed: str, what: str) -> tuple[float, bool]:
    text = "".join(typed.split())
    if not text:
        raise UnreadableError("typed", sentence=f"{what}: nothing was typed; type the figure, for instance 5.2")
    fraction = _FRACTION.fullmatch(typed.strip().replace("⁄", "/"))
    if fraction is not None:
        inches = int(fraction["whole"] or 0) + int(fraction["over"]) / int(fraction["under"])
        return inches * MM_PER_INCH, fraction["sign"] in ("-", "−")
    # A space may group thousands, 1 050, and stand before a unit; between other digits nobody knows what was meant.
    match = None if _SPLIT.search(_THOUSANDS.sub("", typed)) else _PATTERN.fullmatch(text)
    if match is None or len(match["number"]) > _TOO_MANY_DIGITS:
        raise UnreadableError(
            "typed",
            sentence=f"{what}: “{typed.strip()[:40]}” is not a measurement; type digits, for instance 5.2 or 5,2 mm",
            value=typed,
        )
    factor = _UNITS.get(match["unit"].lower())
    if factor is None:
        raise UnreadableError(
            "typed",
            sentence=f"{what}: the unit “{match['unit']}” is not known here; use mm, cm or in, or none for mm",
            value=typed,
        )
    return float(match["number"].replace(",", ".")) * factor, match["sign"] in ("-", "−")
