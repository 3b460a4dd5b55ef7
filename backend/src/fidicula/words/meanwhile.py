"""What is said where somebody else wrote meanwhile, or the visit went on."""

from __future__ import annotations

from datetime import datetime

from fidicula.numerals import short
from fidicula.words.numbers import clock

AT_EARLIER_VISIT = "The reading stands at the visit that it was taken at, which is over."


def two_readings(name: str, *, by: str, theirs: float, at: datetime, yours: float, yours_stands: bool) -> str:
    """Two read one place without knowing of each other."""
    stands = "yours stands now" if yours_stands else "that one stands, yours is in the log"
    return f"{by} read {short(theirs)} for {name} at {clock(at)}, you read {short(yours)}: {stands}."
