"""How long a text and how large a number may be: each kind once, for whatever takes it in.

The API's bodies, tables of readings, dossiers and archives all go by these. What is on record already is given out
whatever its length: a limit is asked of what comes in.
"""

from __future__ import annotations

from datetime import UTC, datetime
from decimal import Decimal

LABEL = 80
"""Characters of a name that somebody gives: a player, a recipe, a tool."""
SENTENCE = 500
"""Of what is said in a line: who agreed, what a wood is, a reason."""
STORY = 20_000
"""Of what is said at length."""
SIGNATURE = 40_000
"""Of a signature's strokes."""
TICKET = 20
STRING_NAME = 4
FEWEST_STRINGS, MOST_STRINGS = 3, 6
MOST_FREEZE_DAYS = 60
"""So many days before a deadline nothing is changed any more."""
MOST_COUNTED = 32_767
"""Of what is counted in whole numbers on record."""

AMOUNT_DIGITS, AMOUNT_PLACES = 20, 6
"""Of an exact amount: money, minutes, a count."""
MOST_AMOUNT = Decimal(10_000_000)
FARTHEST = 1_000_000.0
"""Of a value that was typed, though it is doubted; in its own unit."""

EARLIEST, LATEST = datetime(1900, 1, 1, tzinfo=UTC), datetime(2200, 1, 1, tzinfo=UTC)
"""A time outside of these is a broken clock or a slip."""
