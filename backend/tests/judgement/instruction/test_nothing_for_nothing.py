"""Nothing in the tables is without effect: every school, option, finding and sign changes what is wanted or said."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

import pytest
from fidicula.codes import VisitKindCode
from fidicula.judgement.instruction.instruct import instruct
from fidicula.tables.figures import FigureBook
from fidicula.tables.schools import schools_for, shipped_recipes
from fidicula.tables.signs import findings
from fidicula.tables.sound import advice
from fidicula.tables.workflow import questions
from fidicula.views.sheet.lines import target_lines
from fidicula.words.instructions import phrase

from ...scenario import Bench, measured


def shows(bench: Bench) -> list[Any]:
    """What an instrument is to be, and what is said of it: a school that changes none of that has no effect."""
    a = bench.assess()
    down = bench.found("post", "post_fallen").assess()
    return [
        [asdict(line) for line in target_lines(a.state)],
        [stop.key for stop in a.stops],
        bench.sheet().recipe.heights_at_mark,
        phrase(down, instruct(down)).says,
    ]


SCHOOLS = [
    (family, question, school.school)
    for family in ("violin", "cello", "bass")
    for question, offered in schools_for(family, FigureBook()).items()
    for school in offered
]


def with_school(family: str, question: str, school: str) -> Bench:
    """Read far enough that each school has something to show: the body, the foot, the bar."""
    more: dict[str, Any] = {"instrument": {"is_new": True}} if question == "new_instrument" else {}
    bench = measured(family, over=0.5, kind="full_set_up", schools={question: school}, **more)
    bench.read("arch_height", 15 if family == "violin" else 25).read("board_at_edge", 9 if family == "violin" else 22)
    bench.read("saddle_height", 8).read("bridge_to_saddle", 155 if family == "violin" else 330)
    return bench.read("bridge_foot_thickness", 4.8).read("bar_inset", 1.4)


@pytest.mark.parametrize(("family", "question"), sorted({(family, question) for family, question, _ in SCHOOLS}))
def test_every_school_of_a_question_shows_something_of_its_own(family: str, question: str) -> None:
    # What is on the instrument is one of the other materials: `as_strung` is tried by itself.
    offered = [s for of, asked, s in SCHOOLS if (of, asked) == (family, question) and s != "as_strung"]
    shown = [shows(with_school(family, question, school)) for school in offered]
    for i, one in enumerate(shown):
        for j in range(i):
            assert one != shown[j], f"{offered[i]} and {offered[j]} say the same"


def test_as_strung_follows_the_strings() -> None:
    gut, steel = (measured(material=name) for name in ("gut", "steel"))
    assert shows(gut) != shows(steel)
    planned = [measured(material=name, schools={"string_material": "gut"}) for name in ("gut", "steel")]
    assert shows(planned[0]) == shows(planned[1])


@pytest.mark.parametrize("finding", list(findings().values()), ids=lambda row: row.finding)
def test_every_finding_leads_to_something(finding: Any) -> None:
    """A question, a proposal, or an advice that has to wait for it."""
    family = "violin" if finding.families is None else finding.families.split()[0]
    kind: VisitKindCode = "sound" if finding.finding == "post_is_new" else "bridge"
    plain = measured(family, over=1.0, kind=kind)
    found = measured(family, over=1.0, kind=kind).found(finding.item, finding.finding, verdict=finding.verdict)
    before, after = plain.sheet(), found.sheet()
    waits = any(finding.finding in row.against.signs for row in advice())
    changed = before.proposals != after.proposals or before.questions != after.questions
    assert changed or waits


def test_every_option_that_goes_on_is_said_and_every_other_is_instructed() -> None:
    for deciding in questions().values():
        for row in deciding.outcomes:
            assert row.instructs or row.opens_gate, row


def test_every_question_that_bars_something_stands_before_a_step_of_some_visit() -> None:
    recipe = next(iter(shipped_recipes("violin").values()))
    assert {"nut_order", "post_order"} <= recipe.keys()
