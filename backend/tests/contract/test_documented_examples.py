"""The worked examples of docs/computation.md: what is written there by hand is what comes out."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

import pytest
from fidicula.contract.kinds import KINDS

DOCUMENT = Path(__file__).parents[3] / "docs" / "computation.md"
EXAMPLES = [
    (kind, json.loads(text))
    for kind, text in re.findall(r"^```json compute (\w+)\n(.*?)^```$", DOCUMENT.read_text(), re.DOTALL | re.MULTILINE)
]
ANGLES = re.compile(r"angle|_lean$")
FORCES_AND_SHARES = re.compile(r"tension|force|_foot$|percent|interval")
"""Names of what is not a length: a force, a share or an interval, held to 0.1 %."""


def assert_near(ours: Any, written: Any, name: str) -> None:
    """Every written field is there and near; null in a list passes over an entry."""
    if isinstance(written, dict):
        for key, value in written.items():
            assert key in ours, f"{name} has no {key}"
            assert_near(ours[key], value, key)
    elif isinstance(written, list):
        assert len(ours) >= len(written), name
        for our, value in zip(ours, written, strict=False):
            if value is not None:
                assert_near(our, value, name)
    elif isinstance(written, bool | str) or written is None:
        assert ours == written, name
    elif ANGLES.search(name):
        assert ours == pytest.approx(written, abs=0.01), name
    elif FORCES_AND_SHARES.search(name):
        assert ours == pytest.approx(written, rel=0.001), name
    else:
        assert ours == pytest.approx(written, abs=0.005), name


@pytest.mark.parametrize(("kind", "example"), EXAMPLES, ids=[f"{i}-{kind}" for i, (kind, _) in enumerate(EXAMPLES)])
def test_worked_example(kind: str, example: dict[str, Any]) -> None:
    assert_near(KINDS[kind].answer_to(example["in"]), example["out"], kind)


def test_every_kind_has_its_section_sketch_or_words_and_an_example() -> None:
    headings = set(re.findall(r"^## (\w+)$", DOCUMENT.read_text(), re.MULTILINE))
    assert set(KINDS) <= headings
    assert set(KINDS) == {kind for kind, _ in EXAMPLES}
    for section in re.split(r"^## ", DOCUMENT.read_text(), flags=re.MULTILINE)[1:]:
        if section.split("\n")[0] in KINDS:
            for part in ("*Takes for granted*", "*How good*", "*Source*"):
                assert part in section, f"{section[:20]} does not say {part}"
