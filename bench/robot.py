"""A robot at the bench: it does exactly what the sheet says, through the API, on a simulated instrument."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import UTC, datetime
from random import Random
from typing import Any, Protocol
from uuid import uuid4

from fidicula.practice.drawn import Arrival, World, arrival_of, drawn
from fidicula.practice.hands import Hands
from fidicula.practice.shape import Shape

MOST_STEPS = 60
KEYS_OF_A_READING = 4
"""Digits, the decimal mark and Enter: “5.62”, of which the mark goes unpressed as often as not."""
IS_TOO_LOW = 0.05
"""Told to lower a string that truly lies so far below its target: wrong advice. [mm]"""
PAST = 0.1
"""Told to file so far past the target: wrong advice. [mm]"""
NUT_PAST = 0.05
"""Told to file a nut slot past its aim by more: wrong advice. [mm]"""
NOT_DONE = 0.1
"""Called done though a string that was worked on lies further off, or one that was left lies out of its band by more
than this share of it: wrong advice. [mm]"""
OUT_OF_BAND = 0.02
CAME_TOO_LOW = 0.1
"""A string that came in further below its target cannot be brought to it by filing. [mm]"""
GAUGE = 0.03
"""Standard deviation of what a whole tool is off, at all that it reads on one instrument. [mm]"""
CHECKED = ("caliper", "wedge")
"""Tools that read heights."""
BLOCK, OF_A_CHECK, MOST_CHECKS = 5.0, 5, 4
"""A known length, in millimetres; so often it is read for a check; so often a tool is set at most."""
ROUGH = 1.6
"""A rough hand scatters by so much more."""
OTHER_WORK = frozenset({"new_bridge", "new_nut", "fill_slot", "remove_nut", "dress_board", "fit_wedge", "reset_neck"})
"""What is another job than bringing the strings to their heights: the robot stops there."""


class Client(Protocol):
    def get(self, url: str) -> Any: ...
    def post(self, url: str, *, json: Any) -> Any: ...


@dataclass
class Outcome:
    """How one instrument ended. off : by string-up, of each string: true height less target, at the board's end. [mm]

    at_the_end : the same when the instruction had nothing more to ask.  stuck : what it went on asking for, if it did.
    other_work : what it was sent to instead.  low : the strings that came too low.
    covered : whether what is said of a value covers what it truly is, by the groups that the value is of.
    """

    seed: int
    family: str
    left_handed: bool
    direction: str = "vertical"
    arrival: Arrival = "high"
    is_rough: bool = False
    low: frozenset[int] = frozenset()
    other_work: str = ""
    worked: set[int] = field(default_factory=set)
    off: list[list[float]] = field(default_factory=list)
    at_the_end: list[float] = field(default_factory=list)
    readings: int = 0
    on_blocks: int = 0
    keys: int = 0
    wrong: list[str] = field(default_factory=list)
    stuck: str = ""
    covered: list[tuple[tuple[str, ...], bool]] = field(default_factory=list)


@dataclass(frozen=True)
class Drawn:
    """What is drawn beside the shape: family, size, strings, hand, and how heights are read."""

    family: str
    size: str
    names: tuple[str, ...]
    set_name: str
    left_handed: bool
    directions: str
    is_rough: bool = False
    hurried: bool = False
    gauge: float = 0.0
    pin: str = ""


class Robot:
    def __init__(
        self,
        client: Client,
        seed: int,
        of: Drawn,
        *,
        noise: float = 1.0,
        slips: float = 0.0,
        world: World | None = None,
    ) -> None:
        self.client, self.of, self.chance = client, of, Random(seed * 7919 + 1)
        self.world = world or World()
        self.outcome = Outcome(
            seed, of.family, of.left_handed, of.directions, arrival_of(seed, self.world), of.is_rough
        )
        self.noise, self.slips, self.seed = noise * (ROUGH if of.is_rough else 1.0), slips, seed
        self.sheet: dict[str, Any] = {}
        self.at = ""
        self.hands: Hands

    def work(self) -> Outcome:
        self._arrive()
        self.came = [self.hands.shape.upright(i) for i in range(len(self.of.names))]
        for _ in range(MOST_STEPS):
            if not self._step():
                break
        else:
            self.outcome.stuck = f"{self.sheet['instruction']['code']}: {self.sheet['instruction']['title']}"
        self.hands.settle()
        self.outcome.at_the_end = self._off()
        self._hand_over()
        low = [i for i, came in enumerate(self.came) if came < self.ends[i] - CAME_TOO_LOW]
        self.outcome.low = frozenset(low)
        if not self.outcome.stuck and not self.outcome.other_work:
            for i, off in enumerate(self.outcome.at_the_end):
                low, high = self.bands[i]
                out = max(low - OUT_OF_BAND - self.ends[i] - off, self.ends[i] + off - high - OUT_OF_BAND, 0.0)
                if (self.outcome.worked and abs(off) > NOT_DONE and i not in self.outcome.low) or (
                    not self.outcome.worked and out
                ):
                    self.outcome.wrong.append(f"done at {off:+.2f}: {self.of.names[i]}")
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
        shape = self._shape()
        world = self.world
        self.hands = Hands(
            shape,
            self.chance,
            self.noise,
            self.slips,
            self.of.directions,
            gauges=dict.fromkeys(CHECKED, self.of.gauge if self.noise else 0.0),
            hurried=self.of.hurried,
            noisy_nut=world.nut_noise,
            settling=world.settling,
        )

    def _shape(self) -> Shape:
        cells = {(cell["measure"], cell.get("position")): cell for cell in self.sheet["cells"]}
        usual = {measure: cell["assumed"] for (measure, position), cell in cells.items() if position is None}
        count = len(self.of.names)
        self.ends = [string["target_end"] for string in self.sheet["cut"]["strings"]]
        self.nuts = [cells["nut_height", i]["assumed"] for i in range(count)]
        own = [cells["end_height", i].get("band") for i in range(count)]
        half = [0.2 if band is None else min(band["aim"] - band["low"], band["high"] - band["aim"]) for band in own]
        self.bands = [
            (band["low"], band["high"]) if band is not None else (self.ends[i] - half[i], self.ends[i] + half[i])
            for i, band in enumerate(own)
        ]
        return drawn(
            self.seed,
            family=self.of.family,
            usual={measure: value for measure, value in usual.items() if value is not None},
            names=self.of.names,
            diameters=[string["diameter"] for string in self.sheet["strings"]["strings"]],
            ends=self.ends,
            nuts=self.nuts,
            bands=self.bands,
            world=self.world,
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
        if code in OTHER_WORK:
            self.outcome.other_work = code
            return False
        amounts = {name: self._amounts(told, name) for name in ("take", "file_first", "slot_by", "beside")}
        self._judge(amounts)
        self._cover(code, amounts)
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
        self.outcome.worked |= {*amounts["take"], *amounts["slot_by"]}
        if any("settle" in line for line in told["do"]):
            self.hands.let_settle()
        self.sheet = self._ask(
            f"{self.at}/works",
            {"id": str(uuid4()), "work": told["record"]["work"], "after_work": self.sheet["last_work"]},
        )
        if code in ("cut_crown", "file_slots"):
            self.outcome.off.append(self._off_settled())
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
        off, names = self._off(), self.of.names
        for i, take in amounts["take"].items():
            # Wood above the floor of a deep slot lowers no string.
            lowers = take - self.hands.shape.strings[i].slot
            if lowers > 0 and off[i] < -IS_TOO_LOW:
                self.outcome.wrong.append(f"take at {off[i]:+.2f}: {names[i]}")
        for i, by in amounts["slot_by"].items():
            if off[i] < -IS_TOO_LOW:
                self.outcome.wrong.append(f"slot_by at {off[i]:+.2f}: {names[i]}")
            elif by > self.hands.shape.drop_for(i, off[i]) + PAST:
                self.outcome.wrong.append(f"slot_by {by:.2f} past: {names[i]}")
        for i, by in amounts["file_first"].items():
            nut = self.hands.shape.strings[i].nut_height
            if nut <= self.nuts[i] + NUT_PAST:
                self.outcome.wrong.append(f"nut filed at its aim, {nut - self.nuts[i]:+.2f}: {names[i]}")
            elif nut - by < self.nuts[i] - NUT_PAST:
                self.outcome.wrong.append(f"nut filed past, {nut - by - self.nuts[i]:+.2f}: {names[i]}")

    def _cover(self, code: str, amounts: dict[str, dict[int, float]]) -> None:
        """Whether what is said to be known of each string covers what it truly is."""
        off, last = self._off(), len(self.of.names) - 1
        after = "after the crown" if self.outcome.off else "before the crown"
        for i, string in enumerate(self.sheet["cut"]["strings"]):
            groups = ("outer" if i in (0, last) else "inner", self.of.directions, after)
            truly = self.hands.shape.drop_for(i, off[i])
            slot, seat = self.hands.shape.strings[i].slot, self.of_third(i)
            if code in ("cut_crown", "file_slots", "lower_crown") and string["drop"] is not None:
                self._covers(("heights", *groups), truly - string["drop"], string["drop_known_to"])
            if code == "cut_crown" and string["wood"] is not None:
                self._covers(("wood", *groups), truly + slot - seat - string["wood"], string["uncertainty"])
            if code == "lower_crown" and i in amounts["beside"]:
                by = next(one for one in self.sheet["instruction"]["amounts"] if one["position"] == i)
                self._covers(("slots", *groups), slot - seat - string["beside"], by["uncertainty"])
            if code == "file_nut" and string["nut_known_to"]:
                read = self._cell("nut_height", i)["value"]
                self._covers(("nut", *groups), self.hands.truth("nut_height", i) - read, string["nut_known_to"])

    def _covers(self, groups: tuple[str, ...], off: float, known_to: float) -> None:
        self.outcome.covered.append((groups, abs(off) <= known_to))

    def of_third(self, i: int) -> float:
        """How deep a string is to be seated: a third of it. [mm]"""
        return self.hands.shape.strings[i].diameter / 3

    def _off(self) -> list[float]:
        """True height less target, straight up at the board's end. [mm]"""
        strings = self.sheet["cut"]["strings"]
        if all(string["target_end"] is not None for string in strings):
            self.ends = [string["target_end"] for string in strings]
        return [self.hands.shape.upright(i) - aim for i, aim in enumerate(self.ends)]

    def _off_settled(self) -> list[float]:
        """The same once the strings have come down by all that they still come down by. [mm]"""
        strings = self.hands.shape.strings
        left = [string.drop_left for string in strings]
        self.hands.settle()
        found = self._off()
        for string, drop in zip(strings, left, strict=True):
            string.drop_left = drop
        return found

    def _hand_over(self) -> None:
        """It leaves, so that the shop has learnt from it."""
        body = {"id": str(uuid4()), "pin": self.of.pin, "left_open": {"": "as the sheet says"}}
        answer = self.client.post(f"{self.at}/hand-over", json=body)
        if answer.status_code != 200:
            raise RuntimeError(f"hand-over: {answer.status_code} {answer.text[:400]}")

    # Readings

    def _check_tools(self) -> None:
        """What the sheet wants checked is held to a block, and set, until it reads true."""
        for tool in [one["check"] for one in self.sheet["notices"] if one["check"]]:
            for _ in range(MOST_CHECKS):
                self.outcome.on_blocks += OF_A_CHECK
                read = [f"{self.hands.read_block(tool, BLOCK):.6g}" for _ in range(OF_A_CHECK)]
                body = {"id": str(uuid4()), "known": f"{BLOCK:g}", "read": read}
                found = self._ask(f"/api/tools/{tool}/checked", body)
                if not found["to_set"]:
                    break
                self.hands.set_tool(tool, found["off"])
            self.sheet = self.client.get(f"{self.at}/sheet").json()

    def _read_all(self, places: list[dict[str, Any]]) -> None:
        for place in places:
            for _ in range(place["times"]):
                self._read(place["measure"], place["position"])
                if self.world.checks:
                    self._check_tools()

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
        typed = f"{self.hands.read(measure, position, tool):.6g}"
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
