"""Where the work of a visit stands, from what is known of its stops."""

from __future__ import annotations

from fidicula.core.work.workflow import StepFacts, stop_states
from hypothesis import given
from hypothesis import strategies as st

OPEN, DONE, PASSED = StepFacts(), StepFacts(done=True), StepFacts(passed=True)
WAITS, BARRED = StepFacts(waits=True), StepFacts(barred=True)
FACTS = st.lists(st.builds(StepFacts, st.booleans(), st.booleans(), st.booleans(), st.booleans()), max_size=12)


def test_the_work_stands_at_the_first_stop_that_can_be_worked_on() -> None:
    """Glue dries at the nut and the crown is barred: the heights are measured meanwhile."""
    assert stop_states([DONE, WAITS, PASSED, BARRED, OPEN, OPEN]) == [
        "done", "waiting", "passed", "barred", "here", "ahead"
    ]  # fmt: skip


def test_what_was_done_stays_done_though_its_gate_has_shut_since() -> None:
    assert stop_states([StepFacts(done=True, barred=True, waits=True), StepFacts(waits=True, barred=True)]) == [
        "done",
        "waiting",
    ]


def test_nothing_is_here_where_only_time_helps() -> None:
    assert stop_states([DONE, WAITS, WAITS]) == ["done", "waiting", "waiting"]
    assert stop_states([]) == []


@given(FACTS)
def test_the_work_is_never_at_two_stops_nor_where_it_may_not_be(facts: list[StepFacts]) -> None:
    states = stop_states(facts)
    assert states.count("here") <= 1
    assert ("here" in states) == any(fact == OPEN for fact in facts)
    for fact, state in zip(facts, states, strict=True):
        assert (state == "done") == fact.done
        if state in ("here", "ahead"):
            assert fact == OPEN
