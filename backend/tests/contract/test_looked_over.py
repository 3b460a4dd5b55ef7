"""Around each example of the contract: every number a little less and a little more, every choice left out.

The examples fix one point of each formula, and their answers come from an independent reference. Here the answers
beside that point are kept, so that a formula cannot bend there unseen.
"""

from __future__ import annotations

import copy
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fidicula.contract.kinds import KINDS
from fidicula.contract.refusals import Refusal

from ..looked_over import check
from .test_contract import EXAMPLES

HERE = Path(__file__).parent / "looked_over"
NEAR = (0.94, 1.06)
LONG = {"schedule": ()}
"""A day at several benches is planned by a solver, which may find another plan as good."""


def leaves(value: Any, path: tuple[str | int, ...] = ()) -> Iterator[tuple[tuple[str | int, ...], Any]]:
    if isinstance(value, dict):
        for key, part in value.items():
            yield from leaves(part, (*path, key))
    elif isinstance(value, list):
        for i, part in enumerate(value):
            yield from leaves(part, (*path, i))
    else:
        yield path, value


def with_value(data: Any, path: tuple[str | int, ...], value: Any) -> Any:
    """None leaves it out."""
    changed = copy.deepcopy(data)
    place = changed
    for part in path[:-1]:
        place = place[part]
    if value is None:
        del place[path[-1]]
    else:
        place[path[-1]] = value
    return changed


def answered(kind: str, data: Any) -> dict[str, str]:
    try:
        answer = KINDS[kind].answer_to(data)
    except Refusal as refusal:
        return {"/".join(map(str, item.loc)): f"refused: {item.msg}" for item in refusal.items}
    return {
        "/".join(map(str, path)): f"{round(value, 9) + 0.0:.5g}" if isinstance(value, float) else str(value)
        for path, value in leaves(answer)
    }


def beside(name_of_example: str) -> Iterator[str]:
    kind, example = EXAMPLES[name_of_example]["kind"], EXAMPLES[name_of_example]["input"]
    here = answered(kind, example)
    for path, value in leaves(example):
        name = "/".join(map(str, path))
        tries: list[Any] = [None]
        if isinstance(value, int | float) and not isinstance(value, bool):
            tries = [type(value)(value * share) for share in NEAR]
            tries = [one for one in tries if one != value] or [None]
        for one in tries:
            there = answered(kind, with_value(example, path, one))
            other = [f"{key}={said}" for key, said in there.items() if here.get(key) != said]
            yield f"{name} {'left out' if one is None else f'{one:.6g}'}: {' '.join(other) or 'the same'}"


@pytest.mark.parametrize("name", [name for name in EXAMPLES if name not in LONG])
def test_a_formula_does_not_bend_beside_its_example(name: str) -> None:
    check(HERE / f"{name}.txt", "\n".join(beside(name)) + "\n")
