"""The height wheels of a cello's or a bass's bridge: how many turns each leg takes."""

from __future__ import annotations

from collections.abc import Iterator

from fidicula.core.errors import TOLERANCE, CoreError
from fidicula.core.fitting.tailpiece import StringChange, adjuster_legs, wheel_turns
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.drawn import HeightChange, WheelsDrawing
from fidicula.views.pages.model import Consequence, Impossible, PageView
from fidicula.words.numbers import sentence
from fidicula.words.pages import wheels as say

_MOST = 6.0


def wheels_page(bench: PageBench) -> PageView:
    """Turns for a change of the outer strings at the board's end."""
    state = bench.state
    outcome = compute(state)
    finding: list[str] = []
    consequences: list[Consequence] = []
    impossible = None
    drawing = None
    if isinstance(outcome, Computed):
        spread, thread = bench.read("adjuster_spread"), bench.read("thread_pitch")
        heights = [bench.read("end_height", i) for i in (0, state.count - 1)]
        if spread is not None and thread is not None and heights[0] is not None and heights[1] is not None:
            changes = _changes(bench)
            # Along the bridge's square, as the sheet has it.
            carry = outcome.board.carry / outcome.board.squareness
            outer = outcome.plan.strings[0], outcome.plan.strings[-1]
            at_bridge = [change * carry for change in changes]
            try:
                legs = adjuster_legs(
                    bass_string=StringChange(outer[0].line.bridge_offset, at_bridge[0]),
                    treble_string=StringChange(outer[1].line.bridge_offset, at_bridge[1]),
                    adjuster_spread=spread.value,
                )
            except CoreError as error:
                impossible = Impossible("", sentence(error.sentence), None)
            else:
                finding += _room(bench, legs)
                consequences = list(_told(bench, changes, at_bridge, legs, carry, thread.value))
                drawing = WheelsDrawing(
                    "wheels",
                    spread.value,
                    legs[0],
                    legs[1],
                    wheel_turns(leg=legs[0], thread_pitch=thread.value),
                    wheel_turns(leg=legs[1], thread_pitch=thread.value),
                    [
                        HeightChange(state.instrument.string_names[i], held.value, held.value + change)
                        for i, held, change in zip((0, -1), heights, changes, strict=True)
                        if held is not None
                    ],
                )
    return bench.view(
        "wheels",
        say.TITLE,
        finding=finding,
        impossible=impossible,
        consequences=consequences,
        work="adjusters_turned",
        drawing=drawing,
    )


def _changes(bench: PageBench) -> tuple[float, float]:
    """What the outer strings are to change by at the board's end; at rest, as far as their targets. [mm]"""
    names = bench.state.instrument.string_names
    found = []
    for side, position in (("bass", 0), ("treble", bench.state.count - 1)):
        held, wanted = bench.state.held("end_height", position), bench.state.wanted_as_read(("end_height", position))
        off = 0.0 if held is None or wanted is None else wanted.band.aim - held.value
        rests = round(min(max(off, -_MOST), _MOST), 1)
        found.append(
            bench.slide(
                side,
                say.changed(names[position]),
                rests_at=rests,
                low=-_MOST,
                high=_MOST,
                step=0.1,
                rests_on="" if wanted is None else say.to_aim(wanted.band.aim, wanted.source),
            )
        )
    return found[0], found[1]


def _room(bench: PageBench, legs: tuple[float, float]) -> Iterator[str]:
    """How far each wheel can still come down, where that was read."""
    for i, (side, leg) in enumerate(zip(("bass", "treble"), legs, strict=True)):
        held = bench.state.held("wheel_room", i)
        if held is not None and not held.assumed:
            is_short = -leg > held.value + TOLERANCE
            yield say.at_its_end(side, held.value) if is_short else say.room(side, held.value)


def _told(
    bench: PageBench,
    changes: tuple[float, float],
    at_bridge: list[float],
    legs: tuple[float, float],
    carry: float,
    thread: float,
) -> Iterator[Consequence]:
    state = bench.state
    for position, change, there in zip((0, state.count - 1), changes, at_bridge, strict=True):
        held = state.held("end_height", position)
        name = state.instrument.string_names[position]
        if held is not None:
            yield told(
                f"end_height{position}",
                say.at_board_end(name),
                held.value,
                held.value + change,
                [say.why_end(change=change, carry=carry, there=there)],
                places=2,
                wanted=state.wanted_as_read(("end_height", position)),
            )
    for side, leg in zip(("bass", "treble"), legs, strict=True):
        yield told(f"{side}_leg", f"{side} leg", 0.0, leg, [say.WHY_LEG], places=2)
        yield told(
            f"{side}_turns",
            f"{side} wheel",
            0.0,
            wheel_turns(leg=leg, thread_pitch=thread),
            [say.why_turns(leg=leg, thread=thread)],
            unit="turns",
            places=2,
        )
