"""What has to be over 0: 0 and less are refused under their own name, the smallest amount is not."""

from __future__ import annotations

from collections.abc import Callable
from decimal import Decimal
from typing import Any

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.fitting.bridge_place import cents_of_turn, shift_to_nicks, shift_to_ratio
from fidicula.core.fitting.post import new_post
from fidicula.core.fitting.tailpiece import wheel_turns
from fidicula.core.geometry.neck import board_tilt
from fidicula.core.mechanics.perspective import cents_of_length, gape_of_shift, pull_growth, shift_of_lean
from fidicula.core.pricing.estimate import share_of_value
from fidicula.core.pricing.money import Rounding
from fidicula.core.readings.conversions import radius_by_chord, stop_to
from fidicula.core.readings.in_hand import in_hand

CASES: list[tuple[Callable[..., Any], dict[str, Any], tuple[str, ...]]] = [
    (
        shift_to_nicks,
        {"school": "nicks", "nick_line": 195.0, "stop_length": 193.0, "foot_thickness": 4.5},
        ("foot_thickness",),
    ),
    (shift_to_ratio, {"neck_length": 130.0, "stop_length": 195.0, "neck_to_stop": 2 / 3}, ("neck_to_stop",)),
    (
        cents_of_turn,
        {"turn": 0.01, "foot_width": 41.0, "spread": 34.0, "string_length": 328.0},
        ("foot_width", "string_length"),
    ),
    (
        new_post,
        {"room": 53.0, "post_diameter": 6.0, "top_slope": 4.0, "back_slope": 3.0},
        ("room", "post_diameter"),
    ),
    (wheel_turns, {"leg": 1.0, "thread_pitch": 1.0}, ("thread_pitch",)),
    (board_tilt, {"bass_edge": 27.0, "treble_edge": 27.1, "width": 45.0}, ("width",)),
    (pull_growth, {"string_length": 328.0, "longer": 0.0}, ("string_length",)),
    (cents_of_length, {"string_length": 328.0, "difference": 0.0}, ("string_length",)),
    (gape_of_shift, {"shift": 0.5, "length": 53.0, "diameter": 6.0}, ("length", "diameter")),
    (shift_of_lean, {"degrees": 1.0, "length": 53.0}, ("length",)),
    (
        stop_to,
        {"place": "back", "measured": 195.0, "measured_to": "middle", "foot_thickness": 4.5},
        ("foot_thickness",),
    ),
    (
        radius_by_chord,
        {"chord": 0.5, "rise": 0.1, "chord_known_to": 0.1, "rise_known_to": 0.05},
        ("chord", "rise"),
    ),
    (in_hand, {"measured": 0.8, "stated": 0.8, "known_to": 0.02}, ("measured", "stated")),
    (share_of_value, {"amount": Decimal(10), "value": Decimal(500)}, ("value",)),
    (Rounding, {"step": Decimal("0.05")}, ("step",)),
]
EACH = [(call, values, name) for call, values, names in CASES for name in names]


@pytest.mark.parametrize(("call", "values", "name"), EACH, ids=[f"{call.__name__} {name}" for call, _, name in EACH])
def test_what_has_to_be_over_zero(call: Callable[..., Any], values: dict[str, Any], name: str) -> None:
    as_typed = type(values[name])
    call(**values)
    call(**{**values, name: as_typed("0.25") if as_typed is Decimal else 0.25})
    for wrong in (0, -1):
        with pytest.raises(CoreError) as refused:
            call(**{**values, name: as_typed(wrong)})
        assert refused.value.path[0] == name


def test_nothing_may_be_left_of_a_string() -> None:
    for longer in (-328.0, -400.0):
        with pytest.raises(CoreError, match="cannot become shorter"):
            pull_growth(string_length=328.0, longer=longer)
        with pytest.raises(CoreError, match="has to have a length too"):
            cents_of_length(string_length=328.0, difference=longer)
    assert pull_growth(string_length=328.0, longer=-327.5) < -0.99
    assert cents_of_length(string_length=1.0, difference=1.0) == pytest.approx(1200)
