"""The amounts of an instruction, for its sentences."""

from __future__ import annotations

from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.instruction.model import AmountName, Instruction


def by_string(a: Assessment, found: Instruction, name: AmountName) -> dict[str, float]:
    """The amounts of a name, by the string's name."""
    names = a.state.instrument.string_names
    return {names[one.position]: one.value for one in found.amounts if one.name == name and one.position is not None}


def one(found: Instruction, name: AmountName) -> float | None:
    return next((amount.value for amount in found.amounts if amount.name == name), None)
