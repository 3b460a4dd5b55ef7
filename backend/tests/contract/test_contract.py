"""The computation contract: its examples, its refusals, its fine print."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import pytest
from fidicula.contract.kinds import KINDS, parse
from fidicula.contract.refusals import Refusal, RefusalItem
from hypothesis import given
from hypothesis import strategies as st

EXAMPLES = {path.stem: json.loads(path.read_text()) for path in (Path(__file__).parent / "examples").glob("*.json")}
BRIDGE = EXAMPLES["bridge"]["input"]
SPACING = EXAMPLES["spacing"]["input"]


def changed(base: dict[str, Any], path: list[str | int], value: Any) -> dict[str, Any]:
    data = copy.deepcopy(base)
    place: Any = data
    for part in path[:-1]:
        place = place[part]
    if value is ...:
        del place[path[-1]]
    else:
        place[path[-1]] = value
    return data


def locs(kind: str, data: Any) -> list[list[str | int]]:
    with pytest.raises(Refusal) as refused:
        KINDS[kind].answer_to(data)
    return [item.loc for item in refused.value.items]


def outcome(data: dict[str, Any]) -> tuple[dict[str, Any] | None, list[RefusalItem]]:
    """The bridge's answer, or what was refused."""
    try:
        return KINDS["bridge"].answer_to(data), []
    except Refusal as refusal:
        return None, refusal.items


def assert_close(ours: Any, theirs: Any, where: str = "") -> None:
    """Every field of the example is there and near; strings and shapes are the same."""
    if isinstance(theirs, dict):
        assert set(ours) == set(theirs), where
        for key, value in theirs.items():
            assert_close(ours[key], value, f"{where}.{key}")
    elif isinstance(theirs, list):
        assert len(ours) == len(theirs), where
        for i, value in enumerate(theirs):
            assert_close(ours[i], value, f"{where}[{i}]")
    else:
        assert ours == (theirs if isinstance(theirs, str) else pytest.approx(theirs, abs=1e-5)), where


@pytest.mark.parametrize("name", sorted(set(EXAMPLES) - {"schedule"}))
def test_examples_of_the_contract(name: str) -> None:
    example = EXAMPLES[name]
    assert_close(KINDS[example["kind"]].answer_to(example["input"]), example["output"])


@pytest.mark.parametrize(
    ("path", "value", "loc"),
    [
        (["string_length"], 0, ["string_length"]),
        (["string_length"], 3001, ["string_length"]),
        (["string_length"], "326", ["string_length"]),
        (["string_length"], True, ["string_length"]),
        (["string_length"], None, ["string_length"]),
        (["string_length"], ..., ["string_length"]),
        (["fingerboard_length"], 326, ["fingerboard_length"]),
        (["fingerboard_radius"], 5001, ["fingerboard_radius"]),
        (["fingerboard_radius"], 14, ["fingerboard_radius"]),
        (["fingerboard_radius_nut"], 8, ["fingerboard_radius_nut"]),
        (["projection"], -1, ["projection"]),
        (["tilt"], 45.1, ["tilt"]),
        (["nut_spread"], 2, ["nut_spread"]),
        (["bridge_spread"], 2, ["bridge_spread"]),
        (["nut_centre"], 501, ["nut_centre"]),
        (["slot_depth_ratio"], 1.01, ["slot_depth_ratio"]),
        (["rule"], "equal", ["rule"]),
        (["curve"], "arc", ["curve"]),
        (["height_at"], "bridge", ["height_at"]),
        (["crown_radius"], 12, ["crown_radius"]),
        (["crown_radius"], ..., ["crown_radius"]),
        (["strings"], BRIDGE["strings"][:2], ["strings"]),
        (["strings"], [BRIDGE["strings"][0]] * 7, ["strings"]),
        (["strings", 0, "height"], ..., ["strings", 0, "height"]),
        (["strings", 3, "height"], None, ["strings", 3, "height"]),
        (["strings", 3, "height"], 100.5, ["strings", 3, "height"]),
        (["strings", 2, "diameter"], 0, ["strings", 2, "diameter"]),
        (["strings", 2, "name"], 5, ["strings", 2, "name"]),
        (["strings", 1, "colour"], "red", ["strings", 1, "colour"]),
        (["strings", 1], 3, ["strings", 1]),
        (["current"], BRIDGE["current"][:3], ["current"]),
        (["current", 1, "slot_depth"], -0.1, ["current", 1, "slot_depth"]),
        (["templates", 1], 0, ["templates", 1]),
        (["waist_height"], 501, ["waist_height"]),
        (["made_up"], 1, ["made_up"]),
        (["made_up"], None, ["made_up"]),
    ],
)
def test_bridge_refuses_by_field(path: list[str | int], value: Any, loc: list[str | int]) -> None:
    assert locs("bridge", changed(BRIDGE, path, value)) == [["body", *loc]]


@pytest.mark.parametrize(
    ("path", "value", "loc"),
    [
        (["spread"], 1.5, ["spread"]),
        (["spread"], ..., ["spread"]),
        (["diameters", 2], 31, ["diameters", 2]),
        (["diameters"], [1, 1], ["diameters"]),
        (["measured"], [1.0, 2.0, 3.0], ["measured"]),
        (["measured", 0], -501, ["measured", 0]),
        (["width"], 0, ["width"]),
    ],
)
def test_spacing_refuses_by_field(path: list[str | int], value: Any, loc: list[str | int]) -> None:
    assert locs("spacing", changed(SPACING, path, value)) == [["body", *loc]]


def test_inner_mark_under_the_board_is_the_crowns_fault() -> None:
    """A very flat crown on a round board would bury the inner strings."""
    data = changed(changed(BRIDGE, ["crown_radius"], 5000), ["fingerboard_radius"], 18)
    assert locs("bridge", data) == [["body", "crown_radius"]]


def test_crown_points_in_a_line_are_the_strings_fault() -> None:
    """Heights chosen so that every crown point has the same height over the belly."""
    data = {k: v for k, v in copy.deepcopy(BRIDGE).items() if k not in ("current", "crown_radius", "tilt")}
    data |= {"curve": "heights", "height_at": "bridge_mark"}
    for string in data["strings"]:
        string["height"] = 5.0
    lines = KINDS["bridge"].answer_to(data)["strings"]
    highest = max(s["crown_height"] for s in lines)
    for string, line in zip(data["strings"], lines, strict=True):
        string["height"] = 5.0 + highest - line["crown_height"]
    assert locs("bridge", data) == [["body", "strings"]]


def test_null_for_an_optional_field_means_absent() -> None:
    """Every optional field as null answers as if it were not there, defaults included."""
    optional = ("tilt", "rule", "waist_width", "waist_height", "current", "templates", "nut_centre", "slot_depth_ratio")
    absent = {k: v for k, v in BRIDGE.items() if k not in optional}
    assert KINDS["bridge"].answer_to({**absent, **dict.fromkeys(optional)}) == KINDS["bridge"].answer_to(absent)


def test_half_of_the_waist_leaves_the_outer_strings_without_room() -> None:
    answer = KINDS["bridge"].answer_to(changed(BRIDGE, ["waist_height"], ...))
    assert "bow_separation" not in answer["strings"][0]
    assert "bow_separation" in answer["strings"][1]
    assert "bow_rise" not in answer["strings"][0]


def test_inner_heights_under_a_template_are_ignored() -> None:
    with_height = changed(BRIDGE, ["strings", 1, "height"], 50.0)
    assert KINDS["bridge"].answer_to(with_height) == KINDS["bridge"].answer_to(BRIDGE)


@pytest.mark.parametrize(
    "text",
    [b"", b"{", b'{"spread": NaN}', b'{"spread": Infinity}', b"[" * 100_000, b"\xff", b'"\\ud800"', b"1" * 6000],
)
def test_what_is_not_json_is_refused_at_the_body(text: bytes) -> None:
    with pytest.raises(Refusal) as refused:
        parse(text)
    assert [item.loc for item in refused.value.items] == [["body"]]


@pytest.mark.parametrize("data", [None, 5, "spacing", True, []])
def test_what_is_not_an_object_is_refused_at_the_body(data: Any) -> None:
    assert locs("spacing", data) == [["body"]]


json_values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(max_size=5),
    lambda inner: st.lists(inner, max_size=6) | st.dictionaries(st.text(max_size=5), inner, max_size=4),
    max_leaves=8,
)


@given(st.sampled_from(sorted(BRIDGE)), json_values)
def test_hostile_values_are_answered_or_refused_at_their_field(field: str, value: Any) -> None:
    """Whatever stands in a field: an answer without NaN, or a refusal that begins with body and has a sentence."""
    answer, items = outcome({**BRIDGE, field: value})
    assert bool(items) == (answer is None)
    assert all(item.loc[0] == "body" and item.msg for item in items)
    json.dumps(answer, allow_nan=False)


@given(
    count=st.integers(3, 6),
    radius=st.floats(30, 120),
    spread=st.floats(25, 60),
    height=st.floats(2, 8),
    rule=st.sampled_from(["equal_gaps", "equal_centres"]),
)
def test_three_to_six_strings_compute_the_same_bridge_scaled(
    count: int, radius: float, spread: float, height: float, rule: str
) -> None:
    """Everything twice as large gives everything twice as large: no hidden lengths."""

    def request(factor: float) -> dict[str, Any]:
        strings = [
            {"name": str(i), "diameter": 0.8 * factor, "nut_height": 0.4 * factor, "height": height * factor}
            for i in range(count)
        ]
        return {
            "string_length": 330 * factor,
            "fingerboard_length": 270 * factor,
            "projection": 27 * factor,
            "fingerboard_radius": 45 * factor,
            "nut_spread": 16 * factor,
            "bridge_spread": spread * factor,
            "crown_radius": radius * factor,
            "rule": rule,
            "strings": strings,
        }

    one, refused = outcome(request(1))
    two, refused_twice = outcome(request(2))
    assert [item.loc for item in refused] == [item.loc for item in refused_twice]
    if one is None or two is None:
        return
    for small, large in zip(one["strings"], two["strings"], strict=True):
        assert large["crown_height"] == pytest.approx(2 * small["crown_height"])
        if "bow_separation" in small:
            assert large["bow_separation"] == pytest.approx(small["bow_separation"])
