"""A hygrometer that is not there: its air is the same all day, and tells the season."""

from __future__ import annotations

import math
from collections.abc import Callable, Collection
from datetime import date
from typing import Literal, get_args

from fidicula.devices.ports import DeviceError

HygrometerFault = Literal["stuck", "offline"]
HYGROMETER_FAULTS: tuple[HygrometerFault, ...] = get_args(HygrometerFault)

_MEAN, _SEASON, _DRIEST_DAY = 52.0, 11.0, 32


class StandInHygrometer:
    """faults : stuck (it shows the same in every air), offline.  today : asked whenever it is read."""

    label = "simulated hygrometer"
    is_simulated = True

    def __init__(self, faults: Collection[str] = (), *, today: Callable[[], date] = date.today) -> None:
        self._faults = frozenset(faults)
        self._today = today

    def humidity(self) -> str:
        """Driest in the heated rooms of winter. [%] Raises DeviceError while it is offline."""
        return f"{self._shown(_MEAN - _SEASON * self._winter()):.0f} %"

    def temperature(self) -> str:
        """[°C] Raises DeviceError while it is offline."""
        return f"{self._shown(20.5 - 1.5 * self._winter()):.1f} °C"

    def _winter(self) -> float:
        """1 on the driest day of the year, -1 half a year from it."""
        return math.cos(2 * math.pi * (self._today().timetuple().tm_yday - _DRIEST_DAY) / 365)

    def _shown(self, value: float) -> float:
        if "offline" in self._faults:
            raise DeviceError("the hygrometer does not answer: look to its battery, or type what it shows")
        return 50.0 if "stuck" in self._faults else value
