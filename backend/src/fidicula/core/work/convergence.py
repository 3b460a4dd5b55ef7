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
SURE = 1.4
"""Standard deviations to one side, of what a filing may come to: in one of 12 cases it comes to more."""
MAY_BE_LOW = 0.05
"""So far below its aim a string may end up in those: half of what is wanted. [mm at the bridge]"""
LEFT_ALONE = 0.04
"""Less than this at the bridge is left as it is. [mm]"""
NEAR_ENOUGH = 0.12
"""So far off its height a string may be: 0.1 at the board's end. [mm at the bridge]"""
SURE_TO_LEAVE = 2.2
"""A string that is left is near enough by so many standard deviations: in 97 of 100 cases."""
KNOWN_AT_MOST = 0.085
"""However near a string is, its way down is known so well before it is left: what covers 95 %. [mm at the bridge]"""
KNOWN_FOR_SLOT = 0.08
"""How well a way down has to be known by its readings for a slot to be filed: what covers 95 %. [mm at the bridge]
Source: 1,000 simulated sets of four strings for each of 700 choices, then `bench outcome`: few string-ups count as much
as few readings."""


def missed_by(amount: float, roughness: float = 1.0) -> float:
    """How far what comes of a cut may be off what was meant: standard deviation. amount : 0 or more. [mm]

    roughness : how much more this hand scatters than a practised one, 1 or more.
    """
    return roughness * min(MISSES, SMALL_MISSES * amount)


def rough_pass(*, wood: float, uncertainty: float, settling: float = 0.0) -> float:
    """What a rough crown takes beside one string, left high by what is not known; 0 where too little is sure. [mm]

    wood : to take in all.  uncertainty : what covers 95 % of it, 0 or more.  settling : what the strings may still
    drop by, 0 or more. [mm]
    """
    return max(0.0, wood - max(RESERVE, uncertainty + 2 * MISSES) - settling)


def slot_pass(*, drop: float, known_to: float, roughness: float = 1.0) -> float:
    """What to file off the floor of a slot now; what may be too much is left. 0 for so little that it is left alone.

    drop : the string's way down at the bridge.  known_to : what covers 95 % of it, 0 or more. [mm]
    roughness : as for `missed_by`.
    Source: the reading and the file both miss by chance.
    """
    if drop <= LEFT_ALONE + TOLERANCE:
        return 0.0
    lands = math.hypot(known_to / COVERS, missed_by(drop, roughness))
    return max(0.0, drop - max(0.0, SURE * lands - MAY_BE_LOW))


def is_landed(*, drop: float, known_to: float) -> bool:
    """Whether a string may be left: near enough, or too low already, and known well enough to say so.

    drop : its way down at the bridge.  known_to : what covers 95 % of it, 0 or more. [mm]
    """
    return drop <= LEFT_ALONE + TOLERANCE and known_to <= needed_for(drop) + TOLERANCE


def needed_for(drop: float) -> float:
    """How well a string's way down has to be known for what is to be done to it: what covers 95 %. [mm at the bridge]

    drop : its way down at the bridge. One that is to be left is known the better the more is left of it. [mm]
    """
    if drop > LEFT_ALONE:
        return KNOWN_FOR_SLOT
    return min(KNOWN_AT_MOST, COVERS * (NEAR_ENOUGH - max(0.0, drop)) / SURE_TO_LEAVE)
