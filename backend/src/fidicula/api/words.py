"""Words on their way in: what the records can hold."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated, Literal

from fastapi import Path
from pydantic import AfterValidator, Field


def _without_nul(text: str) -> str:
    if "\0" in text:
        raise ValueError("a character stands in it that is no text")
    return text


Label = Annotated[str, Field(max_length=80), AfterValidator(_without_nul)]
"""Names of things."""
Sentence = Annotated[str, Field(max_length=500), AfterValidator(_without_nul)]
"""What people say."""
Story = Annotated[str, Field(max_length=20_000), AfterValidator(_without_nul)]
"""What people say at length."""
Family = Literal["violin", "viola", "cello", "bass"]
TicketTyped = Annotated[str, Field(max_length=40), AfterValidator(_without_nul)]
"""Of a new instrument; what it may be, `services/tickets.py` says."""
EARLIEST = datetime(2000, 1, 1, tzinfo=UTC)
LATEST = datetime(2200, 1, 1, tzinfo=UTC)
"""A time outside of these is a broken clock."""
Ticket = Annotated[str, Path(max_length=20, pattern=r"^[\w.-]+$")]
