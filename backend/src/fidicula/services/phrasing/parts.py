"""What is said of a part of the instrument in a word, and in a line."""

from __future__ import annotations

from collections.abc import Mapping

from fidicula.services.assessment.parts import PartAssessment, PartState
from fidicula.services.numbers import listed, plural
from fidicula.tables.signs import findings

WORDS: Mapping[PartState, str] = {
    "decide": "to decide",
    "work": "work needed",
    "read_again": "read again",
    "in_order": "in order",
    "unknown": "not looked at",
}


def part_words(part: PartAssessment) -> str:
    """What is open there; the state alone where nothing is."""
    said = [one.deciding.title for one in part.questions]
    said += [findings()[name].label for name in part.findings]
    if part.again:
        said.append(f"{plural(len(part.again), 'reading', 'readings')} to take again")
    return f"{WORDS[part.state]}: {listed(said)}" if said else WORDS[part.state]
