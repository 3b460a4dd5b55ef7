"""The demo's trails: posts, moves, what players heard, as the page would write them down."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

from fidicula.cli.demo_sound import simulated_recording
from fidicula.codes import MeasureCode
from fidicula.core.sound.ratings import STRING_QUALITIES, WHOLE_QUALITIES
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.sound import Heard, PostEntry
from fidicula.judgement.measures import MEASURES
from fidicula.services.adjusting.recordings import Recordings
from fidicula.services.adjusting.sound import Sound
from fidicula.services.adjusting.typed_acts import HeardTyped, MoveTyped, PostTyped
from fidicula.services.bench.bench import Bench
from fidicula.services.bench.taking import ReadingInput


def days_on(days: int | None) -> date | None:
    """So many days from today, where the shop is."""
    return None if days is None else (datetime.now(UTC) + timedelta(days=days)).astimezone().date()


def load_event(engine: Engine, ticket: str, event: dict[str, Any], *, by: str) -> None:
    """One thing on an instrument's trail, as the page would write it down."""
    sound, bench, kind = Sound(engine), Bench(engine), event["event"]
    by = event.get("by", by)
    if kind == "session":
        sound.begin(ticket, session_id=uuid4(), player=event["player"], by=by)
    elif kind == "post":
        told = {name: event.get(name, "") for name in _POST_WORDS}
        typed = PostTyped(**told, fitted_on=days_on(event["fitted_in_days"]))
        sound.describe_post(ticket, typed, entry_id=uuid4(), by=by)
    elif kind == "gauge":
        sheet = bench.sheet(ticket)
        for measure in ("post_setback", "post_inset"):
            for position, typed_value in enumerate(event[measure]):
                _take(bench, ticket, measure, position, typed_value, after_work=sheet.last_work, by=by)
    elif kind == "move":
        told = {name: event.get(name, "") for name in ("end", "direction", "taps", "mm", "tension", "tool", "words")}
        sound.move(ticket, MoveTyped(**told), work_id=uuid4(), by=by)
    elif kind == "heard":
        typed_heard = HeardTyped(event.get("player", ""), _rated(event), event.get("words", []), event.get("says", ""))
        sound.hear(ticket, typed_heard, heard_id=uuid4(), by=by)
    elif kind == "recording":
        data = simulated_recording(brightness=event["brightness"])
        Recordings(engine).record(
            ticket, recording_id=uuid4(), media_type="audio/wav", sound=data, words=event["says"], by=by
        )


_POST_WORDS = ("length", "diameter", "wood", "grain_mark", "end_down", "marks_inside")


def _rated(event: dict[str, Any]) -> dict[str, int]:
    """The whole instrument's qualities, and for each string its own, low string first."""
    rated = dict(zip(WHOLE_QUALITIES, event.get("whole", []), strict=False))
    for quality in STRING_QUALITIES:
        rated |= {f"{quality}/{position}": value for position, value in enumerate(event.get(quality, []))}
    return rated


def _take(
    bench: Bench, ticket: str, measure: MeasureCode, position: int | None, typed: str, *, after_work: int, by: str
) -> None:
    taking = ReadingInput(
        id=uuid4(),
        measure=measure,
        position=position,
        typed=typed,
        tool=MEASURES[measure].tools[0],
        taken_by=by,
        taken_at=datetime.now(UTC),
        after_work=after_work,
        repeats=False,
    )
    bench.take_reading(ticket, taking, made=lambda sheet: sheet)


def load_earlier_sound(uow: UnitOfWork, visit: dict[str, Any], visit_id: UUID, opened: datetime, *, by: str) -> None:
    """What was written then of the post and of the sound."""
    if "post" in visit:
        told = visit["post"]
        uow.sound.add_post(
            PostEntry(
                id=uuid4(),
                visit_id=visit_id,
                after_work=0,
                length=told["length"],
                diameter=told["diameter"],
                wood=told["wood"],
                grain_mark=told["grain_mark"],
                end_down=told["end_down"],
                fitted_on=(opened + timedelta(days=told["fitted_in_days"])).date(),
                marks_inside=told["marks_inside"],
                entered_by=by,
                entered_at=opened,
            )
        )
    if "heard" in visit:
        told = visit["heard"]
        uow.sound.hear(
            Heard(uuid4(), visit_id, 0, told["player"], _rated(told), tuple(told["words"]), told["says"], by, opened)
        )
