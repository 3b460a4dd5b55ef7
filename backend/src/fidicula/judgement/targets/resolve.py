"""What is wanted of one instrument: the shop's figures through one school each, or what was read elsewhere."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Literal, cast

from fidicula.codes import FigureCode, TargetQuestionCode
from fidicula.core.bands import Band
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.geometry.spacing import SpacingRule
from fidicula.core.readings.states import MeasurementKey
from fidicula.core.targets.heights import PartOfBand, bands_across, end_height_band
from fidicula.domain.instruments import Instrument
from fidicula.domain.strings import StringSet
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.listed import (
    BY_SCHOOL,
    DRAWN,
    END_HEIGHTS,
    END_HEIGHTS_ADDED,
    GRADED,
    MARK_HEIGHTS,
    NUT_HEIGHTS,
    OTHERS,
    RELIEFS,
    SIDES,
    SINGLES,
    Side,
    SingleCode,
)
from fidicula.judgement.targets.post_wanted import post_wanted
from fidicula.judgement.targets.rules import Rules
from fidicula.judgement.targets.wanted import Taken, Targets, Wanted
from fidicula.numerals import short, signed
from fidicula.tables.figures import FigureValues, figure_measures, spread_factor
from fidicula.tables.schools import school as school_row


def targets_of(
    instrument: Instrument,
    string_set: StringSet | None,
    rules: Rules,
    taken: Mapping[MeasurementKey, Taken] | None = None,
) -> Targets:
    """Resolve every target of one instrument with the strings on it.

    taken : places whose target is read on an instrument instead of following the recipe.
    """
    if taken:
        return _Resolver(instrument, string_set, rules, taken).targets()
    depends_on = (
        instrument.size,
        instrument.string_names,
        instrument.is_new,
        instrument.choice.recipe,
        tuple(sorted(instrument.choice.schools.items())),
        None if string_set is None else string_set.material,
    )
    if depends_on not in rules.resolved:
        rules.resolved[depends_on] = _Resolver(instrument, string_set, rules, {}).targets()
    return rules.resolved[depends_on]


@dataclass
class _Resolver:
    instrument: Instrument
    string_set: StringSet | None
    rules: Rules
    taken: Mapping[MeasurementKey, Taken]
    missing: list[str] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.chosen = self.rules.chosen(self.instrument.choice)
        self.count = len(self.instrument.string_names)

    def targets(self) -> Targets:
        places: dict[MeasurementKey, Wanted] = {}
        marks = self._marks()
        self._heights(places, stated_at_marks=marks is not None)
        self._nut_heights(places)
        crown = self._needed(self._crown_radius(), "crown radius")
        slots = self._find("slot_depth_ratio", "slot_depth")
        if slots is None:
            self.missing.append("slot depth")
        margin = None
        if self.chosen["string_group"] == "shifted":
            margin = self._needed(self._of_school("string_group", "margin_treble_at_nut"), "margin at the nut")
        blocked = tuple(self.missing)
        for measure in SINGLES:
            self._put(places, (measure, None), self._single(measure), MEASURES[measure].label)
        others = {measure: wanted for measure in OTHERS if (wanted := self._plain(measure)) is not None}
        self.missing += [figure_measures()[measure].label for measure in DRAWN if measure not in others]
        accepted = self.rules.book.find(
            family=self.instrument.family,
            size=self.instrument.size,
            measure="projection_accepted_high",
            question="accepted",
            school="with_a_reason",
        )
        if accepted is not None:
            others["projection_accepted_high"] = Wanted(accepted.band, _said(accepted, "accepted on a new one"))
        others.update(self._bridge_wood(others))
        for question, figure in BY_SCHOOL:
            wanted = self._of_school(question, figure)
            if wanted is not None:
                others[figure] = wanted
        others.update(self._relief())
        mirrored = self._label("post_inset")
        others.update(post_wanted(others, self.chosen, self._of_school, mirrored=mirrored))
        divisor = self._find("afterlength_divisor", "afterlength")
        if divisor is not None:
            others["afterlength_divisor"] = Wanted(divisor.band, _said(divisor, self._label("afterlength")))
        return Targets(
            schools=self.chosen,
            places=places,
            marks=marks,
            curve="heights" if ("end_height", 0) in self.taken else "template",
            crown_radius=crown,
            spacing=cast(SpacingRule, self.chosen["spacing"]),
            nut_margin=margin,
            slot_depth_ratio=None if slots is None else slots.value,
            slot_depth_source="" if slots is None else _said(slots, self._label("slot_depth")),
            others=others,
            blocked=blocked,
            missing=tuple(self.missing),
        )

    # One place each

    def _put(
        self, places: dict[MeasurementKey, Wanted], place: MeasurementKey, from_recipe: Wanted | None, words: str
    ) -> None:
        """A target taken from a reading stands in the place of the recipe's; neither is ever mixed with the other."""
        found = from_recipe
        if place in self.taken:
            found = _as_taken(self.taken[place])
        if found is None:
            self.missing.append(words)
        else:
            places[place] = found

    def _needed(self, wanted: Wanted | None, words: str) -> Wanted | None:
        if wanted is None:
            self.missing.append(words)
        return wanted

    def _label(self, question: TargetQuestionCode) -> str:
        row = school_row(question, self.chosen[question])
        return self.chosen[question] if row is None else row.label

    def _find(self, measure: FigureCode, question: TargetQuestionCode | Literal[""] = "") -> FigureValues | None:
        return self.rules.book.find(
            family=self.instrument.family,
            size=self.instrument.size,
            measure=measure,
            question=question,
            school=self.chosen[question] if question else "",
        )

    def _of_school(self, question: TargetQuestionCode, measure: FigureCode) -> Wanted | None:
        figure = self._find(measure, question)
        return None if figure is None else Wanted(figure.band, _said(figure, self._label(question)))

    def _plain(self, measure: FigureCode) -> Wanted | None:
        figure = self._find(measure)
        if figure is None:
            return None
        return Wanted(figure.band, _said(figure, f"{self.instrument.family} {self.instrument.size}"))

    # Heights

    @property
    def _direction(self) -> HeightDirection:
        return cast(HeightDirection, self.chosen["height_direction"])

    def _marks(self) -> tuple[Wanted, Wanted] | None:
        """The shop's own figures at the bridge's mark; without both, the board's-end figures hold, converted."""
        if self.chosen["height_reference"] != "bridge_mark" or ("end_height", 0) in self.taken:
            return None
        found = [self._of_school("height_reference", measure) for measure in MARK_HEIGHTS]
        bass, treble = found
        return None if bass is None or treble is None else (bass, treble)

    def _heights(self, places: dict[MeasurementKey, Wanted], *, stated_at_marks: bool) -> None:
        names, last = self.instrument.string_names, self.count - 1
        if ("end_height", 0) in self.taken:
            for i in range(self.count):
                self._put(places, ("end_height", i), None, f"{names[i]} at the board's end")
            return
        if stated_at_marks:
            return
        for position, side in zip((0, last), SIDES, strict=True):
            self._put(places, ("end_height", position), self._end_height(side), f"end height, {side}")

    def _end_height(self, side: Side) -> Wanted | None:
        measure = END_HEIGHTS[side]
        row = school_row("end_heights", self.chosen["end_heights"])
        own = self._find(measure, "end_heights")
        part: PartOfBand = "own"
        figure = own
        if own is None:
            if row is None or row.rule in (None, "own", "family"):
                return None
            part = cast(PartOfBand, row.rule)
            figure = self._find(measure)
        if figure is None:
            return None
        source = _said(figure, self._label("end_heights"))
        additions, because = self._additions(side)
        band = end_height_band(family_band=figure.band, part=part, additions=additions)
        return Wanted(band, source + because, self._direction)

    def _material(self) -> str | None:
        chosen = self.chosen["string_material"]
        if chosen != "as_strung":
            return chosen
        return None if self.string_set is None else self.string_set.material

    def _of_material(self, measure: FigureCode) -> FigureValues | None:
        material = self._material()
        if material is None:
            return None
        return self.rules.book.find(
            family=self.instrument.family,
            size=self.instrument.size,
            measure=measure,
            question="string_material",
            school=material,
        )

    def _additions(self, side: Side) -> tuple[list[float], str]:
        """What material and newness add to an end height, and why, in words. [mm]"""
        amounts, because = [], ""
        material = self._of_material(END_HEIGHTS_ADDED[side])
        if material is not None:
            amounts.append(material.value)
            if material.value:
                because += f"; {signed(material.value)} for {self._material()} strings"
        new = self._find("end_height_added", "new_instrument") if self.instrument.is_new else None
        if new is not None:
            amounts.append(new.value)
            because += f"; {signed(new.value)} for a new instrument"
        return amounts, because

    def _nut_heights(self, places: dict[MeasurementKey, Wanted]) -> None:
        bass, treble = (self._of_school("nut_height", measure) for measure in NUT_HEIGHTS)
        bands: tuple[Band | None, ...] = (None,) * self.count
        if bass is not None and treble is not None:
            bands = bands_across(bass=bass.band, treble=treble.band, count=self.count)
        open_before = len(self.missing)
        for i, band in enumerate(bands):
            wanted = None if band is None or bass is None else Wanted(band, bass.source, self._direction)
            self._put(places, ("nut_height", i), wanted, "nut height")
        self.missing[open_before:] = dict.fromkeys(self.missing[open_before:])

    # Spreads, crown, post, scoop

    def _single(self, measure: SingleCode) -> Wanted | None:
        if measure not in ("nut_spread", "bridge_spread"):
            return self._plain(measure)
        follows_family = self.chosen[measure] == "family"
        wanted = self._plain(measure) if follows_family else self._of_school(measure, measure)
        if wanted is None or self.count == 4:
            return wanted
        factor = spread_factor(family=self.instrument.family, count=self.count, measure=measure)
        if factor is None:
            return None
        return Wanted(
            # A spread is read by a rule: hundredths of it would be made up.
            wanted.band.scaled(factor.factor).rounded(1),
            f"{wanted.source}; {short(factor.factor)} times for {self.count} strings",
        )

    def _crown_radius(self) -> Wanted | None:
        plain = self._plain("crown_radius")
        factor = self._find("crown_radius_factor", "crown")
        if plain is None or factor is None:
            return None
        own, times = plain.band, factor.band
        band = Band(own.low * times.low, own.aim * times.aim, own.high * times.high)
        words = self._label("crown")
        if factor.value != 1:
            words += f", {short(factor.value)} times the family's {short(own.aim)}"
        return Wanted(band, f"{words}; {plain.source}")

    def _bridge_wood(self, others: Mapping[FigureCode, Wanted]) -> dict[FigureCode, Wanted]:
        """Light: to the thin half of each band; full: to the thick half, for shaving over weeks of playing."""
        light = self.chosen["bridge_wood"] == "light"
        found = {}
        for measure in GRADED:
            plain = others.get(measure)
            if plain is not None:
                half = plain.band.lower_half() if light else plain.band.upper_half()
                found[measure] = replace(plain, band=half, source=f"{self._label('bridge_wood')}; {plain.source}")
        return found

    def _relief(self) -> dict[FigureCode, Wanted]:
        found = {}
        for measure, more in RELIEFS:
            plain, added = self._plain(measure), self._of_material(more)
            if plain is not None and added is not None and added.value:
                plain = Wanted(
                    plain.band.shifted(added.value),
                    f"{plain.source}; {signed(added.value)} for {self._material()} strings",
                )
            if plain is not None:
                found[measure] = plain
        return found


def _as_taken(taken: Taken) -> Wanted | None:
    if taken.value is None:
        return None
    band = Band(taken.value - taken.known_to, taken.value, taken.value + taken.known_to)
    return Wanted(band, taken.words, taken.direction, taken.known_to)


def _said(figure: FigureValues, what: str) -> str:
    return f"{what}; {f'confirmed by {figure.confirmed_by}' if figure.confirmed_by else figure.source}"
