"""What an older reading still says once its place was read again."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import timedelta

from fidicula.domain.readings import Reading

KEPT_WHEN_CORRECTED = ("projection", "end_height")
"""What moves by itself, by the air or as strings settle: an older reading still says what it was."""


TYPED_AGAIN_WITHIN = timedelta(hours=1)
"""A height that is read again so soon has hardly settled: only the newer one says something."""


def readings_with(readings: Sequence[Reading], added: Reading, *, corrects: int | None) -> list[Reading]:
    """A sheet's readings with one more, as they would be read again. corrects : number of the one before."""
    found: list[Reading] = []
    for one in (*readings, added):
        if one.number == corrects:
            corrected = replace(one, corrected_by=added.number)
            found += [corrected] if _is_kept(corrected, added) else []
        elif one is added and added.corrected_by is not None:
            later = next(there for there in readings if there.number == added.corrected_by)
            found += [added] if _is_kept(added, later) else []
        else:
            found.append(one)
    return found


def _is_kept(one: Reading, later: Reading) -> bool:
    """Whether a corrected reading says something still, as the statement below has it. later : what corrects it."""
    is_typed_again = (
        one.measure == "end_height"
        and later.taken_at - one.taken_at <= TYPED_AGAIN_WITHIN
        and (later.doubt is None or later.confirmed)
        and not later.simulated
    )
    return one.measure in KEPT_WHEN_CORRECTED and not is_typed_again
