"""Work that a stranger can make heavy: in a process of its own, one job at a time, within bounds."""

from __future__ import annotations

import atexit
import os
import resource
import signal
import time
from collections.abc import Callable
from concurrent.futures import BrokenExecutor
from concurrent.futures import TimeoutError as JobTimeoutError
from multiprocessing import get_context
from pathlib import Path
from tempfile import NamedTemporaryFile
from threading import BoundedSemaphore, Lock, Thread
from typing import Any, TypeVar

from pebble import ProcessExpired, ProcessPool

Result = TypeVar("Result")
_GRACE_S = 10.0


class WorkerBusyError(Exception):
    """As many jobs wait already as may."""


class WorkerLimitError(Exception):
    """A job took more time or memory than it may; it was ended."""


class Worker:
    """memory : that a job may take. [bytes]  seconds : of one job.  waiting : jobs that may wait for it.

    Its process starts with the first job, ends with this one, and lets everything else on the machine go first.
    """

    def __init__(self, *, memory: int, seconds: float, waiting: int) -> None:
        self._memory, self._seconds = memory, seconds
        self._places = BoundedSemaphore(waiting + 1)
        self._turn = Lock()
        self._pool: ProcessPool | None = None

    def run(self, job: Callable[..., Result], data: bytes, *more: Any) -> Result:
        """Run a function of a module on some bytes in the process, and wait for it.

        Raises WorkerBusyError, WorkerLimitError, and whatever the job itself raises.
        """
        if not self._places.acquire(blocking=False):
            raise WorkerBusyError
        try:
            # The bytes go by a file: in a pipe they would be stuck where the process ends before it has read them.
            with NamedTemporaryFile(prefix="fidicula-") as file:
                file.write(data)
                file.flush()
                with self._turn:
                    return self._run(job, file.name, more)
        finally:
            self._places.release()

    def _run(self, job: Callable[..., Result], path: str, more: tuple[Any, ...]) -> Result:
        future = self._running().schedule(_on_file, args=(job, path, *more), timeout=self._seconds)
        try:
            # Should its end not be noticed, it is not waited for without one.
            result: Result = future.result(timeout=self._seconds + _GRACE_S)
            return result
        except (JobTimeoutError, ProcessExpired, BrokenExecutor, MemoryError) as error:
            if not future.done() or isinstance(error, BrokenExecutor):
                self._end()
            raise WorkerLimitError from error

    def stop(self) -> None:
        """End the process; the next job starts another."""
        with self._turn:
            self._end()

    def _end(self) -> None:
        if self._pool is not None:
            self._pool.stop()  # type: ignore[no-untyped-call]
            self._pool = None

    def _running(self) -> ProcessPool:
        if self._pool is None or not self._pool.active:
            bounds = (self._memory, os.getpid())
            context = get_context("spawn")
            self._pool = ProcessPool(max_workers=1, initializer=_bounded, initargs=bounds, context=context)
            atexit.register(self._pool.stop)
        return self._pool


def _on_file(job: Callable[..., Result], path: str, *more: Any) -> Result:
    return job(Path(path).read_bytes(), *more)


def _bounded(memory: int, parent: int) -> None:
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    Thread(target=_end_with, args=(parent,), daemon=True).start()
    os.nice(10)
    resource.setrlimit(resource.RLIMIT_DATA, (memory, memory))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


def _end_with(parent: int) -> None:
    """The kernel's own signal would come with the end of the thread that started this process, not of its process."""
    while os.getppid() == parent:
        time.sleep(0.5)
    os._exit(1)
