"""A bench day without a calendar: steps on benches, with waits in between."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.core.errors import CoreError

LARGEST_SOLVED = 400
"""Steps in all; a larger day is only laid out in order, and said to be unproved."""

SECONDS = 1.0
"""What the solver may take."""


@dataclass(frozen=True)
class JobStep:
    """bench : time on a bench, wait : after it (glue, varnish). [minutes]  after : ids of steps of the same job."""

    id: str
    bench: int
    wait: int = 0
    after: tuple[str, ...] = ()


@dataclass(frozen=True)
class Job:
    """release : not before, due : wanted by. [minutes]"""

    id: str
    steps: tuple[JobStep, ...]
    release: int = 0
    due: int | None = None


@dataclass(frozen=True)
class PlannedStep:
    """bench : numbered from 1.  start, end : of the bench work. [minutes]"""

    job: str
    step: str
    bench: int
    start: int
    end: int


@dataclass(frozen=True)
class DayPlan:
    """finish : of everything with its waits; lateness : summed over the jobs. [minutes]  optimal : both proved."""

    steps: tuple[PlannedStep, ...]
    finish: int
    lateness: int
    optimal: bool


Starts = list[list[int]]


def check_jobs(jobs: Sequence[Job]) -> list[list[int]]:
    """For each job the order in which its steps may go.

    jobs : with steps.  Raises CoreError naming a repeated `id`, or an `after` that is unknown or goes in a loop.
    """
    orders = []
    seen_jobs: set[str] = set()
    for j, job in enumerate(jobs):
        if job.id in seen_jobs:
            raise CoreError("jobs", j, "id", sentence=f"the job {job.id!r} is there twice", value=job.id)
        seen_jobs.add(job.id)
        orders.append(_order(j, job))
    return orders


def _order(j: int, job: Job) -> list[int]:
    index: dict[str, int] = {}
    for s, step in enumerate(job.steps):
        if step.id in index:
            raise CoreError("jobs", j, "steps", s, "id", sentence=f"the step {step.id!r} is there twice", value=step.id)
        index[step.id] = s
    for s, step in enumerate(job.steps):
        for before in step.after:
            if before not in index:
                raise CoreError(
                    "jobs",
                    j,
                    "steps",
                    s,
                    "after",
                    sentence=f"{before!r} is no step of the job {job.id!r}",
                    value=before,
                )
    order: list[int] = []
    done: set[int] = set()
    while len(order) < len(job.steps):
        free = [s for s, step in enumerate(job.steps) if s not in done and all(index[b] in done for b in step.after)]
        if not free:
            stuck = next(s for s in range(len(job.steps)) if s not in done)
            raise CoreError(
                "jobs", j, "steps", stuck, "after", sentence=f"the steps of {job.id!r} wait for each other in a loop"
            )
        order += free
        done.update(free)
    return order


def plan_day(*, jobs: Sequence[Job], benches: int = 1) -> DayPlan:
    """Least total lateness first, then the earliest finish of everything.

    jobs : steps of each, in no order.  benches : 1 or more.
    A bench does one step at a time, an instrument is at one bench at a time, a step starts when those before it
    and their waits are over. Raises CoreError as `check_jobs`.
    Source: a constraint solver, which starts from the plan in order and proves its best where time allows.
    """
    orders = check_jobs(jobs)
    starts = _in_order(jobs, orders, benches)
    optimal = False
    count = sum(len(job.steps) for job in jobs)
    if count == 0:
        return DayPlan((), 0, 0, True)
    if count <= LARGEST_SOLVED:
        starts, optimal = _solve(jobs, benches, starts)
    return _plan(jobs, benches, starts, optimal)


def _in_order(jobs: Sequence[Job], orders: list[list[int]], benches: int) -> Starts:
    """A plan that holds: jobs by due date, each step as early as its bench and its job allow."""
    bench_free = [0] * benches
    starts: Starts = [[0] * len(job.steps) for job in jobs]
    by_due = sorted(range(len(jobs)), key=lambda j: (jobs[j].due is None, jobs[j].due or 0, j))
    for j in by_due:
        job = jobs[j]
        index = {step.id: s for s, step in enumerate(job.steps)}
        job_free = job.release
        for s in orders[j]:
            step = job.steps[s]
            ready = max(
                [job.release]
                + [starts[j][index[b]] + job.steps[index[b]].bench + job.steps[index[b]].wait for b in step.after]
            )
            if step.bench == 0:
                starts[j][s] = ready
                continue
            bench = min(range(benches), key=lambda b: bench_free[b])
            start = max(ready, job_free, bench_free[bench])
            starts[j][s] = start
            bench_free[bench] = job_free = start + step.bench
    return starts


def _ends(job: Job, starts: list[int]) -> int:
    return max((start + step.bench + step.wait for start, step in zip(starts, job.steps, strict=True)), default=0)


def _solve(jobs: Sequence[Job], benches: int, hint: Starts) -> tuple[Starts, bool]:
    from ortools.sat.python import cp_model

    horizon = max((job.release for job in jobs), default=0) + sum(s.bench + s.wait for job in jobs for s in job.steps)
    model = cp_model.CpModel()
    all_intervals = []
    variables = []
    finish = model.new_int_var(0, horizon, "finish")
    lateness = []
    for j, job in enumerate(jobs):
        mine, index = [], {step.id: s for s, step in enumerate(job.steps)}
        own = [model.new_int_var(job.release, horizon, f"start {j} {s}") for s in range(len(job.steps))]
        for s, step in enumerate(job.steps):
            model.add_hint(own[s], hint[j][s])
            if step.bench:
                mine.append(model.new_fixed_size_interval_var(own[s], step.bench, f"step {j} {s}"))
            for before in step.after:
                earlier = job.steps[index[before]]
                model.add(own[s] >= own[index[before]] + earlier.bench + earlier.wait)
            model.add(finish >= own[s] + step.bench + step.wait)
        model.add_no_overlap(mine)
        all_intervals += mine
        if job.due is not None and job.steps:
            late = model.new_int_var(0, horizon, f"late {j}")
            for s, step in enumerate(job.steps):
                model.add(late >= own[s] + step.bench + step.wait - job.due)
            lateness.append(late)
        variables.append(own)
    model.add_cumulative(all_intervals, [1] * len(all_intervals), benches)
    model.minimize(sum(lateness) * (horizon + 1) + finish)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = SECONDS
    solver.parameters.num_workers = 4
    solver.parameters.random_seed = 1
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return hint, False
    found = [[solver.value(start) for start in own] for own in variables]
    return found, status == cp_model.OPTIMAL


def _plan(jobs: Sequence[Job], benches: int, starts: Starts, optimal: bool) -> DayPlan:
    """Put the steps on benches in the order in which they start: as many run at once as there are benches."""
    lines = sorted(
        (starts[j][s], step.bench > 0, j, s) for j, job in enumerate(jobs) for s, step in enumerate(job.steps)
    )
    bench_free = [0] * benches
    steps = []
    for start, on_bench, j, s in lines:
        step = jobs[j].steps[s]
        bench = 0
        if on_bench:
            bench = next(b for b in range(benches) if bench_free[b] <= start)
            bench_free[bench] = start + step.bench
        steps.append(PlannedStep(jobs[j].id, step.id, bench + 1, start, start + step.bench))
    finishes = [_ends(job, own) for job, own in zip(jobs, starts, strict=True)]
    lateness = sum(
        max(0, end - job.due) for end, job in zip(finishes, jobs, strict=True) if job.due is not None and job.steps
    )
    return DayPlan(tuple(steps), max(finishes, default=0), lateness, optimal)
