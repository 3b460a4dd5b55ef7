"""What the cut is to the instruction (due, allowed, waiting, only the way to the aim), and what is recorded beside."""

from __future__ import annotations

from typing import Literal

from fidicula.codes import WorkCode
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.model import Question
from fidicula.judgement.assessment.questions import to_measure_again
from fidicula.judgement.assessment.thresholds import WORTH_FILING, WORTH_TAKING, strings_in_band
from fidicula.judgement.instruction.model import CutRole, Instruction
from fidicula.tables.workflow import Outcome, steps_for


def only_waits(a: Assessment, work: WorkCode | Literal[""]) -> bool:
    """Whether the step of a work only waits."""
    if not work:
        return False
    return any(stop.state == "waiting" and stop.key in steps_for(work) for stop in a.stops)


_BY_WORK: dict[str, CutRole] = {"slots_filed": "slots", "crown_beside": "beside"}


def cut_role(a: Assessment, found: Instruction) -> CutRole:
    """What the amounts mean that stand over the strings. While the nut is filed they are the nut's."""
    if a.cut.state == "none":
        return "none"
    if strings_in_band(a.state, a.cut) and not a.cut.begun:
        return "to_aim"
    if found.records == "adjusters_turned" and found.code != "measure":
        return "wheels"
    if found.records == "nut_filed" and found.code != "measure":
        return "nut"
    if found.records == "crown_cut" and found.code != "measure":
        return "due"
    if a.cut.begun and not a.cut.rough:
        return "coming_down" if found.code == "measure" else _BY_WORK.get(found.records, "coming_down")
    if found.records == "slots_filed" and found.code != "measure":
        return "slots"
    return "not_chosen" if any(_goes_round_the_crown(one.outcome) for one in _of_heights(a)) else "waits"


def speaks_of_wood(a: Assessment) -> bool:
    """Whether wood may be named at all: not where another way was decided, or is recommended and still open."""
    return not any(_goes_round_the_crown(one.outcome or one.recommended) for one in _of_heights(a))


def _of_heights(a: Assessment) -> list[Question]:
    """The questions that decide what becomes of the strings' heights."""
    return [one for one in a.questions if one.question in ("high_strings", "bridge_low", "bar", "bridge_warped")]


def _goes_round_the_crown(option: Outcome | None) -> bool:
    return option is not None and option.instructs not in ("", "cut_crown", "file_nut")


def _may_be_cut(a: Assessment) -> bool:
    """Whether a cut may be recorded beside what is asked for: before all is measured, never past a gate."""
    if a.cut.state == "none" or a.barring("crown_cut") or to_measure_again(a.state):
        return False
    if any(one.stops for one in a.slips) or only_waits(a, "crown_cut"):
        return False
    return any(s.wood is not None and s.wood >= WORTH_TAKING for s in a.cut.strings)


def also_recorded(a: Assessment, found: Instruction) -> tuple[WorkCode, ...]:
    """What may be recorded as well: the other of nut and crown where neither bars the other."""
    if found.code in ("handed_over", "check_readings", "decide", "wait", "set_post"):
        return ()
    role = cut_role(a, found)
    works: list[WorkCode] = []
    by_question = found.question is not None
    if found.records != "crown_cut" and role == "waits" and not by_question and _may_be_cut(a):
        works.append("crown_cut")
    to_file = any((s.nut_to_file or 0.0) >= WORTH_FILING for s in a.cut.strings)
    if found.records != "nut_filed" and to_file and not by_question and a.barring("nut_filed") is None:
        works.append("nut_filed")
    return tuple(works)
