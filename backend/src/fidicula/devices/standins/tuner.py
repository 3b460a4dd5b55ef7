"""An electronic tuner that is not there."""

from __future__ import annotations

import random
from collections.abc import Collection
from typing import Literal, get_args

from fidicula.devices.ports import DeviceError

TunerFault = Literal["noisy", "overtone", "offline"]
TUNER_FAULTS: tuple[TunerFault, ...] = get_args(TunerFault)

_OWN_CENTS = 0.5
_NOISE_CENTS = 12.0


class StandInTuner:
    """pitch : that sounds. [Hz]

    faults : noisy (its needle will not settle), overtone (it hears the octave), offline.
    """

    label = "simulated tuner"
    is_simulated = True

    def __init__(self, faults: Collection[str] = (), *, pitch: float, chance: random.Random | None = None) -> None:
        self._pitch = pitch
        self._faults = frozenset(faults)
        self._chance = chance or random.Random()

    def hear(self) -> str:
        """To a tenth, known to half a cent of its own. [Hz] Raises DeviceError while it is offline."""
        if "offline" in self._faults:
            raise DeviceError("the tuner does not hear anything: look to its battery, or type what it shows")
        cents = self._chance.uniform(-1, 1) * (_NOISE_CENTS if "noisy" in self._faults else _OWN_CENTS)
        heard = self._pitch * 2 ** (cents / 1200) * (2 if "overtone" in self._faults else 1)
        return f"{heard:.1f} Hz"
