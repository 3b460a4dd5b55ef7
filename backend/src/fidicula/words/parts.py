"""What is said of a part of the instrument: its name, a mark's few words, and a line."""

from __future__ import annotations

from collections.abc import Mapping

from fidicula.codes import Part
from fidicula.judgement.assessment.parts import PartAssessment, PartState
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.instruction.model import Instruction
from fidicula.numerals import number
from fidicula.tables.parts import parts
from fidicula.tables.signs import findings
from fidicula.tables.work import works
from fidicula.words.numbers import listed, lower_first, plural, to_take

_OF_FAMILY: Mapping[tuple[Part, str], str] = {("pegs", "bass"): "Machines"}


def label_of(part: Part, family: str) -> str:
    """What a family calls a part of it."""
    return _OF_FAMILY.get((part, family), parts()[part].label)


WORDS: Mapping[PartState, str] = {
    "decide": "to decide",
    "work": "work needed",
    "doubted": "check reading",
    "stale": "measure again",
    "above": "above",
    "below": "below",
    "left": "left as it is",
    "assumed": "assumed",
    "in_order": "in order",
    "unknown": "not read",
}
_AMOUNTS: Mapping[str, str] = {"take": "cut", "slot_by": "slots", "file_by": "file", "beside": "lower"}
"""What an amount is called where there is room for two words."""


def part_mark(part: PartAssessment, told: Instruction) -> str:
    """A few words beside its mark: how much is to come off where that is what to do now, else its state."""
    done_to = works()[told.records].part if told.records else None
    amounts = told.amounts if done_to == part.part else ()
    for name, verb in _AMOUNTS.items():
        values = sorted(one.value for one in amounts if one.name == name)
        if values:
            least, most = to_take(values[0]), to_take(values[-1])
            return f"{verb} {most}" if least == most else f"{verb} {least}–{most}"
    return f"{WORDS[part.state]} {_farthest(part)}" if _stands_off(part) else WORDS[part.state]


SMALL = 0.1
"""Under this a tenth says nothing. [mm]"""


def _stands_off(part: PartAssessment) -> bool:
    """Whether it stands out of its band, with nothing decided on it."""
    return part.state in ("above", "below")


def _off_words(part: PartAssessment, state: BenchState) -> str:
    """What of it stands farthest out of its band, and by how much."""
    more = f", {plural(len(part.off) - 1, 'other reading', 'other readings')} too" if len(part.off) > 1 else ""
    return f"{state.name(part.off[0][0])} by {_farthest(part)}{more}"


def _farthest(part: PartAssessment) -> str:
    by = abs(part.off[0][1])
    return number(by, 1 if by >= SMALL else 2)


def part_words(part: PartAssessment, state: BenchState) -> str:
    """What is open there, and what was done at this visit; the state alone where nothing is.

    How far a reading is off is said where no question or finding stands for it.
    """
    said = [lower_first(one.deciding.title) for one in part.questions]
    said += [lower_first(findings()[name].label) for name in part.findings]
    if part.again:
        said.append(f"{plural(len(part.again), 'reading', 'readings')} to take again")
    if not said and _stands_off(part):
        said.append(_off_words(part, state))
    open_words = f"{WORDS[part.state]}: {'; '.join(said)}" if said else WORDS[part.state]
    done = list(dict.fromkeys(works()[work].done_label for work in part.done))
    return f"{open_words}; {listed(done)}" if done else open_words
