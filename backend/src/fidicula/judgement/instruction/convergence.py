"""The strings brought to their heights: what is measured first, the rough crown, the slots, the crown beside them."""

from __future__ import annotations

from dataclasses import replace

from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.edges import unsure_heights, unsure_nuts
from fidicula.judgement.assessment.projection import is_unsure
from fidicula.judgement.assessment.questions import to_measure_again
from fidicula.judgement.assessment.thresholds import strings_in_band
from fidicula.judgement.assessment.workflow import crown_is_right
from fidicula.judgement.instruction.amounts import told
from fidicula.judgement.instruction.model import Instruction
from fidicula.judgement.instruction.told import Told


def measuring(a: Assessment, keys: tuple[MeasurementKey, ...], why: Instruction | None = None) -> Instruction:
    """why : what cannot be told before."""
    states = a.state.reading_states
    again = any(key in states and states[key].state == "stale" for key in keys)
    if why is None:
        return Instruction("measure", keys=keys, again=again)
    return replace(why, code="measure", records="", keys=keys, again=again, leads_to=why.code)


def projection_again(a: Assessment) -> Instruction:
    """A projection at the edge of its band, once more: what is decided on it comes before any wood."""
    again = measuring(a, (("projection", None),))
    return replace(again, again=False, repeats=True, leads_to="see_to_projection")


def cutting(a: Assessment, base: Instruction) -> Instruction | None:
    """The cut, or what it lacks; None where nothing has to come off."""
    again = tuple(to_measure_again(a.state))
    if a.cut.begun and not a.cut.rough:
        again = tuple(key for key in again if key[0] != "slot_depth")
    if again:
        return measuring(a, again, base)
    if a.cut.state == "none":
        return measuring(a, tuple(("end_height", i) for i in range(a.state.count)), base)
    if not a.cut.begun and is_unsure(a.state):
        return projection_again(a)
    in_band = strings_in_band(a.state, a.cut) and not a.cut.begun
    unsure = () if a.cut.begun else unsure_heights(a.state, a.cut)
    if unsure:
        return _at_the_edge(a, unsure, base)
    if in_band or crown_is_right(a.state, a.cut, a.questions):
        return None
    if a.cut.rough:
        found: Told = told(a, "cut_crown")
        if found.keys:
            return measuring(a, found.keys, base)
        if found.amounts:
            return _deep_slots(a, base) or _known_enough(a, base) or replace(base, amounts=found.amounts)
    return _slots(a, base)


def _at_the_edge(a: Assessment, keys: tuple[MeasurementKey, ...], why: Instruction) -> Instruction:
    """What stands at the edge of its band, once more: what is decided on it cannot be taken back."""
    return replace(measuring(a, keys, why), again=False, repeats=True, notes=("edge",))


def filing_nut(a: Assessment, base: Instruction) -> Instruction | None:
    """The nut's filing, or the readings that decide whether it is; None where nothing has to come off."""
    unsure = unsure_nuts(a.state)
    if unsure:
        return _at_the_edge(a, unsure, base)
    found = told(a, "file_nut")
    return replace(base, amounts=found.amounts) if found.amounts else None


def _deep_slots(a: Assessment, why: Instruction) -> Instruction | None:
    """Slots that are deeper than wanted, by one reading: once more, before the wood beside them goes."""
    keys: tuple[MeasurementKey, ...] = tuple(
        ("slot_depth", i) for i, string in enumerate(a.cut.strings) if string.slot_again
    )
    return replace(measuring(a, keys, why), again=False, repeats=True) if keys else None


def _known_enough(a: Assessment, why: Instruction) -> Instruction | None:
    """More readings of the strings whose height is not known well enough for what is to be done to them.

    Before the crown is cut nothing is done to a string that has nothing to come down: it stands where it stood.
    """
    states = a.state.reading_states
    places: list[MeasurementKey] = [("end_height", i) for i in range(a.state.count)]
    apart = tuple(key for key in places if (stand := states.get(key)) and stand.is_wide)
    if apart:
        return replace(measuring(a, apart, why), notes=("contradict",))
    keys = {
        place: string.more
        for place, string in zip(places, a.cut.strings, strict=True)
        if string.more and (a.cut.begun or string.slot_by)
    }
    if not keys:
        return None
    found = measuring(a, tuple(keys), why)
    return replace(found, times={key: more or 1 for key, more in keys.items()}, repeats=True)


def _slots(a: Assessment, base: Instruction) -> Instruction | None:
    """Each string to its height by its slot, then the crown down beside them; None where there is nothing of either."""
    unread: tuple[MeasurementKey, ...] = tuple(
        ("end_height", i) for i, one in enumerate(a.cut.strings) if one.drop is None
    )
    if unread:
        return measuring(a, unread, base)
    slots = replace(base, code="file_slots", amounts=told(a, "file_slots").amounts)
    more = _known_enough(a, slots)
    if more is not None:
        return more
    if slots.amounts:
        return slots
    if not a.cut.begun or a.cut.beside_done:
        return None
    beside = replace(base, code="lower_crown")
    depths: tuple[MeasurementKey, ...] = tuple(
        ("slot_depth", i) for i, string in enumerate(a.cut.strings) if string.beside is None
    )
    if depths:
        return measuring(a, depths, beside)
    amounts = told(a, "lower_crown").amounts
    return replace(beside, amounts=amounts) if amounts else None
