r"""The shape of a simulated instrument in space, and what a perfect tool would find on it.

Everything is worked out in the board's own frame: s along its crest from the nut's front edge, y across to the treble,
n square to both. The bridge stands square to the ribs, to which the board slopes, so that it is not square to the
board. Strings are round bodies on slot floors.

        n
        |            .-'|  bridge, leaning back in this frame by the board's slope
        |nut  ____.-'   |
     ___|_.--'__________|
        |_______________|___ s
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field


@dataclass(frozen=True)
class BoardShape:
    """The playing surface: a cone with a hollow along it. [mm, degrees]

    string_length : from the nut to the bridge along the crest.  length : to the free end.
    round_nut, round_end : radii across at both ends.  hollow_bass, hollow_treble : the most of it, on each side.
    lean : across, positive where it is up on the treble side.  slope : to the ribs.
    """

    string_length: float
    length: float
    round_nut: float
    round_end: float
    hollow_bass: float
    hollow_treble: float
    lean: float
    slope: float

    def surface(self, s: float, y: float) -> float:
        """Height of the wood over the crest's straight line, n. [mm]"""
        centre_y, centre_n, radius = self.section(s)
        return centre_n + math.sqrt(radius * radius - (y - centre_y) ** 2) - self._hollow(s, y)

    def section(self, s: float) -> tuple[float, float, float]:
        """Middle of the round across at a station, and its radius; the whole round is turned by the lean. [mm]"""
        radius = self.round_nut + (self.round_end - self.round_nut) * s / self.length
        turned = math.radians(self.lean)
        return radius * math.sin(turned), -radius * math.cos(turned), radius

    def _hollow(self, s: float, y: float) -> float:
        if not 0 < s < self.length:
            return 0.0
        along = s / self.length
        side = self.hollow_bass if y < 0 else self.hollow_treble
        return 4 * side * along * (1 - along)


@dataclass
class StringShape:
    """One string: a round body on the floors of two slots.

    nut_y, bridge_y : offsets of its middle. [mm]  nut_height : of its underside over the board at the nut. [mm]
    crown : of the wood beside it at the bridge, over the crest's line drawn out, along the bridge. [mm]
    slot : depth of its slot in the crown. [mm]
    drop_left : what it will still come down by at the bridge as it settles. [mm]
    """

    name: str
    diameter: float
    nut_y: float
    bridge_y: float
    nut_height: float
    crown: float
    slot: float
    drop_left: float = 0.0

    @property
    def floor(self) -> float:
        return self.crown - self.slot


@dataclass
class Shape:
    """projection : of the crest's line over the belly, along the bridge. [mm]

    bridge_lean : of the bridge, from square to the ribs. [degrees]
    """

    board: BoardShape
    strings: list[StringShape]
    projection: float
    widths: dict[str, float] = field(default_factory=dict)
    bridge_lean: float = 0.0

    def _underside(self, i: int, s: float) -> tuple[float, float]:
        """Where the string's underside passes a station: y and n. [mm]"""
        string, board = self.strings[i], self.board
        slope = math.radians(board.slope + self.bridge_lean)
        height = string.floor + string.drop_left
        bridge_s, bridge_n = board.string_length + height * math.sin(slope), height * math.cos(slope)
        nut_n = board.surface(0.0, string.nut_y) + string.nut_height
        share = s / bridge_s
        return string.nut_y + (string.bridge_y - string.nut_y) * share, nut_n + (bridge_n - nut_n) * share

    def upright(self, i: int) -> float:
        """Height at the board's free end, square to the crest's line, under the string. [mm]"""
        y, n = self._underside(i, self.board.length)
        return n - self.board.surface(self.board.length, y)

    def shortest(self, i: int) -> float:
        """What a wedge finds there: the gap between two rounds. [mm]"""
        return self._gap(i, self.board.length)

    def shortest_at_nut(self, i: int) -> float:
        return self._gap(i, 0.0)

    def _gap(self, i: int, s: float) -> float:
        y, n = self._underside(i, s)
        centre_y, centre_n, radius = self.board.section(s)
        half = self.strings[i].diameter / 2
        return math.dist((y, n + half), (centre_y, centre_n)) - radius - half

    def drop_for(self, i: int, lower: float) -> float:
        """How much lower the floor has to be for the board's end to read lower by so much. [mm]

        Found by trying: nothing of the way there is taken over from how the program works it out.
        """
        string, start, now = self.strings[i], self.upright(i), self.strings[i].slot
        low, high = -20.0, 20.0
        for _ in range(60):
            middle = (low + high) / 2
            string.slot = now + middle
            if start - self.upright(i) < lower:
                low = middle
            else:
                high = middle
        string.slot = now
        return (low + high) / 2
