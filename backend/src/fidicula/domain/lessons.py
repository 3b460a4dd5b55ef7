"""What earlier visits taught, read at every sheet after them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fidicula.core.readings.estimate import Repeats


@dataclass(frozen=True)
class Learnt:
    """What earlier visits showed.

    hands : the repeats of each person with each tool.  settled : what strings of this instrument came down by after
    they were up, at the bridge. [mm]
    """

    hands: Mapping[tuple[str, str], Repeats]
    settled: tuple[float, ...] = ()


NOTHING_LEARNT = Learnt({})
