"""What phrasing gives to the screen."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True)
class Phrase:
    """An instruction in words. title : what to do.  says : why, and what goes with it.  do : the steps, in order.

    caution : the danger and its remedy, None without one.
    """

    title: str
    says: list[str]
    do: list[str]
    caution: str | None = None


@dataclass(frozen=True)
class FoundView:
    """What readings say together. of : the measure that it is about, or `spacing_nut`, `spacing_bridge`."""

    of: str
    says: str


@dataclass(frozen=True)
class Why:
    """Behind one figure: the formula with this instrument's numbers, what it follows, who set that."""

    title: str
    lines: list[str]
    follows: str


@dataclass(frozen=True)
class Undoable:
    """The newest thing that can be taken back."""

    kind: Literal["reading", "work", "choice", "decision", "mark", "seen"]
    id: str
    words: str
