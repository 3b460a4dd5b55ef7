"""The stand-in caliper and its faults, and what the readings' words make of them."""

from __future__ import annotations

import random

import pytest
from fidicula.core.readings.typed import millimetres
from fidicula.devices.ports import DeviceError
from fidicula.devices.standins.caliper import Fault, StandInCaliper
from hypothesis import given
from hypothesis import strategies as st

CHATTY: tuple[Fault, ...] = ("chatty",)


def sent(length: float, *faults: Fault, seed: int = 1) -> str:
    return StandInCaliper(faults, length=length, chance=random.Random(seed)).send()


@given(st.floats(0.1, 1000), st.integers(0, 1000), st.booleans())
def test_what_it_types_is_understood_and_within_its_own_error(length: float, seed: int, chatty: bool) -> None:
    typed = sent(length, *(CHATTY if chatty else ()), seed=seed)
    assert abs(millimetres(typed) - length) <= 0.02 + 0.005 + 1e-9


@given(st.floats(1, 1000))
def test_inches_with_their_unit_are_the_same_length_and_without_it_a_slip(length: float) -> None:
    assert millimetres(sent(length, "in_inches", "chatty")) == pytest.approx(length, abs=0.03)
    assert millimetres(sent(length, "in_inches")) == pytest.approx(length / 25.4, abs=0.01)


def test_a_wrong_zero_is_the_same_every_time_and_noise_is_not() -> None:
    assert millimetres(sent(5, "wrongly_zeroed")) == pytest.approx(5.35, abs=0.03)
    caliper = StandInCaliper(["noisy"], length=5, chance=random.Random(3))
    readings = [millimetres(caliper.send()) for _ in range(30)]
    assert 0.1 < max(readings) - min(readings) <= 0.31


def test_offline_says_so() -> None:
    with pytest.raises(DeviceError, match="does not answer"):
        sent(5, "offline")
