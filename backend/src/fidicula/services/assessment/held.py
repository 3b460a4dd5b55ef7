"""One value to compute with, and where it comes from."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, Protocol

Origin = Literal["read", "derived", "last_visit", "figure", "tried", "simulated"]


@dataclass(frozen=True)
class Held:
    """A value to compute with. [mm]

    assumed : it is a figure, or came from a simulated device: no reading of this instrument.
    resolution : ± of the tool or of the repeats; of a figure, half of what it may well be.
    origin : read at this visit, told by other readings, read at the last visit, a figure, or tried on a page.
    """

    value: float
    assumed: bool
    resolution: float
    origin: Origin = "read"


class Holds(Protocol):
    """Whatever can be asked for a value: the state of an instrument at the bench."""

    def held(self, measure: str, position: int | None = None) -> Held | None: ...

    def read_or_figure(self, measure: str, position: int | None = None, *, figure: str = "") -> Held | None: ...
