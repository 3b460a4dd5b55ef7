"""Photographs of an instrument."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from fidicula.codes import (
    ItemCode,
)


@dataclass(frozen=True)
class NewPhoto:
    """A photograph on its way in. shot : by code, where it is one of those worth taking.
    thing : a mark of the damage map that it shows.

    jpeg, small : as files.  width, height : of the large one. [pixels]"""

    id: UUID
    visit_id: UUID
    item: ItemCode
    words: str
    shot: str
    camera: str
    width: int
    height: int
    jpeg: bytes
    small: bytes
    taken_by: str
    thing: UUID | None = None


@dataclass(frozen=True)
class Photo:
    """A photograph without its picture. camera : what took it, empty for one that came as a file.
    thing : a mark of the damage map that it shows."""

    id: UUID
    visit_id: UUID
    item: ItemCode
    words: str
    shot: str
    camera: str
    width: int
    height: int
    taken_by: str
    taken_at: datetime
    thing: UUID | None = None
