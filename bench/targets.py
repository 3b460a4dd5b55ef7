"""The full set of targets of one instrument in process, and a computation from the shell.

Wanted: under 5 ms for every kind but `schedule`, and for the sheet's own targets; under 0.4 s from the shell; under
1 s for a list of 1,000 bridge inputs; under 3 s for a schedule of six jobs of ten steps.
"""

from __future__ import annotations

import json
import statistics
import subprocess
import time
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from uuid import uuid4

from fidicula.contract.kinds import KINDS
from fidicula.domain.instruments import Instrument
from fidicula.domain.strings import SetString, StringSet
from fidicula.judgement.assessment.judging import bench_state
from fidicula.judgement.targets.resolve import targets_of
from fidicula.judgement.targets.rules import make_rules
from fidicula.views.sheet.lines import target_lines

ROOT = Path(__file__).parents[1]
EXAMPLES = ROOT / "backend" / "tests" / "contract" / "examples"
REPEATS = 200


def run() -> None:
    inputs = {kind: json.loads((EXAMPLES / f"{kind}.json").read_text())["input"] for kind in KINDS}
    kinds = [kind for kind in KINDS if kind != "schedule"]

    def every_kind() -> None:
        for kind in kinds:
            KINDS[kind].answer_to(inputs[kind])

    every_kind()
    print(f"targets, every kind but schedule: {_median_ms(every_kind):.2f} ms (wanted: under 5)")
    print(f"targets, all lines of a sheet with their ±: {_median_ms(_sheet_lines):.2f} ms (wanted: under 5)")
    bridge = json.dumps(inputs["bridge"])
    print(f"compute bridge from the shell: {_shell('bridge', bridge):.2f} s (wanted: under 0.4)")
    many = json.dumps([inputs["bridge"]] * 1000)
    print(f"compute bridge, a list of 1,000: {_shell('bridge', many):.2f} s (wanted: under 1)")
    print(f"compute schedule, six jobs of ten steps: {_shell('schedule', json.dumps(_day())):.2f} s (wanted: under 3)")


def _median_ms(call: Callable[[], object]) -> float:
    call()
    taken = []
    for _ in range(REPEATS):
        started = time.perf_counter()
        call()
        taken.append((time.perf_counter() - started) * 1e3)
    return statistics.median(taken)


_NAMES = ("G", "D", "A", "E")
_SET = StringSet(
    uuid4(),
    "s",
    "violin",
    "synthetic",
    tuple(SetString(n, d) for n, d in zip(_NAMES, (0.8, 0.86, 0.68, 0.27), strict=True)),
)
_VIOLIN = Instrument(uuid4(), "T", "violin", "4/4", _NAMES, left_handed=False, is_new=False, owner="", description="")
_RULES = make_rules("violin")
_NOW = datetime(2026, 11, 23, 9, tzinfo=UTC)


def _sheet_lines() -> None:
    targets = targets_of(_VIOLIN, _SET, _RULES)
    target_lines(bench_state(instrument=_VIOLIN, string_set=_SET, readings=[], works=[], targets=targets, now=_NOW))


def _shell(kind: str, text: str) -> float:
    taken = []
    for _ in range(5):
        started = time.perf_counter()
        subprocess.run([ROOT / "fidicula", "compute", kind], input=text.encode(), capture_output=True, check=True)
        taken.append(time.perf_counter() - started)
    return statistics.median(taken)


def _day() -> dict[str, object]:
    """Six jobs of ten steps on two benches, in chains with waits, two of them due."""
    jobs = []
    for j in range(6):
        steps = []
        for s in range(10):
            after = [f"s{s - 1}"] if s % 3 else ([f"s{s - 3}"] if s else [])
            steps.append(
                {
                    "id": f"s{s}",
                    "bench_minutes": 15 + 5 * ((j + s) % 4),
                    "wait_minutes": 60 * (s % 4 == 2),
                    "after": after,
                }
            )
        job: dict[str, object] = {"id": f"j{j}", "release": 10 * j, "steps": steps}
        if j < 2:
            job["due"] = 400
        jobs.append(job)
    return {"benches": 2, "jobs": jobs}
