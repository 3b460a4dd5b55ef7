"""Tickets: what one may be, and which comes next."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Sequence

from fidicula.domain.errors import RefusedError

LONGEST = 20
_TICKET = re.compile(r"[^\W_][\w.-]*")
_NUMBERED = re.compile(r"(.*?)([0-9]{1,9})")
_LARGEST_STEP = 1000
"""From one ticket to the next; what lies beyond was typed by mistake, and numbering does not go on from there."""


def check_ticket(typed: str) -> str:
    """A ticket without the space around it. Raises RefusedError naming what would do."""
    ticket = typed.strip()
    if len(ticket) > LONGEST or not _TICKET.fullmatch(ticket):
        raise RefusedError(
            f"a ticket begins with a letter or digit, and has up to {LONGEST} letters, digits, dots and dashes; "
            f"it was “{ticket[:40]}”",
            field="ticket",
        )
    return ticket


def next_ticket(tickets: Sequence[str]) -> str:
    """The next free ticket in the shop's own manner of numbering.

    It goes on from the prefix that most tickets have, and from the last number that follows the ones before it: one
    odd ticket, however it is typed, does not move the numbers.
    """
    numbers: dict[str, list[tuple[int, int]]] = defaultdict(list)
    for ticket in tickets:
        if len(ticket) < LONGEST - 2 and (found := _NUMBERED.fullmatch(ticket)):
            numbers[found[1]].append((int(found[2]), len(found[2])))
    if not numbers:
        return "1"
    prefix, counted = max(numbers.items(), key=lambda item: (len(item[1]), max(item[1])))
    counted.sort()
    last, width = counted[0]
    for number, digits in counted[1:]:
        if number - last > _LARGEST_STEP:
            break
        last, width = number, digits
    taken = set(tickets)
    while (ticket := f"{prefix}{last + 1:0{width}d}") in taken:
        last += 1
    return ticket
