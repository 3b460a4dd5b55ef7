"""Recordings, and two of them compared blind."""

from __future__ import annotations

from uuid import UUID, uuid5

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.sound import BlindTrial, NewRecording
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.adjusting.changing import SoundChanges, last_work_of
from fidicula.services.adjusting.records import load_trail
from fidicula.views.adjustments.blind import balanced, states_of
from fidicula.views.adjustments.model import SoundView
from fidicula.views.adjustments.view import made_trail

MOST_BYTES = 24 * 1024 * 1024
"""Of one recording."""
SOUND_TYPES = ("audio/webm", "audio/ogg", "audio/wav", "audio/x-wav", "audio/mpeg", "audio/mp4", "audio/flac")


class Recordings(SoundChanges):
    """Use cases around recordings."""

    def record(
        self, ticket: str, *, recording_id: UUID, media_type: str, sound: bytes, words: str, by: str
    ) -> SoundView:
        """Keep a recording of how it sounds now. Raises RefusedError for what is no sound."""
        kind = media_type.split(";")[0].strip().lower()
        if kind not in SOUND_TYPES:
            raise RefusedError(f"that is no recording that can be kept: it is “{kind or 'unnamed'}”", field="sound")
        if not sound:
            raise RefusedError("the recording is empty: nothing was heard by the microphone", field="sound")

        def add(uow: UnitOfWork, loaded: VisitRecord) -> None:
            after = last_work_of(loaded, None)
            uow.sound.record(NewRecording(recording_id, loaded.visit.id, after, kind, sound, words.strip(), by))

        return self._change(ticket, add)

    def sound(self, recording_id: UUID) -> tuple[str, bytes]:
        """A recording's media type and bytes."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = uow.sound.sound(recording_id)
        if found is None:
            raise NotFoundError("there is no such recording")
        return found

    def try_blind(
        self, ticket: str, *, series_id: UUID, trials: int, one: UUID, other: UUID, player: str, by: str
    ) -> SoundView:
        """Two recordings, so often, in orders that nobody is told until the last was chosen; either is first as often.

        trials : said before, 1 up to `MOST_TRIALS`.
        """
        if one == other:
            raise RefusedError("choose two recordings that differ", field="other")

        def add(uow: UnitOfWork, loaded: VisitRecord) -> None:
            records = load_trail(uow, loaded)
            for field, wanted in (("one", one), ("other", other)):
                if not any(recording.id == wanted for recording in records.recordings):
                    raise RefusedError("that recording is not of this instrument", field=field)
            states = states_of(made_trail(loaded, records))
            if one in states and states.get(one) == states.get(other):
                raise RefusedError("both recordings are of the same state: choose one of another", field="other")
            if any(trial.series == series_id for trial in records.trials):
                return
            if any(trial.chosen is None for trial in records.trials):
                raise ConflictError("a series is not at its end: finish it, or give it up")
            for n, (first, second) in enumerate(balanced(one, other, trials)):
                uow.sound.try_blind(
                    BlindTrial(
                        uuid5(series_id, str(n)),
                        loaded.visit.id,
                        player.strip() or records.player,
                        first,
                        second,
                        None,
                        by,
                        series_id=series_id,
                    )
                )

        return self._change(ticket, add)

    def give_up_blind(self, ticket: str, series_id: UUID) -> SoundView:
        """End a series before its number is reached: nothing follows from it."""

        def end(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if not any(trial.series_id == series_id for trial in uow.sound.trials(loaded.instrument.id)):
                raise NotFoundError("there is no such series at this instrument")
            uow.sound.give_up(series_id)

        return self._change(ticket, end)

    def blind_sound(self, trial_id: UUID, which: str) -> tuple[str, bytes]:
        """One of the two, without saying which it is."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            trial = uow.sound.trial(trial_id)
        if trial is None:
            raise NotFoundError("there is no such comparison")
        return self.sound(trial.first_id if which == "first" else trial.second_id)

    def choose_blind(self, ticket: str, trial_id: UUID, chosen: str) -> SoundView:
        """Which of the two was liked better; the first word stands, and one comes after the other."""

        def choose(uow: UnitOfWork, loaded: VisitRecord) -> None:
            trials = uow.sound.trials(loaded.instrument.id)
            if not any(trial.id == trial_id for trial in trials):
                raise NotFoundError("there is no such comparison at this instrument")
            before = next((one for one in trials if one.chosen is None), None)
            if (
                before is not None
                and before.id != trial_id
                and any(one.id == trial_id and one.chosen is None for one in trials)
            ):
                raise ConflictError("one comes after the other: choose at the one before first")
            uow.sound.choose(trial_id, chosen)

        return self._change(ticket, choose)
