"""What was said at the door and has to be kept in mind, in words."""

from __future__ import annotations

from datetime import date

from fidicula.domain.instruments import Instrument
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.deadline import no_risk_from
from fidicula.words.numbers import day


def heed(instrument: Instrument, visit: Visit, *, today: date) -> list[str]:
    """One sentence each. today : where the shop is."""
    lines = []
    begins = no_risk_from(visit)
    if visit.deadline is not None and begins is not None:
        since = "any more" if today >= begins else f"from {day(begins)}"
        lines.append(f"Needed on {day(visit.deadline)}: no risky work {since}.")
    if visit.promised is not None:
        lines.append(f"Promised for {day(visit.promised)}.")
    if instrument.asked.get("left_as_found"):
        lines.append(f"Left as found: {instrument.asked['left_as_found']}")
    return lines
