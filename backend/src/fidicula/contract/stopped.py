"""clearance and effort: will it rattle, and what the finger presses."""

from __future__ import annotations

from fidicula.contract.board_and_neck import StationIn
from fidicula.contract.quantities import (
    Answer,
    BowSpeed,
    Height,
    Length,
    Pitch,
    PointOnString,
    Relief,
    Semitones,
    Share,
    Tension,
    Wire,
)
from fidicula.core.errors import TOLERANCE, MissingInputError
from fidicula.core.geometry.scoop import BoardGap, Station, gap_along
from fidicula.core.mechanics.stopped import Bow, Excitation, Pluck, board_fits, clearances, press_efforts


class StoppedRequest(Wire):
    """What both kinds ask of string and board."""

    string_length: Length
    fingerboard_length: Length
    nut_height: Height
    end_height: Height
    relief: Relief | None = None
    stations: list[StationIn] | None = None
    semitones: Semitones | None = None

    def gap(self) -> BoardGap:
        """The board's gap at any place."""
        board_fits(fingerboard_length=self.fingerboard_length, string_length=self.string_length)
        stations = None if self.stations is None else [Station(s.x, s.gap) for s in self.stations]
        return gap_along(fingerboard_length=self.fingerboard_length, relief=self.relief, stations=stations)


class ClearanceRequest(StoppedRequest):
    pitch: Pitch
    share: Share = 1.0
    excitation: Excitation = "bowed"
    bow_speed: BowSpeed = 0.4
    bow_point: PointOnString = 0.1
    pluck_displacement: Height | None = None
    pluck_point: PointOnString = 0.15


class ClearanceStop(Answer):
    semitone: int
    stop: float
    amplitude: float
    margin: float
    at: float


class ClearanceAnswer(Answer):
    stops: list[ClearanceStop]
    least_margin: float
    least_margin_semitone: int
    rattles: list[int]


def compute_clearance(request: ClearanceRequest) -> ClearanceAnswer:
    excitation: Bow | Pluck = Bow(speed=request.bow_speed, point=request.bow_point)
    if request.excitation == "plucked":
        if request.pluck_displacement is None:
            raise MissingInputError("pluck_displacement", sentence="how far the open string is plucked aside is needed")
        excitation = Pluck(displacement=request.pluck_displacement, point=request.pluck_point)
    stops = clearances(
        string_length=request.string_length,
        fingerboard_length=request.fingerboard_length,
        nut_height=request.nut_height,
        end_height=request.end_height,
        pitch=request.pitch,
        gap=request.gap(),
        excitation=excitation,
        share=request.share,
        semitones=request.semitones,
    )
    least = min(stops, key=lambda stop: stop.margin)
    return ClearanceAnswer(
        stops=[ClearanceStop(**vars(stop)) for stop in stops],
        least_margin=least.margin,
        least_margin_semitone=least.semitone,
        rattles=[stop.semitone for stop in stops if stop.margin < -TOLERANCE],
    )


class EffortRequest(StoppedRequest):
    tension: Tension


class EffortStop(Answer):
    semitone: int
    stop: float
    gap: float
    force: float


class EffortAnswer(Answer):
    stops: list[EffortStop]


def compute_effort(request: EffortRequest) -> EffortAnswer:
    stops = press_efforts(
        string_length=request.string_length,
        fingerboard_length=request.fingerboard_length,
        nut_height=request.nut_height,
        end_height=request.end_height,
        tension=request.tension,
        gap=request.gap(),
        semitones=request.semitones,
    )
    return EffortAnswer(stops=[EffortStop(**vars(stop)) for stop in stops])
