"""The record of one visit, line by line, as it stands in a dossier and under a seal.

Lines name each other by their id; they stand in the order in which they arrived. `taken_back_at` marks a line that was
undone: it stays on record.
"""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from fidicula import limits
from fidicula.documents.dossier.planned import ApprovalLine, DiscountLine, PlanLine, PlanPartLine, PlanTimeLine
from fidicula.documents.dossier.values import (
    At,
    Day,
    Detail,
    Line,
    Mm,
    Name,
    Number,
    Sha256,
    Strokes,
    UndoableLine,
    Words,
)


class WorkLine(UndoableLine):
    """A work that was done. detail : what it set out to do, by work.  string_set_id : that went on with it."""

    work: Name
    done_by: Name
    done_at: At
    detail: Detail
    string_set_id: UUID | None


class ReadingLine(UndoableLine):
    """A reading. typed : as entered.  value : in the measure's unit, mm where none is said.  position : of the string,
    from the lowest, from 0.  after_work : the last work that was known as it was taken.  corrected_by : a newer one.
    doubt : why it is doubted, and what it was compared with.  simulated : no tool of the shop sent it."""

    measure: Name
    position: Annotated[int, Field(ge=0, lt=limits.MOST_STRINGS)] | None
    typed: Name
    value: Mm
    tool: Name
    direction: Name | None
    taken_by: Name
    taken_at: At
    recorded_at: At
    after_work: UUID | None
    corrected_by: UUID | None
    repeats: bool
    doubt: Literal["small", "large", "impossible", "changed", "leap"] | None
    doubt_about: Mm | None
    suggested: Mm | None
    simulated: bool
    confirmed_at: At | None
    confirmed_by: Name | None


class DecisionLine(UndoableLine):
    """How a question was decided, and why. at_value : of the reading that it was decided on."""

    question: Name
    outcome: Name
    reason: Words
    at_value: Mm | None
    after_work: UUID | None
    decided_by: Name
    decided_at: At


class SeenLine(UndoableLine):
    """What somebody saw at one item of the inspection."""

    item: Name
    verdict: Literal["fine", "watch", "work", "not_looked_at"]
    findings: list[Name]
    words: Words
    seen_by: Name
    seen_at: At
    after_work: UUID | None


class MarkLine(UndoableLine):
    """What somebody said of a step of the visit."""

    step: Name
    mark: Literal["done", "passed", "wait", "go_on"]
    reason: Words
    until: At | None
    made_by: Name
    made_at: At
    after_work: UUID | None


class CheckLine(UndoableLine):
    """What somebody saw at one point of the check at pitch."""

    point: Name
    verdict: Literal["right", "not_right"]
    words: Words
    checked_by: Name
    checked_at: At
    after_work: UUID | None


class PhotoLine(UndoableLine):
    """A photograph. thing : a mark of the damage map that it shows.  sha256 : of the picture.
    width, height : in pixels."""

    item: Name
    thing: UUID | None = None
    words: Words
    shot: Name
    camera: Name
    width: Annotated[int, Field(ge=1, le=100_000)]
    height: Annotated[int, Field(ge=1, le=100_000)]
    taken_by: Name
    taken_at: At
    sha256: Sha256


class RetuningLine(UndoableLine):
    """How far each string was off pitch as it was tuned again. cents : by string, from the lowest; null where it was
    not said."""

    after_work: UUID | None
    cents: list[Number | None]
    remark: Words
    tuned_by: Name
    tuned_at: At


class PostLine(UndoableLine):
    """A sound post as an object. length, diameter : mm."""

    after_work: UUID | None
    length: Mm | None
    diameter: Mm | None
    wood: Name
    grain_mark: Name
    end_down: Name
    fitted_on: Day | None
    marks_inside: Words
    entered_by: Name
    entered_at: At


class BelongingLine(UndoableLine):
    """A fitting as an object, or what came along. thing : the same for every line about it.  mass : g.

    place : with_it, off (it lies loose in the shop, `lies` says where), or gone.
    """

    thing: UUID
    kind: Name
    which: Words
    material: Words
    count: Annotated[int, Field(ge=1, le=1000)] | None
    mass: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None
    made_on: Day | None
    stamp: Words
    place: Literal["with_it", "off", "gone"]
    lies: Words
    entered_by: Name
    entered_at: At


class DamageLine(UndoableLine):
    """A look at one mark of the damage map. thing : the same for every look at it.  along : from its face's end;
    across : from the middle, + to the treble or the front; to_along, to_across : where it ends.  ends : if seen."""

    thing: UUID
    kind: Name
    face: Name
    along: Mm
    across: Mm
    to_along: Mm | None
    to_across: Mm | None
    length: Annotated[Mm, Field(gt=0)] | None
    ends: Literal["", "both_seen", "runs_on"]
    state: Literal["open", "stable", "repaired", "poor"]
    under_tension: bool
    words: Words
    after_work: UUID | None
    seen_by: Name
    seen_at: At


class DamageSignedLine(UndoableLine):
    """Somebody signed for what was marked. lines : looks that stood then.  signature : strokes as points of a path on a
    field of 280 by 88."""

    who: Name
    lines: list[UUID]
    signature: Strokes
    entered_by: Name
    signed_at: At


class PlayerLine(Line):
    """Somebody who plays while the instrument is adjusted."""

    id: UUID
    player: Name
    begun_by: Name
    begun_at: At


class HeardLine(UndoableLine):
    """A listening note. rated : by word, in steps."""

    after_work: UUID | None
    player: Name
    rated: Detail
    player_words: list[Name]
    remark: Words
    listened: Detail = Field(default_factory=dict)
    written_by: Name
    heard_at: At


class RecordingLine(UndoableLine):
    """A recording. sha256 : of the sound."""

    after_work: UUID | None
    media_type: Annotated[str, Field(pattern=r"^(audio|video)/[a-z0-9.+-]+(;.{0,80})?$")]
    words: Words
    recorded_by: Name
    recorded_at: At
    sha256: Sha256


class BlindLine(Line):
    """A blind comparison of two recordings. series_id : of those whose number was chosen before; null for one alone."""

    id: UUID
    player: Name
    first_id: UUID
    second_id: UUID
    chosen: Literal["first", "second", "neither", "given_up"] | None
    led_by: Name
    begun_at: At
    chosen_at: At | None
    series_id: UUID | None = None


class VisitHead(Line):
    """When an instrument was in the house and why. freeze_days : without risky work before the deadline."""

    id: UUID
    kind: Name
    complaint: Words
    opened_at: At
    closed_at: At | None
    closed_by: Name | None
    climate: Literal["", "damp", "dry"]
    deadline: Day | None
    freeze_days: Annotated[int, Field(ge=0, le=limits.MOST_FREEZE_DAYS)]
    promised: Day | None


class VisitRecord(Line):
    """Everything that was entered at one visit. A seal covers all of it."""

    visit: VisitHead
    works: list[WorkLine] = Field(default_factory=list)
    readings: list[ReadingLine] = Field(default_factory=list)
    decisions: list[DecisionLine] = Field(default_factory=list)
    inspection: list[SeenLine] = Field(default_factory=list)
    steps: list[MarkLine] = Field(default_factory=list)
    checks: list[CheckLine] = Field(default_factory=list)
    photographs: list[PhotoLine] = Field(default_factory=list)
    retunings: list[RetuningLine] = Field(default_factory=list)
    posts: list[PostLine] = Field(default_factory=list)
    belongings: list[BelongingLine] = Field(default_factory=list)
    damage: list[DamageLine] = Field(default_factory=list)
    damage_signed: list[DamageSignedLine] = Field(default_factory=list)
    players: list[PlayerLine] = Field(default_factory=list)
    listening_notes: list[HeardLine] = Field(default_factory=list)
    recordings: list[RecordingLine] = Field(default_factory=list)
    blind_comparisons: list[BlindLine] = Field(default_factory=list)
    plan: list[PlanLine] = Field(default_factory=list)
    plan_parts: list[PlanPartLine] = Field(default_factory=list)
    plan_times: list[PlanTimeLine] = Field(default_factory=list)
    approvals: list[ApprovalLine] = Field(default_factory=list)
    discounts: list[DiscountLine] = Field(default_factory=list)
