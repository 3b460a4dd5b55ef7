"""Words on their way in: what the records can hold."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from fastapi import Path
from pydantic import AfterValidator, Field

from fidicula import limits


def _without_nul(text: str) -> str:
    if "\0" in text:
        raise ValueError("a character stands in it that is no text")
    return text


Label = Annotated[str, Field(max_length=limits.LABEL), AfterValidator(_without_nul)]
"""Names of things."""
Sentence = Annotated[str, Field(max_length=limits.SENTENCE), AfterValidator(_without_nul)]
"""What people say."""
Story = Annotated[str, Field(max_length=limits.STORY), AfterValidator(_without_nul)]
"""What people say at length."""
TicketTyped = Annotated[str, Field(max_length=40), AfterValidator(_without_nul)]
"""Of a new instrument; what it may be, `services/tickets.py` says."""
Day = Annotated[date, Field(ge=limits.EARLIEST.date(), lt=limits.LATEST.date())]
"""A day that a person can mean."""
Strokes = Annotated[str, Field(max_length=limits.SIGNATURE, pattern=r"^[ML0-9 .,-]*$")]
"""Strokes as points of a path."""
Ticket = Annotated[str, Path(max_length=limits.TICKET, pattern=r"^[\w.-]+$")]
