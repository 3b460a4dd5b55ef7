"""What an instruction's amounts are made of."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from fidicula.core.geometry.uncertainty import uncertainties
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.instruction.model import Amount


@dataclass(frozen=True)
class Told:
    """amounts : that can be told.  keys : what has to be measured first, where something is missing."""

    amounts: tuple[Amount, ...] = ()
    keys: tuple[MeasurementKey, ...] = ()


def unread_of(a: Assessment, *keys: MeasurementKey) -> tuple[MeasurementKey, ...]:
    """Those that nobody read at this visit or the last, or that hold no more."""
    held = [(key, a.state.held(*key)) for key in keys]
    return tuple(key for key, value in held if value is None or value.assumed)


def known_within(
    state: BenchState, keys: Sequence[MeasurementKey], outcome: Callable[[BenchState], Sequence[float]]
) -> tuple[float, ...]:
    """What covers 95 % of amounts that follow from some readings; of each, what every reading's own ± changes.

    outcome : the amounts as they would be by other readings. Raises CoreError where they cannot be told by these.
    """
    held = {key: one for key in keys if (one := state.held(*key)) is not None}

    def moved(values: Mapping[MeasurementKey, float]) -> Sequence[float]:
        return outcome(replace(state, tried={**state.tried, **values}))

    return uncertainties(
        outcome=moved,
        values={key: one.value for key, one in held.items()},
        known_to={key: one.resolution for key, one in held.items()},
    )


SIDES: tuple[Literal["bass", "treble"], ...] = ("bass", "treble")
