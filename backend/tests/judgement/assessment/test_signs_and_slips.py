"""Limits that count in, what settles a decision, and slips that only many readings betray."""

from __future__ import annotations

from datetime import timedelta

import pytest
from fidicula.codes import WorkCode
from fidicula.domain.readings import ToolCheck
from fidicula.judgement.instruction.amounts import lower_crown

from ...scenario import NOW, Bench, measured, on_block, said_true


@pytest.mark.parametrize(
    ("second", "days", "settled"),
    [(27.2, 4, True), (26.9, 4, True), (28.0, 4, False), (26.0, 4, False), (27.0, 0, False)],
)
def test_the_air_is_the_same_where_the_projection_is_days_later(second: float, days: int, settled: bool) -> None:
    bench = Bench().read("projection", 27.0, taken_at=NOW - timedelta(days=days))
    first = list(bench.readings)
    bench.read("projection", second)
    bench.readings = first + bench.readings[-1:]
    assert ("air_same" in bench.assess().signs) is settled


@pytest.mark.parametrize(("days", "due"), [(8, True), (6, False)])
def test_a_tool_whose_check_is_overdue_is_named(days: int, due: bool) -> None:
    """A caliper is checked once a week."""
    bench = measured(tool_checks=[said_true("caliper", NOW - timedelta(days=days))])
    assert [(one.code, one.subject, one.act) for one in bench.assess().slips] == (
        [("tool_unchecked", "caliper", "check_tool")] if due else []
    )
    if due:
        assert bench.assess().slips[0].at == NOW - timedelta(days=1)


def test_a_tool_that_nobody_checked_is_named_and_one_that_reads_wrong() -> None:
    (never,) = measured(tool_checks=[]).assess().slips
    assert (never.code, never.subject, never.at) == ("tool_unchecked", "caliper", None)
    bench = measured(tool_checks=[on_block("caliper", 5.06, 5.04, 5.06, 5.06, 5.08)])
    (off,) = bench.assess().slips
    assert (off.code, off.values) == ("tool_off", pytest.approx((0.06,)))
    bench.tool_checks = [*bench.tool_checks, on_block("caliper", 5.0, 5.0, 5.02, 4.98, 5.0, at=NOW)]
    assert bench.assess().slips == ()


def test_a_check_tells_of_the_readings_around_it() -> None:
    """By one that reads true heights are known better; by one that reads wrong, worse, until it is set."""

    def known_to(*checks: ToolCheck) -> float:
        held = measured(tool_checks=checks).assess().state.held("end_height", 0)
        assert held is not None
        return held.resolution

    never, day = known_to(), timedelta(days=1)
    good = (5.0, 5.02, 4.98, 5.0, 5.0)
    assert known_to(on_block("caliper", *good, at=NOW + day)) == known_to(on_block("caliper", *good, at=NOW - day))
    assert known_to(on_block("caliper", *good)) < never - 0.005
    assert known_to(on_block("caliper", *good, at=NOW - 8 * day)) == never
    bad = [one + 0.1 for one in good]
    assert known_to(on_block("caliper", *bad, at=NOW + day)) > 2 * never - 0.05
    # Set after that check, it was off by as much before.
    set_then = known_to(on_block("caliper", *bad, at=NOW + day), on_block("caliper", *good, at=NOW + 2 * day))
    assert set_then == known_to(on_block("caliper", *bad, at=NOW + day))
    assert known_to(on_block("caliper", *bad, at=NOW - day), on_block("caliper", *good, at=NOW - day / 2)) < never


def test_readings_of_another_instrument_carry_what_stood_there() -> None:
    bench = measured()
    bench.readings = [
        one
        if one.measure != "end_height"
        else one.__class__(**{**vars(one), "value": one.value + 2, "doubt": "changed", "doubt_about": one.value})
        for one in bench.readings
    ]
    stood = measured().aims("end_height")
    (slip,) = [one for one in bench.assess().slips if one.code == "wrong_instrument"]
    assert slip.before == pytest.approx(stood)
    assert slip.values == pytest.approx([value + 2 for value in stood])
    assert slip.act == "move"


def high_bass() -> Bench:
    bench = measured("bass", over=2.0).read("adjuster_spread", 104).read("thread_pitch", 1.5)
    return bench.found("bridge", "has_adjusters", verdict="fine")


def test_a_work_settles_what_was_decided_before_it_and_no_other_work_does() -> None:
    """The seam is glued and opens again: what was decided of it before is no answer now."""
    glued = measured().found("seams", "seam_open").decided("seam", "glue").did("seam_glued").found("seams", "seam_open")
    asked = glued.assess().question("seam")
    assert asked is not None
    assert asked.outcome is None
    again = glued.decided("seam", "glue").assess().question("seam")
    assert again is not None
    assert again.outcome is not None
    cleaned = high_bass().decided("high_strings", "adjusters").did("cleaned")
    assert cleaned.told().code == "turn_wheels"


def test_strings_that_stay_close_are_those_that_somebody_left_so() -> None:
    close = measured(singles={"bridge_spread": 31.0})
    assert close.assess().state.keeps_spacing is False
    close.decided("narrow_spacing", "leave", "a small hand")
    assert close.assess().state.keeps_spacing is True
    taken_back = close.decisions[0].__class__(**{**vars(close.decisions[0]), "taken_back": True})
    close.decisions = [taken_back]
    assert close.assess().state.keeps_spacing is False
    other = measured(singles={"bridge_spread": 31.0}).found("board", "board_hump").decided("board", "leave", "as it is")
    assert other.assess().state.keeps_spacing is False


@pytest.mark.parametrize(("work", "hours", "less"), [("strings_changed", 3, True), ("tailgut_changed", 3, False)])
def test_new_strings_leave_wood_and_another_tailgut_does_not(work: WorkCode, hours: int, less: bool) -> None:
    plain = measured(over=0.8)
    aims = [aim + 0.8 for aim in plain.aims("end_height")]
    passed = measured(over=0.8).did(work, ago=timedelta(hours=hours)).read("end_height", *aims)
    first, then = (bench.assess().cut.strings[0].next_pass for bench in (plain, passed))
    assert first is not None
    assert then is not None
    assert (then < first - 0.005) is less


def test_a_slot_that_a_rule_calls_deep_is_not_known_to_be() -> None:
    """E of 0.27 with 0.16 of depth: 0.07 more than a third; a rule covers 0.29, a caliper tells 0.26 from half."""
    deep = measured().read("slot_depth", 0.16, at=3, tool="rule")
    assert lower_crown(deep.assess()).amounts == ()
    known = lower_crown(measured().read("slot_depth", 0.26, at=3, tool="caliper").assess()).amounts
    assert [(one.position, round(one.value, 3)) for one in known] == [(3, 0.17)]


def test_high_strings_that_go_back_to_the_projection_ask_about_it_first() -> None:
    bench = measured("cello", over=1.5, singles={"projection": 76.8}).decided("high_strings", "projection")
    told = bench.told()
    assert told.code == "decide"
    assert told.question is not None
    assert told.question.question == "projection"


def test_a_visit_that_only_waits_says_until_when() -> None:
    strings = measured(kind="strings").did("strings_changed", ago=timedelta(hours=1))
    strings.read("end_height", *strings.aims("end_height"))
    told = strings.told()
    assert told.code == "wait"
    assert told.until is not None
    assert told.until > NOW
    damp = measured(visit={"climate": "damp"}).decided("acclimatise", "wait").told()
    assert (damp.code, damp.stop) == ("wait", "acclimatise")
