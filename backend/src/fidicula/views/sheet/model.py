"""What a bench sheet consists of. These values go to the screen as they are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal

from fidicula.codes import MeasureCode, Part
from fidicula.judgement.assessment.model import CutState, StopState, StringCutFacts
from fidicula.judgement.assessment.parts import PartState
from fidicula.judgement.instruction.model import CutRole
from fidicula.views.sheet.cell import WireCells
from fidicula.views.sheet.told import InstructionView
from fidicula.words.model import FoundView, Undoable


@dataclass(frozen=True)
class CutView:
    """The wood at each string. role : what the amounts mean now; state : `none` where nothing can be said yet.

    assumed : in words, what the cut rests on that was not measured at this visit.
    """

    role: CutRole
    state: CutState
    strings: list[StringCutFacts]
    assumed: list[str]


@dataclass(frozen=True)
class ProblemView:
    """A shape that cannot be, and the place whose reading makes it so."""

    sentence: str
    measure: MeasureCode | None
    position: int | None


@dataclass(frozen=True)
class DrawnString:
    """One string at the bridge; heights over the belly. [mm]  assumed : its present place rests on figures."""

    name: str
    offset: float
    diameter: float
    board_line: float
    underside_wanted: float
    crown_wanted: float
    underside_now: float | None
    crown_now: float | None
    assumed: bool
    bow_separation: float | None


@dataclass(frozen=True)
class Drawing:
    """The End view's geometry. Offsets negative on the bass side. [mm]

    opposite_build : the post lies on the bass side, the bar on the treble side.
    wheels : how far apart its height wheels stand; None where it has none.
    """

    strings: list[DrawnString]
    crown_centre: list[float]
    crown_radius: float
    projection: float
    projection_assumed: bool
    foot_width: float
    waist_width: float
    bar_inset: float
    post_diameter: float
    opposite_build: bool
    wheels: float | None = None


@dataclass(frozen=True)
class OptionView:
    """One way to decide. figures : what it takes, in words.  recommended : what the readings speak for."""

    outcome: str
    label: str
    says: str
    figures: str
    recommended: bool
    needs_reason: bool


@dataclass(frozen=True)
class DecidedView:
    id: str
    outcome: str
    label: str
    reason: str
    by: str
    at: datetime | None
    waits_until: datetime | None


@dataclass(frozen=True)
class DecisionView:
    """A question that somebody decides.

    because : what asks it, in words.  bars : works that wait for it, by label; none for one that is only advice.
    is_open : it was decided so that those may go on.  recommended : what the signs speak for, None where they do not.
    """

    question: str
    title: str
    says: str
    because: list[str]
    bars: list[str]
    is_open: bool
    recommended: str | None
    decided: DecidedView | None
    options: list[OptionView]


@dataclass(frozen=True)
class Stop:
    """One stopped place on the course.

    says : why it is there, or what it waits for.  until : when a wait is over.
    is_decided : a question of which somebody said how to go on, though that may not be done yet.
    by_hand : somebody says that it is done; the rest shows by itself.  mark_id : of what was said of it last.
    """

    key: str
    label: str
    note: str
    state: StopState
    says: str
    until: datetime | None
    is_question: bool
    is_decided: bool
    by_hand: bool
    mark_id: str | None


@dataclass(frozen=True)
class FindingView:
    """One thing that can be seen at an item. leads_to : what it proposes to measure and to plan, in words."""

    finding: str
    label: str
    is_seen: bool
    leads_to: str


@dataclass(frozen=True)
class ItemView:
    """One item that is looked at. verdict : fine, watch, work, not_looked_at, or empty before anybody looked.

    look : how it is looked at.  is_asked : the visit's kind asks for it.
    mended : what was found and is no longer so, in words.  is_mended : all of it.
    """

    item: str
    label: str
    look: str
    is_asked: bool
    verdict: str
    words: str
    by: str
    at: datetime | None
    findings: list[FindingView]
    mended: list[str]
    is_mended: bool


@dataclass(frozen=True)
class Choice:
    """One thing that can be chosen."""

    key: str
    label: str


@dataclass(frozen=True)
class RecipeLine:
    """What the targets follow. own : what differs from the recipe, in words.

    heights_at_mark : the shop states its heights over the bridge's mark.
    """

    name: str
    own: list[str]
    heights_at_mark: bool


@dataclass(frozen=True)
class StringOn:
    name: str
    diameter: float


@dataclass(frozen=True)
class SetView:
    id: str
    name: str
    material: str
    strings: list[StringOn]


@dataclass(frozen=True)
class InstrumentView:
    ticket: str
    family: str
    size: str
    string_names: list[str]
    left_handed: bool
    opposite_build: bool
    is_new: bool
    owner: str
    description: str
    complaint: str
    visit_id: str
    visit_kind: str
    visit_label: str
    handed_over_at: datetime | None
    handed_over_by: str | None
    climate: str
    deadline: date | None
    no_risk_from: date | None
    promised: date | None
    freeze_days: int
    is_fleet: bool
    asked: dict[str, str]
    heed: list[str]


@dataclass(frozen=True)
class PartView:
    """One part of the instrument. mark : a few words beside its mark.  says : what is open there.

    done : whether something was done to it at this visit.  is_open : whether a hand-over leaves something open there.
    """

    part: Part
    label: str
    state: PartState
    mark: str
    says: str
    done: bool
    is_open: bool


@dataclass(frozen=True)
class Notice:
    """What to bear in mind. check : the tool that is to be checked, if that is what it says."""

    says: str
    check: str = ""


@dataclass(frozen=True)
class BenchSheet:
    """Everything that the bench sheet shows.

    last_work : the causal place of a reading taken now.  instruction : the one thing to do now.
    wanted_heights : under each string, at the mark or at the board's end, the way that column stands. [mm]
    proposals : what the findings lead on to, until it was done.  notices : what to bear in mind; it stops nothing.
    findings : what readings say together.  rests : why nothing is read under tension now; empty where it can be.
    notice : of this answer alone, where two wrote at once.
    """

    instrument: InstrumentView
    strings: SetView | None
    last_work: int
    cells: WireCells
    wanted_heights: list[float | None]
    recipe: RecipeLine
    cut: CutView
    instruction: InstructionView
    questions: list[DecisionView]
    proposals: list[str]
    notices: list[Notice]
    findings: list[FoundView]
    problem: ProblemView | None
    drawing: Drawing | None
    parts: list[PartView]
    course: list[Stop]
    undoable: Undoable | None
    rests: str = ""
    notice: str = ""


LogState = Literal["current", "doubted", "corrected", "taken back", "work"]


@dataclass(frozen=True)
class LogLine:
    """One line of the visit's log. value : as typed.  at : when it was taken or done.  state : what became of it."""

    what: str
    value: str
    by: str
    at: datetime
    tool: str
    state: LogState
    recorded_at: datetime


@dataclass(frozen=True)
class TargetLine:
    """One target in numbers.

    aim : None where there is no figure.  plus_minus : how well it is known, where it was computed.
    key : unique among the lines.
    """

    key: str
    part: str
    label: str
    unit: str
    low: float | None
    aim: float | None
    high: float | None
    plus_minus: float | None
    source: str


@dataclass(frozen=True)
class TargetChange:
    """What a choice would do to one target, or to one cut; None: there was, or would be, no figure."""

    key: str
    part: str
    label: str
    unit: str
    before: float | None
    after: float | None
    source: str
