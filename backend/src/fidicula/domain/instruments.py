"""An instrument, and what is written down about it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from uuid import UUID

from fidicula.domain.targets import TargetChoice

ASKED = ("serial", "contact", "plays", "label_read", "believed", "worth", "left_as_found")
"""What is asked of an instrument at the door, beside what is computed with."""


@dataclass(frozen=True)
class Instrument:
    """asked : the answers to ASKED, by name; empty where nothing was said.  is_fleet : the owner hires it out.

    opposite_build : bar and post lie as for the other hand: the post's foot is under the low strings.
    """

    id: UUID
    ticket: str
    family: str
    size: str
    string_names: tuple[str, ...]
    left_handed: bool
    is_new: bool
    owner: str
    description: str
    choice: TargetChoice = field(default_factory=TargetChoice)
    asked: Mapping[str, str] = field(default_factory=dict)
    is_fleet: bool = False
    opposite_build: bool = False


@dataclass(frozen=True)
class Particular:
    """One word of an instrument's particulars that was changed. was, now : as text."""

    id: UUID
    instrument_id: UUID
    visit_id: UUID
    field: str
    was: str
    now: str
    written_by: str
    written_at: datetime | None = None
