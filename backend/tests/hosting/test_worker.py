"""A job that takes too much ends by itself, and the next one runs as if it had not been."""

from __future__ import annotations

import time
from collections.abc import Iterator
from threading import Thread

import pytest
from fidicula.hosting.worker import Worker, WorkerBusyError, WorkerLimitError

FILLS = b"x = b'x' * 2_000_000_000"
NEVER_ENDS = b"while True: pass"
DIES = b"import os; os.kill(os.getpid(), 9)"
SLEEPS = b"import time; time.sleep(1)"


@pytest.fixture
def worker() -> Iterator[Worker]:
    found = Worker(memory=300_000_000, seconds=2, waiting=1)
    yield found
    found.stop()


@pytest.mark.parametrize("code", [FILLS, NEVER_ENDS, DIES, b"#" * 400_000_000])
def test_a_job_beyond_its_bounds_is_ended_and_the_next_one_runs(worker: Worker, code: bytes) -> None:
    """Memory, time, a process that is killed, and bytes that it cannot even take in."""
    with pytest.raises(WorkerLimitError):
        worker.run(exec, code)
    assert worker.run(len, b"four") == 4


def test_what_a_job_raises_comes_through(worker: Worker) -> None:
    with pytest.raises(ZeroDivisionError):
        worker.run(exec, b"1 / 0")


def test_a_job_of_a_thread_that_ended_leaves_the_process_for_others(worker: Worker) -> None:
    first = Thread(target=worker.run, args=(len, b""))
    first.start()
    first.join()
    time.sleep(1)
    assert worker.run(len, b"x") == 1


def test_more_than_may_wait_are_turned_away(worker: Worker) -> None:
    assert worker.run(len, b"") == 0
    waiting = [Thread(target=worker.run, args=(exec, SLEEPS)) for _ in range(2)]
    for thread in waiting:
        thread.start()
    time.sleep(0.3)
    with pytest.raises(WorkerBusyError):
        worker.run(len, b"")
    for thread in waiting:
        thread.join()
    assert worker.run(len, b"x") == 1
