"""Adjusting by ear at one instrument: acts, what was heard, recordings, the way back. All answer with the trail."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from uuid import UUID

from fidicula.codes import WorkCode
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.sound import Heard, PlayerSession, PostEntry
from fidicula.domain.work_details import BridgeTrial, BridgeWood, PostMoved, WorkDetail
from fidicula.domain.works import NewWork
from fidicula.judgement.assessment.inspection import post_is_down
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.adjusting.changing import SoundChanges, last_work_of
from fidicula.services.adjusting.records import load_trail
from fidicula.services.adjusting.typed_acts import (
    MOST_MASS,
    MOST_WOOD,
    HeardTyped,
    MoveTyped,
    PostTyped,
    WoodTyped,
    check_choice,
    check_left,
    check_listened,
    check_rated,
    moved_of,
    size_of,
)
from fidicula.services.bench.gates import check_may_be_done
from fidicula.services.loading.records import load_bench
from fidicula.services.people.ranks import check_rank
from fidicula.tables.sound import complaints
from fidicula.views.adjustments.model import SoundView
from fidicula.views.adjustments.places import Trail
from fidicula.views.adjustments.view import made_trail, sound_view
from fidicula.views.adjustments.ways_back import half_of, open_trials, way_back, why_not_back, why_not_half
from fidicula.words import trail as trail_words

LONGEST_WORD = 40
_LINES = ("heard", "recording", "post_entry")


class Sound(SoundChanges):
    """Use cases. by : who writes it down."""

    def view(self, ticket: str, complaint: str = "") -> SoundView:
        """complaint : that advice is wanted on. Raises RefusedError for one that nobody knows."""
        if complaint and complaint not in complaints():
            raise RefusedError(f"there is no advice on “{complaint}”", field="complaint")
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            return sound_view(loaded, load_trail(uow, loaded), complaint=complaint)

    def begin(self, ticket: str, *, session_id: UUID, player: str, by: str) -> SoundView:
        """From here on it is this player who says how it sounds."""
        if not player.strip():
            raise RefusedError("say who plays", field="player")

        def add(uow: UnitOfWork, loaded: VisitRecord) -> None:
            uow.sound.begin(PlayerSession(session_id, loaded.visit.id, player.strip(), by))

        return self._change(ticket, add)

    def hear(self, ticket: str, typed: HeardTyped, *, heard_id: UUID, by: str) -> SoundView:
        """How it sounds now. Raises RefusedError naming the quality, or `player` where nobody plays."""
        words = tuple(dict.fromkeys(word.strip() for word in typed.words if word.strip()))
        for word in words:
            if len(word) > LONGEST_WORD:
                raise RefusedError(f"“{word[:20]} …” is a sentence: write it as the remark", field="words")
        if not (typed.rated or words or typed.remark.strip() or typed.listened.get("behind") is not None):
            raise RefusedError("nothing was said of it: rate something, or choose a word", field="rated")

        def add(uow: UnitOfWork, loaded: VisitRecord) -> None:
            check_rated(typed.rated, loaded.instrument.string_names)
            listened = check_listened(typed.listened, len(loaded.instrument.string_names))
            player, session = typed.player.strip(), load_trail(uow, loaded).player
            if player.casefold() in ("", session.casefold()):
                player = session
            if not player:
                raise RefusedError("say who plays", field="player")
            uow.sound.hear(
                Heard(
                    id=heard_id,
                    visit_id=loaded.visit.id,
                    after_work=last_work_of(loaded, typed.after_work),
                    player=player,
                    rated=dict(typed.rated),
                    player_words=words,
                    remark=typed.remark.strip(),
                    written_by=by,
                    listened=listened,
                )
            )

        return self._change(ticket, add)

    def played_by(self, ticket: str, heard_id: UUID, *, player: str, new_id: UUID, by: str) -> SoundView:
        """It was somebody else who played: what was heard is written again under that name, the old line is marked."""
        if not player.strip():
            raise RefusedError("say who plays", field="player")

        def change(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if uow.check_entry():
                return
            there = next((h for h in uow.sound.heard(loaded.instrument.id) if h.id == heard_id), None)
            if there is None or not uow.sound.take_back("heard", heard_id, loaded.visit.id, by):
                raise NotFoundError("that is not among what was heard at this visit")
            uow.sound.hear(replace(there, id=new_id, player=player.strip(), written_by=by))

        return self._change(ticket, change)

    def take_back(self, ticket: str, kind: str, line_id: UUID, by: str) -> SoundView:
        """Undo what was heard, a recording, or what was said of the post: it stays in the records, marked."""
        if kind not in _LINES:
            raise RefusedError(f"“{kind}” is nothing that is taken back here", field="kind")

        def change(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if not uow.sound.take_back(kind, line_id, loaded.visit.id, by):
                raise NotFoundError("that line is not among this visit's")

        return self._change(ticket, change)

    def move(self, ticket: str, typed: MoveTyped, *, work_id: UUID, by: str) -> SoundView:
        """Move one end of the post one way, or both. Raises RefusedError naming what is missing."""

        def detail(uow: UnitOfWork, loaded: VisitRecord) -> WorkDetail:
            return moved_of(typed, made_trail(loaded, load_trail(uow, loaded)).tap)

        return self._act(ticket, "post_moved", detail, work_id=work_id, by=by)

    def half_back(self, ticket: str, *, work_id: UUID, by: str, now: int) -> SoundView:
        """It was too much: half of the last act back. now : the place where whoever asks had it standing."""

        def detail(uow: UnitOfWork, loaded: VisitRecord) -> WorkDetail:
            trail = made_trail(loaded, load_trail(uow, loaded))
            _check_still_there(trail, now)
            half, why_not = half_of(trail.now.first), why_not_half(trail, fallen=post_is_down(loaded.state()))
            if half is None or why_not:
                raise ConflictError(trail_words.HALF[why_not])
            return half

        return self._act(ticket, "post_moved", detail, work_id=work_id, by=by)

    def back_to(self, ticket: str, place: int, *, work_id: UUID, by: str, now: int) -> SoundView:
        """Back to an earlier place: between gauged places, else an estimate. now : as for `half_back`."""

        def detail(uow: UnitOfWork, loaded: VisitRecord) -> WorkDetail:
            trail = made_trail(loaded, load_trail(uow, loaded))
            _check_still_there(trail, now)
            spot = next((spot for spot in trail.spots if spot.number == place), None)
            if spot is None or spot is trail.now:
                raise RefusedError(
                    f"there is no place {place} to go back to: the post stands at place {trail.now.number}",
                    field="place",
                )
            why_not = why_not_back(trail, fallen=post_is_down(loaded.state()))
            if why_not:
                raise ConflictError(trail_words.BACK[why_not])
            back = way_back(trail, spot)
            if back is None:
                raise ConflictError(f"which way place {place} lies is not recorded: gauge both ends first")
            if len(back.taps) == 1:
                end, direction, taps = back.taps[0]
                return PostMoved(end=end, direction=direction, taps=taps, place=place)
            return PostMoved(vector=back.ways, place=place, estimated=back.known_to if back.is_estimate else None)

        return self._act(ticket, "post_moved", detail, work_id=work_id, by=by)

    def try_on_bridge(
        self, ticket: str, *, work_id: UUID, what: str, place: str, mass: str, words: str, by: str
    ) -> SoundView:
        """Something on the bridge that comes off again. mass : as typed, empty where it was not weighed. [g]"""
        check_choice("trial", what, field="what")
        check_choice("place", place, field="place")
        weighed = size_of(mass, "mass", "its mass", most=MOST_MASS)
        detail = BridgeTrial(what=what, place=place, mass=weighed, words=words.strip())
        return self._act(ticket, "bridge_trial", lambda _uow, _loaded: detail, work_id=work_id, by=by)

    def trial_off(self, ticket: str, *, work_id: UUID, by: str, trial: UUID | None = None) -> SoundView:
        """What was tried on the bridge comes off. trial : the work that put it on, None for the last."""

        def detail(uow: UnitOfWork, loaded: VisitRecord) -> WorkDetail:
            on = open_trials(made_trail(loaded, load_trail(uow, loaded)))
            chosen = next((one for one in reversed(on) if trial is None or one.id == trial), None)
            if chosen is None or not isinstance(chosen.detail, BridgeTrial):
                raise ConflictError("nothing is being tried on the bridge" if not on else "that trial was taken off")
            put_on = chosen.detail
            return BridgeTrial(what=put_on.what, place=put_on.place, mass=put_on.mass, trial=chosen.id)

        return self._act(ticket, "bridge_trial_off", detail, work_id=work_id, by=by)

    def wood_off(self, ticket: str, typed: WoodTyped, *, work_id: UUID, by: str) -> SoundView:
        """Wood taken off the bridge for its tone; it does not come back."""
        check_choice("place", typed.place, field="place")
        off = size_of(typed.off, "off", "the wood taken off", most=MOST_WOOD)
        if off is None:
            raise RefusedError("say how much wood was taken, for instance 0.1", field="off")
        left = size_of(typed.left, "left", "what is left", most=60)

        def detail(_uow: UnitOfWork, loaded: VisitRecord) -> WorkDetail:
            if left is not None and not typed.reason.strip():
                check_left(loaded.targets, typed.place, left)
            said = " ".join(part for part in (typed.words.strip(), typed.reason.strip()) if part)
            return BridgeWood(place=typed.place, off=off, left=left, words=said)

        return self._act(ticket, "bridge_wood", detail, work_id=work_id, by=by)

    def describe_post(self, ticket: str, typed: PostTyped, *, entry_id: UUID, by: str) -> SoundView:
        """The post as an object. Raises RefusedError, or CoreError naming the length."""
        length = size_of(typed.length, "length", "the post's length", most=600)
        diameter = size_of(typed.diameter, "diameter", "the post's diameter", most=30)

        def add(uow: UnitOfWork, loaded: VisitRecord) -> None:
            uow.sound.add_post(
                PostEntry(
                    id=entry_id,
                    visit_id=loaded.visit.id,
                    after_work=last_work_of(loaded, None),
                    length=length,
                    diameter=diameter,
                    wood=typed.wood.strip(),
                    grain_mark=typed.grain_mark.strip(),
                    end_down=typed.end_down.strip(),
                    fitted_on=typed.fitted_on,
                    marks_inside=typed.marks_inside.strip(),
                    entered_by=by,
                )
            )

        return self._change(ticket, add)

    def _act(
        self,
        ticket: str,
        kind: WorkCode,
        detail: Callable[[UnitOfWork, VisitRecord], WorkDetail],
        *,
        work_id: UUID,
        by: str,
    ) -> SoundView:
        """Write an act down as a work, once."""

        def add(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if any(done.id == work_id for done in loaded.works):
                return
            check_rank(kind)
            made = detail(uow, loaded)
            check_may_be_done(loaded.assess(), kind)
            uow.log.add_work(NewWork(id=work_id, visit_id=loaded.visit.id, work=kind, done_by=by, detail=made))

        return self._change(ticket, add)


def _check_still_there(trail: Trail, now: int) -> None:
    """Raises ConflictError where somebody else moved the post since: the way that was shown begins elsewhere."""
    if now != trail.now.number:
        raise ConflictError(f"the post was moved meanwhile, it stands at place {trail.now.number}: look again first")
