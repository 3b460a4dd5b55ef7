"""What a page is worked out from: the readings, with what they lack, and the handles as they stand."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from fidicula.codes import FigureCode, MeasureCode, TargetQuestionCode, WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.errors import RefusedError
from fidicula.domain.sound import PostEntry
from fidicula.domain.strings import StringSet
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.wanted import Targets, Wanted
from fidicula.numerals import short
from fidicula.tables.schools import School
from fidicula.tables.work import invalidations, works
from fidicula.views.adjustments.places import Trail
from fidicula.views.pages.drawn import PageDrawing
from fidicula.views.pages.model import Consequence, Handle, HandleChoice, Impossible, PageView, Plot, Retake, Table, Way
from fidicula.views.pages.perspective import perspective_of
from fidicula.views.sheet.model import DecisionView
from fidicula.views.sheet.told import InstructionView
from fidicula.words.pages.common import why_retake

AT_THE_CROWN = frozenset({"crown_cut", "slots_filed", "crown_beside"})
ONLY_AS_INSTRUCTED = AT_THE_CROWN | {"nut_filed", "adjusters_turned", "wedge_fitted", "new_bridge", "bridge_moved"}
"""Works that a page offers to record only where they are what is to be done."""
PARTS = {
    "board": "board",
    "neck": "neck",
    "nut": "nut",
    "bridge": "bridge",
    "bar": "bridge",
    "place": "bridge",
    "tail": "tailpiece",
    "wheels": "bridge",
    "post": "post",
    "strings": "strings",
}
"""The part of the instrument that each page is about."""

Tried = Mapping[str, float | str]
"""Handles that were moved, by name."""


@dataclass
class PageBench:
    """One instrument for one page.

    a : the assessment.  instruction : what is to be done now.
    asked : its questions.  seen : what somebody's eyes found, by the finding's name.
    sets : strings on the shelf that fit it.  shelf : the shop's lists for its family.
    trail, post : where the post stood, and the post itself, for a page that wants them.
    with_schools, with_set : the targets by other schools, the bench with other strings on it.
    tried : handles that were moved.  What was needed and not found is noted as the page is worked out.
    """

    a: Assessment
    state: BenchState
    instruction: InstructionView
    asked: Sequence[DecisionView]
    seen: frozenset[str]
    sets: Sequence[StringSet]
    shelf: Mapping[str, Sequence[float]]
    tried: Tried
    with_schools: Callable[[Mapping[TargetQuestionCode, str]], Targets]
    schools: Mapping[TargetQuestionCode, Sequence[School]]
    with_set: Callable[[StringSet], BenchState]
    trail: Trail | None = None
    post: PostEntry | None = None
    retake: list[Retake] = field(default_factory=list)
    assumed: list[str] = field(default_factory=list)
    handles: list[Handle] = field(default_factory=list)

    def read(self, measure: MeasureCode, position: int | None = None) -> ResolvedValue | None:
        """A reading that holds; what is not there, or holds no more, is noted to be taken."""
        held = self.state.held(measure, position)
        if held is not None and not held.assumed:
            return held
        stand = self.state.reading_states.get((measure, position))
        why = why_retake(None if stand is None else stand.state, None if stand is None else stand.stale_because)
        self.take_again(measure, position, why=why)
        return None

    def take_again(self, measure: MeasureCode, position: int | None = None, *, why: str) -> None:
        name = self.state.name((measure, position))
        if not any(one.name == name for one in self.retake):
            self.retake.append(Retake(measure, position, name, why))

    def read_or_figure(
        self, measure: MeasureCode, position: int | None = None, *, figure: FigureCode | None = None
    ) -> ResolvedValue | None:
        """A reading, or the shop's figure, which is noted; where there is neither it is to be read."""
        held = self.state.read_or_figure(measure, position, figure=figure)
        if held is None:
            return self.read(measure, position)
        if held.assumed:
            self.assume_value((measure, position), held.value)
        return held

    def assume_value(self, place: MeasurementKey, value: float) -> None:
        self.assume(f"{self.state.name(place)} {short(value)}")

    def assume(self, what: str) -> None:
        if what not in self.assumed:
            self.assumed.append(what)

    def figure(self, name: FigureCode | MeasureCode) -> Wanted | None:
        return self.state.targets.figure(name)

    def slide(
        self,
        name: str,
        label: str,
        *,
        rests_at: float,
        low: float,
        high: float,
        step: float,
        unit: str = "mm",
        rests_on: str = "",
    ) -> float:
        """A handle; returns where it stands. Raises RefusedError naming it where it was pulled too far.

        low, high : how far it goes; as far as where it rests, however odd that was read.
        """
        low, high = min(low, rests_at), max(high, rests_at)
        at = self.tried.get(name, rests_at)
        if isinstance(at, str) or not low - 1e-9 <= at <= high + 1e-9:
            raise RefusedError(f"{label} goes from {short(low)} to {short(high)} {unit}; it was {at}", field=name)
        self.handles.append(Handle(name, label, unit, at, rests_at, low, high, step, rests_on))
        return at

    def choose(self, name: str, label: str, choices: Sequence[HandleChoice], *, rests_at: str) -> str:
        """A handle that is one of several; returns the key of the one that is chosen."""
        chosen = str(self.tried.get(name, rests_at))
        if not any(choice.key == chosen for choice in choices):
            raise RefusedError(
                f"{label} is one of {', '.join(c.label for c in choices)}; it was “{chosen}”", field=name
            )
        index = float([choice.key for choice in choices].index(chosen))
        rest = float(next((i for i, choice in enumerate(choices) if choice.key == rests_at), 0))
        last = float(max(0, len(choices) - 1))
        self.handles.append(Handle(name, label, "", index, rest, 0.0, last, 1.0, "", list(choices), chosen))
        return chosen

    def check_tried(self) -> None:
        """Raises RefusedError for a handle that this page does not have."""
        known = {handle.name for handle in self.handles}
        for name in self.tried:
            if name not in known and not self.retake:
                raise RefusedError(f"this page has no handle “{name}”", field=name)

    def view(
        self,
        page: str,
        title: str,
        *,
        finding: Sequence[str],
        caution: str = "",
        consequences: Sequence[Consequence] = (),
        plots: Sequence[Plot] = (),
        tables: Sequence[Table] = (),
        ways: Sequence[Way] = (),
        question: str = "",
        impossible: Impossible | None = None,
        shelf: str = "",
        work: WorkCode | Literal[""] = "",
        drawing: PageDrawing | None = None,
        perspective: str = "",
    ) -> PageView:
        """The page, with what was noted while it was worked out.

        work : that it leads to and that can be written down here; its caution is the page's, but for one of its own.
        The rest as in `PageView`.
        """
        recorded = {one.work for one in (self.instruction.record, *self.instruction.also) if one is not None}
        may_record = bool(work) and (work not in ONLY_AS_INSTRUCTED or work in recorded)
        return PageView(
            page=page,
            title=title,
            finding=list(finding),
            retake=self.retake,
            assumed=self.assumed,
            impossible=impossible,
            handles=self.handles,
            consequences=list(consequences),
            plots=list(plots),
            tables=list(tables),
            ways=list(ways),
            question=question,
            stale_after=_made_stale(work) if work else [],
            caution=caution or (works()[work].danger or "" if work else ""),
            shelf=shelf,
            work=work if may_record else "",
            work_label=works()[work].label if work and may_record else "",
            instruction=self.instruction,
            is_here=bool(self.instruction.part) and self.instruction.part == PARTS.get(page, ""),
            drawing=drawing,
            perspective=perspective or perspective_of(page, self.state),
        )

    def question(self, name: str) -> DecisionView | None:
        return next((one for one in self.asked if one.question == name), None)

    def ways_of(self, name: str, takes: Mapping[str, Sequence[str]] | None = None) -> list[Way]:
        """The ways to decide a question. takes : beside what the table says of each."""
        asked = self.question(name)
        if asked is None:
            return []
        return [
            Way(one.outcome, one.label, one.says, list((takes or {}).get(one.outcome, ())), one.recommended)
            for one in asked.options
        ]


def _made_stale(work: WorkCode) -> list[str]:
    """What a work makes stale, in words."""
    found = [measure for measure, works in invalidations().items() if work in works and measure in MEASURES]
    return [MEASURES[measure].label for measure in found]


def banded(wanted: Wanted | None, value: float | None) -> tuple[str, str]:
    """A band in words, and how a value stands to it."""
    if wanted is None:
        return "", ""
    band = wanted.band
    words = f"{short(band.low)} to {short(band.high)}"
    if value is None:
        return words, ""
    return words, "below" if value < band.low - 1e-9 else "above" if value > band.high + 1e-9 else "in_band"


def told(
    key: str,
    label: str,
    now: float | None,
    then: float | None,
    why: Sequence[str],
    *,
    unit: str = "mm",
    places: int = 1,
    wanted: Wanted | None = None,
    assumed: bool = False,
) -> Consequence:
    band, standing = banded(wanted, then)
    return Consequence(key, label, unit, now, then, places, list(why), assumed, band, standing)
