"""What the strings of an instrument come down by once they are up: seen at this visit and at earlier ones."""

from __future__ import annotations

import math
from datetime import datetime, timedelta
from statistics import fmean

from fidicula.core.readings.settling import still_settles
from fidicula.domain.readings import Reading
from fidicula.domain.rereading import TYPED_AGAIN_WITHIN
from fidicula.domain.work_details import positions_of
from fidicula.judgement.assessment.computing import Computed
from fidicula.judgement.assessment.estimating import upright_share
from fidicula.judgement.assessment.state import BenchState
from fidicula.tables.work import tools

STRINGS_UP = frozenset({"strings_changed", "new_bridge", "crown_cut", "slots_filed"})
"""After these the strings are put up."""
JUST_UP = TYPED_AGAIN_WITHIN
"""Read so soon after the strings were up, they have hardly begun to settle."""
SETTLED = timedelta(hours=4)
"""Read so long after, they have come down by most of it."""


def settles_by(state: BenchState, computed: Computed) -> float:
    """What its strings may still come down by as they settle, at the bridge. [mm]"""
    scatter = math.sqrt(2) * tools()["caliper"].scatter * at_bridge(state, computed, 0)
    return still_settles([*state.learnt.settled, *settled_here(state, computed)], scatter=scatter)


def settled_here(state: BenchState, computed: Computed | None) -> list[float]:
    """What each string came down by at this visit, from just after it was up to when it had settled. [mm, bridge]"""
    if computed is None:
        return []
    found = []
    for i in range(state.count):
        for up_at, after_work in _times_up(state, i):
            here = _taken_after(state, i, after_work)
            early = [one for one in here if timedelta(0) <= one.taken_at - up_at <= JUST_UP]
            late = [one for one in here if one.taken_at - up_at >= SETTLED]
            if early and late and len({one.direction for one in (*early, *late)}) == 1:
                fell = fmean(one.value for one in early) - fmean(one.value for one in late)
                found.append(fell * at_bridge(state, computed, i))
    return found


def _taken_after(state: BenchState, position: int, after_work: int) -> list[Reading]:
    """What was read of a string after a work, without what was typed again at once."""
    found: list[Reading] = []
    for one in sorted(state.every, key=lambda one: one.number):
        is_here = (one.measure, one.position, one.after_work) == ("end_height", position, after_work)
        if not is_here or one.taken_back or one.simulated or (one.doubt is not None and not one.confirmed):
            continue
        if not one.repeats:
            found = [before for before in found if one.taken_at - before.taken_at > JUST_UP]
        found.append(one)
    return found


def _times_up(state: BenchState, position: int) -> list[tuple[datetime, int]]:
    """When a string went up, with the number of the work after which it did."""
    return [
        (work.done_at, work.number)
        for work in state.standing_works
        if work.work in STRINGS_UP and ((of := positions_of(work.detail)) is None or position in of)
    ]


def at_bridge(state: BenchState, computed: Computed, i: int) -> float:
    """What 1 mm of a string's height, as it is read, is along the bridge. [mm]"""
    return computed.board.carry / computed.board.squareness * upright_share(state, i)
