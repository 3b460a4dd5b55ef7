"""The stand-ins for what hears and what knows the air, and their faults."""

from __future__ import annotations

import random
from datetime import date

import pytest
from fidicula.core.readings.typed import in_unit
from fidicula.devices.ports import DeviceError
from fidicula.devices.standins.hygrometer import StandInHygrometer
from fidicula.devices.standins.tuner import StandInTuner


def heard(*faults: str) -> float:
    return in_unit("Hz", StandInTuner(faults, pitch=442, chance=random.Random(2)).hear(), what="its A")


def test_a_tuner_hears_the_string_to_half_a_cent_or_its_octave() -> None:
    assert heard() == pytest.approx(442, abs=442 * 0.5 / 1200 + 0.05)
    assert heard("overtone") == pytest.approx(884, abs=0.5)
    with pytest.raises(DeviceError, match="does not hear"):
        heard("offline")


def test_heated_rooms_are_drier_in_winter_and_a_stuck_one_never_says_so() -> None:
    def humidity(month: int, *faults: str) -> float:
        shown = StandInHygrometer(faults, today=lambda: date(2026, month, 1)).humidity()
        return in_unit("%", shown, what="the air")

    assert humidity(2) < humidity(5) < humidity(8) <= 100
    assert humidity(2, "stuck") == humidity(8, "stuck")
    with pytest.raises(DeviceError, match="does not answer"):
        StandInHygrometer(["offline"]).temperature()
