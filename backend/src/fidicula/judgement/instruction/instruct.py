"""The instruction: what to do now, found in one order that every view reads.

What looks like a slip first, then a post that is down, then what somebody decided and nobody has done yet, then what
the step of the visit asks for; and whatever that is, a question or a wait that stands before its work comes before it.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Literal

from fidicula.codes import QuestionCode, WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.damage import damage_marks
from fidicula.judgement.assessment.edges import lean_wanted
from fidicula.judgement.assessment.model import Question, StepAssessment
from fidicula.judgement.assessment.projection import is_unsure
from fidicula.judgement.assessment.questions import to_measure_again
from fidicula.judgement.assessment.workflow import baseline_keys, first_planned
from fidicula.judgement.instruction.amounts import keys_of_card, told
from fidicula.judgement.instruction.convergence import cutting, filing_nut, measuring, projection_again
from fidicula.judgement.instruction.model import Instruction
from fidicula.judgement.instruction.role import also_recorded, cut_role, only_waits
from fidicula.judgement.measures import CARD
from fidicula.tables.work import invalidations
from fidicula.tables.workflow import Outcome, instructions, steps

_BY_DECISION_ALONE = frozenset({"wait", "estimate", "ask_owner"})
"""What an option instructs only where its question stands in the way."""
FROM_BLANK = "new_bridge"
"""The kind of visit at which a bridge is made from a blank: its first crown is cut by the marks, unmeasured."""
_ELSEWHERE: Mapping[str, QuestionCode] = {"see_to_projection": "projection", "see_to_board": "board"}
"""Options that point at another question: they are that question's instruction while it is asked."""
_BY_COMPUTING = ("turn_wheels", "lower_crown")
"""Options with amounts that follow from the whole bridge: without it, what it lacks comes first."""


def instruct(a: Assessment) -> Instruction:
    """Exactly one main thing."""
    found = _first(a)
    row = instructions()[found.code]
    recorded = None if found.code in _NEVER_RECORDED else row.records
    records: WorkCode | Literal[""] = found.records or recorded or ""
    found = replace(found, part=row.part or "", records=records, makes_stale=_made_stale(records))
    role, also = cut_role(a, found), also_recorded(a, found)
    return replace(found, cut_role="may" if role == "waits" and "crown_cut" in also else role, also=also)


_NEVER_RECORDED = frozenset({"decide", "measure"})


def _made_stale(work: WorkCode | Literal[""]) -> tuple[str, ...]:
    return tuple(measure for measure, works in invalidations().items() if work in works)


def _first(a: Assessment) -> Instruction:
    if a.visit.closed_at is not None:
        return Instruction("handed_over")
    for find in (_slip, _post_down, _damage_again, _decided):
        found = find(a)
        if found is not None:
            return found
    return _of_course(a)


def _slip(a: Assessment) -> Instruction | None:
    slip = next((one for one in a.slips if one.stops), None)
    return None if slip is None else Instruction("check_readings", slip=slip, keys=slip.keys)


def _post_down(a: Assessment) -> Instruction | None:
    """Without a post nothing that needs tension is asked for; a decision to go on with slack strings rules."""
    asked = a.question("post_fallen")
    if asked is None or asked.is_open:
        return None
    return _gated(a, _by_option(a, asked, asked.outcome or asked.recommended or asked.options[0]))


def _damage_again(a: Assessment) -> Instruction | None:
    """A mark that was worked on stays as it was last seen until somebody looks again; not while its glue rests."""
    if any(stop.state == "waiting" for stop in a.stops):
        return None
    worked_on = any(mark.is_worked_on for mark in damage_marks(a.state.damage))
    return Instruction("see_damage") if worked_on else None


def _decided(a: Assessment) -> Instruction | None:
    """What somebody decided and nobody has done yet, in the order of the table."""
    for asked in a.questions:
        option = asked.outcome
        if option is None or not option.instructs or option.instructs in _BY_DECISION_ALONE:
            continue
        if _is_fulfilled(a, asked, option) or only_waits(a, _records(option)):
            continue
        found = _by_option(a, asked, option)
        if found is not None:
            return _gated(a, found)
    return None


def _records(option: Outcome) -> WorkCode | Literal[""]:
    return (instructions()[option.instructs].records if option.instructs else None) or ""


def _is_fulfilled(a: Assessment, asked: Question, option: Outcome) -> bool:
    """Whether the work that an option asks for was done since; a cut or a turn is told again from the readings."""
    if option.instructs in ("cut_crown", "turn_wheels", "file_nut"):
        return False
    after = 0 if asked.decision is None else asked.decision.after_work
    return any(w.work == _records(option) and w.number > after for w in a.state.standing_works)


def _by_option(a: Assessment, asked: Question, option: Outcome) -> Instruction | None:
    """An option's instruction; None where it has nothing to take now."""
    code = option.instructs
    if not code:
        return None
    if code in _ELSEWHERE:
        other = a.question(_ELSEWHERE[code])
        if other is None or other.is_open:
            return None
        return _of_question(a, other)
    base = Instruction(
        code, question=asked, option=option.outcome, is_decided=option == asked.outcome, stop=asked.question
    )
    if code == "cut_crown":
        return cutting(a, base)
    if code == "file_nut":
        return _file(a, base)
    found = told(a, code)
    if found.keys:
        return measuring(a, found.keys, base)
    lacks = None if found.amounts or code not in _BY_COMPUTING else _lacks(a)
    return replace(base, amounts=found.amounts) if lacks is None else replace(lacks, stop=asked.question)


def _gated(a: Assessment, found: Instruction | None) -> Instruction | None:
    """An instruction, or the question that its work waits for."""
    if found is None:
        return None
    work = instructions()[found.code].records
    barring = None if not work or found.code in _NEVER_RECORDED else a.barring(work)
    if barring is None or (found.question is not None and barring.question == found.question.question):
        return found
    return _of_question(a, barring)


def _of_question(a: Assessment, asked: Question) -> Instruction:
    """A question that stands in the way: to decide it, or what was decided."""
    option = asked.outcome
    if option is None and asked.deciding.undecided == "follow" and asked.recommended is not None:
        found = _by_option(a, asked, asked.recommended) if asked.recommended.instructs else None
        if found is not None:
            return found
    if option is None or not option.instructs:
        return Instruction("decide", question=asked, stop=asked.question)
    if option.instructs in _BY_DECISION_ALONE:
        return Instruction(
            option.instructs,
            question=asked,
            option=option.outcome,
            is_decided=True,
            stop=asked.question,
            until=asked.waits_until,
        )
    return _by_option(a, asked, option) or Instruction("decide", question=asked, stop=asked.question)


def _of_course(a: Assessment) -> Instruction:
    here = a.here
    if here is None:
        return _at_the_end(a)
    if here.is_question:
        asked = a.question(here.question)
        if asked is not None:
            return _of_question(a, asked)
    found = _at_step(a, here)
    if found.code == "measure" and not found.keys:
        return _at_the_end(a)
    gated = _gated(a, found)
    return replace(gated or found, stop=(gated or found).stop or here.key)


def _at_the_end(a: Assessment) -> Instruction:
    waiting = [stop for stop in a.stops if stop.state == "waiting" and stop.until is not None]
    if waiting:
        first = min(waiting, key=lambda stop: stop.until or a.now)
        asked = a.question(first.question) if first.is_question else None
        if asked is not None:
            return _of_question(a, asked)
        return Instruction(
            "wait", stop=first.key, until=first.until, waits_after=first.waits_after, reason=first.reason
        )
    barred = next((stop for stop in a.stops if stop.state == "barred"), None)
    if barred is not None:
        if a.state.string_set is None:
            return Instruction("name_strings", stop=barred.key)
        asked = next((one for one in a.questions if steps()[barred.step].works & one.deciding.bars), None)
        if asked is not None and not asked.is_open:
            return _of_question(a, asked)
    for asked in a.questions:
        if asked.outcome is not None and not asked.deciding.bars and asked.outcome.instructs in _BY_DECISION_ALONE:
            return _by_option(a, asked, asked.outcome) or _to_end(a)
    return _to_end(a)


def _to_end(a: Assessment) -> Instruction:
    """What is asked and not decided, stale on the card, or planned and not done comes before the hand-over."""
    asked = next((one for one in a.questions if one.outcome is None), None)
    if asked is not None:
        return Instruction("decide", question=asked, stop=asked.question)
    stale = {place for part in a.parts for place in part.again}
    again = tuple(key for key in keys_of_card(a, tuple(CARD)) if key in stale)
    if again and any(stop.key == "settled" for stop in a.stops):
        return measuring(a, again)
    work = first_planned(a.stops)
    if work:
        return Instruction("do_planned", stop=f"planned:{work}", planned=work)
    return Instruction("hand_over")


def _at_step(a: Assessment, here: StepAssessment) -> Instruction:
    step = steps()[here.step]
    ruling = _ruling_question(a, here.key)
    if ruling is not None:
        return ruling
    code = step.instructs
    if not code:
        raise KeyError(step.step)
    if code in ("cut_crown", "file_nut", "measure"):
        lacks = _lacks(a)
        if lacks is not None:
            return lacks
    if code == "cut_crown":
        if a.visit.kind == FROM_BLANK and here.key == "crown" and a.cut.state == "none":
            return Instruction("cut_crown", amounts=told(a, "mark_line").amounts)
        return cutting(a, Instruction(code)) or _nothing_to_cut(a)
    if code == "file_nut":
        return _file(a, Instruction(code)) or _nothing_to_cut(a)
    if code == "measure":
        return measuring(a, tuple(_keys_at(a, here)))
    if code == "baseline":
        return Instruction(code, keys=tuple(baseline_keys(a.state)))
    if code == "string_outer":
        return Instruction(code, keys=(("end_height", 0), ("end_height", a.state.count - 1)))
    return Instruction(code, amounts=told(a, code).amounts)


def _lacks(a: Assessment) -> Instruction | None:
    """What no bridge can be worked out without."""
    if a.state.string_set is None:
        return Instruction("name_strings")
    if a.state.targets.blocked:
        return Instruction("enter_figures", missing=a.state.targets.missing)
    if a.impossible is not None:
        measure = a.impossible.measure
        keys: tuple[MeasurementKey, ...] = () if measure is None else ((measure, None),)
        return Instruction("check_shape", keys=keys)
    if is_unsure(a.state):
        return projection_again(a)
    if a.computed is None and not any(r.measure == "end_height" for r in a.state.readings):
        return Instruction("enter_figures", missing=a.state.targets.missing) if a.state.targets.missing else None
    return None


def _keys_at(a: Assessment, here: StepAssessment) -> Iterator[MeasurementKey]:
    """What is measured at this step: what went stale or waits for a word, else what is not read, the card's order."""
    open_keys = a.state.to_read(keys_of_card(a, tuple(CARD)))
    again = [key for key in open_keys if key in a.state.reading_states]
    heights = [key for key in open_keys if key[0] == "end_height"]
    if a.cut.begun:
        again = [key for key in again if key[0] != "slot_depth"]
    yield from (again or heights) if here.key == "again" else (*open_keys, *lean_wanted(a.state))


def _ruling_question(a: Assessment, step: str) -> Instruction | None:
    """The first open question that takes this step's instruction over."""
    for asked in a.questions:
        deciding = asked.deciding
        if deciding.rules_at != step and not (step == "settled" and deciding.rules_at == "crown"):
            continue
        if asked.outcome is not None:
            continue
        if deciding.undecided == "decide":
            return Instruction("decide", question=asked, stop=asked.question)
        if asked.recommended is not None and asked.recommended.instructs:
            found = _by_option(a, asked, asked.recommended)
            if found is not None:
                return found
    return None


def _file(a: Assessment, base: Instruction) -> Instruction | None:
    """The nut's filing, or what it lacks; None where nothing has to come off."""
    again = tuple(to_measure_again(a.state, "nut_filed"))
    unread = tuple(key for key in keys_of_card(a, ("nut_height",)) if key not in a.state.reading_states)
    if again or (unread and base.question is None):
        return measuring(a, again or unread, base)
    return filing_nut(a, base)


def _nothing_to_cut(a: Assessment) -> Instruction:
    """A cut's step that is open though nothing has to come off: what is still unread or missing says why."""
    unread = a.state.to_read(keys_of_card(a, tuple(CARD)))
    if unread:
        return measuring(a, unread)
    low = a.question("bridge_low")
    if low is not None and low.outcome is None:
        return Instruction("decide", question=low, stop=low.question)
    return _to_end(a)
