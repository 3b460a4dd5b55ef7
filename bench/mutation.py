"""How many changes the tests notice: one operator or constant at a time, a fixed random sample of each part.

A change is made in a copy of the backend, those of the part's own tests that run the line or its module are run on it,
and it is taken back; cosmic-ray makes the changes, coverage.py says which tests run a line. One that no test notices is
printed with its line, so that a test can be written for it.

    ./fidicula bench mutation                  400 changes of every part: hours
    FIDICULA_MUTATIONS=60 ./fidicula bench mutation
    FIDICULA_MUTATIONS=60 FIDICULA_MUTATE=core ./fidicula bench mutation
    FIDICULA_MUTATION_SEED=17 ./fidicula bench mutation       another sample
"""

from __future__ import annotations

import os
import random
import shutil
import sys
from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory

from cosmic_ray.commands import init
from cosmic_ray.mutating import mutate_and_test
from cosmic_ray.plugins import operator_names
from cosmic_ray.testing import run_tests
from cosmic_ray.work_db import WorkDB
from cosmic_ray.work_item import MutationSpec, TestOutcome
from fidicula.cli.throwaway import filled, throwaway_cluster

from bench.covering import covering

ROOT = Path(__file__).parents[1]
SAMPLE = 400
SEED = int(os.environ.get("FIDICULA_MUTATION_SEED", "16"))
WORKERS = 2
LONGEST_S = 240.0
"""Until a run of tests counts as one that does not end, which is noticed."""
LOOKED_OVER = "tests/views/test_looked_over.py tests/views/test_looked_over_pages.py"
"""Whole answers, compared in seconds."""


@dataclass(frozen=True)
class Part:
    """folders : what is changed, under `src/fidicula`.  tests : what has to notice it, in groups run beside each other.
    wanted : the share that is to be noticed. [1]
    """

    folders: tuple[str, ...]
    tests: tuple[str, ...]
    wanted: float
    without: tuple[str, ...] = ()


PARTS = {
    "core": Part(("core",), (LOOKED_OVER, "tests/core tests/contract"), 0.93),
    "judgement": Part(("judgement",), (LOOKED_OVER, "tests/judgement tests/views"), 0.90),
    "services": Part(
        ("services", "views", "words"),
        (LOOKED_OVER, "tests/services tests/tables tests/views tests/words", "tests/api"),
        0.80,
    ),
}

_SAME = ("Is_Eq", "IsNot_NotEq", "Eq_Is", "NotEq_IsNot", "BitOr", "BitAnd", "BitXor", "LShift", "RShift")
"""Changes that change nothing here (`is` beside `==`), or that stand in annotations (`|`)."""
_KINDS = (
    "Binary",
    "Comparison",
    "NumberReplacer",
    "AndWithOr",
    "OrWithAnd",
    "AddNot",
    "True",
    "False",
    "Unary",
    "Break",
)


def run() -> None:
    count = int(os.environ.get("FIDICULA_MUTATIONS", SAMPLE))
    named = os.environ.get("FIDICULA_MUTATE", "")
    # Asked again and again by a few tests each time: one server for all of them.
    with throwaway_cluster() as running:
        filled(running, "template_empty", demo=False)
        os.environ["FIDICULA_TESTS_ON"] = filled(running, "template_demo")
        for name, part in PARTS.items():
            if named in ("", name):
                _measure(name, part, count)


def _measure(name: str, part: Part, count: int) -> None:
    specs = _sample(part, count)
    with TemporaryDirectory(prefix="fidicula-mutation-") as folder:
        homes = [_copy(Path(folder) / str(worker)) for worker in range(WORKERS)]
        seen = covering(homes[0], part.tests)
        tried = [(spec, seen.of(str(spec.module_path), spec.start_pos[0], within_s=LONGEST_S / 4)) for spec in specs]
        with ProcessPoolExecutor(WORKERS) as pool:
            found = list(pool.map(_try_all, homes, (tried[worker::WORKERS] for worker in range(WORKERS))))
    unnoticed = sorted(line for lines in found for line in lines)
    share = 1 - len(unnoticed) / len(specs)
    print(f"mutation, {name}: {share:.1%} of {len(specs)} changes noticed (wanted: {part.wanted:.0%})")
    for line in unnoticed:
        print(f"  unnoticed: {line}")
    sys.stdout.flush()


def _sample(part: Part, count: int) -> list[MutationSpec]:
    """A place at random, then one of the changes that can be made there: comparisons have six, and count as one."""
    os.chdir(ROOT / "backend")
    modules = [
        path
        for folder in part.folders
        for path in sorted(Path("src/fidicula", folder).rglob("*.py"))
        if not any(Path("src/fidicula", other) in path.parents for other in part.without)
    ]
    kinds = {
        kind for kind in operator_names() if any(k in kind for k in _KINDS) and not any(same in kind for same in _SAME)
    }
    with TemporaryDirectory() as folder:
        work = WorkDB(Path(folder) / "work.sqlite", WorkDB.Mode.create)
        init(modules, work, {})
        mutations = [item.mutations[0] for item in work.work_items if item.mutations[0].operator_name in kinds]
        mutations = [one for one in mutations if not _changes_nothing(one)]
        work.close()
    places: dict[tuple[str, tuple[int, int]], list[MutationSpec]] = defaultdict(list)
    for one in sorted(mutations, key=lambda m: (str(m.module_path), m.start_pos, m.operator_name, m.occurrence)):
        places[str(one.module_path), one.start_pos].append(one)
    chance = random.Random(SEED)
    chosen = chance.sample(sorted(places), min(count, len(places)))
    return [chance.choice(places[place]) for place in chosen]


def _changes_nothing(one: MutationSpec) -> bool:
    """`strict=` of a zip over equal lists and `frozen=` of a record are checks of the code itself; the lone star of a
    signature is no operator; what is imported for types alone is never run."""
    line = Path(one.module_path).read_text().splitlines()[one.start_pos[0] - 1]
    if line[one.start_pos[1] :].startswith("*,") or line.strip() == "if TYPE_CHECKING:":
        return True
    return one.operator_name == "core/ReplaceTrueWithFalse" and ("strict=" in line or "frozen=" in line)


def _copy(home: Path) -> Path:
    home.mkdir(parents=True)
    for name in ("backend", "launcher", "bench"):
        shutil.copytree(ROOT / name, home / name, ignore=shutil.ignore_patterns("__pycache__", ".*_cache"))
    for name in (".venv", ".tools", "frontend", "requirements", "docs", "fidicula", "README.md"):
        if (ROOT / name).exists():
            (home / name).symlink_to(ROOT / name)
    return home / "backend"


def _try_all(home: Path, tried: list[tuple[MutationSpec, list[str]]]) -> list[str]:
    """The lines whose change no test noticed."""
    os.chdir(home)
    os.environ["PYTHONDONTWRITEBYTECODE"] = "1"
    unnoticed = []
    for spec, tests in tried:
        if not _is_noticed(spec, tests):
            kind = spec.operator_name.removeprefix("core/").removeprefix("Replace")
            by = "" if tests else ", which no test runs"
            unnoticed.append(f"{spec.module_path}:{spec.start_pos[0]} {kind} {spec.occurrence}{by}")
    return unnoticed


def _is_noticed(spec: MutationSpec, tests: list[str]) -> bool:
    if not tests:
        return False
    named = Path("tests-to-run")
    named.write_text("\n".join(tests))
    command = f"{sys.executable} -m pytest -x -q -p no:cacheprovider @{named}"
    found = mutate_and_test([spec], command, LONGEST_S)
    if found.output == "timeout":
        # A machine that is busy elsewhere takes as long without the change: that says nothing.
        unchanged, output = run_tests(command, LONGEST_S)
        return bool(unchanged == TestOutcome.SURVIVED and output != "timeout")
    return bool(found.test_outcome == TestOutcome.KILLED)
