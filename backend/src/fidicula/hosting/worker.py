"""Work that a stranger can make heavy: in a process of its own, one job at a time, within bounds."""

from __future__ import annotations

import atexit
import ctypes
import os
import resource
import signal
from collections.abc import Callable
from concurrent.futures import TimeoutError as JobTimeoutError
from multiprocessing import get_context
from threading import BoundedSemaphore, Lock
from typing import Any, TypeVar

from pebble import ProcessExpired, ProcessPool

Result = TypeVar("Result")
_PR_SET_PDEATHSIG = 1


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
        self._lock = Lock()
        self._pool: ProcessPool | None = None

    def run(self, job: Callable[..., Result], *arguments: Any) -> Result:
        """Run a function of a module in the process, and wait for it.

        Raises WorkerBusyError, WorkerLimitError, and whatever the job itself raises.
        """
        if not self._places.acquire(blocking=False):
            raise WorkerBusyError
        try:
            future = self._running().schedule(job, args=arguments, timeout=self._seconds)
            result: Result = future.result()
            return result
        except (JobTimeoutError, ProcessExpired, MemoryError) as error:
            raise WorkerLimitError from error
        finally:
            self._places.release()

    def stop(self) -> None:
        """End the process; the next job starts another."""
        with self._lock:
            if self._pool is not None:
                self._pool.stop()  # type: ignore[no-untyped-call]
                self._pool.join()
                self._pool = None

    def _running(self) -> ProcessPool:
        with self._lock:
            if self._pool is None or not self._pool.active:
                self._pool = ProcessPool(
                    max_workers=1,
                    initializer=_bounded,
                    initargs=(self._memory, os.getpid()),
                    context=get_context("spawn"),
                )
                atexit.register(self._pool.stop)
            return self._pool


def _bounded(memory: int, parent: int) -> None:
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)
    if os.getppid() != parent:
        os._exit(1)
    os.nice(10)
    resource.setrlimit(resource.RLIMIT_DATA, (memory, memory))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
