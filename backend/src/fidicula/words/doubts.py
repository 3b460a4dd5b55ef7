"""Why a reading is doubted, in words."""

from __future__ import annotations

from fidicula.domain.readings import Reading
from fidicula.numerals import of_unit, short
from fidicula.words.numbers import clock


def doubt_words(reading: Reading, name: str, unit: str) -> str:
    """One sentence, and what may have been meant. name : of the measure and its place."""
    value = f"{of_unit(short(reading.value), unit)}"
    about = reading.doubt_about
    match reading.doubt:
        case "impossible":
            said = f"{value} is more than {name} can be."
        case "changed" | "leap":
            was = "" if about is None else f" It was {of_unit(short(about), unit)} before."
            asks = " Was something done to it, or is this a slip?" if reading.doubt == "changed" else " Is this a slip?"
            said = f"{name[:1].upper()}{name[1:]}: {value}, typed at {clock(reading.taken_at)}.{was}{asks}"
        case _:
            side = "small" if reading.doubt == "small" else "large"
            usual = "" if about is None else f", usually about {short(about)}"
            said = f"{value} is very {side} for {name}{usual}."
    if reading.suggested is not None:
        said += f" Did you mean {of_unit(short(reading.suggested), unit)}?"
    return said
