"""Watching over the private database: one that ended is started again on its port, one that hangs is ended first."""

from __future__ import annotations

from collections.abc import Callable
from threading import Event, Thread

import psycopg

from fidicula.hosting.cluster import Cluster, ClusterError
from fidicula.hosting.server import RunningCluster

LOOKS_EVERY_S = 0.25
ASKS_EVERY_S = 1.5
ANSWERS_WITHIN_S = 2.0
HANGS_AFTER = 2
"""Questions in a row without an answer."""
LONGEST_PAUSE_S = 5.0


class Watch:
    """Watches from a thread of its own, which is the one that starts the server again and so has to outlive it.

    on_restart : called after each time that the server was started again.
    """

    def __init__(self, cluster: Cluster, running: RunningCluster, *, on_restart: Callable[[], None]) -> None:
        self._cluster, self.running, self._on_restart = cluster, running, on_restart
        self._ends = Event()
        self._says = ""
        self._thread = Thread(target=self._watch, name="database watch", daemon=True)

    def __enter__(self) -> Watch:
        self._thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._ends.set()
        # The server ends with the thread that started it: stopped before, it ends in good order.
        self._cluster.stop()
        self._thread.join(timeout=40)
        self._cluster.stop()

    def says(self) -> str:
        """What the application waits for, as a sentence; empty while the database runs."""
        return self._says

    def _watch(self) -> None:
        since_asked, unanswered = 0.0, 0
        while not self._ends.wait(LOOKS_EVERY_S):
            since_asked += LOOKS_EVERY_S
            if self._cluster.is_running and since_asked >= ASKS_EVERY_S:
                since_asked = 0.0
                # One that did not answer is asked again at once.
                while not self._ends.is_set() and unanswered < HANGS_AFTER and not self._answers():
                    unanswered += 1
                unanswered = unanswered if unanswered >= HANGS_AFTER else 0
            if not self._cluster.is_running or unanswered >= HANGS_AFTER:
                self._start_again()
                since_asked, unanswered = 0.0, 0

    def _answers(self) -> bool:
        try:
            with self.running.connect(within=ANSWERS_WITHIN_S) as connection:
                connection.execute("SELECT 1")
        except psycopg.OperationalError as error:
            # It said no, so it is there: too many ask, or it is getting up.
            return "FATAL" in str(error)
        return True

    def _start_again(self) -> None:
        pause = 0.2
        self._says = "the database ended and is being started again"
        while not self._ends.is_set():
            try:
                self._cluster.kill()
                self._cluster.start(port=self.running.port, patience=30)
            except (ClusterError, OSError) as error:
                self._says = f"the database cannot be started yet: {str(error).rstrip('.').split(': ')[-1]}"
                self._ends.wait(pause)
                pause = min(LONGEST_PAUSE_S, pause * 2)
            else:
                self._says = ""
                self._on_restart()
                return
