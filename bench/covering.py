"""Which tests run which lines, and how long each takes: so that a change is tried by the tests that can notice it.

As a plugin of pytest under coverage.py it names each line's test and writes down the times.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
from collections import defaultdict
from collections.abc import Generator, Iterable, Mapping
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import pytest
from coverage import Coverage, CoverageData

TIMES = "FIDICULA_TEST_TIMES"
LINES_ABOVE = 12
"""A line inside a longer statement belongs to the nearest line above it that was run."""

_seconds: dict[str, float] = defaultdict(float)


@pytest.hookimpl(wrapper=True)
def pytest_runtest_protocol(item: pytest.Item) -> Generator[None, object, object]:
    measuring = Coverage.current()
    if measuring is not None:
        measuring.switch_context(item.nodeid)
    return (yield)


def pytest_runtest_logreport(report: pytest.TestReport) -> None:
    _seconds[report.nodeid] += report.duration


def pytest_sessionfinish() -> None:
    if TIMES in os.environ:
        Path(os.environ[TIMES]).write_text(json.dumps(_seconds))


@dataclass(frozen=True)
class Covering:
    """by_line : ids of the tests that ran a line, by module and line.  seconds : by test."""

    by_line: Mapping[str, Mapping[int, frozenset[str]]]
    seconds: Mapping[str, float]

    def of(self, module: str, line: int, *, within_s: float) -> list[str]:
        """The tests that can notice a change of this line: those that ran it, the quickest first, then those that
        ran another line of its module; as many as take so long together."""
        lines = self.by_line.get(module, {})
        there = next((at for at in range(line, line - LINES_ABOVE, -1) if lines.get(at)), None)
        ran = lines[there] if there is not None else frozenset()
        others = frozenset().union(*lines.values()) - ran
        chosen, left = [], within_s
        for test in [*self._quickest(ran), *self._quickest(others)]:
            left -= self.seconds[test]
            if left < 0:
                break
            chosen.append(test)
        return chosen

    def _quickest(self, tests: Iterable[str]) -> list[str]:
        return sorted(tests, key=lambda test: (self.seconds[test], test))


def covering(backend: Path, groups: Iterable[str]) -> Covering:
    """Runs each group of tests once, two at a time. Raises RuntimeError where one does not pass as it is."""
    groups = list(groups)
    with ThreadPoolExecutor(2) as pool:
        found = list(pool.map(lambda group: _one_group(backend, *group), enumerate(groups)))
    by_line: dict[str, dict[int, frozenset[str]]] = defaultdict(lambda: defaultdict(frozenset))
    seconds: dict[str, float] = {}
    for lines, times in found:
        seconds.update(times)
        for module, contexts in lines.items():
            for line, tests in contexts.items():
                by_line[module][line] |= tests
    return Covering(by_line, seconds)


def _one_group(backend: Path, number: int, tests: str) -> tuple[dict[str, dict[int, frozenset[str]]], dict[str, float]]:
    data, times = backend / f".coverage-{number}", backend / f".times-{number}"
    done = subprocess.run(
        [
            *(sys.executable, "-m", "coverage", "run", f"--data-file={data}", "--source=src/fidicula"),
            *("-m", "pytest", "-q", "-p", "no:cacheprovider", "-p", "bench.covering", *tests.split()),
        ],
        cwd=backend,
        env={**os.environ, TIMES: str(times), "PYTHONPATH": str(backend.parent)},
        stdin=subprocess.DEVNULL,
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        text=True,
        check=False,
    )
    if done.returncode:
        raise RuntimeError(f"{tests} does not pass as it is:\n{done.stdout[-2000:]}")
    measured = CoverageData(str(data))
    measured.read()
    seconds: dict[str, float] = json.loads(times.read_text())
    lines = {
        str(Path(file).relative_to(backend)): {
            line: frozenset(tests) & seconds.keys() for line, tests in measured.contexts_by_lineno(file).items()
        }
        for file in measured.measured_files()
    }
    return lines, seconds
