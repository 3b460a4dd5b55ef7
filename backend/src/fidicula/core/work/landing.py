r"""Landing on a string's height: a rough crown, then each string's slot, then the wood beside the strings.

             rough crown, left high           slots filed              crown down beside the strings
    wood  ________________________      ________     ________
                                                |   |              ________     ________
    string            o                         | o |                      \ o /

The floor of its slot sets a string's height: neither the error of a crown cut nor that of a slot's reading reaches it.
Too low cannot be put back, so that what is not known stays as wood, and nothing is cut on noise.
"""

from __future__ import annotations

import math

from fidicula.core.errors import TOLERANCE
from fidicula.core.readings.estimate import COVERS

RESERVE = 0.2
"""What a rough crown leaves above the wanted one. [mm] Source: 200 simulated instruments: less ended too low."""
ROUGH_FROM = 0.45
"""A string that has to come down by more at the bridge gets a rough crown first. [mm]"""
ROUGH_AGAIN_FROM = 0.8
"""The same once a rough crown was cut: what is left goes by the slots, and the crown follows at the end. [mm]"""
WORTH_ROUGH = 0.25
"""Less wood than this beside a string is left to its slot and to the last going over of the crown. [mm]"""
DEEP_SLOT = 0.1
"""A slot that is deeper than wanted by more is read twice before the wood beside it goes. [mm]"""
DEEP_SHARE = 0.35
"""And by more than this share of its string: a slip of the decimal mark reads no less. [1]"""
MISSES = 0.05
"""How far a cut or a file misses what was meant: standard deviation. [mm] Source: cuts of one hand, measured again."""
SMALL_MISSES = 0.3
"""A little misses by this share of it, where that is less."""
SURE = 2.33
"""Standard deviations to one side that hold in 99 of 100 cases."""
MAY_BE_LOW = 0.115
"""So far below its aim a string may end up, in one of 100 cases: 0.1 at the board's end. [mm at the bridge]"""
LEFT_ALONE = 0.045
"""Less than this at the bridge is left as it is; with what a height is known to, the string is within 0.1. [mm]"""
LEFT_AT_LEAST = 0.02
"""The least that is filed, however well a height is known. [mm at the bridge]"""
NOISE_OF_KNOWN = 0.6
"""Of what a way down is known to, so much is noise to a file."""
NEAR = 0.04
"""A string that is nearer than this, or too low, needs no more than to be seen to be so. [mm at the bridge]"""
LITTLE = 0.1
"""A way down that one filing can end. [mm at the bridge]"""
KNOWN_FOR_SLOT = 0.1
KNOWN_FOR_LAST = 0.08
KNOWN_TO_LEAVE = 0.085
"""How well a way down has to be known by its readings for a slot that is filed by much, for the last of a slot, and to
be left as it is: what covers 95 %. [mm at the bridge] Source: 20,000 simulated strings; two readings, two, and one."""


def missed_by(amount: float) -> float:
    """How far what comes of a cut may be off what was meant: standard deviation. amount : 0 or more. [mm]"""
    return min(MISSES, SMALL_MISSES * amount)


def rough_pass(*, wood: float, uncertainty: float, settling: float = 0.0) -> float:
    """What a rough crown takes beside one string, left high by what is not known; 0 where too little is sure. [mm]

    wood : to take in all.  uncertainty : what covers 95 % of it, 0 or more.  settling : what the strings may still
    drop by, 0 or more. [mm]
    """
    return max(0.0, wood - max(RESERVE, uncertainty + 2 * MISSES) - settling)


def slot_pass(*, drop: float, known_to: float) -> float:
    """What to file off the floor of a slot now; what may be too much is left. 0 for so little that it is left alone.

    drop : the string's way down at the bridge.  known_to : what covers 95 % of it, 0 or more. [mm]
    Source: the reading and the file both miss by chance; in one of 100 cases the string ends up `MAY_BE_LOW` too low.
    """
    if drop <= _left_alone(known_to):
        return 0.0
    lands = math.hypot(known_to / COVERS, missed_by(drop))
    return max(0.0, drop - max(0.0, SURE * lands - MAY_BE_LOW))


def is_landed(*, drop: float, known_to: float) -> bool:
    """Whether a string may be left: near enough, or too low already, and known well enough to say so.

    drop : its way down at the bridge.  known_to : what covers 95 % of it, 0 or more. [mm]
    """
    return drop <= _left_alone(known_to) and known_to <= needed_for(drop) + TOLERANCE


def _left_alone(known_to: float) -> float:
    """Nothing is filed on noise, and little of what is known well. [mm]"""
    return min(LEFT_ALONE, max(LEFT_AT_LEAST, NOISE_OF_KNOWN * known_to)) + TOLERANCE


def needed_for(drop: float) -> float:
    """How well a string's way down has to be known for what is to be done to it: what covers 95 %. [mm at the bridge]

    drop : its way down at the bridge. [mm]
    """
    if drop <= NEAR:
        return KNOWN_TO_LEAVE
    if drop <= LITTLE:
        return KNOWN_FOR_LAST
    return KNOWN_FOR_SLOT
