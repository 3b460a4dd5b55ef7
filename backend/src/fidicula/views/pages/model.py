"""What every page of an instrument consists of: finding, handles, consequences, ways to choose from."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from fidicula.codes import MeasureCode, WorkCode
from fidicula.views.pages.drawn import PageDrawing
from fidicula.views.sheet.told import InstructionView

CurveKind = Literal["now", "then", "wanted", "limit"]


@dataclass(frozen=True)
class HandleChoice:
    key: str
    label: str


@dataclass(frozen=True)
class Handle:
    """One thing that can be tried. [its unit]

    at : where it stands now.  rests_at : where it stands untouched.  low, high, step : how far it goes.
    rests_on : where its resting place comes from.  choices : for one that is chosen; `chosen` is its key.
    """

    name: str
    label: str
    unit: str
    at: float
    rests_at: float
    low: float
    high: float
    step: float
    rests_on: str
    choices: list[HandleChoice] = field(default_factory=list)
    chosen: str = ""


@dataclass(frozen=True)
class Consequence:
    """One number, as it is and as it would be. [its unit]

    now, then : None where it cannot be told.  places : shown behind the point.  why : the formula with these numbers.
    assumed : it rests on a figure.  band : what is wanted, as words.  standing : of `then` against that.
    """

    key: str
    label: str
    unit: str
    now: float | None
    then: float | None
    places: int
    why: list[str]
    assumed: bool = False
    band: str = ""
    side: str = ""


@dataclass(frozen=True)
class Curve:
    """points : [x, y], to be joined."""

    label: str
    kind: CurveKind
    points: list[list[float]]


@dataclass(frozen=True)
class Plot:
    """A drawing over two axes.

    down : y grows downward, as depth does.  removed : what is to come off, closed, for hatching.  says : for those who
    do not see it.
    """

    key: str
    title: str
    x_label: str
    y_label: str
    down: bool
    curves: list[Curve]
    removed: list[list[list[float]]]
    says: str


@dataclass(frozen=True)
class Table:
    """rows : a name and its cells as they are shown; a cell that is marked is one to heed."""

    title: str
    head: list[str]
    rows: list[list[str]]
    marked: list[list[int]]
    says: str = ""


@dataclass(frozen=True)
class Way:
    """One way to go on. outcome : of the page's question, empty where it is only laid beside the others.

    takes : what it takes and brings, in words.
    """

    outcome: str
    label: str
    says: str
    takes: list[str]
    recommended: bool = False


@dataclass(frozen=True)
class Retake:
    """A reading that has to be taken, or taken again, and why."""

    measure: MeasureCode
    position: int | None
    name: str
    why: str


@dataclass(frozen=True)
class Impossible:
    """A wish that cannot be. nearest : that can be had, None where none was found."""

    handle: str
    sentence: str
    nearest: float | None


@dataclass(frozen=True)
class PageView:
    """One page, computed for where its handles stand.

    finding : what the readings say.  retake : what bars the figures here.  assumed : what they rest on unmeasured.
    question : that the ways decide, empty where none is asked.  stale_after : what the work makes stale.
    shelf : the list of the shop that the page chooses from, empty for none.
    work, work_label : that can be written down here once it is done, empty for none.
    instruction : what is to be done now; is_here : it is about this page's part of the instrument.
    drawing : its numbers, None for a page that is drawn from the sheet's or not at all.
    perspective : a saying of the bench beside this instrument's numbers, empty for none.
    """

    page: str
    title: str
    finding: list[str]
    retake: list[Retake]
    assumed: list[str]
    impossible: Impossible | None
    handles: list[Handle]
    consequences: list[Consequence]
    plots: list[Plot]
    tables: list[Table]
    ways: list[Way]
    question: str
    stale_after: list[str]
    caution: str
    shelf: str
    work: WorkCode | Literal[""]
    work_label: str
    instruction: InstructionView
    is_here: bool
    drawing: PageDrawing | None = None
    perspective: str = ""
