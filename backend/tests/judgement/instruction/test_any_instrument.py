"""Instruments as they come: readings off and missing, works done, things found and decided, all of it by chance.

Whatever comes, one thing is instructed, and it never asks for what the same assessment forbids.
"""

from __future__ import annotations

import random
from dataclasses import replace
from datetime import timedelta
from functools import cache

import pytest
from fidicula.codes import VisitKindCode
from fidicula.domain.readings import LastTime
from fidicula.domain.work_details import CrownCut, SlotsFiled, WorkDetail
from fidicula.judgement.assessment.thresholds import strings_in_band
from fidicula.judgement.instruction.instruct import instruct
from fidicula.tables.figures import FigureBook
from fidicula.tables.parts import parts
from fidicula.tables.schools import schools_for
from fidicula.tables.signs import findings
from fidicula.tables.work import works
from fidicula.tables.workflow import instructions

from ...scenario import Bench, days
from ...views.test_where_it_turns import in_order

KINDS: tuple[VisitKindCode, ...] = ("bridge", "full_set_up", "recheck", "sound", "buzz", "new_bridge", "strings")
WITH_AMOUNTS = ("cut_crown", "file_slots", "file_nut", "turn_wheels", "lower_crown", "recut_slots")
A_BLOCK = 20


@cache
def whole(family: str) -> Bench:
    return in_order(family)


def by_chance(chance: random.Random) -> Bench:
    bench = whole(chance.choice(("violin", "viola", "cello", "bass"))).copy()
    bench.kind = chance.choice(KINDS)
    school = chance.choice([one for offered in schools_for(bench.family, FigureBook()).values() for one in offered])
    bench.schools = {school.question: school.school} if chance.random() < 0.3 else {}
    bench.instrument = {"left_handed": chance.random() < 0.1, "is_new": chance.random() < 0.1}
    if chance.random() < 0.2:
        bench.visit = {"deadline": days(chance.choice((1, 4, 20))), "freeze_days": 3}
    for one in list(bench.readings):
        if chance.random() < 0.05:
            was, then = one.value * chance.choice((0.9, 1.0, 1.02)), bench.now - timedelta(days=20)
            bench.earlier[one.measure, one.position] = LastTime(was, "vertical", then, one.tool, frozenset())
    count = len(bench.loaded().instrument.string_names)
    if chance.random() < 0.3:
        bench.readings = [one for one in bench.readings if chance.random() < 0.7]
    if chance.random() < 0.6:
        _raised(bench, chance.choice((-0.5, -0.2, 0.15, 0.35, 0.8, 1.5)), chance.choice((None, *range(count))))
    for _ in range(chance.randrange(3)):
        if bench.readings:
            at = chance.randrange(len(bench.readings))
            off = bench.readings[at].value * chance.choice((0.5, 0.8, 0.9, 0.97, 1.03, 1.1, 1.3, 2.0))
            bench.readings[at] = replace(bench.readings[at], value=off)
    for _ in range(chance.choice((0, 0, 1, 1, 2))):
        work = chance.choice(list(works()))
        details: dict[str, WorkDetail] = {
            "crown_cut": CrownCut(wood=(1.0,) * count, passes=(0.8,) * count),
            "slots_filed": SlotsFiled(by=(0.2,) * count),
        }
        bench.did(work, details.get(work), ago=timedelta(hours=chance.choice((1, 5, 30, 200))))
    if chance.random() < 0.5:
        found = chance.choice([row for row in findings().values() if bench.family in (row.families or bench.family)])
        bench.found(found.item, found.finding, verdict=found.verdict)
    asked = bench.assess().questions
    if asked and chance.random() < 0.4:
        question = chance.choice(asked)
        bench.decided(question.question, chance.choice(question.options).outcome, "because")
    return bench


def _raised(bench: Bench, by: float, string: int | None) -> None:
    """The strings' heights, or one of them."""
    bench.readings = [
        replace(one, value=one.value + by) if one.measure == "end_height" and string in (None, one.position) else one
        for one in bench.readings
    ]


@pytest.mark.parametrize("block", range(8))
def test_what_is_instructed_is_possible_and_allowed(block: int) -> None:
    for seed in range(block * A_BLOCK, (block + 1) * A_BLOCK):
        bench = by_chance(random.Random(seed))
        a, said = bench.assess(), bench.sheet().instruction
        found = instruct(a)
        assert said.title, seed
        assert found.code in instructions(), seed
        recorded = () if found.code == "decide" else (found.records, *found.also)
        assert [work for work in recorded if work and a.barring(work) is not None] == [], seed
        assert found.code != "measure" or found.keys, seed
        assert found.code != "decide" or found.question is not None, seed
        # Somebody may have decided to wait for what is read then, however long that takes.
        assert found.code != "wait" or found.until is not None or found.is_decided, seed
        assert found.code not in WITH_AMOUNTS or found.amounts, seed
        for one in found.amounts:
            assert one.name not in ("take", "slot_by", "beside", "file_by") or one.value > 0, seed
            wood = a.cut.strings[one.position].wood if one.name == "take" and one.position is not None else None
            assert wood is None or one.value <= wood, seed
        if found.cut_role == "due":
            assert a.cut.begun or not strings_in_band(a.state, a.cut), seed
            assert "doubted" not in {part.state for part in a.parts}, seed
            heights = {place: stand for place, stand in a.state.reading_states.items() if place[0] == "end_height"}
            assert {stand.state for stand in heights.values()} == {"current"}, seed
        if found.code == "hand_over":
            open_parts = [parts()[part.part].label for part in a.parts if part.is_open]
            assert all(any(line.startswith(label) for line in said.says) for label in open_parts), seed
            assert open_parts == [] or "In band" not in said.title, seed
