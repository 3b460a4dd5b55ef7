"""The demo's cuts, worked again from their readings with a pencil's formulas alone, in both hands and five strings.

mark  = (nut + (end - nut) · S / L) / cos(slope)  over the board's line, along the bridge
crown = board's line + mark + a third of d        the outer two; the inner ones lie on the circle through them
wood  = mark now - mark wanted + slot now - a third of d
"""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

import pytest
from fastapi.testclient import TestClient

from .test_bench import Bench

SLOPES = {"violin": 8, "viola": 8, "bass": 12.5}
"""Of the board to the ribs, by family: nobody read it here. [degrees]"""


def spaced(spread: float, diameters: list[float]) -> list[float]:
    """Equal air: what the strings leave of the spread, shared out between them."""
    air = (spread - sum(diameters) + (diameters[0] + diameters[-1]) / 2) / (len(diameters) - 1)
    places = [-spread / 2]
    for left, right in pairwise(diameters):
        places.append(places[-1] + left / 2 + air + right / 2)
    return places


def fall(radius: float, y: float) -> float:
    """How far a round of this radius lies under its crest."""
    return radius - math.sqrt(radius * radius - y * y)


def circle_through(left: tuple[float, float], right: tuple[float, float], radius: float) -> tuple[float, float]:
    """The middle of the circle that bulges up through two points."""
    across, up = (left[0] + right[0]) / 2, (left[1] + right[1]) / 2
    apart = math.dist(left, right)
    down = math.sqrt(radius * radius - apart * apart / 4)
    return across + down * (right[1] - left[1]) / apart, up - down * (right[0] - left[0]) / apart


def by_hand(sheet: dict[str, Any]) -> list[float]:
    """The wood at each string."""
    cells = {(cell["measure"], cell.get("position")): cell for cell in sheet["cells"]}

    def one(measure: str, position: int | None = None) -> float:
        return float(cells[measure, position]["value"])

    diameters = [string["diameter"] for string in sheet["strings"]["strings"]]
    count = len(diameters)
    length, board = one("string_length"), one("fingerboard_length")
    at_nut, at_bridge = spaced(one("nut_spread"), diameters), spaced(one("bridge_spread"), diameters)
    square = math.cos(math.radians(SLOPES[sheet["instrument"]["family"]]))
    nut = []
    for i in range(count):
        band = cells["nut_height", i]["band"]
        nut.append(one("nut_height", i) if band["side"] == "in_band" else band["aim"])

    def mark(end: float, i: int, at: list[float]) -> float:
        return (at[i] + (end - at[i]) * length / board) / square

    def line(i: int) -> float:
        """The board is as round at its nut as at its end: the line under a string that spreads falls on."""
        at_the_nut = fall(one("fingerboard_radius"), at_nut[i])
        at_its_end = fall(one("fingerboard_radius"), at_nut[i] + (at_bridge[i] - at_nut[i]) * board / length)
        return one("projection") - (at_the_nut + (at_its_end - at_the_nut) * length / board) / square

    outer = (0, count - 1)
    wanted = {i: mark(cells["end_height", i]["band"]["aim"], i, nut) for i in outer}
    crowns = {i: (at_bridge[i], line(i) + wanted[i] + diameters[i] / 3) for i in outer}
    middle = circle_through(crowns[0], crowns[count - 1], sheet["drawing"]["crown_radius"])
    wood = []
    now = [one("nut_height", i) for i in range(count)]
    for i in range(count):
        if i not in wanted:
            top = middle[1] + math.sqrt(sheet["drawing"]["crown_radius"] ** 2 - (at_bridge[i] - middle[0]) ** 2)
            wanted[i] = top - diameters[i] / 3 - line(i)
        wood.append(mark(one("end_height", i), i, now) - wanted[i] + one("slot_depth", i) - diameters[i] / 3)
    return wood


HALF_SIZE = {
    "end_height": [5.2, 4.8, 4.3, 3.4],
    "nut_height": [0.7, 0.65, 0.55, 0.4],
    "slot_depth": [0.25, 0.2, 0.2, 0.1],
}
HALF_SIZE_SINGLES = {
    "projection": 22.6,
    "string_length": 285,
    "fingerboard_length": 235,
    "fingerboard_radius": 39,
    "nut_spread": 14.4,
    "bridge_spread": 30.2,
}


def take_half_size(bench: Bench) -> None:
    """RW-103, whose bridge is warped: what its new one is cut by."""
    for measure, values in HALF_SIZE.items():
        for position, value in enumerate(values):
            bench.take(measure, position, str(value))
    for measure, single in HALF_SIZE_SINGLES.items():
        bench.take(measure, None, str(single))


@pytest.mark.parametrize("ticket", ["RW-101", "RW-102", "RW-103", "RW-105", "RW-108"])
def test_the_wood_at_every_string(client: TestClient, ticket: str) -> None:
    bench = Bench(client, ticket)
    if ticket == "RW-101":
        bench.name_strings()
        bench.take_all()
    if ticket == "RW-103":
        if bench.sheet["strings"] is None:
            bench.name_strings("Harbour light")
        take_half_size(bench)
    assert bench.sheet["recipe"]["heights_at_mark"] is False
    assert bench.wood() == pytest.approx(by_hand(bench.sheet), abs=0.005)


def test_the_first_violin_to_the_hundredth(client: TestClient) -> None:
    """RW-101's G by pencil: 1.10 * 327/270 - 0.35 * 57/270 = 1.258, by 0.9903 for the slope 1.271; 0.10 - 0.267 for the
    slots: 1.10 of wood."""
    bench = Bench(client)
    bench.name_strings()
    bench.take_all()
    assert bench.sheet["cut"]["strings"][0]["drop"] == pytest.approx(1.2707, abs=1e-4)
    assert bench.wood()[0] == pytest.approx(1.1040, abs=1e-4)
