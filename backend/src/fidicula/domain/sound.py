"""What the database holds of an instrument's sound, as plain values for the services."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from uuid import UUID


@dataclass(frozen=True)
class PostEntry:
    """A sound post as it was described. length, diameter : None where not known. [mm]

    grain_mark : where its grain's mark looks.  end_down : which end stands on the back.  marks_inside : in words.
    """

    id: UUID
    visit_id: UUID
    after_work: int
    length: float | None
    diameter: float | None
    wood: str
    grain_mark: str
    end_down: str
    fitted_on: date | None
    marks_inside: str
    entered_by: str
    entered_at: datetime | None = None


@dataclass(frozen=True)
class PlayerSession:
    """From here on it is this player who says how it sounds."""

    id: UUID
    visit_id: UUID
    player: str
    begun_by: str
    begun_at: datetime | None = None


@dataclass(frozen=True)
class Heard:
    """How it sounded to a player. after_work : the last work before it.

    rated : by “quality” of the whole, or “quality/position” of a string, from 1 to 5.
    listened : who listened, from where and to what, and which string fell behind; what was not said is not in it.
    """

    id: UUID
    visit_id: UUID
    after_work: int
    player: str
    rated: Mapping[str, int]
    player_words: tuple[str, ...]
    remark: str
    written_by: str
    heard_at: datetime | None = None
    listened: Mapping[str, str | int] = field(default_factory=dict)


@dataclass(frozen=True)
class NewRecording:
    """A recording on its way in, as a file."""

    id: UUID
    visit_id: UUID
    after_work: int
    media_type: str
    sound: bytes
    words: str
    recorded_by: str
    recorded_at: datetime | None = None


@dataclass(frozen=True)
class Recording:
    """A recording without its sound."""

    id: UUID
    visit_id: UUID
    after_work: int
    media_type: str
    words: str
    recorded_by: str
    recorded_at: datetime


@dataclass(frozen=True)
class BlindTrial:
    """Two recordings in an order that nobody was told, one of a series whose number was chosen before.

    chosen : first, second or neither; given_up where the series was; None until somebody chose.
    series_id : None for one that stands by itself.
    """

    id: UUID
    visit_id: UUID
    player: str
    first_id: UUID
    second_id: UUID
    chosen: str | None
    led_by: str
    begun_at: datetime | None = None
    series_id: UUID | None = None

    @property
    def series(self) -> UUID:
        return self.series_id or self.id


@dataclass(frozen=True)
class Retuning:
    """How far each string had gone before it was tuned again; flat is negative. [cents]"""

    id: UUID
    visit_id: UUID
    after_work: int
    cents: tuple[float | None, ...]
    remark: str
    tuned_by: str
    tuned_at: datetime | None = None
