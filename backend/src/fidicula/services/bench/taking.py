"""A reading as it comes from the bench: where it stands in the log, and whether it looks like a slip."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from functools import partial
from uuid import UUID

from fidicula.core.fitting.post import to_near_side
from fidicula.core.readings.doubt import (
    Doubt,
    change_without_work,
    doubt_about_zero,
    doubt_of,
    leap_from,
)
from fidicula.core.readings.states import MeasurementKey
from fidicula.core.readings.typed import in_unit, millimetres, signed_millimetres, to_a_side
from fidicula.domain.errors import RefusedError
from fidicula.domain.readings import NewReading, Reading
from fidicula.judgement.assessment.likely import LEAPING, plausible_at
from fidicula.judgement.assessment.slips import last_reading
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES, name_of
from fidicula.judgement.visit_record import VisitRecord
from fidicula.tables.measures import MeasureRow
from fidicula.tables.rows import row_of
from fidicula.tables.work import tools
from fidicula.words.meanwhile import two_readings

CLOCKS_DIFFER = timedelta(minutes=5)


@dataclass(frozen=True)
class ReadingInput:
    """A reading as it comes from the bench. after_work : the last work that was known when it was taken.
    after_act : id of a work that was still on its way then; where it came to nothing, `after_work` counts.

    shown : the reading that the page showed at this place, None for none; says_shown : a page showed it, no table.
    from_paper : it was written on a card; its time says which work came before it.
    simulated : a stand-in sent it, no device of the shop.
    visit : the visit that the page showed; None where it is not known, which is the visit of now.
    """

    id: UUID
    measure: str
    position: int | None
    typed: str
    tool: str
    taken_by: str
    taken_at: datetime
    after_work: int
    repeats: bool
    from_paper: bool = False
    shown: UUID | None = None
    says_shown: bool = False
    simulated: bool = False
    visit: UUID | None = None
    after_act: UUID | None = None


def names_a_side(taking: ReadingInput) -> bool:
    """Whether a place of the post was read to its middle or its far side: then the post's diameter is needed."""
    return taking.measure in _OF_POST and to_a_side(taking.typed)[1] in ("middle", "far")


def new_reading(
    loaded: VisitRecord, state: BenchState, taking: ReadingInput, *, post_diameter: float | None = None
) -> tuple[NewReading, int | None]:
    """The reading as it is kept, and the number of the one that it corrects.

    state : before it was taken.  post_diameter : of the post that stands, where the reading names a side of it. [mm]
    """
    measure = row_of(MEASURES, taking.measure)
    family, names = loaded.instrument.family, loaded.instrument.string_names
    if measure is None or not measure.fits(family):
        raise RefusedError(f"“{taking.measure}” is nothing that is measured on a {family}", field="measure")
    if taking.position not in measure.positions(len(names)):
        which = "string" if measure.for_each_string else "place"
        raise RefusedError(f"say which {which} the reading “{measure.label}” belongs to", field="position")
    tool = row_of(tools(), taking.tool)
    if tool is None:
        raise RefusedError(f"“{taking.tool}” is not a tool of this shop", field="tool")
    if tool.tool not in measure.tools:
        suited = " or ".join(tools()[name].label for name in measure.tools)
        raise RefusedError(f"{measure.label} is read with {suited}; in the hand was: {tool.label}", field="tool")
    taking = replace(taking, after_work=_number_of(loaded, taking.after_act) or taking.after_work)
    if taking.after_work and not any(work.number == taking.after_work for work in loaded.works):
        raise RefusedError("the work that this reading was taken after is not known here", field="after_work")
    if taking.from_paper:
        taking = _in_its_place(loaded, taking)
    name = name_of(measure, names, taking.position)
    value = _value(measure, taking, name, state, post_diameter) - tool.offset
    doubt = _doubt(state, measure, taking, value)
    before = state.reading_states.get((measure.measure, taking.position))
    corrects = corrected_by = None
    if before is not None and before.reading.after_work == taking.after_work and not taking.repeats:
        there = next(reading for reading in loaded.readings if reading.number == before.reading.number)
        # Of two that did not know of each other, as of a card that is entered late, the one taken last stands.
        if (taking.from_paper or _is_unseen(there, taking)) and there.taken_at > taking.taken_at:
            corrected_by = there.number
        else:
            corrects = there.number
    new = NewReading(
        id=taking.id,
        visit_id=loaded.visit.id,
        measure=measure.measure,
        position=taking.position,
        typed=taking.typed,
        value=value,
        tool=tool.tool,
        direction=tool.direction if measure.height else None,
        taken_by=taking.taken_by,
        taken_at=taking.taken_at,
        after_work=taking.after_work or None,
        repeats=taking.repeats and before is not None,
        doubt=doubt.code if doubt else None,
        suggested=doubt.suggested if doubt else None,
        doubt_about=doubt.about if doubt else None,
        corrected_by=corrected_by,
        simulated=taking.simulated,
    )
    return new, corrects


_OF_POST = ("post_setback", "post_inset")
"""Places of the post, kept as they are to its near side: the one toward what they are read from."""


def _value(
    measure: MeasureRow, taking: ReadingInput, name: str, state: BenchState, post_diameter: float | None
) -> float:
    """What was read, as it is kept. Raises CoreError for what is no measurement, and RefusedError for a side alone."""
    if measure.measure not in _OF_POST:
        return _reader(measure)(taking.typed, what=name)
    rest, side = to_a_side(taking.typed)
    value = _reader(measure)(rest, what=name)
    stated = state.targets.schools["post_statement"]
    if side is None and stated != "near":
        word, to = ("mid", "middle") if stated == "middle" else (stated, f"{stated} side")
        raise RefusedError(
            f"{name}: here distances are stated to the post's {to}; say which was read, "
            f"for instance “{taking.typed.strip()[:12]} {word}” or “{taking.typed.strip()[:12]} near”",
            field="typed",
        )
    if side is None or side == "near":
        return value
    if post_diameter is None:
        raise RefusedError(
            f"{name}, to its {side}: that needs the post's diameter; write it under Sound, the post, or read to the "
            "near side",
            field="typed",
        )
    return to_near_side(distance=value, side=side, post_diameter=post_diameter)


def _number_of(loaded: VisitRecord, act: UUID | None) -> int | None:
    return next((work.number for work in loaded.works if work.id == act), None)


def _is_unseen(there: Reading, taking: ReadingInput) -> bool:
    """Whether somebody else took it while the page still showed another one, or none."""
    return taking.says_shown and there.id != taking.shown and there.taken_by != taking.taken_by


def of_two(loaded: VisitRecord, taking: ReadingInput, new: NewReading, corrects: int | None) -> str:
    """What is said to the second of two who read one place without knowing of each other."""
    number = corrects if corrects is not None else new.corrected_by
    there = next((reading for reading in loaded.readings if reading.number == number), None)
    if there is None or not _is_unseen(there, taking):
        return ""
    name = name_of(MEASURES[new.measure], loaded.instrument.string_names, new.position)
    return two_readings(
        name,
        by=there.taken_by,
        theirs=there.value,
        at=there.taken_at,
        yours=new.value,
        yours_stands=corrects is not None,
    )


def _in_its_place(loaded: VisitRecord, taking: ReadingInput) -> ReadingInput:
    """What was written on paper stands where its time puts it among the works. Raises RefusedError for a time ahead."""
    if taking.taken_at > datetime.now(UTC) + CLOCKS_DIFFER:
        raise RefusedError("that time is still to come: say when the card was written", field="taken_at")
    before = [w.number for w in loaded.works if not w.taken_back and w.done_at <= taking.taken_at]
    return replace(taking, after_work=max(before, default=0))


def _reader(measure: MeasureRow) -> Callable[..., float]:
    if measure.unit != "mm":
        return partial(in_unit, measure.unit, signed=measure.signed)
    return signed_millimetres if measure.signed else millimetres


def _doubt(state: BenchState, measure: MeasureRow, taking: ReadingInput, value: float) -> Doubt | None:
    """Against what such an instrument has, then against what stood here before."""
    key = (measure.measure, taking.position)
    usual = state.usual(key)
    if usual is None and abs(value) > measure.largest:
        return Doubt("impossible", measure.largest)
    if usual is None:
        return None if measure.doubted_beyond is None else doubt_about_zero(value=value, beyond=measure.doubted_beyond)
    found = doubt_of(value=value, plausible=plausible_at(measure, usual), aim=usual, largest=measure.largest)
    return found or _against_before(state, measure, taking, value)


CORRECTED_WITHIN = timedelta(minutes=10)
"""A reading that its own reader types again so soon is a correction, and is not asked about."""


def _against_before(state: BenchState, measure: MeasureRow, taking: ReadingInput, value: float) -> Doubt | None:
    """What stood here before, where no work has touched it since."""
    key = (measure.measure, taking.position)
    stand = state.reading_states.get(key)
    if taking.repeats and stand is not None and stand.usable is not None:
        return change_without_work(value=value, before=stand.usable, uncertainty=stand.known_to)
    if measure.measure in LEAPING:
        earlier = state.last_visit(key)
        before = None if earlier is None else earlier.value
        if stand is not None and stand.state == "current":
            before = stand.value
        usual = state.usual(key)
        # What comes nearer to what such an instrument has puts a slip right, and is none.
        if before is None or (usual is not None and abs(value - usual) < abs(before - usual)):
            return None
        return leap_from(value=value, before=before)
    if measure.measure != "end_height" or stand is None or stand.usable is None:
        return None
    if stand.reading.after_work != taking.after_work or _is_correction(state, taking, key):
        return None
    return change_without_work(value=value, before=stand.usable, uncertainty=stand.known_to)


def _is_correction(state: BenchState, taking: ReadingInput, key: MeasurementKey) -> bool:
    there = last_reading(state, key)
    if there is None or there.taken_by != taking.taken_by:
        return False
    return taking.taken_at - there.taken_at < CORRECTED_WITHIN
