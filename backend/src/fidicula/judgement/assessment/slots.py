"""How deep the slots at the bridge are by what was done to them, once their reading holds no more."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Protocol

from fidicula.core.readings.estimate import COVERS
from fidicula.core.readings.states import MeasurementKey, ReadingState
from fidicula.core.work.convergence import missed_by
from fidicula.domain.work_details import CrownBeside, CrownCut, SlotsFiled
from fidicula.domain.works import WorkDone
from fidicula.judgement.assessment.derived import Derived
from fidicula.judgement.targets.wanted import Targets
from fidicula.tables.work import invalidations


class Slotted(Protocol):
    """What of an instrument's state says how deep its slots are."""

    @property
    def standing_works(self) -> Sequence[WorkDone]: ...
    @property
    def reading_states(self) -> Mapping[MeasurementKey, ReadingState]: ...
    @property
    def targets(self) -> Targets: ...
    @property
    def diameters(self) -> Sequence[float]: ...


def slot_told(state: Slotted, position: int) -> Derived | None:
    """The depth that was read, less the wood that went, and deeper by what was filed; None where that is not known.

    A crown that goes below a slot gives the string a new one, as deep as the school wants it.
    """
    stand, ratio = state.reading_states.get(("slot_depth", position)), state.targets.slot_depth_ratio
    if stand is None or stand.state != "stale" or stand.value is None or ratio is None or not state.diameters:
        return None
    depth, known, seat = stand.value, stand.known_to / COVERS, ratio * state.diameters[position]
    for work in state.standing_works:
        if work.number <= stand.reading.after_work or work.work not in invalidations()["slot_depth"]:
            continue
        by = _at(work.detail, position)
        if by is None:
            return None
        if isinstance(work.detail, CrownCut):
            left = depth - by
            # A new slot is cut by eye.
            known = known if left > seat else math.hypot(missed_by(seat), missed_by(by))
            depth = max(left, seat)
        elif isinstance(work.detail, CrownBeside):
            depth = max(0.0, depth - by)
        else:
            depth += by
        known = math.hypot(known, missed_by(by))
    return Derived(depth, COVERS * known, "filed")


def _at(detail: object, position: int) -> float | None:
    """What a work took at a string; None where it says nothing of any."""
    by = detail.passes if isinstance(detail, CrownCut) else getattr(detail, "by", ())
    if not isinstance(detail, CrownCut | CrownBeside | SlotsFiled) or position >= len(by):
        return None
    return by[position] or 0.0
