"""Strings before they are put on: what another set pulls and presses, which heights it wants, whether the crown serves.

And a string's gauge by how it sounds tuned a little sharp or flat.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from fidicula.core.fitting.tailpiece import nearest_gauge, wanted_tension
from fidicula.core.readings.in_hand import in_hand
from fidicula.domain.strings import StringSet
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import WORTH_TAKING
from fidicula.numerals import number, signed
from fidicula.tables.work import works
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.drawn import PulledString, StringsDrawing
from fidicula.views.pages.load import Load, loaded_by
from fidicula.views.pages.model import Consequence, HandleChoice, PageView, Table
from fidicula.views.pages.strings import Sounding, set_tried, sounding
from fidicula.words.pages import stringing as say

_SHARPEST = 60.0
"""So far a string is tuned off to hear it. [cents]"""
_WIDER = 0.02
"""A string thicker by more than this wants wider slots. [mm]"""


def stringing_page(bench: PageBench) -> PageView:
    """What is on it, and what other strings would change."""
    state = bench.state
    finding: list[str] = []
    consequences: list[Consequence] = []
    tables: list[Table] = []
    drawing = None
    if state.string_set is None:
        finding.append(say.NO_STRINGS)
    else:
        tried = set_tried(bench) or state.string_set
        then = state if tried is state.string_set else bench.with_set(tried)
        if tried is not state.string_set:
            finding.append(say.tried(tried))
        finding += _in_hand(bench, state.string_set)
        finding += _crown_serves(then, tried)
        consequences = [*_pulls(bench, tried), *_heights(state, then)]
        tables = [*_by_string(bench, state.string_set, tried), *_gauge(bench, state.string_set)]
        drawing = _drawing(bench, state.string_set, tried)
    return bench.view(
        "strings",
        say.TITLE,
        finding=finding,
        consequences=consequences,
        tables=tables,
        caution=works()["strings_changed"].danger or "",
        drawing=drawing,
    )


def _in_hand(bench: PageBench, on: StringSet) -> Iterator[str]:
    """Strings whose thickness was read: whether they are those of the set."""
    for i, string in enumerate(on.strings):
        held = bench.state.known("string_diameter", i)
        if held is None:
            continue
        is_like = in_hand(measured=held.value, stated=string.diameter, known_to=held.resolution)
        if is_like != "same":
            yield say.in_hand(string.name, like=is_like, measured=held.value, stated=string.diameter)


def _drawing(bench: PageBench, on: StringSet, tried: StringSet) -> StringsDrawing | None:
    length = bench.read_or_figure("string_length")
    if length is None:
        return None
    now, then = sounding(bench, on, length.value), sounding(bench, tried, length.value)
    strings = [
        PulledString(old.name, old.diameter, pulls.tension, would.tension, new.diameter)
        for old, new, pulls, would in zip(on.strings, tried.strings, now, then, strict=True)
    ]
    return StringsDrawing("strings", length.value, strings)


def _crown_serves(then: BenchState, tried: StringSet) -> Iterator[str]:
    """Whether the crown that is there can serve these strings, by what each would have to come down or go up."""
    outcome = compute(then)
    if not isinstance(outcome, Computed):
        yield say.CANNOT_BE_TOLD
        return
    woods = [None if r is None else r.cut.crown_cut for r in outcome.results]
    known = [wood for wood in woods if wood is not None]
    if len(known) < len(woods):
        yield say.ONCE_READ
        return
    names = then.instrument.string_names
    woods_of = list(zip(names, known, strict=True))
    yield say.crown_serves(
        tried.name,
        low=[(name, -wood) for name, wood in woods_of if wood <= -WORTH_TAKING],
        high=[(name, wood) for name, wood in woods_of if wood >= WORTH_TAKING],
        outside=[say.outside(names[i], side) for i in (0, len(names) - 1) if (side := _side(then, i))],
    )


def _side(state: BenchState, position: int) -> str:
    """On which side of the wanted band a string stands; empty in it."""
    wanted, read = state.wanted_as_read(("end_height", position)), state.held("end_height", position)
    if wanted is None or read is None:
        return ""
    if read.value < wanted.band.low - 1e-9:
        return "under"
    return "over" if read.value > wanted.band.high + 1e-9 else ""


def _loads(bench: PageBench, string_set: StringSet) -> tuple[Load, list[Sounding]] | None:
    outcome, length = compute(bench.state), bench.read_or_figure("string_length")
    if not isinstance(outcome, Computed) or length is None:
        return None
    strings = sounding(bench, string_set, length.value)
    found = loaded_by(bench, outcome, strings, length, as_read=True)
    return None if found is None else (found[0], strings)


def _pulls(bench: PageBench, tried: StringSet) -> Iterator[Consequence]:
    on = bench.state.string_set
    now = None if on is None else _loads(bench, on)
    then = _loads(bench, tried)
    if then is None:
        return
    load, strings = then
    before = None if now is None else now[0]
    yield told(
        "tension",
        say.LABELS["tension"],
        None if before is None else sum(before.tensions),
        sum(load.tensions),
        [one.why for one in strings],
        unit="N",
        places=0,
    )
    yield told(
        "down",
        say.LABELS["down"],
        None if before is None else before.down,
        load.down,
        [say.why_down(load.down)],
        unit="N",
        places=0,
    )


def _heights(now: BenchState, then: BenchState) -> Iterator[Consequence]:
    """What is wanted at the board's end and at the nut of the outer strings, which goes with the material."""
    names = now.instrument.string_names
    for measure in ("end_height", "nut_height"):
        for position in (0, len(names) - 1):
            before, after = now.wanted((measure, position)), then.wanted((measure, position))
            if after is not None:
                yield told(
                    f"{measure}{position}",
                    say.wanted_at(names[position], measure),
                    None if before is None else before.band.aim,
                    after.band.aim,
                    [after.source],
                    places=2,
                )


def _by_string(bench: PageBench, on: StringSet, tried: StringSet) -> Iterator[Table]:
    length = bench.read_or_figure("string_length")
    if length is None:
        return
    rows = []
    marked = []
    now, then = sounding(bench, on, length.value), sounding(bench, tried, length.value)
    for i, string in enumerate(tried.strings):
        wider = string.diameter - on.strings[i].diameter
        slot = "" if abs(wider) <= _WIDER else "wider slots" if wider > 0 else say.LOOSE
        if slot:
            marked.append([i, 4])
        pulls = [number(one.tension) if one.tension is not None else "no figure" for one in (now[i], then[i])]
        rows.append([string.name, number(string.diameter, 2), *pulls, slot])
    yield Table(say.TABLE_TITLE, list(say.TABLE_HEAD), rows, marked)


def _gauge(bench: PageBench, on: StringSet) -> Iterator[Table]:
    """Heavier or lighter, by how a string sounds tuned off a little."""
    names = [string.name for string in on.strings]
    chosen = bench.choose("gauge_of", "gauge of the", [HandleChoice(n, n) for n in names], rests_at=names[-1])
    cents = bench.slide(
        "cents",
        say.LABELS["cents"],
        rests_at=0.0,
        low=-_SHARPEST,
        high=_SHARPEST,
        step=5.0,
        unit="cents",
        rests_on=say.BELOW_NOUGHT,
    )
    length = bench.read_or_figure("string_length")
    if length is None:
        return
    i = names.index(chosen)
    tension = sounding(bench, on, length.value)[i].tension
    if tension is None:
        return
    wanted = wanted_tension(tension=tension, cents=cents)
    fitting = [one for one in bench.sets if tuple(s.name for s in one.strings) == tuple(names)]
    known = [(one, t) for one in fitting if (t := sounding(bench, one, length.value)[i].tension) is not None]
    yield _gauge_table(chosen, wanted, tension, known)


def _gauge_table(name: str, wanted: float, tension: float, known: Sequence[tuple[StringSet, float]]) -> Table:
    best = nearest_gauge(wanted=wanted, tensions=[t for _, t in known])
    rows = [[one.name, number(t), signed(t - wanted)] for one, t in known]
    return Table(
        say.gauge_title(name, wanted=wanted, tension=tension),
        list(say.GAUGE_HEAD),
        rows,
        [] if best is None else [[best, 0]],
        say.GAUGE_SAYS,
    )
