"""What a check of a tool on a known length found, in words."""

from __future__ import annotations

from fidicula.codes import ToolCode
from fidicula.core.readings.estimate import COVERS
from fidicula.core.readings.gauge import Check
from fidicula.numerals import number
from fidicula.tables.work import tools
from fidicula.words.numbers import give_or_take


def found_off(tool: ToolCode, off: float) -> str:
    """off : what it reads more than is there. [mm]"""
    return f"The {tools()[tool].label} reads {number(abs(off), 2)} mm too {'much' if off > 0 else 'little'}."


def told(tool: ToolCode, check: Check | None, reads_to: float) -> str:
    """check : None where it was only seen to read true.  reads_to : ± of all that it reads from now on. [mm]"""
    if check is None:
        return "It was seen to read true."
    if check.apart:
        return "These readings lie too far apart. Clean the tool and the block, and check it again."
    if check.is_true:
        return f"It reads true, to ±{give_or_take(reads_to, 2)} mm. What the hand adds comes on top."
    known_to = give_or_take(COVERS * check.deviation, 2)
    return f"{found_off(tool, check.off)} That is known to ±{known_to} mm. Set it by as much, then check it again."
