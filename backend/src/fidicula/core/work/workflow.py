"""The course of a visit: its stopped places, and which of them the work stands at."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

StopState = Literal["done", "passed", "here", "ahead", "waiting", "barred"]


@dataclass(frozen=True)
class StepFacts:
    """What is known of one stop.

    done : what it is for was done.  passed : somebody passed it over.  waits : only time helps.
    barred : something that physics asks for first is not there.
    """

    done: bool = False
    passed: bool = False
    waits: bool = False
    barred: bool = False


def stop_states(stops: Sequence[StepFacts]) -> list[StopState]:
    """Where each stop of a course stands, in the given order.

    stops : nut to bridge.  What was done stays done, whatever came after; the work stands at the first stop that is
    neither done, passed, barred nor waiting. Where all others wait, nothing is `here`. Source: habit of the bench.
    """
    states: list[StopState] = []
    for stop in stops:
        if stop.done:
            states.append("done")
        elif stop.passed:
            states.append("passed")
        elif stop.waits:
            states.append("waiting")
        elif stop.barred:
            states.append("barred")
        else:
            states.append("ahead" if "here" in states else "here")
    return states
