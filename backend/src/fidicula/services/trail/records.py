"""What a trail is made of, out of all of an instrument's visits."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.db.records import BlindTrial, Heard, PlayerSession, PostEntry, Reading, Recording, Visit, WorkDone
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.services.loaded import Loaded

GAUGED = ("post_setback", "post_inset", "bridge_foot_width")


@dataclass(frozen=True)
class TrailRecords:
    """visits : oldest first.  Lines that were taken back are left out; readings are those that gauge a post.

    player : of this visit's session, or who is taken for it.  begun : whether somebody said so.
    """

    visits: Sequence[Visit]
    works: Sequence[WorkDone]
    readings: Sequence[Reading]
    heard: Sequence[Heard]
    recordings: Sequence[Recording]
    posts: Sequence[PostEntry]
    trials: Sequence[BlindTrial]
    player: str
    begun: bool
    player_words: Sequence[str]


def load_trail(work: UnitOfWork, loaded: Loaded) -> TrailRecords:
    """Everything of one instrument's sound."""
    instrument = loaded.instrument
    heard = work.sound.heard(instrument.id)
    session: PlayerSession | None = next(iter(reversed(work.sound.sessions(loaded.visit.id))), None)
    player = instrument.owner
    if session is not None:
        player = session.player
    elif heard:
        player = heard[-1].player
    return TrailRecords(
        visits=list(reversed(work.instruments.visits(instrument.id))),
        works=work.sound.works(instrument.id),
        readings=work.sound.readings(instrument.id, GAUGED),
        heard=heard,
        recordings=work.sound.recordings(instrument.id),
        posts=work.sound.posts(instrument.id),
        trials=work.sound.trials(instrument.id),
        player=player,
        begun=session is not None,
        player_words=work.sound.words_of(player) if player else [],
    )
