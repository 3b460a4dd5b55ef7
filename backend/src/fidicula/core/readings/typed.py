"""A measurement as someone or a caliper typed it."""

from __future__ import annotations

import re

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
_PATTERN = re.compile(r"(?P<sign>[+\-−]?)(?P<number>\d+(?:[.,]\d*)?|[.,]\d+)(?P<unit>[a-zA-Z\"″]*)", re.ASCII)
_TOO_MANY_DIGITS = 12


def millimetres(typed: str, *, what: str = "the reading") -> float:
    """The value of a typed measurement. [mm]

    typed : digits with a decimal point or comma, and perhaps a sign and a trailing mm, cm or in.
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


def degrees(typed: str, *, what: str = "the angle") -> float:
    """The value of a typed angle. [°]

    typed : digits with a decimal point or comma, and perhaps a degree sign.  what : names the angle in the error.
    Raises UnreadableError naming `typed`, also for a unit of length, and CoreError for a negative angle.
    """
    text = typed.strip().removesuffix("°").removesuffix("º").strip()
    if text and not (text[-1].isdecimal() or text[-1] in ".,"):
        raise UnreadableError(
            "typed", sentence=f"{what}: “{typed.strip()[:40]}” is no angle; type degrees, for instance 158", value=typed
        )
    return millimetres(text, what=what)


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
    match = _PATTERN.fullmatch(text)
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
