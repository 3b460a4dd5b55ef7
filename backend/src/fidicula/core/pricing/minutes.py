"""Minutes that works take: from a starting table, then from the shop's own records."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from statistics import median

from fidicula.core.pricing.money import Span

LAST = 9
"""So many of the newest records count."""


@dataclass(frozen=True)
class Minutes:
    """span : that is counted with.  own : median of the shop's last records, None while there are too few.

    records : how many of its own there are.  starting : of the table. [min]
    """

    span: Span
    starting: Span
    own: Decimal | None
    records: int


def minutes_of(starting: Span, records: Sequence[Decimal], *, least: int) -> Minutes:
    """What a work takes. [min]

    starting : of the table.  records : the shop's own minutes, oldest first.  least : so many make its own figure.
    The median of the last ones takes the place of the usual minutes; low and high keep their ratio to it.
    """
    if len(records) < least:
        return Minutes(starting, starting, None, len(records))
    own = Decimal(median(records[-LAST:]))
    if starting.usual == 0:
        return Minutes(Span(own, own, own), starting, own, len(records))
    low, high = (_whole(own * end / starting.usual) for end in (starting.low, starting.high))
    return Minutes(Span(min(low, own), own, max(high, own)), starting, own, len(records))


def _whole(minutes: Decimal) -> Decimal:
    return minutes.quantize(Decimal(1))
