"""The targets of one instrument, as values."""

from __future__ import annotations

from collections.abc import Hashable, Mapping
from dataclasses import dataclass, field
from typing import Any, cast

from fidicula.codes import FigureCode, MeasureCode, TargetQuestionCode
from fidicula.core.bands import Band
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.geometry.bridge import CrownCurve
from fidicula.core.geometry.spacing import SpacingRule
from fidicula.core.readings.states import MeasurementKey
from fidicula.tables.figures import figure_measures
from fidicula.tables.measures import measures


@dataclass(frozen=True)
class Wanted:
    """A band with where it comes from, in words.

    direction : of a height, how the band is meant.
    known_to : ± of the band itself where it was measured on an instrument; 0 for a figure.
    """

    band: Band
    source: str
    direction: HeightDirection = "vertical"
    known_to: float = 0.0


@dataclass(frozen=True)
class Targets:
    """What the recipe, or another source, wants; None or absent where the shop has no figure.

    schools : the school for each question.
    places : of the bench card, by place: heights at nut and board's end, projection, lengths and spreads. [mm]
    marks : of the lowest and highest string over the bridge's mark, where the shop states heights there. [mm]
    curve : `heights` where every string's own height is wanted, else `template`.
    nut_margin : that the highest string keeps from the board's edge; None for a centred group. [mm]
    others : wanted of what the bench card does not hold, by measure. [the measure's unit]
    blocked : what no bridge can be planned without and has no figure, in words.
    missing : the same, with what a reading can stand in for.
    untouched : what is shown of places that nobody read yet, by place and strings.
    planned : bridges planned for these targets already, by all that they depend on; most readings move none of it.
    """

    schools: Mapping[TargetQuestionCode, str]
    places: Mapping[MeasurementKey, Wanted]
    marks: tuple[Wanted, Wanted] | None
    curve: CrownCurve
    crown_radius: Wanted | None
    spacing: SpacingRule
    nut_margin: Wanted | None
    slot_depth_ratio: float | None
    slot_depth_source: str
    others: Mapping[FigureCode, Wanted]
    blocked: tuple[str, ...]
    missing: tuple[str, ...]
    planned: dict[Hashable, Any] = field(default_factory=dict, compare=False, repr=False)
    untouched: dict[Hashable, Any] = field(default_factory=dict, compare=False, repr=False)

    def __getitem__(self, place: MeasurementKey) -> Wanted | None:
        return self.places.get(place)

    def usual_height(self, position: int, count: int) -> float | None:
        """About what a string of so many stands at, between the outer ones. [mm]"""
        bass, treble = self.marks or (self[("end_height", 0)], self[("end_height", count - 1)])
        if bass is None or treble is None:
            return None
        return bass.band.aim + (treble.band.aim - bass.band.aim) * position / (count - 1)

    def figure(self, code: FigureCode | MeasureCode) -> Wanted | None:
        """What is wanted of something that the bench card does not hold; None where the shop has no figure of it.

        Raises KeyError for what is neither a figure nor a measure.
        """
        if code not in figure_measures() and code not in measures():
            raise KeyError(code)
        return self.others.get(cast(FigureCode, code))


@dataclass(frozen=True)
class Taken:
    """A target that was read on an instrument: as found, at an earlier visit, or on another one here.

    value : None where there is no reading of it that holds. [mm]  known_to : ± of the reading. [mm]
    words : where it was read.
    """

    value: float | None
    known_to: float
    direction: HeightDirection
    words: str
