"""What the database holds, as plain values for the services."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from uuid import UUID

from fidicula.codes import (
    FigureCode,
    FindingCode,
    ItemCode,
    MeasureCode,
    OutcomeCode,
    QuestionCode,
    TargetQuestionCode,
    ToolCode,
    VisitKindCode,
    WorkCode,
)
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.readings.doubt import DoubtCode
from fidicula.domain.work_details import PLAIN, WorkDetail


@dataclass(frozen=True)
class SetString:
    """One string of a set. diameter [mm], tension [N], linear_density [g/m]; None where unknown."""

    name: str
    diameter: float
    tension: float | None = None
    linear_density: float | None = None


@dataclass(frozen=True)
class StringSet:
    id: UUID
    name: str
    family: str
    material: str
    strings: tuple[SetString, ...]
    is_mixed: bool = False


@dataclass(frozen=True)
class TargetChoice:
    """What an instrument follows.

    recipe : its name, None for the shop's own choice.  schools : where it differs from the recipe, by question.
    sources : where a measure's target comes from, if not from the recipe, by measure.
    """

    recipe: str | None = None
    schools: Mapping[TargetQuestionCode, str] = field(default_factory=dict)
    sources: Mapping[MeasureCode, Mapping[str, str]] = field(default_factory=dict)
    id: UUID | None = None
    reason: str = ""
    chosen_by: str = ""
    chosen_at: datetime | None = None


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
    choice: TargetChoice = TargetChoice()
    asked: Mapping[str, str] = field(default_factory=dict)
    is_fleet: bool = False
    opposite_build: bool = False


UNREADABLE = "unreadable"
"""Instead of an instruction: the records of this visit contradict each other. The subject says how."""


@dataclass(frozen=True)
class Visit:
    """climate : where it came from, damp or dry, or empty.  freeze_days : without risky work before the deadline.

    has_earlier : the instrument was here before this visit.
    instruction, subject, waits_for, waits_until : what was to be done after the last entry, by code, for the rail.
    """

    id: UUID
    instrument_id: UUID
    kind: VisitKindCode
    complaint: str
    opened_at: datetime
    closed_at: datetime | None
    closed_by: str | None = None
    climate: str = ""
    deadline: date | None = None
    freeze_days: int = 3
    promised: date | None = None
    has_earlier: bool = False
    instruction: str = ""
    subject: str = ""
    waits_for: str = ""
    waits_until: datetime | None = None


@dataclass(frozen=True)
class WorkDone:
    """number : order of arrival; the causal clock that readings stand against."""

    number: int
    id: UUID
    visit_id: UUID
    work: WorkCode
    done_by: str
    done_at: datetime
    detail: WorkDetail
    string_set_id: UUID | None
    taken_back: bool


@dataclass(frozen=True)
class Reading:
    """doubt : why it is doubted, by code; doubt_about : what it is compared with. [its unit]

    simulated : no device of the shop sent it.
    """

    number: int
    id: UUID
    visit_id: UUID
    measure: MeasureCode
    position: int | None
    typed: str
    value: float
    tool: ToolCode
    direction: HeightDirection | None
    taken_by: str
    taken_at: datetime
    recorded_at: datetime
    after_work: int | None
    corrected_by: int | None
    repeats: bool
    doubt: DoubtCode | None
    suggested: float | None
    confirmed: bool
    taken_back: bool
    doubt_about: float | None = None
    simulated: bool = False


@dataclass(frozen=True)
class ToolCheck:
    """A tool was checked on lengths that are known, or was said to read true. known, read : in one order. [mm]"""

    id: UUID
    tool: ToolCode
    known: tuple[float, ...]
    read: tuple[float, ...]
    checked_by: str
    checked_at: datetime


@dataclass(frozen=True)
class NewReading:
    """A reading on its way in; its number and time of arrival come from the database.

    corrected_by : number of a newer reading that is there already.
    """

    id: UUID
    visit_id: UUID
    measure: MeasureCode
    position: int | None
    typed: str
    value: float
    tool: ToolCode
    direction: HeightDirection | None
    taken_by: str
    taken_at: datetime
    after_work: int | None
    repeats: bool
    doubt: DoubtCode | None
    suggested: float | None
    corrected_by: int | None = None
    doubt_about: float | None = None
    simulated: bool = False


@dataclass(frozen=True)
class NewWork:
    """done_at : None for now."""

    id: UUID
    visit_id: UUID
    work: WorkCode
    done_by: str
    detail: WorkDetail = PLAIN
    string_set_id: UUID | None = None
    done_at: datetime | None = None


@dataclass(frozen=True)
class Decision:
    """How a question was decided at a visit.

    at_value : of the reading that it was decided on. [mm]  after_work : the last work before it.
    """

    id: UUID
    visit_id: UUID
    question: QuestionCode
    outcome: OutcomeCode
    reason: str
    at_value: float | None
    decided_by: str
    decided_at: datetime | None = None
    taken_back: bool = False
    after_work: int = 0


@dataclass(frozen=True)
class Seen:
    """What somebody saw at one item of an instrument. findings : by name.  after_work : the last work before it."""

    id: UUID
    visit_id: UUID
    item: ItemCode
    verdict: str
    findings: tuple[FindingCode, ...]
    words: str
    seen_by: str
    after_work: int
    seen_at: datetime | None = None
    taken_back: bool = False


@dataclass(frozen=True)
class CourseMark:
    """What somebody said of a step. mark : done, passed, wait (until a time) or go_on (a wait is over).

    after_work : the last work before it.
    """

    id: UUID
    visit_id: UUID
    step: str
    mark: str
    reason: str
    until: datetime | None
    after_work: int
    made_by: str
    made_at: datetime | None = None
    taken_back: bool = False


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


@dataclass(frozen=True)
class FigureEntry:
    """A line of the figures' log; withdrawn: from here on the starting figure stands again."""

    id: UUID
    family: str
    size: str
    measure: FigureCode
    question: str
    school: str
    low: float | None
    aim: float | None
    high: float | None
    source: str
    confirmed_by: str | None
    withdrawn: bool
    entered_by: str
    entered_at: datetime | None = None


@dataclass(frozen=True)
class RecipeEntry:
    """A line of the recipes' log: the newest of a family and name stands, unless it was retired."""

    id: UUID
    family: str
    name: str
    schools: Mapping[TargetQuestionCode, str]
    retired: bool
    entered_by: str
    entered_at: datetime | None = None


@dataclass(frozen=True)
class LastTime:
    """What was read at an earlier visit. [mm]  works_since : what was done after it and before this visit."""

    value: float
    direction: HeightDirection | None
    taken_at: datetime
    tool: ToolCode
    works_since: frozenset[str] = frozenset()


@dataclass(frozen=True)
class RailEntry:
    """What the rail needs of an instrument in the house."""

    instrument: Instrument
    visit: Visit
