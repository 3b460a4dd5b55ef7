"""A decision rules: whatever somebody decided is what the sheet then says, and nothing that was not."""

from __future__ import annotations

from pathlib import Path

import pytest
from fidicula.codes import OutcomeCode, QuestionCode
from fidicula.core.fitting.tailpiece import StringChange, adjuster_legs
from fidicula.tables.workflow import instructions, questions

from ...looked_over import check, lines
from ...scenario import NOW, Bench, days, measured
from ...views.test_looked_over import plainly

LOOKED_OVER = Path(__file__).parents[1] / "looked_over_options"


def bass_with_wheels(over: float = 2.0) -> Bench:
    bench = measured("bass", over=over)
    return bench.found("bridge", "has_adjusters", verdict="fine").read("adjuster_spread", 104).read("thread_pitch", 1.5)


def test_wheels_that_were_decided_are_turned_and_nobody_is_told_to_cut() -> None:
    """2 mm over at the end of 866 on 1052: 2.43 at the bridge, longer by its slope; a straight bar, 1.5 a turn."""
    bench = bass_with_wheels().decided("high_strings", "adjusters")
    told, sheet = bench.told(), bench.sheet()
    assert (told.code, told.records, told.is_decided) == ("turn_wheels", "adjusters_turned", True)
    turns = {one.side: one.value for one in told.amounts if one.name == "turns"}
    a = bench.assess()
    assert a.computed is not None
    at_bridge = -2.0 * a.computed.board.carry / a.computed.board.squareness
    offsets = [string.line.bridge_offset for string in a.computed.plan.strings]
    legs = adjuster_legs(
        bass_string=StringChange(offsets[0], at_bridge), treble_string=StringChange(offsets[-1], at_bridge),
        adjuster_spread=104,
    )  # fmt: skip
    assert [turns["bass"], turns["treble"]] == pytest.approx([legs[0] / 1.5, legs[1] / 1.5], abs=1e-6)
    assert sheet.instruction.record is not None
    assert sheet.instruction.record.label == "Record: adjusters turned"
    assert (sheet.cut.role, sheet.instruction.also) == ("wheels", [])
    said = " ".join([sheet.instruction.title, *sheet.instruction.says, *sheet.instruction.do])
    assert "cut" not in said.lower()
    assert sheet.instruction.do[0].startswith("The bass wheel 1⅝ turns down")


def test_what_the_wheels_need_is_measured_first() -> None:
    bench = measured("bass", over=2.0).found("bridge", "has_adjusters", verdict="fine")
    told = bench.decided("high_strings", "adjusters").told()
    assert (told.code, told.keys) == ("measure", (("adjuster_spread", None), ("thread_pitch", None)))


def test_wheels_are_not_turned_for_a_bridge_that_cannot_be() -> None:
    """A board so round that no crown of the family fits over it: that is put right first."""
    bench = bass_with_wheels().decided("high_strings", "adjusters").read("fingerboard_radius", 44.0)
    assert (bench.told().code, bench.told().records) == ("check_shape", "")


def test_a_deep_slot_is_measured_again_before_wood_goes_beside_it() -> None:
    """A filed nut leaves height and depth as they were; a bridge that was pulled upright since does not."""
    bench = measured().read("slot_depth", 0.6, at=0).decided("slot_deep", "lower_crown")
    assert bench.told().values("beside") == {0: pytest.approx(0.33)}
    assert bench.copy().did("nut_filed").told().code == "lower_crown"
    told = bench.did("bridge_pulled_up").told()
    assert (told.code, told.again, told.records) == ("measure", True, "")
    assert ("end_height", 0) in told.keys


def test_nut_first_is_the_nut() -> None:
    bench = measured(over=1.0, nut_over=0.3).decided("high_strings", "nut")
    told = bench.told()
    assert (told.code, told.records) == ("file_nut", "nut_filed")
    assert told.values("file_by") == pytest.approx(dict.fromkeys(range(4), 0.3 - 0.6 * 1.96 * 0.05))
    assert bench.sheet().cut.role == "nut"
    assert bench.sheet().instruction.also == []


OPTIONS = [(name, row.outcome) for name, deciding in questions().items() for row in deciding.outcomes if row.instructs]


def asked(question: QuestionCode) -> Bench:
    """An instrument of which a question is asked, and nothing else bars its work."""
    match question:
        case "estimate":
            return measured(kind="look_over", over=1.0).skipped("look")
        case "acclimatise":
            return measured(over=1.0, visit={"climate": "damp"})
        case "deadline":
            return measured(over=1.0, visit={"deadline": days(2)})
        case "post_fallen":
            return measured(over=1.0).found("post", "post_fallen")
        case "bridge_down":
            return measured(over=1.0).found("bridge", "bridge_down")
        case "strings_off":
            return measured(over=1.0).found("strings", "strings_off")
        case "seam":
            return measured(over=1.0).found("seams", "seam_open")
        case "crack":
            return measured(over=1.0).found("seams", "crack")
        case "bar_loose":
            return measured(over=1.0).found("bar", "bar_loose")
        case "board_loose":
            return measured(over=1.0).found("board", "board_loose")
        case "post_tight":
            return measured(over=1.0).found("post", "post_tight")
        case "wing":
            return measured(over=1.0, kind="sound").found("f_holes", "f_wing_low")
        case "feet":
            return measured(over=1.0).found("bridge", "feet_gap")
        case "bridge_walked":
            return measured(over=1.0).found("bridge", "bridge_off_place")
        case "bridge_leans":
            return measured(over=1.0).read("bridge_lean", -3.0)
        case "bridge_place":
            bench = measured(over=1.0, singles={"string_length": 325.0}).read("stop_length", 195.0)
            return bench.read("neck_length", 127.0).read("nick_stop", 198.0, 198.0).read("old_footprint", 2.5)
        case "bridge_wrong_way":
            return measured(over=1.0).found("bridge", "bridge_wrong_way")
        case "bridge_warped":
            return measured(over=1.0).found("bridge", "bridge_warped")
        case "neck_side":
            return (
                measured(over=1.0, kind="look_over")
                .skipped("look")
                .decided("estimate", "agreed", "said yes")
                .found("neck", "neck_to_bass", verdict="watch")
            )
        case "projection":
            return measured("cello", over=1.0, singles={"projection": 76.8}).read("neck_length", 280)
        case "board":
            return measured(over=1.0).found("board", "board_hump", "board_soft")
        case "bar":
            return measured("cello", over=1.0).read("bar_inset", 6.0).read("bridge_foot_width", 92)
        case "glued_nut":
            return measured(over=1.0, nut_over=0.2).found("nut", "nut_glued_hard", verdict="watch")
        case "nut_low":
            return measured(over=1.0, nut_over=-0.2)
        case "high_strings":
            return bass_with_wheels()
        case "bridge_low":
            return measured("bass", over=-2.5).read("adjuster_spread", 104).read("thread_pitch", 1.5)
        case "slot_deep":
            return measured().read("slot_depth", 0.27, 0.6, 0.23, 0.09)
        case "narrow_spacing":
            return measured(over=1.0, singles={"bridge_spread": 31.0})
        case "afterlength":
            return measured(over=1.0).read("afterlength", 49).read("saddle_gap", 8)
        case "buzz":
            return measured(kind="buzz").found("sound", "buzz_open")
        case "sound":
            return measured(kind="sound", over=1.0)
        case "approval":
            return measured(over=1.0).found("board", "board_hump").decided("board", "dress")
    raise AssertionError(question)


ELSEWHERE = {"see_to_projection": "decide", "see_to_board": "decide"}


OFFERED_ONLY_THERE = {
    ("bridge_low", "projection"): lambda: measured("bass", over=-2.5, singles={"projection": 150.0}),
    ("high_strings", "projection"): lambda: measured("cello", over=1.5, singles={"projection": 76.8}),
    ("high_strings", "board"): lambda: measured(over=1.0).found("board", "board_hump"),
    ("feet", "new_bridge"): lambda: measured("bass", over=-2.5).found("bridge", "feet_gap"),
    ("high_strings", "nut"): lambda: measured(over=1.0, nut_over=0.3),
}
"""Ways that another reading or finding offers."""


@pytest.mark.parametrize(("question", "outcome"), OPTIONS)
def test_every_option_is_instructed_once_it_is_decided(question: QuestionCode, outcome: OutcomeCode) -> None:
    """The instruction agrees with the option that was chosen and with none that was not."""
    bench = OFFERED_ONLY_THERE.get((question, outcome), lambda: asked(question))()
    deciding = questions()[question]
    chosen = next(row for row in deciding.outcomes if row.outcome == outcome)
    there = bench.assess().question(question)
    assert there is not None, "the scenario asks it"
    assert chosen in there.options, "the scenario offers it"
    told = bench.decided(question, outcome, "meant so").told()
    if chosen.gives == "grown":
        assert told.code == "measure" or (told.code, told.stop) == ("decide", "approval"), "the owner says yes first"
        told = bench.decided("approval", "agreed", "by phone").told()
    kept = [*lines(plainly(told), "INSTRUCTION", now=NOW), *lines(bench.sheet().instruction, "SAID", now=NOW)]
    sheet = bench.sheet().instruction
    shown = [sheet.title, *(f"  {line}" for line in sheet.do)]
    check(LOOKED_OVER / f"{question}_{outcome}.txt", "\n".join(kept) + "\n", shown=shown)
    others = {row.instructs for row in deciding.outcomes if row.instructs != chosen.instructs and row.instructs}
    assert told.code not in others
    expected = {ELSEWHERE.get(chosen.instructs, chosen.instructs), "measure"}
    assert told.code in expected, told
    if told.code == "measure":
        assert told.keys


CAN_BE_LEFT = [name for name, row in questions().items() if not all(way.instructs for way in row.outcomes)]


@pytest.mark.parametrize("question", CAN_BE_LEFT)
def test_an_option_that_leaves_it_lets_the_work_go_on(question: QuestionCode) -> None:
    bench = asked(question)
    leave = next(row for row in reversed(questions()[question].outcomes) if not row.instructs)
    told = bench.decided(question, leave.outcome, "meant so").told()
    assert told.question is None or told.question.question != question or told.code in ("turn_wheels", "cut_crown")
    assert told.code != "decide" or (told.question is not None and told.question.question != question)


def test_every_option_is_known_to_the_instructions() -> None:
    codes = set(instructions())
    assert {row.instructs for deciding in questions().values() for row in deciding.outcomes if row.instructs} <= codes


def test_a_wedge_is_not_offered_where_the_board_must_come_down() -> None:
    high = measured("cello", singles={"projection": 85.0}).read("neck_length", 280).assess().question("projection")
    assert high is not None
    assert "wedge" not in {row.outcome for row in high.options}


def test_adjusters_are_not_offered_on_an_instrument_without() -> None:
    plain = measured("bass", over=2.0).assess().question("high_strings")
    assert plain is not None
    assert "adjusters" not in {row.outcome for row in plain.options}
    wheels = bass_with_wheels().assess().question("high_strings")
    assert wheels is not None
    assert wheels.recommended is not None
    assert wheels.recommended.outcome == "adjusters"


def test_a_decision_that_was_carried_out_is_done_with() -> None:
    """Set back in its place, what was decided of it rules no longer; the heights went stale, and are measured."""
    bench = asked("bridge_walked").decided("bridge_walked", "back")
    assert bench.told().code == "move_bridge"
    told = bench.did("bridge_moved").told()
    assert (told.code, told.again) == ("measure", True)


def test_no_wood_is_named_while_the_wheels_are_recommended() -> None:
    """Wheels turned once, one string read again and still high: the crown is not what comes next."""
    bench = measured("bass", over=3.0).found("bridge", "has_adjusters", verdict="fine")
    bench.decided("high_strings", "adjusters").did("adjusters_turned")
    bench.read("end_height", bench.aims("end_height")[0] + 3, at=0)
    assert bench.told().code == "measure"
    sheet = bench.sheet()
    assert not any("wood" in line for line in sheet.instruction.says)
    assert not any("new bridge" in line for line in sheet.proposals)
