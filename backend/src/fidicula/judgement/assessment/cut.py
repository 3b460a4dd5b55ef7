"""The cut in numbers: what each string would have to come down by, and what the next pass takes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime, timedelta

from fidicula.codes import MeasureCode, WorkCode
from fidicula.core.bands import outside_by
from fidicula.core.errors import TOLERANCE
from fidicula.core.readings.estimate import COVERS, more_readings
from fidicula.core.readings.states import MeasurementKey
from fidicula.core.work.convergence import (
    DEEP_SHARE,
    DEEP_SLOT,
    ROUGH_AGAIN_FROM,
    ROUGH_FROM,
    WORTH_ROUGH,
    is_landed,
    needed_for,
    slot_pass,
)
from fidicula.core.work.stepwise_cut import Pass, next_pass
from fidicula.domain.work_details import CrownCut
from fidicula.judgement.assessment.computing import Computed
from fidicula.judgement.assessment.model import Assumption, CutFacts, CutState, StringCutFacts, unknown_cut
from fidicula.judgement.assessment.settling import at_bridge, settles_by
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import strings_in_band

STRINGS_SETTLE = timedelta(hours=24)
"""So long new strings may still drop, and some wood is left for it."""


def cut_facts(state: BenchState, computed: Computed | None) -> CutFacts:
    """computed : None where the bridge cannot be worked out."""
    if computed is None:
        return CutFacts("none", tuple(unknown_cut(name) for name in state.instrument.string_names))
    settling = settles_by(state, computed) if _strings_settle(state, state.now) else 0.0
    passes = _passes(state)
    strings = tuple(_string(state, computed, i, passes[i], settling) for i in range(state.count))
    known: list[CutState] = [string.state for string in strings if string.state != "none"]
    done = _since_new([work.work for work in state.standing_works])
    if not known:
        return CutFacts("none", strings, begun=bool(_LANDING & set(done)))
    whole = len(known) == len(strings) and "provisional" not in known
    far_from = ROUGH_AGAIN_FROM if _LANDING & set(done) else ROUGH_FROM
    rough = any(_is_rough(string, far_from) for string in strings)
    facts = CutFacts(
        "firm" if whole else "provisional",
        tuple(replace(one, more=_more(state, computed, i, one, rough)) for i, one in enumerate(strings)),
        tuple(_assumed(state, computed, slots=rough or not _LANDING & set(done))),
        begun=bool(_LANDING & set(done)),
        rough=rough,
        settling=settling,
        beside_done=next((one for one in reversed(done) if one in _CROWN), "") == "crown_beside",
    )
    if not facts.begun or rough or not strings_in_band(state, facts):
        return facts
    return replace(facts, strings=tuple(_told_enough(state, computed, i, one) for i, one in enumerate(facts.strings)))


def _told_enough(state: BenchState, computed: Computed, i: int, string: StringCutFacts) -> StringCutFacts:
    """In band, read more than once, with less left than the tools tell and a player feels: it is left as it is."""
    stand = state.reading_states.get(("end_height", i))
    if string.drop is None or string.drop_chance is None or stand is None:
        return string
    if string.drop > min(string.drop_chance, TOO_LITTLE * at_bridge(state, computed, i)) + TOLERANCE:
        return string
    if stand.count < TOLD_BY:
        return replace(string, more=min(string.more or 0, TOLD_BY - stand.count))
    return replace(string, landed=True, slot_by=0.0, more=0)


LEAVES_AT_NUT = 0.6
"""Of what a height at the nut is known to, so much is left over its aim: too low is not put back."""
TOO_LITTLE = 0.04
"""So little at the board's end no tool of the bench tells from nothing in a few readings, and no player feels. [mm]"""
TOLD_BY = 2
"""So many readings of a height are wanted before it is left for that."""


_LANDING = frozenset({"crown_cut", "slots_filed"})
_CROWN = _LANDING | {"crown_beside"}
_ANEW = frozenset({"new_bridge", "strings_changed", "adjusters_turned", "wedge_fitted", "neck_reset"})
"""After these the strings stand where nobody brought them: whether anything is to be cut is asked again."""


def _since_new(works: Sequence[WorkCode]) -> list[str]:
    found: list[str] = []
    for work in works:
        found = [] if work in _ANEW else [*found, work]
    return found


def _is_rough(string: StringCutFacts, far_from: float) -> bool:
    """A string that has far to come, with wood to take beside it. far_from : at the bridge. [mm]"""
    far = string.drop is not None and string.drop > far_from
    return far and string.wood is not None and string.wood >= WORTH_ROUGH


def _strings_settle(state: BenchState, now: datetime) -> bool:
    changed = [work for work in state.standing_works if work.work == "strings_changed"]
    return bool(changed) and now - changed[-1].done_at < STRINGS_SETTLE


def _passes(state: BenchState) -> list[list[CrownCut]]:
    """For each string, the passes that set out to take something of it, in their order."""
    cuts = [work.detail for work in state.standing_works if isinstance(work.detail, CrownCut)]
    return [[cut for cut in cuts if _at(cut.passes, i) and _at(cut.wood, i) is not None] for i in range(state.count)]


def _at(values: Sequence[float | None], i: int) -> float | None:
    return values[i] if i < len(values) else None


def _taken(wood_now: float, cuts: Sequence[CrownCut], i: int) -> list[Pass]:
    """What each pass took: by what was left before it and before the next."""
    found = []
    for n, cut in enumerate(cuts):
        before, set_out = _at(cut.wood, i), _at(cut.passes, i)
        after = _at(cuts[n + 1].wood, i) if n + 1 < len(cuts) else wood_now
        if before is not None and after is not None and set_out:
            found.append(Pass(set_out=set_out, taken=before - after))
    return found


def _string(state: BenchState, computed: Computed, i: int, cuts: list[CrownCut], settling: float) -> StringCutFacts:
    target, result, known = computed.plan.strings[i], computed.results[i], computed.known_to[i]
    name = state.instrument.string_names[i]
    if result is None:
        return replace(
            unknown_cut(name),
            target_end=target.end_height + state.facet_at(i),
            target_end_uncertainty=known.end_height,
            target_mark=target.mark_height,
            target_mark_uncertainty=known.mark,
        )
    wood = result.cut.crown_cut
    nut = state.reading_states.get(("nut_height", i))
    nut_target, nut_held = computed.goals[i].nut_height, state.held("nut_height", i)
    is_read = nut is not None and nut.usable is not None and nut_held is not None
    over = 0.0 if _is_hardly_over(state, i) else result.present.nut_height - nut_target
    left = LEAVES_AT_NUT * nut_held.chance if nut_held is not None else 0.0
    last = cuts[-1] if cuts else None
    held, drop = state.held("end_height", i), result.cut.cut
    slot_again, known_to = _slot_again(state, i), result.drop_known_to
    chance = 0.0 if held is None else held.chance * at_bridge(state, computed, i)
    return StringCutFacts(
        name,
        state="provisional" if result.provisional else "firm",
        target_end=target.end_height + state.facet_at(i),
        target_end_uncertainty=known.end_height,
        target_mark=target.mark_height,
        target_mark_uncertainty=known.mark,
        drop=result.cut.cut,
        wood=wood,
        uncertainty=result.uncertainty,
        next_pass=None
        if wood is None
        else next_pass(
            # By a single reading of a deep slot, a slip of the decimal mark, the crown would go below the string's aim.
            wood=min(wood, result.cut.cut + DEEP_SLOT) if slot_again else wood,
            uncertainty=result.uncertainty,
            passes=_taken(wood, cuts, i),
            settling=settling,
        ),
        old_slot_left=result.cut.old_slot_left,
        nut_to_file=max(0.0, over - left) if is_read else None,
        nut_target=nut_target + min(left, max(0.0, over)) if is_read else None,
        nut_known_to=nut_held.resolution if is_read and nut_held is not None else None,
        set_out=None if last is None else _at(last.passes, i),
        left_before=None if last is None else _at(last.wood, i),
        drop_known_to=known_to,
        drop_chance=chance,
        slot_by=slot_pass(drop=drop, known_to=chance, roughness=state.roughness),
        beside=_beside(state, i),
        more=None,
        slot_again=slot_again,
        landed=is_landed(drop=drop, known_to=chance),
    )


def _is_hardly_over(state: BenchState, i: int) -> bool:
    """Whether a height at the nut is above its band by less than its readings tell."""
    held, wanted = state.held("nut_height", i), state.wanted_as_read(("nut_height", i))
    if held is None or held.assumed or wanted is None:
        return False
    return 0 < outside_by(value=held.value, band=wanted.band) <= held.chance


def _more(state: BenchState, computed: Computed, i: int, string: StringCutFacts, rough: bool) -> int | None:
    """Readings of its height that the cut at hand wants more; None where it is not read."""
    stand = state.reading_states.get(("end_height", i))
    if string.drop is None or string.drop_chance is None or stand is None:
        return None
    if rough:
        # What is not known stays as wood; the heights are read again once it went.
        return 0
    return more_readings(
        deviation=string.drop_chance / COVERS,
        scatter=stand.scatter * at_bridge(state, computed, i),
        known_to=needed_for(string.drop),
    )


def _slot_again(state: BenchState, i: int) -> bool:
    """Whether a slot was read once, or in readings that contradict each other, and deeper than it is to be."""
    stand, beside = state.reading_states.get(("slot_depth", i)), _beside(state, i)
    if stand is None or stand.usable is None or beside is None:
        return False
    if beside <= max(DEEP_SLOT, DEEP_SHARE * state.diameters[i]):
        return False
    return stand.count < 2 or stand.is_wide


def _beside(state: BenchState, i: int) -> float | None:
    """How much deeper a slot is than a third of its string, or what else is wanted. [mm]"""
    slot, ratio = state.held("slot_depth", i), state.targets.slot_depth_ratio
    if slot is None or slot.assumed or ratio is None:
        return None
    return slot.value - ratio * state.diameters[i]


def _rests_on(*, slots: bool) -> tuple[MeasureCode, ...]:
    return ("nut_height", "slot_depth") if slots else ("nut_height",)


def _assumed(state: BenchState, computed: Computed, *, slots: bool) -> list[Assumption]:
    """What the cut rests on that was not measured at this visit. slots : it rests on their depths."""
    keys: list[MeasurementKey] = [(measure, None) for measure in computed.singles]
    keys += [
        (measure, i)
        for measure in _rests_on(slots=slots)
        for i, result in enumerate(computed.results)
        if result is not None
    ]
    found = []
    for key in keys:
        held = state.held(*key)
        if held is None or not (held.assumed or held.origin == "last_visit"):
            continue
        stand = state.reading_states.get(key)
        reading = None if stand is None else stand.state
        found.append(Assumption(key, held.value, reading, is_last_visit=held.origin == "last_visit"))
    return found
