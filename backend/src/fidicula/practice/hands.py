"""Somebody's hands with their tools: how readings, cuts and files miss, by chance that a seed fixes."""

from __future__ import annotations

from dataclasses import dataclass, field
from random import Random

from fidicula.practice.shape import Shape

HEIGHT_NOISE = 0.05
"""Standard deviation of one reading of a height. [mm] Source: repeats by one hand; a tool's own step is finer."""
CUT_NOISE = 0.05
"""Of what a cut or a file takes. [mm]"""
SMALL_CUT = 0.3
"""A little filed misses by this share of it, where that is less."""
SETTLES = (0.02, 0.1)
"""What strings come down by at the bridge after they were put up. [mm]"""
SETTLES_AGAIN = 0.3
"""Of that, what they come down by each time that they are put up again."""
NEVER_DONE = 0.15
"""Of that, what is still to come after they were left to settle and tuned again."""
HURRIED = 0.6
"""The same where somebody reads before they have."""
NUT_NOISE = 0.025
"""Of a reading at the nut, where it is no worse than a card under a string. [mm]"""
BLOCK_NOISE = 0.02
"""Of a reading of a known length, which lies flat. [mm]"""
SEAT = 0.05
"""A slot that is only to seat a string is cut to a depth so well. [mm]"""

NOISE = {
    "projection": 0.15,
    "string_length": 0.5,
    "fingerboard_length": 0.4,
    "fingerboard_radius": 0.5,
    "fingerboard_radius_nut": 0.5,
    "nut_spread": 0.1,
    "bridge_spread": 0.1,
    "board_tilt": 0.2,
    "board_angle": 0.4,
    "slot_depth": HEIGHT_NOISE,
    "nut_height": HEIGHT_NOISE,
    "end_height": HEIGHT_NOISE,
}
"""Standard deviation of a reading, by measure. [mm, degrees]"""
BY_ONE_GAUGE = frozenset({"slot_depth", "nut_height", "end_height"})
"""What one gauge reads at the strings."""
STEP = {"fingerboard_radius": 0.5, "fingerboard_radius_nut": 0.5, "string_length": 0.5, "fingerboard_length": 0.5}
"""What is read off in steps."""


@dataclass
class Hands:
    """shape : what is worked on.  noise : 1 for an honest hand, 0 for a perfect one.  slips : share of readings.

    gauges : what each tool for heights is off, the same at all that it reads. [mm]
    hurried : reads before the strings have settled.  noisy_nut : a height at the nut scatters as any other.
    settling : strings come down after they were put up.
    """

    shape: Shape
    chance: Random
    noise: float = 1.0
    slips: float = 0.0
    directions: str = "vertical"
    gauges: dict[str, float] = field(default_factory=dict)
    hurried: bool = False
    noisy_nut: bool = True
    settling: bool = True

    def truth(self, measure: str, position: int | None) -> float:
        """What a perfect tool would find. [mm, degrees]"""
        board, strings = self.shape.board, self.shape.strings
        if position is None:
            single = {
                "projection": self.shape.projection,
                "string_length": board.string_length,
                "fingerboard_length": board.length,
                "fingerboard_radius": board.round_end,
                "fingerboard_radius_nut": board.round_nut,
                "nut_spread": strings[-1].nut_y - strings[0].nut_y,
                "bridge_spread": strings[-1].bridge_y - strings[0].bridge_y,
                "board_tilt": board.lean,
                "board_angle": board.slope,
            }
            return single[measure] if measure in single else self.shape.widths[measure]
        if measure == "slot_depth":
            return strings[position].slot
        if measure == "nut_height":
            return (
                strings[position].nut_height if self.directions == "vertical" else self.shape.shortest_at_nut(position)
            )
        return self.shape.upright(position) if self.directions == "vertical" else self.shape.shortest(position)

    def read_block(self, tool: str, known: float) -> float:
        """One reading of a known length, as it is typed. [mm]"""
        value = known + self.gauges.get(tool, 0.0) + self.noise * self.chance.gauss(0, BLOCK_NOISE)
        return round(value, 2 if self.noise else 6)

    def set_tool(self, tool: str, by: float) -> None:
        """A tool that reads too much by so much is set back. [mm]"""
        self.gauges[tool] = self.gauges.get(tool, 0.0) - by

    def read(self, measure: str, position: int | None, tool: str = "") -> float:
        """One reading, as it is typed. [mm, degrees]"""
        noise = NOISE.get(measure, 0.2)
        if measure == "nut_height" and not self.noisy_nut:
            noise = NUT_NOISE
        value = self.truth(measure, position) + self.noise * self.chance.gauss(0, noise)
        if measure in BY_ONE_GAUGE:
            value += self.gauges.get(tool, 0.0)
        step = STEP.get(measure, 0.01 if position is not None else 0.1)
        if self.noise:
            value = round(value / step) * step
        if measure != "board_tilt":
            value = max(0.0, value)
        if self.slips and self.chance.random() < self.slips:
            value *= self.chance.choice((10.0, 0.1))
        return round(value, 6 if not self.noise else 3)

    def _missed(self, wanted: float, most: float = CUT_NOISE) -> float:
        """What comes of something that was to be taken off. [mm]"""
        spread = min(most, SMALL_CUT * wanted)
        return max(0.0, wanted + self.noise * self.chance.gauss(0, spread))

    def cut_crown(self, takes: dict[int, float], slot_share: float) -> None:
        """The bridge is out: wood goes beside each string, and each gets a slot to sit in, if it has none that deep.

        takes : by string. [mm]  slot_share : of its thickness, how deep a string is seated.
        """
        for i, string in enumerate(self.shape.strings):
            wood = self._missed(takes.get(i, 0.0)) if takes.get(i, 0.0) > 0 else 0.0
            string.crown -= wood
            string.slot = max(0.0, string.slot - wood)
            seat = slot_share * string.diameter
            if string.slot < seat:
                string.slot = max(string.slot, seat + self.noise * self.chance.gauss(0, min(SEAT, 0.2 * seat)))
        self.string_up()

    def file_slots(self, by: dict[int, float]) -> None:
        """One string after the other is laid aside, its slot filed, and it is put back."""
        for i, deeper in by.items():
            self.shape.strings[i].slot += self._missed(deeper)
            self._up(i)

    def lower_beside(self, takes: dict[int, float]) -> None:
        """Wood goes beside the strings, whose floors stay."""
        for i, wood in takes.items():
            string = self.shape.strings[i]
            gone = min(self._missed(wood), string.slot)
            string.crown -= gone
            string.slot -= gone

    def file_nut(self, by: dict[int, float]) -> None:
        for i, deeper in by.items():
            self.shape.strings[i].nut_height = max(0.0, self.shape.strings[i].nut_height - self._missed(deeper, 0.03))
            self._up(i)

    def string_up(self) -> None:
        """New strings, or a new crown: they come down by all that they settle by."""
        for i in range(len(self.shape.strings)):
            self._up(i, 1.0)

    def _up(self, i: int, share: float = SETTLES_AGAIN) -> None:
        """A string that goes up sits a little higher until it has settled into its slots."""
        by = share * self.chance.uniform(*SETTLES)
        self.shape.strings[i].drop_left = by if self.noise and self.settling else 0.0

    def let_settle(self) -> None:
        """The strings are left to settle and tuned again, as long as this hand waits."""
        for string in self.shape.strings:
            string.drop_left *= HURRIED if self.hurried else NEVER_DONE

    def settle(self) -> None:
        """A day later they have come down by all."""
        for string in self.shape.strings:
            string.drop_left = 0.0
