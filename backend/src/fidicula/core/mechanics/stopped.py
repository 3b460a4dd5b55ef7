"""What happens at stopped notes: whether the string rattles, and what the finger presses."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

from fidicula.core.errors import TOLERANCE, DoesNotFitError
from fidicula.core.geometry.scoop import BoardGap

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

Excitation = Literal["bowed", "plucked"]

FIRST_LOOK = 10.0
"""The string is looked at from this far in front of the finger. [mm]"""


@dataclass(frozen=True)
class Bow:
    """speed : 0 or more. [m/s]  point : of the sounding length, between 0 and 1."""

    speed: float = 0.4
    point: float = 0.1


@dataclass(frozen=True)
class Pluck:
    """displacement : of the open string, 0 or more. [mm]  point : of the sounding length, between 0 and 1."""

    displacement: float
    point: float = 0.15


@dataclass(frozen=True)
class StoppedClearance:
    """stop : along the board; amplitude, margin : [mm]; at : where the margin is least. [mm]"""

    semitone: int
    stop: float
    amplitude: float
    margin: float
    at: float


def stop_position(*, semitone: int, string_length: float) -> float:
    """Where a note is stopped, from the nut. [mm]

    semitone : over the open string, 0 or more.  string_length : above 0. [mm]  Source: equal temperament.
    """
    return float(string_length * (1 - 2 ** (-semitone / 12)))


def board_fits(*, fingerboard_length: float, string_length: float) -> None:
    """Raise DoesNotFitError naming `fingerboard_length` unless the board ends before the bridge.

    fingerboard_length, string_length : above 0. [mm]
    """
    if fingerboard_length >= string_length - TOLERANCE:
        raise DoesNotFitError(
            "fingerboard_length",
            sentence=f"the board must end before the bridge at {string_length:g} mm; it was {fingerboard_length:g}",
            value=fingerboard_length,
        )


def clearances(
    *,
    string_length: float,
    fingerboard_length: float,
    nut_height: float,
    end_height: float,
    pitch: float,
    gap: BoardGap,
    excitation: Bow | Pluck,
    share: float = 1.0,
    semitones: int | None = None,
) -> list[StoppedClearance]:
    """The least clearance between the swinging string and the board, stop by stop.

    string_length : above fingerboard_length. [mm]  fingerboard_length : 10 or more. [mm]
    nut_height, end_height : of the string, 0 or more. [mm]  pitch : of the open string, above 0. [Hz]
    gap : of the board under its straight line, at a place. [mm]  excitation : a bow or a pluck.
    share : of the amplitude that goes toward the board, 0 to 1.
    semitones : the last one looked at; None for as far as the board goes.
    Raises DoesNotFitError naming `fingerboard_length`.
    Source: Helmholtz motion of a bowed string; the two corners of a plucked one.
    """
    import numpy as np

    board_fits(fingerboard_length=fingerboard_length, string_length=string_length)
    at_bridge = nut_height + (end_height - nut_height) * string_length / fingerboard_length
    found: list[StoppedClearance] = []
    semitone = 0
    # An amplitude beyond all measure is the caller's to refuse; numpy need not warn of it.
    with np.errstate(over="ignore", invalid="ignore", divide="ignore"):
        while semitones is None or semitone <= semitones:
            stop = stop_position(semitone=semitone, string_length=string_length)
            if stop + FIRST_LOOK > fingerboard_length + TOLERANCE:
                break
            count = int(fingerboard_length - stop - FIRST_LOOK + TOLERANCE) + 1
            places = stop + FIRST_LOOK + np.arange(count, dtype=np.float64)
            along = (places - stop) / (string_length - stop)
            start = nut_height if semitone == 0 else -gap(stop)
            surface = gap.along(places)
            amplitude, envelope = _swing(excitation, pitch=pitch, semitone=semitone, along=along)
            margins = start + (at_bridge - start) * along + surface - share * envelope
            least = int(np.argmin(margins))
            found.append(
                StoppedClearance(semitone, stop, float(amplitude), float(margins[least]), float(places[least]))
            )
            semitone += 1
    if not found:
        raise DoesNotFitError(
            "fingerboard_length",
            sentence=f"on a board of {fingerboard_length:g} mm there is no stop to look at: it must be 10 mm or more",
            value=fingerboard_length,
        )
    return found


def _swing(
    excitation: Bow | Pluck, *, pitch: float, semitone: int, along: NDArray[np.float64]
) -> tuple[float, NDArray[np.float64]]:
    """How far a string swings at most, and at places along what sounds of it, each from 0 to 1. [mm]"""
    import numpy as np

    if isinstance(excitation, Bow):
        amplitude = 1000 * excitation.speed / (8 * excitation.point * pitch * 2 ** (semitone / 12))
        return amplitude, 4 * amplitude * along * (1 - along)
    amplitude = excitation.displacement * 2 ** (-semitone / 12)
    p = excitation.point
    near = np.minimum(along / p, (1 - along) / (1 - p))
    far = np.minimum((1 - along) / p, along / (1 - p))
    return amplitude, amplitude * np.maximum(near, far)


@dataclass(frozen=True)
class SwingPoint:
    """place : from the nut; rest, lowest : of the string over the board's straight line; board : its surface, None
    beyond its end. [mm]
    """

    place: float
    rest: float
    lowest: float
    board: float | None


def swing_along(
    *,
    string_length: float,
    fingerboard_length: float,
    nut_height: float,
    end_height: float,
    pitch: float,
    gap: BoardGap,
    excitation: Bow | Pluck,
    share: float = 1.0,
    semitone: int = 0,
    points: int = 60,
) -> list[SwingPoint]:
    """One note as it may be drawn: the string at rest and at its lowest, and the board under it, from the finger on.

    string_length : above fingerboard_length. [mm]  fingerboard_length : above 0. [mm]
    nut_height, end_height : of the string, 0 or more. [mm]  pitch : of the open string, above 0. [Hz]
    gap : of the board under its straight line, at a place. [mm]  excitation : a bow or a pluck.
    share : of the amplitude that goes toward the board, 0 to 1.  semitone : over the open string, of a stop on the
    board.  points : so many, evenly, 2 or more.
    Raises DoesNotFitError naming `fingerboard_length`. Source: as `clearances`.
    """
    import numpy as np

    board_fits(fingerboard_length=fingerboard_length, string_length=string_length)
    at_bridge = nut_height + (end_height - nut_height) * string_length / fingerboard_length
    stop = stop_position(semitone=semitone, string_length=string_length)
    start = nut_height if semitone == 0 else -gap(stop)
    along = np.linspace(0.0, 1.0, points)
    _, envelope = _swing(excitation, pitch=pitch, semitone=semitone, along=along)
    found = []
    for share_along, aside in zip(along, envelope, strict=True):
        place = stop + float(share_along) * (string_length - stop)
        rest = start + (at_bridge - start) * float(share_along)
        board = -gap(place) if place <= fingerboard_length + TOLERANCE else None
        found.append(SwingPoint(place, rest, rest - share * float(aside), board))
    return found


@dataclass(frozen=True)
class PressEffort:
    """gap : from the string to the board; stop : from the nut. [mm]  force : of the finger. [N]"""

    semitone: int
    stop: float
    gap: float
    force: float


def press_efforts(
    *,
    string_length: float,
    fingerboard_length: float,
    nut_height: float,
    end_height: float,
    tension: float,
    gap: BoardGap,
    semitones: int | None = None,
) -> list[PressEffort]:
    """Finger force to bring the string onto the board, semitone by semitone.

    string_length : above fingerboard_length. [mm]  fingerboard_length : above 0. [mm]
    nut_height, end_height : of the string, 0 or more. [mm]  tension : above 0. [N]
    gap : of the board under its straight line, at a place. [mm]
    semitones : the last one; None for as far as the board goes.
    Raises DoesNotFitError naming `fingerboard_length`. Source: statics of a string pressed aside, small angles.
    """
    board_fits(fingerboard_length=fingerboard_length, string_length=string_length)
    found: list[PressEffort] = []
    semitone = 1
    while semitones is None or semitone <= semitones:
        stop = stop_position(semitone=semitone, string_length=string_length)
        if stop > fingerboard_length + TOLERANCE:
            break
        height = nut_height + (end_height - nut_height) * stop / fingerboard_length + gap(stop)
        force = tension * height * (1 / stop + 1 / (string_length - stop))
        found.append(PressEffort(semitone, stop, height, force))
        semitone += 1
    return found
