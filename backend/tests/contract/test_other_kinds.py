"""The kinds beside spacing and bridge: refusals by field, and the fine print."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from fidicula.contract.kinds import KINDS
from fidicula.contract.refusals import Refusal
from hypothesis import given
from hypothesis import strategies as st

from .test_contract import changed, json_values, locs

INPUTS = {
    path.stem: json.loads(path.read_text())["input"] for path in (Path(__file__).parent / "examples").glob("*.json")
}
ANGLES = {k: v for k, v in INPUTS["load"].items() if k != "geometry"} | {"front_angle": 8.0, "rear_angle": 15.0}


@pytest.mark.parametrize(
    ("kind", "path", "value", "loc"),
    [
        ("nut", ["strings", 0, "peg", "run"], 5.0, ["strings", 0, "peg", "run"]),
        ("nut", ["strings", 0, "peg", "run"], 501, ["strings", 0, "peg", "run"]),
        ("nut", ["nut_thickness"], ..., ["nut_thickness"]),
        ("nut", ["file_ratio"], [1.35, 1.05], ["file_ratio"]),
        ("nut", ["file_ratio"], [1.35], ["file_ratio"]),
        ("nut", ["files", 2], 31, ["files", 2]),
        ("fingerboard", ["stations", 0, "x"], 300, ["stations"]),
        ("fingerboard", ["stations", 0, "x"], 90, ["stations"]),
        ("fingerboard", ["stations", 0, "x"], 0, ["stations"]),
        ("fingerboard", ["stations", 0, "gap"], 21, ["stations", 0, "gap"]),
        ("fingerboard", ["target_relief"], 21, ["target_relief"]),
        ("stop", ["neck_length"], 329, ["neck_length"]),
        ("stop", ["ratio"], [2, 0], ["ratio", 1]),
        ("projection", ["high"], 78, ["high"]),
        ("projection", ["aim"], 82, ["aim"]),
        ("projection", ["neck_length"], 692, ["neck_length"]),
        ("projection", ["fingerboard_length"], 692, ["fingerboard_length"]),
        ("load", ["strings", 1, "tension"], ..., ["strings", 1, "tension"]),
        ("load", ["strings", 1, "linear_density"], 2.0, ["strings", 1, "tension"]),
        ("load", ["strings", 3, "pitch"], ..., ["strings", 3, "pitch"]),
        ("load", ["strings", 0, "pitch"], ..., ["strings", 0, "pitch"]),
        ("load", ["front_angle"], 8.0, ["front_angle"]),
        ("load", ["geometry"], ..., ["front_angle"]),
        ("load", ["geometry", "saddle_height"], 101, ["geometry", "saddle_height"]),
        ("post", ["setback_rule", "fraction"], 5.1, ["setback_rule", "fraction"]),
        ("post", ["setback_rule", "fraction"], ..., ["setback_rule", "fraction"]),
        ("post", ["setback_rule", "setback"], 1, ["setback_rule", "setback"]),
        ("post", ["setback_rule", "rule"], "by ear", ["setback_rule"]),
        ("post", ["inset_rule"], {"rule": "fixed", "inset": 101}, ["inset_rule", "inset"]),
        ("post", ["measured", "inset"], -51, ["measured", "inset"]),
        ("afterlength", ["divisor"], 0, ["divisor"]),
        ("afterlength", ["rule"], "a sixth", ["rule"]),
        ("clearance", ["stations"], [{"x": 100, "gap": 0.2}], ["stations"]),
        ("clearance", ["fingerboard_length"], 9.9, ["fingerboard_length"]),
        ("clearance", ["fingerboard_length"], 326, ["fingerboard_length"]),
        ("clearance", ["excitation"], "plucked", ["pluck_displacement"]),
        ("clearance", ["bow_point"], 1.0, ["bow_point"]),
        ("clearance", ["semitones"], 61, ["semitones"]),
        ("clearance", ["semitones"], 1.5, ["semitones"]),
        ("effort", ["tension"], 0, ["tension"]),
        ("adjusters", ["treble_string", "bridge_offset"], -41, ["treble_string"]),
        ("adjusters", ["bass_string", "change"], 51, ["bass_string", "change"]),
        ("gauge", ["cents"], 1201, ["cents"]),
        ("schedule", ["benches"], 0, ["benches"]),
        ("schedule", ["jobs", 0, "steps", 0, "after"], ["nut_slots"], ["jobs", 0, "steps", 0, "after"]),
        ("schedule", ["jobs", 0, "steps", 1, "after"], ["polish"], ["jobs", 0, "steps", 1, "after"]),
        ("schedule", ["jobs", 1, "id"], "RW-111", ["jobs", 1, "id"]),
        ("schedule", ["jobs", 1, "steps", 1, "id"], "bridge", ["jobs", 1, "steps", 1, "id"]),
        ("schedule", ["jobs", 0, "due"], -1, ["jobs", 0, "due"]),
    ],
)
def test_refusals_name_their_field(kind: str, path: list[str | int], value: Any, loc: list[str | int]) -> None:
    assert locs(kind, changed(INPUTS[kind], path, value)) == [["body", *loc]]


@pytest.mark.parametrize(
    ("kind", "path", "value"),
    [
        ("adjusters", ["thread_pitch"], 5e-324),
        ("load", ["strings", 0, "reference_length"], 1e-200),
        ("load", ["foot_spread"], 1e-320),
        ("clearance", ["bow_point"], 1e-320),
        ("clearance", ["pitch"], 5e-324),
        ("stop", ["ratio", 0], 1e-310),
        ("afterlength", ["divisor"], 5e-324),
        ("bridge", ["fingerboard_length"], 5e-324),
        ("fingerboard", ["cross_sagitta"], 5e-324),
    ],
)
def test_what_no_number_can_hold_is_refused_and_never_infinite(kind: str, path: list[str | int], value: float) -> None:
    """In range, over 0, and yet so small that the answer would be infinite."""
    assert locs(kind, changed(INPUTS[kind], path, value)) == [["body", *path]]


@pytest.mark.parametrize(("missing", "loc"), [("rear_angle", "rear_angle"), ("front_angle", "front_angle")])
def test_one_angle_asks_for_the_other(missing: str, loc: str) -> None:
    assert locs("load", changed(ANGLES, [missing], ...)) == [["body", loc]]


@pytest.mark.parametrize(
    ("kind", "half", "gone"),
    [
        ("fingerboard", "cross_sagitta", "radius"),
        ("fingerboard", "min_thickness", "too_thin"),
        ("post", "back_slope", "fit"),
        ("post", "bar_inset_target", "bridge_width"),
        ("post", "measured", "move"),
        ("stop", "nominal_string_length", "octave_shift"),
        ("gauge", "choices", "choice"),
    ],
)
def test_half_of_a_pair_leaves_out_what_needs_both(kind: str, half: str, gone: str) -> None:
    assert gone in KINDS[kind].answer_to(INPUTS[kind])
    assert gone not in KINDS[kind].answer_to(changed(INPUTS[kind], [half], ...))


def test_no_file_on_hand_is_null_and_no_list_of_files_is_left_out() -> None:
    none_fits = KINDS["nut"].answer_to(changed(INPUTS["nut"], ["files"], [5.0]))
    assert [string["file"] for string in none_fits["strings"]] == [None] * 4
    assert "file" not in KINDS["nut"].answer_to(changed(INPUTS["nut"], ["files"], ...))["strings"][0]


@pytest.mark.parametrize("kind", sorted(set(INPUTS) - {"bridge", "bridge-wedge", "schedule"}))
@given(data=st.data())
def test_hostile_values_are_answered_or_refused_at_the_body(kind: str, data: st.DataObject) -> None:
    field = data.draw(st.sampled_from(sorted(INPUTS[kind])))
    try:
        answer = KINDS[kind].answer_to({**INPUTS[kind], field: data.draw(json_values)})
    except Refusal as refusal:
        locations = [item.loc[0] for item in refusal.items]
        answer = None
    else:
        locations = []
    assert set(locations) == ({"body"} if answer is None else set())
    json.dumps(answer, allow_nan=False)
