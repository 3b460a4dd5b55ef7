"""The sound post: where its two ends stand, where the school puts them, the way there, and whether it fits there."""

from __future__ import annotations

import math
from collections.abc import Iterator

from fidicula.codes import TargetQuestionCode
from fidicula.core.errors import CoreError
from fidicula.core.fitting.post import (
    POST_SIDES,
    Gauged,
    Point,
    as_gauged,
    ends_room_change,
    fit_after,
    lean_room_change,
    leaning_bottom,
    new_post,
    post_place,
    stance,
    stated_to,
)
from fidicula.core.mechanics.perspective import gape_of_shift
from fidicula.core.sound.places import way
from fidicula.domain.work_details import PostMoved
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.assessment.post import post_target
from fidicula.numerals import number
from fidicula.views.adjustments.places import POST_WORKS, Trail
from fidicula.views.pages.bar import FIT_TOLERANCE
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.load import bridge_lean
from fidicula.views.pages.model import Consequence, HandleChoice, PageView, Table
from fidicula.views.pages.perspective import of_post
from fidicula.words.acts import ENDS, ways_words
from fidicula.words.numbers import sentence
from fidicula.words.pages import post as say

_REACH = {"violin": 6.0, "viola": 7.0, "cello": 12.0, "bass": 20.0}
"""How far a handle pulls an end. [mm]"""


def post_page(bench: PageBench) -> PageView:
    """Where the post stands, and what it takes to have it elsewhere."""
    trail = bench.trail
    assert trail is not None
    _note_what_is_not_gauged(bench, trail)
    chosen = {question: _choose(bench, question, label) for question, label in say.QUESTIONS.items()}
    top = _school_place(bench, trail, chosen)
    finding = [*_where(bench, trail), *_set_slack(trail)]
    if bench.state.instrument.opposite_build:
        finding.insert(0, say.OTHER_HAND)
    consequences: list[Consequence] = []
    tables: list[Table] = []
    if top is None:
        finding.append(say.NO_TARGET)
    else:
        goal = (top, _bottom_of(bench, chosen, top))
        names = ", ".join(_label(bench, question, chosen[question]) for question in say.QUESTIONS)
        now = trail.now.ends
        if now[0].at is not None and now[1].at is not None:
            starts = (now[0].at, now[1].at)
            ways = [way(start=start, goal=end) for start, end in zip(starts, goal, strict=True)]
            vectors = {name: list(vector) for name, vector in zip(ENDS, ways, strict=True)}
            finding.append(say.elsewhere(schools=names, ways=ways_words(vectors)))
            tried = tuple(_pull(bench, name, vector) for name, vector in zip(ENDS, ways, strict=True))
            then = (_added(starts[0], tried[0]), _added(starts[1], tried[1]))
            consequences = list(_consequences(bench, trail, starts, then))
        else:
            finding.append(say.target(schools=names, top=_read(trail, goal[0])))
        tables.append(_by_school(bench, trail, chosen))
    tables.extend(_stated(bench, trail, top))
    tables.extend(_new_post(bench, trail))
    tables.append(Table(say.STEPS_TITLE, [""] * 2, list(say.STEPS), [], say.STEPS_SAYS))
    return bench.view(
        "post",
        say.TITLE,
        finding=finding,
        consequences=consequences,
        tables=tables,
        work="post_set",
        perspective=""
        if bench.post is None
        else of_post(
            length=bench.post.length,
            diameter=bench.post.diameter,
            leaning=chosen["post_stance"] == "with_bridge",
        ),
    )


def _note_what_is_not_gauged(bench: PageBench, trail: Trail) -> None:
    """What bars a sure way: each end that was not read where it stands now."""
    for position, end in enumerate(trail.now.ends):
        if end.known != "gauged":
            bench.read("post_setback", position)
            bench.read("post_inset", position)


def _choose(bench: PageBench, question: TargetQuestionCode, label: str) -> str:
    choices = [HandleChoice(row.school, row.label) for row in bench.schools.get(question, ())]
    return bench.choose(question, label, choices, rests_at=bench.state.targets.schools[question])


def _label(bench: PageBench, question: TargetQuestionCode, school: str) -> str:
    return next(row.label for row in bench.schools[question] if row.school == school)


def _school_place(bench: PageBench, trail: Trail, chosen: dict[TargetQuestionCode, str]) -> Point | None:
    """Where the chosen schools put the post's top."""
    diameter = None if bench.post is None else bench.post.diameter
    target = post_target(bench.state, targets=bench.with_schools(chosen), post_diameter=diameter)
    if target is None or trail.foot_width is None:
        return None
    if chosen["post_inset"] == "mirror_bar":
        bench.read_or_figure("bar_inset")
    bench.read_or_figure("bridge_foot_width")
    return post_place(
        setback=target.setback, inset=target.inset, foot_width=trail.foot_width, post_diameter=trail.post_diameter
    )


def _bottom_of(bench: PageBench, chosen: dict[TargetQuestionCode, str], top: Point) -> Point:
    """Under its top; leaning with the bridge it stands nearer to the bridge, as far as the bridge leans back."""
    length = None if bench.post is None else bench.post.length
    if chosen["post_stance"] == "bottom_to_bass":
        aside = bench.with_schools(chosen).others.get("post_bottom_aside")
        return top if aside is None else (top[0], top[1] - aside.band.aim)
    if chosen["post_stance"] != "with_bridge":
        return top
    outcome = compute(bench.state)
    lean = bridge_lean(bench, outcome) if isinstance(outcome, Computed) else None
    if lean is None or length is None:
        bench.assume(say.ASSUMED_UPRIGHT)
        return top
    return leaning_bottom(top=top, length=length, lean=lean)


def _where(bench: PageBench, trail: Trail) -> Iterator[str]:
    for name, end in zip(ENDS, trail.now.ends, strict=True):
        yield say.end(name, end, None if end.at is None else _read(trail, end.at))
    top, bottom = (end.at for end in trail.now.ends)
    post = bench.post
    if post is None or post.length is None:
        yield say.LENGTH_MISSING
    elif top is not None and bottom is not None:
        try:
            leans = stance(top=top, bottom=bottom, length=post.length)
        except CoreError as error:
            yield sentence(error.sentence)
            return
        yield say.lean(along=leans.along, across=leans.across)


def _read(trail: Trail, at: Point) -> Gauged:
    """As a card gauge reads it; an end whose place is known was told from a foot whose width is."""
    return as_gauged(at, foot_width=trail.foot_width or 0.0, post_diameter=trail.post_diameter)


def _pull(bench: PageBench, name: str, rests_at: Point) -> Point:
    """Both handles of one end."""
    reach = _REACH[bench.state.instrument.family]
    along, across = (
        bench.slide(
            f"{name}_{key}",
            say.pull(name, where),
            rests_at=round(max(-reach, min(reach, value)), 2),
            low=-reach,
            high=reach,
            step=0.1,
            rests_on=say.PULLED_FROM,
        )
        for key, where, value in (("along", "tailpiece", rests_at[0]), ("across", "treble side", rests_at[1]))
    )
    return along, across


def _added(start: Point, vector: Point) -> Point:
    return start[0] + vector[0], start[1] + vector[1]


def _consequences(
    bench: PageBench, trail: Trail, now: tuple[Point, Point], then: tuple[Point, Point]
) -> Iterator[Consequence]:
    for i, name in enumerate(ENDS):
        before, after = _read(trail, now[i]), _read(trail, then[i])
        yield told(
            f"{name}_setback",
            say.behind(name),
            before.setback,
            after.setback,
            [say.why_behind(then[i][0])],
        )
        yield told(
            f"{name}_inset",
            say.inside(name),
            before.inset,
            after.inset,
            [say.why_inside(foot_width=trail.foot_width, middle=then[i][1], diameter=trail.post_diameter)],
        )
    yield from _opens(bench, trail, now, then)
    yield from _fit(bench, now, then)


def _opens(
    bench: PageBench, trail: Trail, now: tuple[Point, Point], then: tuple[Point, Point]
) -> Iterator[Consequence]:
    """What a move opens at each end: as far as it leans otherwise than it was cut for."""
    length = None if bench.post is None else bench.post.length
    if length is None:
        return
    before, after = (math.dist((a[0] - b[0], a[1] - b[1]), (0.0, 0.0)) for a, b in (now, then))
    leaned = math.dist(
        (then[0][0] - then[1][0], then[0][1] - then[1][1]), (now[0][0] - now[1][0], now[0][1] - now[1][1])
    )
    gape = gape_of_shift(shift=leaned, length=length, diameter=trail.post_diameter)
    yield told(
        "opens",
        say.OPENS,
        0.0,
        gape,
        [say.why_opens(before=before, after=after, length=length, diameter=trail.post_diameter)],
        places=2,
    )


def _fit(bench: PageBench, now: tuple[Point, Point], then: tuple[Point, Point]) -> Iterator[Consequence]:
    """Whether it becomes tight or loose there."""
    changes: list[float] = []
    slopes = bench.read("top_slope"), bench.read("back_slope")
    if slopes[0] is not None and slopes[1] is not None:
        over = then[0][1] - now[0][1], then[1][1] - now[1][1]
        change = ends_room_change(
            top_offset_change=over[0],
            bottom_offset_change=over[1],
            top_slope=slopes[0].value,
            back_slope=slopes[1].value,
        )
        changes.append(change)
        why = say.why_plates(slopes=(slopes[0].value, slopes[1].value), over=over)
        yield told("room", say.ROOM_BY_PLATES, 0.0, change, [why], places=2)
    length = None if bench.post is None else bench.post.length
    if length is not None:
        apart = math.dist(*now), math.dist(*then)
        try:
            change = lean_room_change(apart_now=apart[0], apart_then=apart[1], length=length)
        except CoreError:
            change = 0.0
        changes.append(change)
        why = say.why_lean(now=apart[0], then=apart[1], length=length)
        yield told("lean_room", say.ROOM_BY_LEAN, 0.0, change, [why], places=2)
    if len(changes) == 2:
        fit = fit_after(change=sum(changes), tolerance=FIT_TOLERANCE)
        yield told(
            "fit",
            "room in all",
            0.0,
            sum(changes),
            say.why_fit(fit),
            places=2,
        )


def _set_slack(trail: Trail) -> Iterator[str]:
    """A post that went in under part of the tension."""
    work = next((line.work for line in reversed(trail.lines) if line.kind in POST_WORKS), None)
    if work is not None and isinstance(work.detail, PostMoved) and work.detail.tension == "middle_slack":
        yield say.SET_SLACK


def _stated(bench: PageBench, trail: Trail, wanted: Point | None) -> Iterator[Table]:
    """The same places to each side of the post: what one shop calls 2 another calls 8."""
    places = [(name, end.at) for name, end in zip(ENDS, trail.now.ends, strict=True)]
    rows: list[list[str]] = []
    for name, at in (*places, (say.WANTED, wanted)):
        if at is None:
            continue
        read = _read(trail, at)
        for where, near in ((say.behind(name), read.setback), (say.inside(name), read.inset)):
            stated = [stated_to(near=near, side=side, post_diameter=trail.post_diameter) for side in POST_SIDES]
            rows.append([where, *(number(value) for value in stated)])
    if rows:
        chosen = POST_SIDES.index(next(s for s in POST_SIDES if s == bench.state.targets.schools["post_statement"]))
        marked = [[row, chosen + 1] for row in range(len(rows))]
        yield Table(say.STATED_TITLE, list(say.STATED_HEAD), rows, marked, say.STATED_SAYS)


def _new_post(bench: PageBench, trail: Trail) -> Iterator[Table]:
    """What to cut, once the room was read with an inside gauge."""
    room, slopes = bench.state.known("post_room"), (bench.state.known("top_slope"), bench.state.known("back_slope"))
    if room is None:
        return
    top, back = (0.0 if slope is None else slope.value for slope in slopes)
    try:
        cut = new_post(room=room.value, post_diameter=trail.post_diameter, top_slope=top, back_slope=back)
    except CoreError:
        return
    is_known = None not in slopes
    yield Table(say.NEW_TITLE, [""] * 2, say.new_rows(cut, trail.post_diameter), [], say.new_says(slopes_read=is_known))


def _by_school(bench: PageBench, trail: Trail, chosen: dict[TargetQuestionCode, str]) -> Table:
    """Each school's place of the top, the others as chosen; never a mean of two."""
    rows: list[list[str]] = []
    marked: list[list[int]] = []
    for question in ("post_setback", "post_inset"):
        for row in bench.schools.get(question, ()):
            at = _school_place(bench, trail, {**chosen, question: row.school})
            if at is None:
                continue
            start = trail.now.ends[0].at
            led = "" if start is None else ways_words({"top": list(way(start=start, goal=at))})
            if chosen[question] == row.school:
                marked.append([len(rows), 0])
            read = _read(trail, at)
            rows.append([row.label, number(read.setback), number(read.inset), led])
    return Table(say.BY_SCHOOL_TITLE, list(say.BY_SCHOOL_HEAD), rows, marked, say.BY_SCHOOL_SAYS)
