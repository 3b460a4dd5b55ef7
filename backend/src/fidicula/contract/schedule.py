"""schedule: a bench day without a calendar."""

from __future__ import annotations

from pydantic import Field

from fidicula.contract.quantities import Answer, Benches, Minutes, Wire
from fidicula.core.work.schedule import Job, JobStep, plan_day


class StepIn(Wire):
    id: str
    bench_minutes: Minutes
    wait_minutes: Minutes = 0
    after: list[str] = Field(default=[])


class JobIn(Wire):
    id: str
    release: Minutes = 0
    due: Minutes | None = None
    steps: list[StepIn]


class ScheduleRequest(Wire):
    benches: Benches = 1
    jobs: list[JobIn]


class StepOut(Answer):
    job: str
    step: str
    bench: int
    start: int
    end: int


class ScheduleAnswer(Answer):
    steps: list[StepOut]
    finish: int
    lateness: int
    optimal: bool


def compute_schedule(request: ScheduleRequest) -> ScheduleAnswer:
    plan = plan_day(
        benches=request.benches,
        jobs=[
            Job(
                id=job.id,
                release=job.release,
                due=job.due,
                steps=tuple(
                    JobStep(step.id, step.bench_minutes, step.wait_minutes, tuple(step.after)) for step in job.steps
                ),
            )
            for job in request.jobs
        ],
    )
    return ScheduleAnswer(
        steps=[StepOut(**vars(step)) for step in plan.steps],
        finish=plan.finish,
        lateness=plan.lateness,
        optimal=plan.optimal,
    )
