"""A robot at the bench: it does exactly what the sheet says, through the API, on a simulated instrument."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import UTC, datetime
from random import Random
from typing import Any, Protocol
from uuid import uuid4

from fidicula.practice.drawn import drawn
from fidicula.practice.hands import Hands
from fidicula.practice.shape import Shape

OPTIONAL = ("fingerboard_radius_nut", "board_tilt", "board_angle")
"""Read once at the start: a bridge can do without them, and is nearer with them."""
MOST_STEPS = 60
KEYS_OF_A_READING = 4
"""Digits, the decimal mark and Enter: “5.62”, of which the mark goes unpressed as often as not."""
TOO_LOW_TO_FILE = 0.1
"""Told to lower a string that truly lies so far below its target: wrong advice. [mm]"""
NOT_DONE = 0.3
"""Told that all is well with a string that truly lies so far off: wrong advice. [mm]"""


class Client(Protocol):
    def get(self, url: str) -> Any: ...
    def post(self, url: str, *, json: Any) -> Any: ...


@dataclass
class Outcome:
    """How one instrument ended. off : by string-up, of each string: true height less target, at the board's end. [mm]

    at_the_end : the same when the instruction had nothing more to ask.  stuck : what it went on asking for, if it did.
    """

    seed: int
    family: str
    left_handed: bool
    off: list[list[float]] = field(default_factory=list)
    at_the_end: list[float] = field(default_factory=list)
    readings: int = 0
    keys: int = 0
    wrong: list[str] = field(default_factory=list)
    stuck: str = ""
    covered: list[bool] = field(default_factory=list)


@dataclass(frozen=True)
class Drawn:
    """What is drawn beside the shape: family, size, strings, hand, and how heights are read."""

    family: str
    size: str
    names: tuple[str, ...]
    set_name: str
    left_handed: bool
    directions: str


class Robot:
    def __init__(self, client: Client, seed: int, of: Drawn, *, noise: float = 1.0, slips: float = 0.0) -> None:
        self.client, self.of, self.chance = client, of, Random(seed * 7919 + 1)
        self.outcome = Outcome(seed, of.family, of.left_handed)
        self.noise, self.slips, self.seed = noise, slips, seed
        self.sheet: dict[str, Any] = {}
        self.at = ""
        self.hands: Hands

    def work(self) -> Outcome:
        self._arrive()
        for measure in OPTIONAL:
            self._read(measure, None)
        for _ in range(MOST_STEPS):
            if not self._step():
                break
        else:
            self.outcome.stuck = f"{self.sheet['instruction']['code']}: {self.sheet['instruction']['title']}"
        self.hands.settle()
        self.outcome.at_the_end = self._off()
        if not self.outcome.stuck:
            for i, off in enumerate(self.outcome.at_the_end):
                if abs(off) > NOT_DONE:
                    self.outcome.wrong.append(f"left at {off:+.2f}: {self.of.names[i]}")
        return self.outcome

    # At the door

    def _arrive(self) -> None:
        made = self._ask(
            "/api/instruments",
            {
                "id": str(uuid4()),
                "family": self.of.family,
                "size": self.of.size,
                "string_names": list(self.of.names),
                "left_handed": self.of.left_handed,
                "kind": "bridge",
                "complaint": "a new bridge, left high",
            },
        )
        self.at = f"/api/instruments/{made['ticket']}"
        sets = self.client.get(f"{self.at}/string-sets").json()
        of_name = next(one for one in sets if one["name"] == self.of.set_name)
        self.sheet = self._ask(f"{self.at}/strings", {"id": str(uuid4()), "set_id": of_name["id"]})
        self.tools = {
            (place["measure"], place["position"]): place["tools"] for place in self.client.get(f"{self.at}/card").json()
        }
        self.hands = Hands(self._shape(), self.chance, self.noise, self.slips, self.of.directions)

    def _shape(self) -> Shape:
        cells = {(cell["measure"], cell.get("position")): cell for cell in self.sheet["cells"]}
        usual = {measure: cell["assumed"] for (measure, position), cell in cells.items() if position is None}
        count = len(self.of.names)
        targets = self.sheet["cut"]["strings"]
        return drawn(
            self.seed,
            family=self.of.family,
            usual={measure: value for measure, value in usual.items() if value is not None},
            names=self.of.names,
            diameters=[string["diameter"] for string in self.sheet["strings"]["strings"]],
            ends=[targets[i]["target_end"] for i in range(count)],
            nuts=[cells["nut_height", i]["assumed"] for i in range(count)],
        )

    # One instruction after the other

    def _step(self) -> bool:
        """Whether there was something to do."""
        told = self.sheet["instruction"]
        code = told["code"]
        if code in ("hand_over", "settle", "wait"):
            return False
        if code == "decide":
            return self._decide(told["question"])
        if code == "check_readings":
            return self._look_again(told)
        if told["read"]:
            self._read_all(told["read"])
            return True
        amounts = {name: self._amounts(told, name) for name in ("take", "file_first", "slot_by", "beside")}
        self._judge(amounts)
        if code in ("cut_crown", "file_slots", "lower_crown"):
            self._cover()
        if code == "cut_crown":
            self.hands.cut_crown(amounts["take"], 1 / 3)
        elif code == "file_slots":
            self.hands.file_slots(amounts["slot_by"])
        elif code == "lower_crown":
            self.hands.lower_beside(amounts["beside"])
        elif code == "file_nut":
            self.hands.file_nut(amounts["file_first"])
        else:
            self.outcome.stuck = f"{code}: {told['title']}"
            return False
        self.sheet = self._ask(
            f"{self.at}/works",
            {"id": str(uuid4()), "work": told["record"]["work"], "after_work": self.sheet["last_work"]},
        )
        self.hands.settle()
        if code in ("cut_crown", "file_slots"):
            self.outcome.off.append(self._off())
        return True

    def _look_again(self, told: dict[str, Any]) -> bool:
        """What looks like a slip is read again, and confirmed where it reads the same."""
        for place in told["read"]:
            self._read(place["measure"], place["position"])
        still = self.sheet["instruction"]
        if still["code"] == "check_readings":
            body = {"id": str(uuid4()), "act": "keep", "readings": still["slip"]["readings"]}
            self.sheet = self._ask(f"{self.at}/readings/put-right", body)
        return True

    def _decide(self, question: str) -> bool:
        asked = next(one for one in self.sheet["questions"] if one["question"] == question)
        options = {one["outcome"]: one for one in asked["options"]}
        recommended = next((one for one in asked["options"] if one["recommended"]), asked["options"][0])
        # Where the owner is to be asked, the owner says yes.
        option = options["agreed"] if question == "approval" else recommended
        reason = "as recommended" if option["needs_reason"] else ""
        self.sheet = self._ask(
            f"{self.at}/decisions",
            {"id": str(uuid4()), "question": question, "outcome": option["outcome"], "reason": reason},
        )
        return True

    @staticmethod
    def _amounts(told: dict[str, Any], name: str) -> dict[int, float]:
        return {one["position"]: one["value"] for one in told["amounts"] if one["name"] == name}

    def _judge(self, amounts: dict[str, dict[int, float]]) -> None:
        off = self._off()
        for name in ("take", "slot_by"):
            for i in amounts[name]:
                if off[i] < -TOO_LOW_TO_FILE:
                    self.outcome.wrong.append(f"{name} at {off[i]:+.2f}: {self.of.names[i]}")

    def _cover(self) -> None:
        """Whether what is said to be known of each string's way down covers what it truly is."""
        off = self._off()
        for i, string in enumerate(self.sheet["cut"]["strings"]):
            if string["drop"] is not None and string["drop_known_to"]:
                truly = self.hands.shape.drop_for(i, off[i])
                self.outcome.covered.append(abs(truly - string["drop"]) <= string["drop_known_to"])

    def _off(self) -> list[float]:
        """True height less target, straight up at the board's end. [mm]"""
        wanted = [string["target_end"] for string in self.sheet["cut"]["strings"]]
        return [self.hands.shape.upright(i) - aim for i, aim in enumerate(wanted)]

    # Readings

    def _read_all(self, places: list[dict[str, Any]]) -> None:
        for place in places:
            for _ in range(place["times"]):
                self._read(place["measure"], place["position"])

    def _read(self, measure: str, position: int | None) -> None:
        for _ in range(4):
            self._take(measure, position)
            cell = self._cell(measure, position)
            if cell["state"] != "doubted":
                return
        self.sheet = self._ask(f"{self.at}/readings/{self._cell(measure, position)['reading_id']}/confirm", {})

    def _take(self, measure: str, position: int | None) -> None:
        before = self._cell(measure, position)
        is_repeat = before is not None and before["state"] == "current" and before["count"] > 0
        is_repeat = is_repeat and not before.get("spread_is_wide", False)
        tools = self.tools[measure, position]
        tool = "wedge" if self.of.directions == "shortest" and "wedge" in tools else tools[0]
        typed = f"{self.hands.read(measure, position):.6g}"
        self.outcome.readings += 1
        self.outcome.keys += KEYS_OF_A_READING
        self.sheet = self._ask(
            f"{self.at}/readings",
            {
                "id": str(uuid4()),
                "measure": measure,
                "position": position,
                "typed": typed,
                "tool": tool,
                "taken_at": datetime.now(UTC).isoformat(),
                "shown": None,
                "after_work": self.sheet["last_work"],
                "repeats": is_repeat,
            },
        )

    def _cell(self, measure: str, position: int | None) -> Any:
        empty = {"state": "missing", "count": 0}
        return (
            next(
                (one for one in self.sheet["cells"] if (one["measure"], one.get("position")) == (measure, position)),
                empty,
            )
            | {}
        )

    def _ask(self, url: str, body: dict[str, Any]) -> dict[str, Any]:
        answer = self.client.post(url, json=body)
        if answer.status_code != 200 and answer.status_code != 201:
            raise RuntimeError(f"{url} {body}: {answer.status_code} {answer.text[:400]}")
        found: dict[str, Any] = answer.json()
        if "cells" in found:
            for cell in found["cells"]:
                for name, empty in (("state", "missing"), ("count", 0), ("assumed", None), ("reading_id", None)):
                    cell.setdefault(name, empty)
        return found
