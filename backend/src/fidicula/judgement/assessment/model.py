"""What an assessment is made of: numbers, codes and keys, no words."""

from __future__ import annotations

from dataclasses import dataclass, fields
from datetime import datetime
from typing import Literal, cast

from fidicula.codes import QuestionCode, StepCode, WorkCode
from fidicula.core.readings.states import CellState, MeasurementKey
from fidicula.domain.visits import Decision
from fidicula.tables.workflow import Deciding, Outcome, questions, steps

CutState = Literal["none", "provisional", "firm"]
StopState = Literal["done", "passed", "here", "ahead", "waiting", "barred"]


@dataclass(frozen=True)
class StringCutFacts:
    """What would have to come off at one string. [mm]

    target_end, target_mark : of the string at the target bridge, each with its uncertainty.
    drop : the string's way down.  wood : to take in all, negative where wood is missing.  uncertainty : ± of it.
    next_pass : that the next cut sets out to take; None where the last one cannot be and is measured again.
    old_slot_left : what stays of the old slot below the new crown.
    nut_to_file, nut_target : off the nut slot, less what its readings leave open, and the height that is wanted; None
    where it is not read.  nut_known_to : ± of its height.
    set_out : what the last pass was to take; left_before : what was to go before it.
    drop_known_to : what covers 95 % of the way down.  drop_chance : what of that more readings of its height lessen.
    slot_by : to file off the slot's floor now, 0 for nothing.
    beside : of its slot, more than a third of the string; None where the slot is not read.
    more : readings of its height that the cut at hand wants more.  slot_again : its slot is to be read once more before
    a rough crown.  landed : it may be left as it is.
    """

    name: str
    state: CutState
    target_end: float | None
    target_end_uncertainty: float | None
    target_mark: float | None
    target_mark_uncertainty: float | None
    drop: float | None
    wood: float | None
    uncertainty: float | None
    next_pass: float | None
    old_slot_left: float | None
    nut_to_file: float | None
    nut_target: float | None
    nut_known_to: float | None
    set_out: float | None
    left_before: float | None
    drop_known_to: float | None
    drop_chance: float | None
    slot_by: float | None
    beside: float | None
    more: int | None
    slot_again: bool | None
    landed: bool | None


def unknown_cut(name: str) -> StringCutFacts:
    """A string of which nothing is known yet."""
    return StringCutFacts(name, "none", *(None for _ in fields(StringCutFacts)[2:]))


@dataclass(frozen=True)
class Assumption:
    """A value that the cut rests on and that was not measured. reading : what became of a reading that was."""

    key: MeasurementKey
    value: float
    reading: CellState | None = None
    is_last_visit: bool = False


@dataclass(frozen=True)
class CutFacts:
    """The whole cut. state : `none` where nothing can be said yet.

    begun : wood went at the crown or in a slot at this visit, so that every string is brought to its aim.
    rough : the crown is to be cut before the slots are filed.  beside_done : it was lowered since.
    settling : what strings that were just put on may still come down by, 0 where they have settled. [mm at the bridge]
    """

    state: CutState
    strings: tuple[StringCutFacts, ...]
    assumed: tuple[Assumption, ...] = ()
    begun: bool = False
    rough: bool = False
    beside_done: bool = False
    settling: float = 0.0


@dataclass(frozen=True)
class Question:
    """One question that somebody decides, as it stands at an instrument.

    because : the signs that ask it.  options : that there are here.  recommended : what the signs speak for, None where
    they leave it open.  outcome : what was decided.
    """

    deciding: Deciding
    because: tuple[str, ...]
    options: tuple[Outcome, ...]
    recommended: Outcome | None
    decision: Decision | None
    outcome: Outcome | None
    waits_until: datetime | None = None

    @property
    def question(self) -> QuestionCode:
        return self.deciding.question

    @property
    def is_open(self) -> bool:
        """Whether the works behind it may go on."""
        return self.outcome is not None and self.outcome.opens_gate

    def bars(self, work: WorkCode) -> bool:
        return work in self.deciding.bars and not self.is_open


SlipCode = Literal[
    "bass_treble_swapped", "strings_swapped", "wrong_instrument", "changed_without_work", "contradiction", "other_air",
    "tool_unchecked",
    "tool_off",
]  # fmt: skip
Act = Literal["", "swap", "move", "record_cut", "choose_strings", "check_tool"]


@dataclass(frozen=True)
class Slip:
    """What looks like a slip. keys, values : of the readings; before : what stood there.  act : what puts it right.

    stops : no cut is instructed meanwhile.  subject : a tool, or which readings contradict each other.
    """

    code: SlipCode
    keys: tuple[MeasurementKey, ...] = ()
    values: tuple[float, ...] = ()
    before: tuple[float, ...] = ()
    act: Act = ""
    stops: bool = False
    subject: str = ""
    at: datetime | None = None


@dataclass(frozen=True)
class StepAssessment:
    """One stop of the visit, with codes instead of words.

    count : readings taken, items left or readings stale, as the step counts.  of : how many there are.
    because : why it waits, by the work or the reason that somebody gave.  redone_after : the work since.
    planned : the work that it stands for, which is on the plan and belongs to no step.
    """

    key: str
    state: StopState
    is_question: bool = False
    is_decided: bool = False
    outcome: str = ""
    by_hand: bool = False
    mark_id: str | None = None
    until: datetime | None = None
    waits_after: WorkCode | Literal[""] = ""
    reason: str = ""
    count: int | None = None
    of: int | None = None
    redone_after: WorkCode | Literal[""] = ""
    is_lost: bool = False
    planned: WorkCode | Literal[""] = ""

    @property
    def step(self) -> StepCode:
        """The step that it is. Raises KeyError for a question or a planned work."""
        return steps()[cast(StepCode, self.key)].step

    @property
    def question(self) -> QuestionCode:
        """The question that it is. Raises KeyError for a step or a planned work."""
        return questions()[cast(QuestionCode, self.key)].question
