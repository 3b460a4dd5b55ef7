"""The sound post: where its two ends stand, where the school puts them, the way there, and whether it fits there."""

from __future__ import annotations

import math
from collections.abc import Iterator

from fidicula.core.errors import CoreError
from fidicula.core.fitting.post import (
    Gauged,
    Point,
    as_gauged,
    ends_room_change,
    fit_after,
    lean_room_change,
    leaning_bottom,
    post_place,
    stance,
)
from fidicula.core.sound.places import EndPlace, way
from fidicula.services.assessment.computing import Computed, compute
from fidicula.services.numbers import give_or_take, number, short, signed
from fidicula.services.pages.bar import FIT_TOLERANCE, FIT_WORDS
from fidicula.services.pages.bench import PageBench, told
from fidicula.services.pages.load import bridge_lean
from fidicula.services.pages.model import Consequence, HandleChoice, PageView, Table
from fidicula.services.phrasing.acts import ENDS, ways_words
from fidicula.services.trail.places import Trail

_CAUTION = (
    "Strings slack, the setter off the f-hole's edge, no force: a post too tight cracks the top. With a crack at post "
    "or bar, or on a valuable instrument, this belongs to an experienced luthier."
)
_REACH = {"violin": 6.0, "viola": 7.0, "cello": 12.0, "bass": 20.0}
"""How far a handle pulls an end. [mm]"""
_QUESTIONS = {"post_setback": "behind the foot", "post_inset": "inside the foot", "post_stance": "how it stands"}

_OTHER_HAND = (
    "It is built for the other hand: the post stands under the low strings. What is called the treble foot here is the "
    "foot over the post."
)


def post_page(bench: PageBench) -> PageView:
    """Where the post stands, and what it takes to have it elsewhere."""
    trail = bench.trail
    assert trail is not None
    _note_what_is_not_gauged(bench, trail)
    chosen = {question: _choose(bench, question, label) for question, label in _QUESTIONS.items()}
    top = _school_place(bench, trail, chosen)
    finding = list(_where(bench, trail))
    if bench.state.instrument.opposite_build:
        finding.insert(0, _OTHER_HAND)
    consequences: list[Consequence] = []
    tables: list[Table] = []
    if top is None:
        finding.append("The width over the feet and the bar's place say where the school puts it: read them first.")
    else:
        goal = (top, _bottom_of(bench, chosen, top))
        names = ", ".join(_label(bench, question, chosen[question]) for question in _QUESTIONS)
        now = trail.now.ends
        if now[0].at is not None and now[1].at is not None:
            starts = (now[0].at, now[1].at)
            ways = [way(start=start, goal=end) for start, end in zip(starts, goal, strict=True)]
            vectors = {name: list(vector) for name, vector in zip(ENDS, ways, strict=True)}
            finding.append(f"The school ({names}) has it elsewhere: {ways_words(vectors)}.")
            tried = tuple(_pull(bench, name, vector) for name, vector in zip(ENDS, ways, strict=True))
            then = (_added(starts[0], tried[0]), _added(starts[1], tried[1]))
            consequences = list(_consequences(bench, trail, starts, then))
        else:
            finding.append(
                f"The school ({names}) puts its top {number(_read(trail, goal[0]).setback)} behind the foot and "
                f"{number(_read(trail, goal[0]).inset)} inside its edge."
            )
        tables.append(_by_school(bench, trail, chosen))
    return bench.view(
        "post",
        "The sound post",
        finding=finding,
        consequences=consequences,
        tables=tables,
        caution=_CAUTION,
        work="post_set",
    )


def _note_what_is_not_gauged(bench: PageBench, trail: Trail) -> None:
    """What bars a sure way: each end that was not read where it stands now."""
    for position, end in enumerate(trail.now.ends):
        if end.known != "gauged":
            bench.read("post_setback", position)
            bench.read("post_inset", position)


def _choose(bench: PageBench, question: str, label: str) -> str:
    choices = [HandleChoice(row.school, row.label) for row in bench.schools.get(question, ())]
    return bench.choose(question, label, choices, rests_at=bench.state.targets.schools[question])


def _label(bench: PageBench, question: str, school: str) -> str:
    return next(row.label for row in bench.schools[question] if row.school == school)


def _school_place(bench: PageBench, trail: Trail, chosen: dict[str, str]) -> Point | None:
    """Where the chosen schools put the post's top."""
    targets = bench.with_schools(chosen)
    setback, inset = targets.others.get("post_setback"), targets.others.get("post_inset")
    if setback is None or inset is None or trail.foot_width is None:
        return None
    inside = inset.band.aim
    if chosen["post_inset"] == "mirror_bar":
        bar = bench.read_or_figure("bar_inset")
        inside = inside if bar is None else bar.value
    bench.read_or_figure("bridge_foot_width")
    return post_place(
        setback=setback.band.aim, inset=inside, foot_width=trail.foot_width, post_diameter=trail.post_diameter
    )


def _bottom_of(bench: PageBench, chosen: dict[str, str], top: Point) -> Point:
    """Under its top; leaning with the bridge it stands nearer to the bridge, as far as the bridge leans back."""
    length = None if bench.post is None else bench.post.length
    if chosen["post_stance"] != "with_bridge":
        return top
    outcome = compute(bench.state)
    lean = bridge_lean(bench, outcome) if isinstance(outcome, Computed) else None
    if lean is None or length is None:
        bench.assume("upright: how the bridge leans is not read, or the post's length not said")
        return top
    return leaning_bottom(top=top, length=length, lean=lean)


def _where(bench: PageBench, trail: Trail) -> Iterator[str]:
    for name, end in zip(ENDS, trail.now.ends, strict=True):
        yield f"{name.capitalize()}: {_end_words(trail, end)}."
    top, bottom = (end.at for end in trail.now.ends)
    post = bench.post
    if post is None or post.length is None:
        yield "Say how long the post is: then its lean is told, and whether it fits elsewhere."
    elif top is not None and bottom is not None:
        try:
            leans = stance(top=top, bottom=bottom, length=post.length)
        except CoreError as error:
            yield f"{error.sentence[0].upper()}{error.sentence[1:]}."
            return
        yield _lean_words(leans.along, leans.across)


def _end_words(trail: Trail, end: EndPlace) -> str:
    if end.at is None:
        return "its place is not known; gauge it"
    read = _read(trail, end.at)
    manner = "" if end.known == "gauged" else f", estimated to ± {give_or_take(end.known_to)}"
    return f"{number(read.setback)} behind the foot, {number(read.inset)} inside its edge{manner}"


def _read(trail: Trail, at: Point) -> Gauged:
    """As a card gauge reads it; an end whose place is known was told from a foot whose width is."""
    return as_gauged(at, foot_width=trail.foot_width or 0.0, post_diameter=trail.post_diameter)


def _lean_words(along: float, across: float) -> str:
    parts = []
    if abs(along) >= 0.1:
        parts.append(f"{number(abs(along))}° toward the {'tailpiece' if along > 0 else 'bridge'}")
    if abs(across) >= 0.1:
        parts.append(f"{number(abs(across))}° toward the {'treble' if across > 0 else 'bass'} side")
    return f"Its top leans {' and '.join(parts)}." if parts else "It stands upright."


def _pull(bench: PageBench, name: str, rests_at: Point) -> Point:
    """Both handles of one end."""
    reach = _REACH[bench.state.instrument.family]
    along, across = (
        bench.slide(
            f"{name}_{key}",
            f"{name}, toward the {where}",
            rests_at=round(max(-reach, min(reach, value)), 2),
            low=-reach,
            high=reach,
            step=0.1,
            rests_on="where the school has it; below nought the other way",
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
            f"{name} behind the foot",
            before.setback,
            after.setback,
            [f"to its near side; its middle stands {number(then[i][0], 2)} behind"],
        )
        yield told(
            f"{name}_inset",
            f"{name} inside the foot's edge",
            before.inset,
            after.inset,
            [f"{short(trail.foot_width)} ÷ 2 − {number(then[i][1], 2)} − {short(trail.post_diameter)} ÷ 2"],
        )
    yield from _fit(bench, now, then)


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
        why = (
            f"−(tan {short(slopes[0].value)}° × {signed(over[0], 2)} + tan {short(slopes[1].value)}° × "
            f"{signed(over[1], 2)}): "
            "the plates close outward at each end"
        )
        yield told("room", "room by the plates", 0.0, change, [why], places=2)
    length = None if bench.post is None else bench.post.length
    if length is not None:
        apart = math.dist(*now), math.dist(*then)
        try:
            change = lean_room_change(apart_now=apart[0], apart_then=apart[1], length=length)
        except CoreError:
            change = 0.0
        changes.append(change)
        why = f"its ends {number(apart[0], 2)} apart now, {number(apart[1], 2)} then, over a length of {short(length)}"
        yield told("lean_room", "room by its lean", 0.0, change, [why], places=2)
    if len(changes) == 2:
        fit = fit_after(change=sum(changes), tolerance=FIT_TOLERANCE)
        yield told(
            "fit",
            "room in all",
            0.0,
            sum(changes),
            [f"A post that fits is {FIT_WORDS[fit]}.", "The same within a tenth."],
            places=2,
        )


def _by_school(bench: PageBench, trail: Trail, chosen: dict[str, str]) -> Table:
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
    return Table(
        "Where each school puts its top",
        ["school", "behind", "inside", "from where it stands"],
        rows,
        marked,
        "Those that are followed are marked.",
    )
