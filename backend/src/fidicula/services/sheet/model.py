"""What a bench sheet consists of. These values go to the screen as they are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal

Standing = Literal["below", "in_band", "above"]
CellState = Literal["missing", "taken", "doubted", "stale"]
CutState = Literal["none", "provisional", "firm"]


@dataclass(frozen=True)
class BandView:
    """What is wanted, with where it comes from. [mm]

    standing : of the value here, None without one.  outside_by : negative below the band, 0 in it.
    """

    low: float
    aim: float
    high: float
    source: str
    standing: Standing | None
    outside_by: float


@dataclass(frozen=True)
class FoundView:
    """What readings say together. of : the measure that it is about, or `spacing_nut`, `spacing_bridge`."""

    of: str
    says: str


@dataclass(frozen=True)
class DoubtView:
    sentence: str
    suggested: float | None
    may_be_kept: bool


@dataclass(frozen=True)
class Cell:
    """One place that is read.

    position : of the string from the lowest, or of the place by name; None for a single reading.
    on_card : a bridge needs it.  turn : in a full measuring.  part : of the instrument.
    label, place : its name in two parts.
    form : where the same can be read in several ways, which of them this is.  tools : what it is read with.
    recheck : asked for when an instrument comes back.
    value : what holds, in mm; of a stale reading too.  assumed : what stands in for it in the cut.
    told, told_by : what other readings say of it, and which.
    spread_is_wide : its repeats lie further apart than the tool accounts for.
    last_time : what was read here at an earlier visit. [mm]
    """

    measure: str
    position: int | None
    name: str
    on_card: bool
    turn: int
    part: str
    label: str
    place: str
    unit: str
    form: str
    tools: list[str]
    recheck: bool
    state: CellState
    typed: str | None
    value: float | None
    assumed: float | None
    told: float | None
    told_by: str
    band: BandView | None
    doubt: DoubtView | None
    stale_because: str | None
    reading_id: str | None
    taken_by: str | None
    taken_at: datetime | None
    tool: str | None
    direction: str | None
    count: int
    last_time: float | None
    last_time_at: datetime | None
    repeat_spread: float
    spread_is_wide: bool


@dataclass(frozen=True)
class StringCutView:
    """What to take at one string. [mm]

    down : the string's way.  wood : to take off.  plus_minus : of the wood.
    wanted_end_height, wanted_mark : of the string at the wanted bridge, with their own ±.
    """

    name: str
    state: CutState
    wanted_end_height: float | None
    wanted_known_to: float | None
    wanted_mark: float | None
    mark_known_to: float | None
    down: float | None
    wood: float | None
    plus_minus: float | None
    first_pass: float | None
    old_slot_left: float | None
    nut_to_file: float | None
    last_wood: float | None


@dataclass(frozen=True)
class CutView:
    """state : `none` where nothing can be said yet.  assumed : in words, what the cut rests on unmeasured."""

    state: CutState
    strings: list[StringCutView]
    assumed: list[str]


@dataclass(frozen=True)
class ProblemView:
    """A shape that cannot be, and the place whose reading makes it so."""

    sentence: str
    measure: str | None
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
    """The End view's geometry. Offsets negative on the bass side. [mm]"""

    strings: list[DrawnString]
    crown_centre: list[float]
    crown_radius: float
    projection: float
    projection_assumed: bool
    foot_width: float
    waist_width: float
    bar_inset: float
    post_diameter: float


@dataclass(frozen=True)
class Why:
    """Behind one figure: the formula with this instrument's numbers, what it follows, who set that."""

    title: str
    lines: list[str]
    follows: str


@dataclass(frozen=True)
class Words:
    """What the sheet says: title, what it means, what to do in order, and the caution."""

    title: str
    says: list[str]
    do: list[str]
    caution: str | None


@dataclass(frozen=True)
class OutcomeView:
    """One way to decide. figures : what it takes, in words.  advised : what the readings speak for."""

    outcome: str
    label: str
    says: str
    figures: str
    advised: bool
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
class AskedView:
    """A question that somebody decides.

    because : what asks it, in words.  bars : works that wait for it, by label; none for one that is only advice.
    is_open : it was decided so that those may go on.  advised : what the signs speak for, None where they do not.
    """

    question: str
    title: str
    says: str
    because: list[str]
    bars: list[str]
    is_open: bool
    advised: str | None
    decided: DecidedView | None
    outcomes: list[OutcomeView]


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
    state: Literal["done", "passed", "here", "ahead", "waiting", "barred"]
    says: str
    until: datetime | None
    is_question: bool
    is_decided: bool
    by_hand: bool
    mark_id: str | None


@dataclass(frozen=True)
class NextView:
    """What is next and why. stop : of the course, empty where it is at its end.  until : where only time helps."""

    stop: str
    says: str
    why: str
    until: datetime | None


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
class Undoable:
    """The newest thing that can be taken back."""

    kind: Literal["reading", "work", "choice", "decision", "mark", "seen"]
    id: str
    words: str


@dataclass(frozen=True)
class InstrumentView:
    ticket: str
    family: str
    size: str
    string_names: list[str]
    left_handed: bool
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
class BenchSheet:
    """Everything that the bench sheet shows.

    last_work : the causal place of a reading taken now.  measure_again : what no cut may rest on any more.
    proposals : what the findings lead on to, until it was done.
    asks : what looks like a slip, as a question; it changes and bars nothing.
    findings : what readings say together.  notice : of this answer alone, where two wrote at once.
    """

    instrument: InstrumentView
    strings: SetView | None
    last_work: int
    cells: list[Cell]
    recipe: RecipeLine
    cut: CutView
    questions: list[AskedView]
    proposals: list[str]
    crown_barred: bool
    asks: list[str]
    findings: list[FoundView]
    measure_again: list[str]
    problem: ProblemView | None
    drawing: Drawing | None
    words: Words
    whys: dict[str, Why]
    course: list[Stop]
    next: NextView
    undoable: Undoable | None
    may_cut: bool
    may_file_nut: bool
    notice: str = ""


LogState = Literal["taken", "doubted", "corrected", "taken back", "work"]


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
