"""An instrument's sound: acts, what was heard, recordings, blind comparisons. Every change answers with the trail."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Path, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.photos import file_answer
from fidicula.api.services import AllServices
from fidicula.api.words import Day, Label, Sentence, Story, Ticket
from fidicula.services.adjusting.typed_acts import HeardTyped, MoveTyped, PostTyped, WoodTyped
from fidicula.views.adjustments.blind import MOST_TRIALS
from fidicula.views.adjustments.model import SoundView

router = APIRouter(prefix="/api", tags=["sound"], responses=RESPONSES)

_OF = "/instruments/{ticket}/sound"
Typed = Annotated[str, Field(max_length=40)]
Key = Annotated[str, Field(max_length=40)]


class ActBody(Body):
    id: UUID


class TrialOffBody(ActBody):
    """trial : the work that put it on; left out for the last."""

    trial: UUID | None = None


class SessionBody(ActBody):
    player: Label


class ListenedBody(Body):
    """How it was listened to; what is not said is left out.

    listener : who listened, if not the player.  where : from.  played : which scale or piece.  distance : as typed.
    behind : the string that falls behind, low 0; behind_by : how much.
    """

    listener: Label = ""
    where: Key = ""
    played: Label = ""
    bow: Label = ""
    room: Label = ""
    distance: Label = ""
    behind: Annotated[int, Field(ge=0, le=9)] | None = None
    behind_by: Key = ""


class HeardBody(ActBody):
    """player : empty for this session's.  after_work : the last work that the page knew."""

    player: Label = ""
    rated: Annotated[dict[Key, int], Field(max_length=60)] = Field(default_factory=dict)
    words: Annotated[list[Label], Field(max_length=20)] = Field(default_factory=list)
    remark: Story = ""
    listened: ListenedBody = Field(default_factory=ListenedBody)
    after_work: Annotated[int, Field(ge=0)] | None = None


class MoveBody(ActBody):
    """taps, mm : as typed, one of them."""

    end: Key = ""
    direction: Key = ""
    taps: Typed = ""
    mm: Typed = ""
    tension: Key = ""
    tool: Key = ""
    words: Sentence = ""


class HalfBody(ActBody):
    """now : the place where the page had it standing."""

    now: Annotated[int, Field(ge=0, le=100_000)]


class BackBody(HalfBody):
    place: Annotated[int, Field(ge=0, le=100_000)]


class TrialBody(ActBody):
    """mass : as typed. [g]"""

    what: Key = ""
    place: Key = ""
    mass: Typed = ""
    words: Sentence = ""


class WoodBody(ActBody):
    """off, left : as typed."""

    place: Key = ""
    off: Typed = ""
    left: Typed = ""
    reason: Sentence = ""
    words: Sentence = ""


class PostBody(ActBody):
    """length, diameter : as typed."""

    length: Typed = ""
    diameter: Typed = ""
    wood: Sentence = ""
    grain_mark: Sentence = ""
    end_down: Sentence = ""
    fitted_on: Day | None = None
    marks_inside: Story = ""


class BlindBody(ActBody):
    """trials : how many comparisons, said before the first."""

    trials: Annotated[int, Field(ge=1, le=MOST_TRIALS)]
    one: UUID
    other: UUID
    player: Label = ""


class ChosenBody(Body):
    chosen: Literal["first", "second", "neither"]


@router.get(_OF)
def sound(services: AllServices, ticket: Ticket, complaint: Annotated[str, Query(max_length=40)] = "") -> SoundView:
    """The trail of an instrument. complaint : that advice is wanted on."""
    return services.sound.view(ticket, complaint)


@router.post(_OF + "/session", dependencies=[may("measure")])
def begin(services: AllServices, ticket: Ticket, body: SessionBody, person: Acting) -> SoundView:
    """Say who plays."""
    return services.sound.begin(ticket, session_id=body.id, player=body.player, by=person.name)


@router.post(_OF + "/heard", dependencies=[may("measure")])
def hear(services: AllServices, ticket: Ticket, body: HeardBody, person: Acting) -> SoundView:
    """Write down how it sounds now."""
    listened = body.listened.model_dump(exclude_defaults=True)
    typed = HeardTyped(body.player, body.rated, body.words, body.remark, body.after_work, listened)
    return services.sound.hear(ticket, typed, heard_id=body.id, by=person.name)


@router.post(_OF + "/heard/{heard_id}/played-by", dependencies=[may("measure")])
def played_by(services: AllServices, ticket: Ticket, heard_id: UUID, body: SessionBody, person: Acting) -> SoundView:
    """Say that it was somebody else who played."""
    return services.sound.played_by(ticket, heard_id, player=body.player, new_id=body.id, by=person.name)


@router.post(_OF + "/{kind}/{line_id}/take-back", dependencies=[may("measure")])
def take_back(
    services: AllServices,
    ticket: Ticket,
    kind: Literal["heard", "recording", "post_entry"],
    line_id: UUID,
    person: Acting,
) -> SoundView:
    """Undo a line."""
    return services.sound.take_back(ticket, kind, line_id, person.name)


@router.post(_OF + "/moves", dependencies=[may("measure")])
def move(services: AllServices, ticket: Ticket, body: MoveBody, person: Acting) -> SoundView:
    """Write down a move of one end of the post."""
    typed = MoveTyped(body.end, body.direction, body.taps, body.mm, body.tension, body.tool, body.words)
    return services.sound.move(ticket, typed, work_id=body.id, by=person.name)


@router.post(_OF + "/half-back", dependencies=[may("measure")])
def half_back(services: AllServices, ticket: Ticket, body: HalfBody, person: Acting) -> SoundView:
    """Half of the last move back."""
    return services.sound.half_back(ticket, now=body.now, work_id=body.id, by=person.name)


@router.post(_OF + "/back", dependencies=[may("measure")])
def back_to(services: AllServices, ticket: Ticket, body: BackBody, person: Acting) -> SoundView:
    """Back to an earlier place."""
    return services.sound.back_to(ticket, body.place, now=body.now, work_id=body.id, by=person.name)


@router.post(_OF + "/trial", dependencies=[may("measure")])
def try_on_bridge(services: AllServices, ticket: Ticket, body: TrialBody, person: Acting) -> SoundView:
    """Try something on the bridge."""
    return services.sound.try_on_bridge(
        ticket, work_id=body.id, what=body.what, place=body.place, mass=body.mass, words=body.words, by=person.name
    )


@router.post(_OF + "/trial-off", dependencies=[may("measure")])
def trial_off(services: AllServices, ticket: Ticket, body: TrialOffBody, person: Acting) -> SoundView:
    """Take off what was tried on the bridge."""
    return services.sound.trial_off(ticket, work_id=body.id, by=person.name, trial=body.trial)


@router.post(_OF + "/wood", dependencies=[may("measure")])
def wood_off(services: AllServices, ticket: Ticket, body: WoodBody, person: Acting) -> SoundView:
    """Write down wood taken off the bridge."""
    typed = WoodTyped(body.place, body.off, body.left, body.reason, body.words)
    return services.sound.wood_off(ticket, typed, work_id=body.id, by=person.name)


@router.post(_OF + "/post", dependencies=[may("measure")])
def describe_post(services: AllServices, ticket: Ticket, body: PostBody, person: Acting) -> SoundView:
    """Describe the post."""
    typed = PostTyped(
        body.length, body.diameter, body.wood, body.grain_mark, body.end_down, body.fitted_on, body.marks_inside
    )
    return services.sound.describe_post(ticket, typed, entry_id=body.id, by=person.name)


@router.post(
    _OF + "/recordings",
    dependencies=[may("measure")],
    openapi_extra={
        "requestBody": {"content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}}}
    },
)
async def record(
    request: Request, services: AllServices, ticket: Ticket, person: Acting, id: UUID, words: Sentence = ""
) -> SoundView:
    """Keep a recording; the same id again changes nothing."""
    data = await request.body()
    return await run_in_threadpool(
        services.recordings.record,
        ticket,
        recording_id=id,
        media_type=request.headers.get("content-type", ""),
        sound=data,
        words=words,
        by=person.name,
    )


@router.get("/recordings/{recording_id}", response_class=Response, responses={200: {"content": {"audio/*": {}}}})
def recording(request: Request, services: AllServices, recording_id: UUID) -> Response:
    """A recording as a file."""
    media_type, data = services.recordings.sound(recording_id)
    return file_answer(request, data, media_type=media_type, tag=str(recording_id))


@router.post(_OF + "/blind", dependencies=[may("measure")])
def try_blind(services: AllServices, ticket: Ticket, body: BlindBody, person: Acting) -> SoundView:
    """Begin a series of blind comparisons of two recordings."""
    return services.recordings.try_blind(
        ticket,
        series_id=body.id,
        trials=body.trials,
        one=body.one,
        other=body.other,
        player=body.player,
        by=person.name,
    )


@router.post(_OF + "/blind/{series_id}/give-up", dependencies=[may("measure")])
def give_up_blind(services: AllServices, ticket: Ticket, series_id: UUID) -> SoundView:
    """End a series before its number is reached: nothing follows from it."""
    return services.recordings.give_up_blind(ticket, series_id)


@router.get("/blind/{trial_id}/{which}", response_class=Response, responses={200: {"content": {"audio/*": {}}}})
def blind_sound(
    request: Request, services: AllServices, trial_id: UUID, which: Annotated[Literal["first", "second"], Path()]
) -> Response:
    """One of the two, without its name."""
    media_type, data = services.recordings.blind_sound(trial_id, which)
    return file_answer(request, data, media_type=media_type, tag=f"{trial_id}-{which}")


@router.post(_OF + "/blind/{trial_id}/chosen", dependencies=[may("measure")])
def choose_blind(services: AllServices, ticket: Ticket, trial_id: UUID, body: ChosenBody) -> SoundView:
    """Say which was liked better; which was which is told at the end of the series."""
    return services.recordings.choose_blind(ticket, trial_id, body.chosen)
