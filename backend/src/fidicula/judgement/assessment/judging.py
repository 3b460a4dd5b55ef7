"""The log of a visit judged: what is known of an instrument at the bench, and with one more reading."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import datetime

from fidicula.codes import WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.damage import DamageLook
from fidicula.domain.instruments import Instrument
from fidicula.domain.lessons import NOTHING_LEARNT, Learnt
from fidicula.domain.readings import LastTime, Reading
from fidicula.domain.rereading import KEPT_WHEN_CORRECTED
from fidicula.domain.strings import StringSet
from fidicula.domain.visits import CourseMark, Decision, Seen
from fidicula.domain.works import WorkDone
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.targets.gauges import UNCHECKED, Gauges
from fidicula.judgement.targets.sources import logged, reading_states_of
from fidicula.judgement.targets.wanted import Targets


def bench_state(
    *,
    instrument: Instrument,
    string_set: StringSet | None,
    readings: Sequence[Reading],
    works: Sequence[WorkDone],
    targets: Targets,
    now: datetime,
    decisions: Sequence[Decision] = (),
    last_time: Mapping[MeasurementKey, LastTime] | None = None,
    seen: Sequence[Seen] = (),
    marks: Sequence[CourseMark] = (),
    learnt: Learnt = NOTHING_LEARNT,
    planned: Sequence[WorkCode] = (),
    damage: Sequence[DamageLook] = (),
    gauges: Gauges = UNCHECKED,
) -> BenchState:
    """The log judged: which readings hold, which are doubted, which went stale.

    readings : those that stand, and corrected ones of what moves by itself.
    """
    standing = [reading for reading in readings if reading.corrected_by is None]
    log = logged(standing, learnt.hands, gauges)
    return BenchState(
        instrument=instrument,
        string_set=string_set,
        readings=standing,
        works=works,
        targets=targets,
        reading_states=reading_states_of(log, works),
        decisions=decisions,
        last_time=last_time or {},
        seen=seen,
        marks=marks,
        every=[reading for reading in readings if reading.measure in KEPT_WHEN_CORRECTED],
        now=now,
        log=log,
        learnt=learnt,
        planned=planned,
        damage=damage,
        gauges=gauges,
    )


def with_reading(state: BenchState, added: Reading, readings: Sequence[Reading]) -> BenchState:
    """One more reading: of all places only its own stands again.

    readings : as for `bench_state`, with it among them.
    """
    place = (added.measure, added.position)
    standing = [reading for reading in readings if reading.corrected_by is None]
    log = logged(standing, state.learnt.hands, state.gauges)
    judged = reading_states_of(log, state.works, only=None if added.repeats else place)
    return replace(
        state,
        log=log,
        readings=standing,
        every=[reading for reading in readings if reading.measure in KEPT_WHEN_CORRECTED],
        reading_states={**state.reading_states, **judged},
    )
