"""A digital caliper that is not there: it types a length as one would, with the faults that one can have."""

from __future__ import annotations

import random
from collections.abc import Collection
from typing import Literal, get_args

from fidicula.devices.ports import DeviceError

Fault = Literal["noisy", "wrongly_zeroed", "in_inches", "chatty", "offline"]
FAULTS: tuple[Fault, ...] = get_args(Fault)

_OWN = 0.02
_NOISE = 0.15
_ZERO = 0.35
_MM_PER_INCH = 25.4


class StandInCaliper:
    """length : between its jaws. [mm]

    faults : noisy (its readings jump), wrongly_zeroed (all too long by the same), in_inches (and says so only when
    chatty), chatty (with a sign, spaces and its unit), offline.
    """

    label = "simulated caliper"
    is_simulated = True

    def __init__(self, faults: Collection[Fault] = (), *, length: float, chance: random.Random | None = None) -> None:
        self._length = length
        self._faults = frozenset(faults)
        self._chance = chance or random.Random()

    def send(self) -> str:
        """To a hundredth, known to its own 0.02. [mm] Raises DeviceError while it is offline."""
        if "offline" in self._faults:
            raise DeviceError("the caliper does not answer: look to its battery, or type what it shows")
        shown = self._length + self._chance.uniform(-1, 1) * (_NOISE if "noisy" in self._faults else _OWN)
        if "wrongly_zeroed" in self._faults:
            shown += _ZERO
        shown = max(0.0, shown)
        text, unit = f"{shown:.2f}", "mm"
        if "in_inches" in self._faults:
            text, unit = f"{shown / _MM_PER_INCH:.4f}", "in"
        return f" +{text} {unit}" if "chatty" in self._faults else text
