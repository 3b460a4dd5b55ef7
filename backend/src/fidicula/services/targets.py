"""What is wanted of one instrument: the tables' figures through its chosen schools."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import cast

from fidicula.core.bands import Band
from fidicula.core.geometry.spacing import SpacingRule
from fidicula.core.targets.heights import bands_across, end_height_band
from fidicula.db.records import Instrument, StringSet
from fidicula.tables import figures, schools

DEFAULT_SCHOOLS: Mapping[str, str] = {
    "end_heights": "orchestral",
    "nut_height": "card",
    "crown": "classical",
    "spacing": "equal_gaps",
    "slot_depth": "third",
}

SCHOOL_LABELS: Mapping[str, Mapping[str, str]] = {
    "end_heights": {
        "orchestral": "orchestral heights",
        "soloist": "soloist heights",
        "beginner": "beginner heights",
        "fiddle": "fiddle heights",
        "plucked_bass": "plucked bass heights",
    },
    "nut_height": {"card": "nut by the card", "generous": "generous nut"},
    "crown": {"classical": "classical crown", "flatter": "flatter crown"},
    "spacing": {"equal_gaps": "equal air", "equal_centres": "equal centres"},
    "slot_depth": {"third": "slots a third deep", "half": "slots half deep at most"},
}


@dataclass(frozen=True)
class Wanted:
    """A band with where it comes from, in words."""

    band: Band
    source: str


@dataclass(frozen=True)
class Targets:
    """What the schools and figures want; None where the shop has no figure.

    end_heights : of the lowest and highest string, straight up at the board's end. [mm]
    nut_heights : one a string. [mm]  crown_radius : of the crown. [mm]
    singles : figures of the single measures by name. [mm]
    """

    schools: Mapping[str, str]
    end_bass: Wanted | None
    end_treble: Wanted | None
    nut_heights: tuple[Wanted, ...] | None
    crown_radius: Wanted | None
    spacing: SpacingRule
    slot_depth_ratio: float
    slot_depth_source: str
    singles: Mapping[str, Wanted]
    missing: tuple[str, ...]


def schools_for(family: str) -> dict[str, tuple[str, ...]]:
    """For each measure, the schools that have figures for a family."""
    return {
        "end_heights": schools.end_height_schools(family),
        "nut_height": ("card", "generous"),
        "crown": tuple(schools.crown_schools()),
        "spacing": ("equal_gaps", "equal_centres"),
        "slot_depth": tuple(schools.slot_depth_schools()),
    }


def chosen_schools(instrument: Instrument) -> dict[str, str]:
    """The instrument's own choice, completed by the shop's."""
    return {**DEFAULT_SCHOOLS, **instrument.schools}


def targets_of(instrument: Instrument, string_set: StringSet | None) -> Targets:
    """Resolve every target of the bench card for one instrument and the strings on it."""
    chosen = chosen_schools(instrument)
    count = len(instrument.string_names)
    missing: list[str] = []

    def end_height(side: schools.Side) -> Wanted | None:
        wanted = _end_height(instrument, string_set, chosen["end_heights"], side)
        if wanted is None:
            missing.append(f"end height, {side}")
        return wanted

    end_bass, end_treble = end_height("bass"), end_height("treble")
    nut_heights = _nut_heights(instrument, chosen["nut_height"])
    if nut_heights is None:
        missing.append("nut height")
    crown_radius = _crown_radius(instrument, chosen["crown"])
    if crown_radius is None:
        missing.append("crown radius")
    singles = {}
    for measure in (
        "projection",
        "string_length",
        "fingerboard_length",
        "fingerboard_radius",
        "nut_spread",
        "bridge_spread",
        "bridge_foot_width",
        "bridge_waist",
        "bar_inset",
        "post_diameter",
    ):
        wanted = _single(instrument, measure, count)
        if wanted is None:
            missing.append(measure.replace("_", " "))
        else:
            singles[measure] = wanted
    slots = schools.slot_depth_schools()[chosen["slot_depth"]]
    return Targets(
        schools=chosen,
        end_bass=end_bass,
        end_treble=end_treble,
        nut_heights=nut_heights,
        crown_radius=crown_radius,
        spacing=cast(SpacingRule, chosen["spacing"]),
        slot_depth_ratio=slots.ratio,
        slot_depth_source=_said(slots.source, slots.confirmed_by, SCHOOL_LABELS["slot_depth"][slots.school]),
        singles=singles,
        missing=tuple(missing),
    )


def _said(source: str, confirmed_by: str | None, what: str) -> str:
    return f"{what}; {f'confirmed by {confirmed_by}' if confirmed_by else source}"


def _end_height(instrument: Instrument, string_set: StringSet | None, school: str, side: schools.Side) -> Wanted | None:
    row = schools.end_height_school(school=school, family=instrument.family, side=side)
    if row is None:
        return None
    label = SCHOOL_LABELS["end_heights"][school]
    if row.own_band is not None:
        family_band, source = row.own_band, _said(row.source, row.confirmed_by, label)
    else:
        figure = figures.figure(family=instrument.family, size=instrument.size, measure=row.measure)
        if figure is None:
            return None
        family_band, source = figure.band, _said(figure.source, figure.confirmed_by, label)
    additions = []
    reasons = [string_set.material] if string_set is not None else []
    if instrument.is_new:
        reasons.append("new_instrument")
    for reason in reasons:
        added = schools.end_height_adjustment(reason=reason, family=instrument.family)
        if added is not None:
            amount = added.bass if side == "bass" else added.treble
            additions.append(amount)
            if amount:
                because = "a new instrument" if reason == "new_instrument" else f"{reason} strings"
                source += f"; {amount:+.1f} for {because}"
    return Wanted(end_height_band(family_band=family_band, part=row.part_of_band, additions=additions), source)


def _nut_heights(instrument: Instrument, school: str) -> tuple[Wanted, ...] | None:
    bass = schools.nut_height_school(school=school, family=instrument.family, side="bass")
    treble = schools.nut_height_school(school=school, family=instrument.family, side="treble")
    if bass is None or treble is None:
        return None
    source = _said(bass.source, bass.confirmed_by, SCHOOL_LABELS["nut_height"][school])
    bands = bands_across(bass=bass.band, treble=treble.band, count=len(instrument.string_names))
    return tuple(Wanted(band, source) for band in bands)


def _crown_radius(instrument: Instrument, school: str) -> Wanted | None:
    figure = figures.figure(family=instrument.family, size=instrument.size, measure="crown_radius")
    row = schools.crown_schools()[school]
    if figure is None:
        return None
    return Wanted(
        figure.band.scaled(row.factor),
        _said(figure.source, figure.confirmed_by, SCHOOL_LABELS["crown"][school]),
    )


def _single(instrument: Instrument, measure: str, count: int) -> Wanted | None:
    figure = figures.figure(family=instrument.family, size=instrument.size, measure=measure)
    if figure is None:
        return None
    what = f"{instrument.family} {instrument.size}"
    if count == 4 or measure not in ("nut_spread", "bridge_spread"):
        return Wanted(figure.band, _said(figure.source, figure.confirmed_by, what))
    factor = figures.spread_factor(family=instrument.family, count=count, measure=measure)
    if factor is None:
        return None
    return Wanted(
        figure.band.scaled(factor.factor),
        _said(figure.source, figure.confirmed_by, f"{what}, {factor.factor:g} times for {count} strings"),
    )
