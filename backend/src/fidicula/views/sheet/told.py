"""What is to be done now, as the sheet shows it. These values go to the screen as they are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from fidicula.codes import MeasureCode, WorkCode


@dataclass(frozen=True)
class RecordView:
    """A work that can be recorded now. label : what the button says."""

    work: WorkCode
    label: str


@dataclass(frozen=True)
class SlipView:
    """What is to be put right before anything is cut. act : that puts it right.  readings : it is about, by id."""

    code: str
    act: str
    readings: list[str]


@dataclass(frozen=True)
class AmountView:
    """One amount of an instruction. [mm, or its own unit]

    position : of the string, low 0; None where it is of none.  side : bass or treble, where it is of one.
    uncertainty : what covers 95 % of it; 0 where it is not measured.
    """

    name: str
    value: float
    position: int | None
    side: str
    uncertainty: float


@dataclass(frozen=True)
class ToReadView:
    """A place to read. times : so often in all, one more each of the same."""

    measure: MeasureCode
    position: int | None
    times: int


@dataclass(frozen=True)
class InstructionView:
    """What to do now. code : of instructions.csv.  part : of the instrument.  stop : of the visit.

    amounts : to take, file, turn; rounded down where wood goes.
    read : what is to be read, in its order; repeats : once more than before, beside what is there.
    title, says, do, caution : in words.  record : the work of the main button; also : what may be recorded as well.
    question : that is to be decided, empty for none.  until : when a wait is over.  makes_stale : in words.
    """

    code: str
    part: str
    stop: str
    title: str
    says: list[str]
    do: list[str]
    caution: str | None
    record: RecordView | None
    also: list[RecordView]
    question: str
    until: datetime | None
    makes_stale: list[str]
    slip: SlipView | None
    amounts: list[AmountView]
    read: list[ToReadView]
    repeats: bool
