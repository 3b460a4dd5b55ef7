"""What a tool is off at everything that it reads, by checks on lengths that are known.

a block of 5.00 reads    5.04  5.03  5.05  5.03  5.04    it reads 0.04 too much, known to the root of five readings
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean

from fidicula.core.readings.estimate import repeats_of, rounding_of, scatter_of
from fidicula.core.readings.states import contradict

SET_FROM = 1.5
"""A tool is to be set once it is off by more than so many standard deviations of what its check is known to."""


@dataclass(frozen=True)
class Check:
    """What a check found. at : when. [days, from any beginning]  off : what the tool read more than was there. [mm]

    deviation : how well that is known: standard deviation, above 0. [mm]
    apart : its readings lie further apart than chance explains.
    """

    at: float
    off: float
    deviation: float
    apart: bool = False

    @property
    def is_true(self) -> bool:
        """Whether there is nothing to set."""
        return not self.apart and abs(self.off) <= SET_FROM * self.deviation

    @property
    def gauge(self) -> float:
        """What the tool is off at everything that it reads, while it is left as it was: standard deviation. [mm]"""
        return math.hypot(self.off, self.deviation)


def check_of(*, at: float, known: Sequence[float], read: Sequence[float], scatter: float, resolution: float) -> Check:
    """at : as for `Check`.  known, read : the lengths and what the tool read of each, in one order, at least one. [mm]

    scatter : starting figure of one reading of a known length, standard deviation, above 0. [mm]
    resolution : the finest that the tool shows, 0 or more. [mm]
    Source: the mean of the differences; type A of the guide to the expression of uncertainty, with the tool's figure
    as a prior, as for a hand's readings.
    """
    differences = [one - there for one, there in zip(read, known, strict=True)]
    spread = max(differences) - min(differences)
    of_one = scatter_of(repeats_of([differences]), start=scatter)
    by_chance = math.hypot(of_one, rounding_of(resolution)) / math.sqrt(len(differences))
    apart = contradict(spread, math.hypot(scatter, rounding_of(resolution)), len(differences))
    return Check(at, fmean(differences), max(by_chance, spread / 2) if apart else by_chance, apart)


def gauge_at(when: float, checks: Sequence[Check], *, unchecked: float, holds: float) -> float:
    """What a tool is off at everything that it reads: standard deviation. [mm]

    when : of a reading.  checks : in order.  unchecked : of a tool that nobody checked.
    holds : so long a check tells of the readings before and after it; of those between two the later one does, for what
    the tool is off as it is checked it was off before. [days]
    """
    after = next((one for one in checks if one.at >= when), None)
    if after is not None and after.at - when <= holds:
        return after.gauge
    before = next((one for one in reversed(checks) if one.at < when), None)
    if before is not None and when - before.at <= holds:
        return before.gauge
    return unchecked
