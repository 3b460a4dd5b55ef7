"""Where the answer turns: each thing that is read is led through its values, and so are ages, days and amounts over.

Kept for each is the value at which something else is found, asked or instructed, and what. Limits stand here that a few
chosen values do not come near; those of amounts and their words are held elsewhere.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from datetime import timedelta
from functools import cache, partial
from itertools import pairwise
from pathlib import Path

import pytest
from fidicula.codes import MeasureCode
from fidicula.domain.readings import Reading
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.measures import MEASURES

from ..looked_over import check_section, sections_of
from ..scenario import NOW, Bench, cut_roughly, days, filed, measured, said_true
from .test_looked_over import body, gauged, scoop
from .test_looked_over_pages import BESIDE

HERE = Path(__file__).parent / "looked_over_turns"
SHARES = (-0.6, -0.3, -0.1, -0.03, -0.01, 0.0, 0.01, 0.03, 0.1, 0.3, 0.6)
"""So far from where it stands a value is led, as a share of it."""
HALVINGS = 5
"""Between two values with different answers: the turn is known to a thirtieth of their distance."""


def mind(a: Assessment) -> frozenset[str]:
    """What is found, asked and instructed, without amounts."""
    told, state = instruct(a), a.state
    found = {f"do {told.code}", f"role {told.cut_role}", f"cut {a.cut.state}"}
    found |= {f"also {work}" for work in told.also} | {f"missing {one}" for one in told.missing}
    found |= {f"records {told.records}"} if told.records else set()
    found |= {f"by {told.question.question} {told.option}"} if told.question else set()
    found |= {f"measure {state.name(key)} ×{told.times.get(key, 1)}" for key in told.keys}
    found |= {f"{one} stale" for one in told.makes_stale} | {f"note {one}" for one in told.notes}
    found |= {f"sign {one}" for one in a.signs}
    for asked in a.questions:
        rather = "" if asked.recommended is None else f", rather {asked.recommended.outcome}"
        found.add(f"ask {asked.question}{rather}")
        found |= {f"{asked.question} may be {one.outcome}" for one in asked.options}
    found |= {f"slip {one.code}{', stops' if one.stops else ''}" for one in a.slips}
    found |= {f"{part.part} {part.state}" for part in a.parts}
    found |= {f"stop {stop.key} {stop.state}" for stop in a.stops}
    found |= {f"{state.name(place)} {state.reading_states[place].state}" for place in state.reading_states}
    found |= {f"assumed {state.name(one.key)}" for one in a.cut.assumed}
    found.add("more " + " ".join(str(one.more or 0) for one in a.cut.strings))
    for one in a.cut.strings:
        facts = {"again": one.slot_again, "landed": one.landed, "slot": bool(one.slot_by), "beside": bool(one.beside)}
        found |= {f"{one.name} {name}" for name, is_so in facts.items() if is_so}
        found.add(f"{one.name} {one.state}")
    return frozenset(found)


def turns(of: Callable[[float], Bench], values: Sequence[float]) -> Iterator[str]:
    """A line for each value at which the answer turns, from the lowest up: what comes, and what goes."""
    known: dict[float, frozenset[str]] = {}

    def at(value: float) -> frozenset[str]:
        if value not in known:
            known[value] = mind(of(value).assess())
        return known[value]

    for low, high in pairwise(values):
        yield from _between(at, low, high, HALVINGS)


def _between(at: Callable[[float], frozenset[str]], low: float, high: float, halvings: int) -> Iterator[str]:
    before, after = at(low), at(high)
    if before == after:
        return
    if halvings == 0:
        changed = [f"+ {one}" for one in sorted(after - before)] + [f"- {one}" for one in sorted(before - after)]
        yield f"  {high:.4g}: {'; '.join(changed)}"
        return
    middle = (low + high) / 2
    if at(middle) in (before, after):
        nearer = (middle, high) if at(middle) == before else (low, middle)
        yield from _between(at, *nearer, halvings - 1)
        return
    yield from _between(at, low, middle, halvings - 1)
    yield from _between(at, middle, high, halvings - 1)


def in_order(family: str) -> Bench:
    """All is read, and nothing is to be done."""
    bench = scoop(gauged(body(measured(family))), 0.5, 0.75, 0.5, 0.4, 0.5, 0.4)
    for measure, values in BESIDE.items():
        if MEASURES[measure].fits(family):
            bench.read(measure, *values)
    state = bench.assess().state
    for one in list(bench.readings):
        wanted = state.wanted_upright((one.measure, one.position))
        if wanted is not None and one.measure not in ("end_height", "nut_height"):
            bench = led(bench, one, wanted.band.aim)
    return bench


def led(bench: Bench, reading: Reading, value: float) -> Bench:
    return replace(bench, readings=[replace(one, value=value) if one is reading else one for one in bench.readings])


in_order_once = cache(in_order)
LED_READINGS = [
    (family, one.measure, one.position)
    for family in ("violin", "bass")
    for one in in_order_once(family).readings
    if one.position in (None, 0) or one.measure == "relief"
]
"""The first place of each measure; a scoop's at every place."""


@pytest.mark.parametrize(("family", "measure", "position"), LED_READINGS)
def test_a_reading_led_through_its_values(family: str, measure: str, position: int | None) -> None:
    bench = in_order_once(family)
    reading = next(one for one in bench.readings if (one.measure, one.position) == (measure, position))
    values = [reading.value * (1 + share) for share in SHARES]
    check_section(
        HERE / f"readings_{family}.txt", f"{measure} {position}", list(turns(partial(led, bench, reading), values))
    )


def steps(low: float, high: float, count: int = 12) -> list[float]:
    return [low + (high - low) * i / count for i in range(count + 1)]


def twice(value: float, *, measure: MeasureCode = "projection", first: float = 27.0) -> Bench:
    """Read once, and once more beside it: both count."""
    bench = measured(singles={measure: first})
    old = [one for one in bench.readings if one.measure == measure]
    bench.read(measure, value, repeats=True)
    return replace(bench, readings=old + bench.readings)


def back(value: float, *, days: float = 12) -> Bench:
    """It was here before: its projection, its length and the air are read again."""
    bench = measured(kind="recheck").last_visit("projection", 27.0, days=days).last_visit("string_length", 328)
    return bench.last_visit("bridge_spread", 33.5).last_visit("humidity", 45, days=days).read("projection", value)


LED: dict[str, tuple[Sequence[float], Callable[[float], Bench]]] = {
    "all strings over": (steps(-1.5, 3), lambda over: measured(over=over)),
    "all strings over, slots and all to be set up": (
        steps(-1, 2),
        lambda over: measured(over=over, nut_over=0.2, kind="full_set_up"),
    ),
    "the lowest string over": (steps(-1, 2), lambda over: measured(over=(over, 0.0, 0.0, 0.0))),
    "an inner string over": (steps(-1, 2), lambda over: measured(over=(0.0, over, 0.0, 0.0))),
    "the highest string over": (steps(-1, 2), lambda over: measured(over=(0.0, 0.0, 0.0, over))),
    "a bass's strings over, with wheels": (
        steps(-3, 6),
        lambda over: measured("bass", over=over).found("bridge", "has_adjusters", verdict="fine"),
    ),
    "a cello's strings over": (steps(-2, 4), lambda over: measured("cello", over=over)),
    "nut slots over": (steps(-0.4, 0.6), lambda over: measured(nut_over=over)),
    "nut slots and strings over": (steps(-0.4, 0.6), lambda over: measured(over=0.6, nut_over=over)),
    "after the rough crown, over": (steps(-0.6, 1), cut_roughly),
    "after the rough crown, read once, over": (steps(-0.6, 1), partial(cut_roughly, times=1)),
    "after the rough crown, one string over": (steps(-0.6, 1), lambda over: cut_roughly([0.3, over, 0.3, 0.3])),
    "after the slots, over": (
        steps(-0.6, 0.8),
        lambda over: filed(cut_roughly(0.3), (0.36,) * 4, [over] * 4),
    ),
    "after one slot, read once, over": (
        steps(-0.6, 0.8),
        lambda over: filed(cut_roughly(0.3), (0.36, None, None, None), [over, None, None, None], times=1),
    ),
    "a slot's depth": (
        steps(0.05, 1),
        lambda depth: filed(cut_roughly(0.0), (0.3,) * 4, [0.0] * 4).read("slot_depth", depth, 0.43, 0.23, 0.25),
    ),
    "hours since strings went on": (
        [0, 1, 2, 4, 8, 16, 24, 30, 60, 100],
        lambda hours: measured(over=0.8).did("strings_changed", ago=timedelta(hours=hours)),
    ),
    "hours since the neck was worked on": (
        [0, 4, 12, 24, 48, 72, 100, 200],
        lambda hours: measured(over=0.8).did("neck_reset", ago=timedelta(hours=hours)),
    ),
    "days to its deadline": (
        steps(-2, 30),
        lambda count: measured(over=0.8, visit={"deadline": days(round(count)), "freeze_days": 7}),
    ),
    "days since the caliper was looked at": (
        [0, 30, 100, 200, 400, 900],
        lambda count: measured(over=0.8, tool_checks=[said_true("caliper", NOW - timedelta(days=count))]),
    ),
    "projection read twice, 27 and": (steps(22, 32), twice),
    "board's radius read twice, 42 and": (steps(34, 50), partial(twice, measure="fingerboard_radius", first=42)),
    "a projection of 24.6 that was accepted, read again": (
        steps(22, 32),
        lambda value: (
            measured(singles={"projection": 24.6})
            .decided("projection", "accept", "it is old")
            .read("projection", value)
        ),
    ),
    "projection of another visit, now": (steps(22, 32), back),
    "days since a visit at which 25.0 was read": (
        [1, 10, 20, 27, 29, 40, 400],
        lambda count: measured().without("projection").last_visit("projection", 25.0, days=count),
    ),
    "air, which was 45": (steps(5, 95), lambda value: back(27.2).read("humidity", value)),
    "string length of another visit was 328, now": (
        steps(300, 350),
        lambda value: measured(singles={"string_length": value}).last_visit("string_length", 328),
    ),
    "the lowest string's height read twice, apart": (
        steps(-1.5, 1.5),
        lambda apart: read_twice(cut_roughly(0.3, times=1), apart),
    ),
    "a wedge's height beside": (
        steps(3, 8),
        lambda value: measured().read("end_height", value, tool="wedge", at=1, direction="shortest"),
    ),
    "a mark across the bridge": (
        steps(-3, 10),
        lambda mark: measured().read("string_mark_bridge", mark, 14, 26, 37),
    ),
    "air between two strings at the bridge": (
        steps(5, 16),
        lambda air: measured().read("string_gap_bridge", air, 10.4, 11),
    ),
    "a five-stringed cello's strings over": (
        steps(-1, 3),
        lambda over: measured("cello", over=over, strings=(("C", 1.8), ("G", 1.5), ("D", 1.1), ("A", 0.9), ("E", 0.7))),
    ),
}
"""What is led, through which values, and the instrument that follows."""


def read_twice(bench: Bench, apart: float) -> Bench:
    *_, first = (one for one in bench.readings if (one.measure, one.position) == ("end_height", 0))
    bench.readings.append(replace(first, number=900, value=first.value + apart, repeats=True))
    return bench


@pytest.mark.parametrize("name", LED)
def test_amounts_ages_and_days_led_through(name: str) -> None:
    values, of = LED[name]
    check_section(HERE / "led.txt", name, list(turns(of, values)))


def test_what_is_kept_is_compared() -> None:
    """Nothing of a reading or an amount that is led no more."""
    assert list(sections_of(HERE / "led.txt")) == list(LED)
    for family in ("violin", "bass"):
        led_here = [f"{measure} {position}" for of, measure, position in LED_READINGS if of == family]
        assert list(sections_of(HERE / f"readings_{family}.txt")) == led_here
