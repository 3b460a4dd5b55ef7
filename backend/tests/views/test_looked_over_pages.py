"""Every page of some instruments, whole: at rest, and what each handle changes at both of its ends."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Set
from dataclasses import replace
from difflib import unified_diff
from pathlib import Path
from uuid import UUID

import pytest
from fidicula.codes import MeasureCode
from fidicula.domain.errors import RefusedError
from fidicula.domain.sound import PostEntry
from fidicula.judgement.assessment.inspection import open_findings
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.measures import MEASURES
from fidicula.services.visits.pages import PAGES
from fidicula.tables.shelf import shelf_lists
from fidicula.views.adjustments.places import trail_of
from fidicula.views.adjustments.records import TrailRecords
from fidicula.views.pages.bench import PageBench
from fidicula.views.pages.model import PageView
from fidicula.views.sheet.build import instruction_view
from fidicula.views.sheet.questions import question_views
from fidicula.words.pages.bridge import LEFT_TITLE

from ..looked_over import DRAWN, check, lines
from ..scenario import NOW, STRINGS, VISIT, Bench, measured
from .test_looked_over import body, gauged, scoop

HERE = Path(__file__).parent / "looked_over_pages"


BESIDE: dict[MeasureCode, tuple[float, ...]] = {
    "edge_projection": (26.0, 27.0), "fingerboard_radius_nut": (41.0,), "fingerboard_radius_middle": (41.5,),
    "board_rise": (4.8,), "board_chord": (40.0,), "facet_width": (8.0,), "facet_string": (3.0,),
    "neck_to_nick": (130.0,), "foot_gap": (0.6, 0.1), "waist_width": (110.0,),
    "nut_margin": (4.0, 4.0), "nut_over_board": (0.3,), "waist_height": (60.0,), "top_thickness_post": (2.8,),
    "post_room": (53.5,), "bridge_mass": (2.2,), "bridge_thickness": (4.6, 1.3), "humidity": (45.0,),
    "temperature": (20.0,), "adjuster_spread": (90.0,), "thread_pitch": (1.25,), "button_standout": (2.0,),
}  # fmt: skip


def all_read(family: str, **more: object) -> Bench:
    """Everything that any page asks for."""
    small = family in ("violin", "viola")
    bench = scoop(gauged(body(measured(family, over=0.6, nut_over=0.1, **more))), 0.3, 0.7, 0.4, 0.2, 0.2, 0.3)  # type: ignore[arg-type]
    bench.read("neck_length", 130 if small else 280).read("afterlength", 56 if small else 115).read("saddle_gap", 3.0)
    bench.read("bridge_top_thickness", 1.3).read("bridge_waist", 16.0).read("nut_thickness", 5.0).read("pitch", 442)
    count = len(bench.loaded().instrument.string_names)
    bench.read("peg_run", *(20.0 + 12 * i for i in range(count))).read("peg_drop", *(6.0 + 2 * i for i in range(count)))
    return bench.read("peg_side", *(2.0 * (i - 1) for i in range(count)))


def whole(family: str, **schools: str) -> Bench:
    """All that is on the card and on the pages, and what is read beside it."""
    bench = all_read(family, schools=schools)
    for measure, values in BESIDE.items():
        if MEASURES[measure].fits(family):
            bench.read(measure, *values)
    return bench.read("nick_stop", *((195.2, 194.8) if family in ("violin", "viola") else (400.6, 399.4)))


INSTRUMENTS: dict[str, Bench] = {
    "violin": whole("violin"),
    "left_handed": all_read(
        "violin", instrument={"left_handed": True}, schools={"crown": "own_heights", "slot_floor": "fixed"}
    ).read("nut_passes", 0.55, 0.5),
    "cello": all_read("cello", singles={"projection": 76.8}).read("foot_spread", 70),
    "bass": whole("bass"),
    "five_strings": all_read("violin", strings=(("C", 1.1), ("G", 0.8), ("D", 0.86), ("A", 0.68), ("E", 0.27))),
    "nothing_read": Bench(),
    "no_strings": Bench("cello", has_strings=False),
}
WITH_HANDLES = ("violin", "bass")
WITH_LINES = "five_strings"
"""Here the lines of the drawings are kept too."""


def paged(bench: Bench, name: str, tried: Mapping[str, float | str]) -> PageView:
    loaded = bench.loaded()
    shelf = {name: row.values for (name, family), row in shelf_lists().items() if family == bench.family}
    a = bench.assess(blanks=shelf["bridge_blanks"])
    post = PostEntry(UUID(int=3), VISIT, 0, 53.5, 6.0, "spruce", "", "", None, "", "Ilse Varnholt", NOW)
    records = TrailRecords([loaded.visit], loaded.works, loaded.readings, [], [], [post], [], False, "", False, [])
    foot = a.state.read_or_figure("bridge_foot_width")
    own = loaded.string_set
    heavier = None if own is None else replace(
        own,
        id=UUID(int=4),
        name="Weir heavy",
        strings=tuple(replace(s, diameter=s.diameter * 1.1, tension=50 + s.diameter) for s in own.strings),
    )  # fmt: skip
    page = PageBench(
        a=a,
        state=a.state,
        instruction=instruction_view(a, instruct(a)),
        asked=question_views(a),
        seen=open_findings(a.state),
        sets=[] if own is None or heavier is None else [own, heavier],
        shelf=shelf,
        tried=tried,
        with_schools=loaded.with_schools,
        schools=loaded.rules.offered(),
        with_set=loaded.with_set,
        trail=trail_of(records, current=VISIT, foot_width=None if foot is None else foot.value, post_diameter=6.0),
        post=post,
    )
    return PAGES[name](page)


def text(view: PageView, *, without: Set[str] = DRAWN) -> list[str]:
    kept = {one: getattr(view, one) for one in view.__dataclass_fields__ if one != "instruction"}
    return list(lines(kept, view.page.upper(), now=NOW, without=without))


def in_short(view: PageView) -> Iterator[str]:
    """What a page says first."""
    yield view.title
    yield from (f"  {line}" for line in view.finding)
    yield from (f"read {one.name}: {one.why}" for one in view.retake)
    if view.impossible is not None:
        yield f"cannot be: {view.impossible.sentence}"
    yield from (f"way {one.label}{', rather' if one.recommended else ''}" for one in view.ways)
    if view.handles:
        yield f"handles {', '.join(f'{one.name} {one.rests_at:.5g}' for one in view.handles)}"
    if view.consequences:
        yield f"tells {', '.join(one.key for one in view.consequences)}"


def moved(bench: Bench, name: str) -> Iterator[str]:
    """Each handle at both its ends, and each choice: what is other than at rest."""
    rest = paged(bench, name, {})
    for handle in rest.handles:
        ends: list[str | float] = [choice.key for choice in handle.choices] or [handle.low, handle.high]
        for at in ends:
            # A set of strings goes by an id; the others by a word, or by how far they are pulled.
            yield f"{handle.name} at {'a set' if handle.name == 'set' else at}"
            try:
                there = text(paged(bench, name, {handle.name: at}))
            except RefusedError as error:
                yield f"  refused: {error.sentence}"
                continue
            yield from [one for one in unified_diff(text(rest), there, n=0, lineterm="") if one[0] in "+-"][2:]


@pytest.mark.parametrize("name", PAGES)
@pytest.mark.parametrize("instrument", INSTRUMENTS)
def test_nothing_of_a_page_changes_unseen(instrument: str, name: str) -> None:
    bench = INSTRUMENTS[instrument]
    if name == "wheels" and bench.family != "bass":
        return
    view = paged(bench, name, {})
    said = text(view, without=frozenset() if instrument == WITH_LINES else DRAWN)
    if instrument in WITH_HANDLES:
        said += moved(bench, name)
    check(HERE / f"{instrument}_{name}.txt", "\n".join(said) + "\n", shown=in_short(view))


def test_strings_of_every_family_have_a_page() -> None:
    assert all(paged(measured(family), "strings", {}).tables for family in STRINGS)


def test_a_measure_that_nobody_read_ends_no_table() -> None:
    bench = measured("violin").read("bridge_waist", 16.0)
    tables = paged(bench, "bridge", {}).tables
    left = next(table for table in tables if table.title == LEFT_TITLE)
    assert [row[:2] for row in left.rows] == [["waist", "16"]]
