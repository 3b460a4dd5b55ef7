"""A bench day: plans that hold, and the best of them on small days."""

from __future__ import annotations

from itertools import pairwise

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.work.schedule import LARGEST_SOLVED, DayPlan, Job, JobStep, plan_day
from hypothesis import given, settings
from hypothesis import strategies as st


def assert_holds(jobs: list[Job], benches: int, plan: DayPlan) -> None:
    """Every rule of the day, checked on the plan itself."""
    placed = {(p.job, p.step): p for p in plan.steps}
    assert len(placed) == sum(len(job.steps) for job in jobs)
    for job in jobs:
        for step in job.steps:
            p = placed[job.id, step.id]
            assert p.start >= job.release
            assert p.end == p.start + step.bench
            assert 1 <= p.bench <= benches
            for before in step.after:
                earlier = next(s for s in job.steps if s.id == before)
                assert p.start >= placed[job.id, before].end + earlier.wait
    busy = [p for p in plan.steps if p.end > p.start]
    for key in ("bench", "job"):
        for name in {getattr(p, key) for p in busy}:
            own = sorted((p for p in busy if getattr(p, key) == name), key=lambda p: p.start)
            assert all(a.end <= b.start for a, b in pairwise(own))


def test_waiting_needs_no_bench() -> None:
    """Two gluings of 10 and a wait of 60 each, then 10: 10 + 60 + 10 for the first, 10 later for the second."""
    steps = (JobStep("glue", 10, 60), JobStep("slots", 10, 0, ("glue",)))
    jobs = [Job("a", steps), Job("b", steps)]
    plan = plan_day(jobs=jobs)
    assert_holds(jobs, 1, plan)
    assert (plan.finish, plan.optimal) == (90, True)


def test_a_step_that_only_waits_begins_while_the_bench_is_taken() -> None:
    """A drying of 50 needs no bench and starts with the day, while the one bench works 30: 50 + 10 in all."""
    drying = Job("dries", (JobStep("dry", 0, 50), JobStep("polish", 10, 0, ("dry",))))
    jobs = [Job("worked", (JobStep("cut", 30),)), drying]
    plan = plan_day(jobs=jobs)
    assert next(step.start for step in plan.steps if step.step == "dry") == 0
    assert plan.finish == 60


def test_lateness_comes_before_the_finish() -> None:
    """The short job is due at once: it goes first, although the long one alone would finish sooner."""
    jobs = [Job("long", (JobStep("x", 100, 100),)), Job("short", (JobStep("y", 10),), due=10)]
    plan = plan_day(jobs=jobs)
    assert (plan.lateness, plan.finish) == (0, 210)


def test_an_instrument_is_at_one_bench_at_a_time() -> None:
    jobs = [Job("a", (JobStep("x", 30), JobStep("y", 30)))]
    assert plan_day(jobs=jobs, benches=2).finish == 60


def test_a_day_with_nothing_to_do_is_over() -> None:
    assert plan_day(jobs=[Job("a", ())]) == DayPlan((), 0, 0, True)


days = st.lists(
    st.lists(st.tuples(st.integers(0, 30), st.integers(0, 60), st.booleans()), min_size=1, max_size=3),
    min_size=1,
    max_size=3,
)


@settings(max_examples=15, deadline=None)
@given(days, st.integers(1, 3), st.integers(0, 60))
def test_whatever_the_day_the_plan_holds(day: list[list[tuple[int, int, bool]]], benches: int, due: int) -> None:
    jobs = []
    for j, steps in enumerate(day):
        chain = tuple(
            JobStep(str(s), bench, wait, (str(s - 1),) if follows and s else ())
            for s, (bench, wait, follows) in enumerate(steps)
        )
        jobs.append(Job(str(j), chain, release=j, due=due))
    plan = plan_day(jobs=jobs, benches=benches)
    assert_holds(jobs, benches, plan)
    assert plan.optimal


def test_a_day_too_large_to_solve_is_planned_in_order_of_promise() -> None:
    """Each waits for 30 first, which takes no bench: the one promised first is begun at 30, the others one by one."""
    jobs = [
        Job(str(i), (JobStep("dry", 0, 30), JobStep("cut", 10, 0, ("dry",))), due=LARGEST_SOLVED - i)
        for i in range(LARGEST_SOLVED // 2 + 1)
    ]
    plan = plan_day(jobs=jobs, benches=2)
    assert_holds(jobs, 2, plan)
    assert not plan.optimal
    cut = {p.job: p.start for p in plan.steps if p.step == "cut"}
    assert [cut[str(i)] for i in range(LARGEST_SOLVED // 2, -1, -1)] == [30 + i // 2 * 10 for i in range(len(jobs))]


@pytest.mark.parametrize(
    ("jobs", "path"),
    [
        ([Job("a", ()), Job("a", ())], ("jobs", 1, "id")),
        ([Job("a", (JobStep("x", 1, 0, ("x",)),))], ("jobs", 0, "steps", 0, "after")),
        ([Job("a", (JobStep("x", 1, 0, ("z",)),))], ("jobs", 0, "steps", 0, "after")),
    ],
)
def test_days_that_cannot_be(jobs: list[Job], path: tuple[object, ...]) -> None:
    with pytest.raises(CoreError) as refused:
        plan_day(jobs=jobs)
    assert refused.value.path == path
