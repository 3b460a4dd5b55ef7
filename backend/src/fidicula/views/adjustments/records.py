"""What a trail is made of, out of all of an instrument's visits."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.codes import MeasureCode
from fidicula.domain.readings import Reading
from fidicula.domain.sound import BlindTrial, Heard, PostEntry, Recording
from fidicula.domain.visits import Visit
from fidicula.domain.works import WorkDone

GAUGED: tuple[MeasureCode, ...] = ("post_setback", "post_inset", "bridge_foot_width")


@dataclass(frozen=True)
class TrailRecords:
    """visits : oldest first.  Lines that were taken back are left out; readings are those that gauge a post.

    strings_past : some string on it is past its time.
    player : of this visit's session, or who is taken for it.  begun : whether somebody said so.
    """

    visits: Sequence[Visit]
    works: Sequence[WorkDone]
    readings: Sequence[Reading]
    heard: Sequence[Heard]
    recordings: Sequence[Recording]
    posts: Sequence[PostEntry]
    trials: Sequence[BlindTrial]
    strings_past: bool
    player: str
    begun: bool
    player_words: Sequence[str]
