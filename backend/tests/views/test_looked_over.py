"""What follows from given records, whole: facts with their uncertainties, what is asked, instructed and said.

Each scenario was worked through once; here nothing of it may change unseen.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import timedelta
from difflib import unified_diff
from functools import cache
from pathlib import Path
from typing import Any

import pytest
from fidicula.domain.work_details import CrownCut, SlotsFiled
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.columns import columns
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.instruction.model import Instruction
from fidicula.judgement.measures import places
from fidicula.views.sheet.lines import target_lines
from fidicula.views.sheet.views import views
from fidicula.words.whys import whys

from ..looked_over import check, lines
from ..scenario import NOW, STRINGS, Bench, blank, cut_roughly, days, filed, measured, on_block, said_true, strung

HERE = Path(__file__).parent / "looked_over"


def body(bench: Bench) -> Bench:
    """What presses, and the plates at the post."""
    small = bench.family in ("violin", "viola")
    bench.read("arch_height", 15 if small else 25).read("board_at_edge", 9 if small else 22)
    bench.read("saddle_height", 8).read("bridge_to_saddle", 155 if small else 330).read(
        "stop_length", 195 if small else 400, at=0
    )
    return bench.read("break_angle", 158).read("top_slope", 4).read("back_slope", 3)


def scoop(bench: Bench, *gaps: float) -> Bench:
    return bench.read("relief", *gaps).read("fingerboard_thickness", 4.6, 4.9).read("fingerboard_width", 23.6, 42)


def gauged(bench: Bench) -> Bench:
    bench.read("post_setback", 5.0, 5.6, tool="card_gauge").read("post_inset", 2.0, 2.4, tool="card_gauge")
    wide = 41.5 if bench.family == "violin" else 90
    return bench.read("bridge_foot_width", wide).read("bridge_foot_thickness", 4.6).read("bar_inset", 1.4)


def cut_once(bench: Bench, left: float) -> Bench:
    """A pass was made at every string: it set out to take 0.5 of 1.0, and so much is over now."""
    bench.did("crown_cut", CrownCut(passes=(0.5,) * 4, wood=(1.0,) * 4))
    ends = [aim + left for aim in bench.aims("end_height")]
    return bench.read("end_height", *ends).read("slot_depth", 0.27, 0.29, 0.23, 0.09)


def contradicting(bench: Bench) -> Bench:
    """The lowest string was read twice, far apart."""
    aim = bench.aims("end_height")[0]
    bench.read("end_height", aim + 0.3, at=0)
    bench.readings.append(replace(bench.readings[-1], number=900, value=aim + 0.7, repeats=True))
    return bench


def with_wedge(bench: Bench) -> Bench:
    bench.read("nut_height", 0.55, 0.5, 0.4, 0.3, tool="feeler", direction="shortest")
    return bench.read("end_height", 5.2, 4.9, 4.4, 3.9, tool="wedge", direction="shortest")


SCENARIOS: dict[str, Callable[[], Bench]] = {
    "nothing_read": lambda: Bench(),
    "no_strings": lambda: Bench(has_strings=False).read("end_height", 5.5, 5.0, 4.5, 4.2),
    "half_read": lambda: Bench().read("projection", 27.0).read("nut_height", 0.6, None, 0.5),
    "high": lambda: measured(over=0.8),
    "high_to_the_treble": lambda: measured(over=(0.0, 0.2, 0.5, 0.9)),
    "low": lambda: measured(over=-0.6),
    "low_decided": lambda: measured(over=-0.6).decided("bridge_low", "new_bridge"),
    "nut_high": lambda: measured(over=0.4, nut_over=0.3),
    "nut_low": lambda: measured(nut_over=-0.2),
    "first_pass_short": lambda: cut_once(measured(over=0.7), 0.5),
    "first_pass_long": lambda: cut_once(measured(over=0.7), 0.05),
    "strings_new": lambda: measured(over=0.8).did("strings_changed", ago=timedelta(hours=3)),
    "board_dressed_since": lambda: scoop(measured(over=0.5), 0.3, 0.7, 0.4, 0.2, 0.5, 0.3).did("board_dressed"),
    "projection_low": lambda: measured(over=0.5, singles={"projection": 24.6}),
    "projection_wedge": lambda: measured(singles={"projection": 24.6}).decided("projection", "wedge"),
    "projection_accepted": lambda: measured(singles={"projection": 25.6}).decided("projection", "accept", "it is old"),
    "projection_waits": lambda: measured(singles={"projection": 24.6}).decided("projection", "wait"),
    "projection_high": lambda: measured(singles={"projection": 29.5}),
    "scoop_flat": lambda: scoop(measured(kind="full_set_up"), 0.1, 0.15, 0.1, 0.05, 0.1, 0.05),
    "scoop_humped": lambda: scoop(measured(kind="full_set_up"), 0.5, 0.2, 0.6, 0.4, 0.1, 0.5),
    "leans_and_presses": lambda: body(measured(over=0.3, kind="full_set_up")),
    "post_gauged": lambda: gauged(body(measured())),
    "post_down": lambda: measured(over=0.5).found("post", "post_fallen"),
    "post_set_again": lambda: gauged(measured().found("post", "post_fallen").did("post_set")),
    "post_loose_at_top": lambda: measured().found("post", "post_loose"),
    "bridge_leans": lambda: measured().read("bridge_lean", -2.0),
    "swapped": lambda: measured().read("end_height", 4.0, 4.4, 4.9, 5.5),
    "changed_without_work": lambda: measured(over=0.8).read("end_height", 5.5, 5.1, 4.6, 4.0),
    "spacing_by_marks": lambda: (
        measured().read("string_mark_nut", 3.4, 8.6, 13.9, 19.2).read("string_mark_bridge", 4, 14, 26, 36)
    ),
    "spacing_by_air": lambda: measured().read("string_gap_nut", 4.2, 4.3, 5.1).read("string_gap_bridge", 9.1, 10.4, 11),
    "board_tilted": lambda: measured().read("edge_projection", 26.2, 27.4).read("neck_to_nick", 54.0, 56.5),
    "chord_and_rise": lambda: Bench().read("board_chord", 30.0).read("board_rise", 2.8),
    "stop_told": lambda: measured().read("stop_length", 193.5, at=1).read("bridge_foot_thickness", 4.6),
    "shortest_way": lambda: with_wedge(measured()),
    "coming_back": lambda: (
        Bench(kind="recheck")
        .last_visit("projection", 27.2, days=12)
        .last_visit("string_length", 329)
        .last_visit("end_height", 5.6, 5.1, 4.6, 4.1)
        .last_visit("nut_spread", 16.6)
    ),
    "before_a_deadline": lambda: measured(over=0.8, visit={"deadline": days(4), "freeze_days": 7}),
    "left_handed": lambda: measured(over=0.5, instrument={"left_handed": True}),
    "other_hand": lambda: gauged(measured(instrument={"left_handed": True, "opposite_build": True})),
    "five_strings": lambda: measured(over=0.4, strings=(("C", 1.1), ("G", 0.8), ("D", 0.86), ("A", 0.68), ("E", 0.27))),
    "new_on_gut": lambda: measured(material="gut", instrument={"is_new": True}, kind="full_set_up"),
    "heights_at_mark": lambda: measured(over=0.5, schools={"height_reference": "bridge_mark"}),
    "own_heights": lambda: measured(over=0.5, schools={"crown": "own_heights"}),
    "buzz": lambda: measured(kind="buzz").found("sound", "buzz_open"),
    "from_a_blank": lambda: Bench(kind="new_bridge").read("projection", 27).read("string_length", 328),
    "strings_alone": lambda: Bench(kind="strings").read("end_height", 5.5, 5.0, 4.5, 4.2),
    "sound": lambda: gauged(measured(kind="sound").found("post", "post_is_new")),
    "blank_masked": lambda: blank("mask"),
    "blank_marked": lambda: blank("mask", "feet"),
    "blank_cut": lambda: blank("mask", "feet", "marks"),
    "blank_strung": lambda: blank("mask", "feet", "marks").did("crown_cut", CrownCut()),
    "blank_thick": lambda: strung(),
    "blank_thinned": lambda: strung().did("bridge_thinned"),
    "blank_opened": lambda: strung().did("bridge_thinned").did("openings_cut"),
    "blank_by_its_foot": lambda: gauged(blank("mask")),
    "slots_to_file": lambda: cut_roughly(0.3),
    "slots_once_more": lambda: cut_roughly(0.3, times=1),
    "slots_filed": lambda: cut_roughly(0.3).did("slots_filed", SlotsFiled(by=(0.36, None, None, 0.36))),
    "far_from_set_out": lambda: filed(cut_roughly(0.3), (0.36,) * 4, [-0.3, 0.02, 0.0, 0.0]),
    "beside_deep_slots": lambda: filed(cut_roughly(0.0), (0.3,) * 4, [0.0] * 4).read(
        "slot_depth", 0.6, 0.43, 0.23, 0.25
    ),
    "contradicting": lambda: contradicting(cut_roughly(0.3)),
    "far_off_again": lambda: cut_roughly([0.7, 0.2, 0.2, 0.2]).read("slot_depth", 0.27, 0.29, 0.23, 0.09),
    "planned": lambda: replace(measured(over=0.3), planned=("cleaned", "pegs_fitted")),
    "seam_and_words": lambda: measured().found("seams", "seam_open").found("pegs", words="slips at A"),
    "stop_and_bridge": lambda: (
        measured(singles={"string_length": 329.0}).read("stop_length", 195.0).read("neck_length", 132)
    ),
    "tail_far": lambda: measured(kind="full_set_up").read("afterlength", 49).read("saddle_gap", 8),
    "bar_off": lambda: measured("cello").read("bar_inset", 6.0).read("bridge_foot_width", 92),
    "dress_decided": lambda: scoop(
        measured(over=1.0).found("board", "board_hump").decided("board", "dress"), 0.5, 0.2, 0.6, 0.4, 0.1, 0.5
    ).decided("approval", "agreed", "by phone"),
    "slot_deep": lambda: measured().read("slot_depth", 0.27, 0.6, 0.23, 0.09),
    "narrow": lambda: measured(over=1.0, singles={"bridge_spread": 31.0}),
    "nut_deep_gut": lambda: measured(material="gut", nut_over=-0.2).decided("nut_low", "fill"),
    "unlikely": lambda: measured().read("projection", 2.7, doubt="small", suggested=27.0),
    "on_the_wrong_one": lambda: measured().read("string_length", 690, doubt="leap", doubt_about=328),
    "tool_unchecked": lambda: measured(over=0.8, tool_checks=[said_true("caliper", NOW - timedelta(days=900))]),
    "tool_never_checked": lambda: measured(over=0.8, tool_checks=[]),
    "tool_true": lambda: measured(over=0.8, tool_checks=[on_block("caliper", 5.0, 5.02, 4.98, 5.0, 5.0)]),
    "tool_off": lambda: measured(over=0.8, tool_checks=[on_block("caliper", 5.06, 5.04, 5.06, 5.06, 5.08)]),
    "two_tools": lambda: measured().read("end_height", 5.2, tool="wedge", at=1, direction="shortest"),
    "chamber": lambda: measured(over=0.8, visit={"climate": "dry"}),
    "viola": lambda: body(measured("viola", over=0.6)),
    "cello": lambda: gauged(body(measured("cello", over=1.2, kind="full_set_up"))),
    "cello_low_projection": lambda: measured("cello", singles={"projection": 76.8}).decided("projection", "reset"),
    "bass": lambda: measured("bass", over=1.5),
    "bass_wheels": lambda: (
        measured("bass", over=1.5)
        .found("bridge", "has_adjusters", verdict="fine")
        .read("adjuster_spread", 90)
        .read("thread_pitch", 1.25)
        .decided("high_strings", "adjusters")
    ),
}


def plainly(found: Instruction) -> dict[str, Any]:
    """An instruction without what its question holds."""
    plain = {
        one: getattr(found, one) for one in found.__dataclass_fields__ if one not in ("question", "slip", "option")
    }
    return {**plain, "asks": None if found.question is None else found.question.question}


def told(a: Assessment) -> Iterator[str]:
    state = a.state
    yield "HELD"
    for place in places(state.instrument):
        held, wanted = state.held(*place), state.wanted_as_read(place)
        if held is not None and (place in state.reading_states or held.origin != "figure" or wanted is not None):
            aim = "" if wanted is None else f"  want {wanted.band.low:.4g} {wanted.band.aim:.4g} {wanted.band.high:.4g}"
            yield f"  {state.name(place)}: {held.value:.4f} ±{held.resolution:.4f} {held.origin}{aim}"
    yield "COLUMNS " + ", ".join(f"{one.measure} {one.direction}" for one in columns(state).values())
    computed: Any = None
    if a.computed is not None:
        computed = {"plan": a.computed.plan, "known_to": a.computed.known_to, "results": a.computed.results}
    asked = [
        {
            "question": one.question,
            "because": one.because,
            "options": [option.outcome for option in one.options],
            "recommended": None if one.recommended is None else one.recommended.outcome,
            "outcome": None if one.outcome is None else one.outcome.outcome,
            "waits_until": one.waits_until,
        }
        for one in a.questions
    ]
    for name, part in (
        ("COMPUTED", computed),
        ("IMPOSSIBLE", a.impossible),
        ("CUT", a.cut),
        ("SIGNS", a.signs),
        ("QUESTIONS", asked),
        ("SLIPS", a.slips),
        ("PROJECTION", a.projection),
        ("COURSE", a.stops),
        ("PARTS", [{**vars(one), "questions": [asked.question for asked in one.questions]} for one in a.parts]),
        ("INSTRUCTION", plainly(instruct(a))),
    ):
        yield from lines(part, name, now=a.now)


WITH_WHYS = frozenset(
    {
        *("nut_high", "first_pass_short", "board_dressed_since", "leans_and_presses", "shortest_way", "coming_back"),
        *("left_handed", "five_strings", "new_on_gut", "heights_at_mark", "own_heights", "cello", "bass_wheels"),
    }
)
"""Scenarios whose side view, targets and reasons are kept too, as those of the plain instruments are."""


def said(bench: Bench, *, whole: bool) -> Iterator[str]:
    a, sheet = bench.assess(), bench.sheet()
    for name in (
        "instruction",
        "questions",
        "proposals",
        "notices",
        "findings",
        "problem",
        "drawing",
        "wanted_heights",
    ):
        yield from lines(getattr(sheet, name), name.upper(), now=a.now)
    yield from lines(list(sheet.cut.assumed), "ASSUMED", now=a.now)
    if not whole:
        return
    yield from lines(views(a.state), "VIEWS", now=a.now)
    yield from lines(target_lines(a.state), "TARGETS", now=a.now)
    yield from lines(whys(a.state, a.computed), "WHYS", now=a.now)


def text(bench: Bench, *, whole: bool = True) -> list[str]:
    return [*told(bench.assess()), *said(bench, whole=whole)]


def in_short(bench: Bench) -> Iterator[str]:
    """What the sheet says first: what to do, what is asked, how each string stands, where the work is."""
    a, sheet = bench.assess(), bench.sheet()
    told = sheet.instruction
    yield told.title
    yield from (f"  {line}" for line in (*told.says, *told.do))
    yield from (f"asks {one.question}: {', '.join(way.outcome for way in one.options)}" for one in a.questions)
    yield from (f"slip {one.code}" for one in a.slips)
    if a.signs:
        yield f"signs {', '.join(sorted(a.signs))}"
    for string in a.cut.strings:
        if string.wood is not None and string.drop is not None:
            yield f"{string.name}: wood {string.wood:.2f}, down {string.drop:.2f}, {string.state}"
    yield "steps " + ", ".join(f"{one.key} {one.state}" for one in a.stops)


@cache
def plain(family: str, *, whole: bool = True) -> list[str]:
    """Everything of an instrument whose card is read and in band."""
    return text(measured(family), whole=whole)


@pytest.mark.parametrize("family", STRINGS)
def test_an_instrument_in_band_is_what_it_was(family: str) -> None:
    check(HERE / f"plain_{family}.txt", "\n".join(plain(family)) + "\n", shown=in_short(measured(family)))


@pytest.mark.parametrize("name", SCENARIOS)
def test_nothing_of_it_changes_unseen(name: str) -> None:
    """What is other than at the plain instrument of its family."""
    bench, whole = SCENARIOS[name](), name in WITH_WHYS
    before, after = plain(bench.family, whole=whole), text(bench, whole=whole)
    other = [line for line in unified_diff(before, after, n=0, lineterm="") if line[0] in "+-"][2:]
    check(HERE / f"{name}.txt", "\n".join(other) + "\n", shown=in_short(bench))


def test_what_is_kept_is_compared() -> None:
    """No file of a scenario that is gone."""
    assert {path.stem for path in HERE.glob("*.txt")} == {*SCENARIOS, *(f"plain_{family}" for family in STRINGS)}
