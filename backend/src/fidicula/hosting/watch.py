"""Watching over the private database: one that ended, or was stopped, is started again on its port.

One that is slow is waited for, with growing patience: on a machine that is busy elsewhere nothing is gained by ending
it, and all that it was doing is lost.
"""

from __future__ import annotations

import time
from collections.abc import Callable
from threading import Event, Thread

import psycopg

from fidicula.hosting.cluster import Cluster, ClusterError
from fidicula.hosting.server import RunningCluster

LOOKS_EVERY_S = 0.25
ASKS_EVERY_S = 1.5
ANSWERS_WITHIN_S = 2.0
MOST_PATIENCE_S = 60.0
LONGEST_PAUSE_S = 5.0


class Watch:
    """Watches from a thread of its own, which is the one that starts the server again and so has to outlive it.

    It begins by `begin`, once the database has the schema that is wanted: a migration is never cut short.
    on_restart : called after each time that the server was started again, with why.
    on_slow : called as its patience grows, with how long it has waited. [s]
    """

    def __init__(
        self,
        cluster: Cluster,
        running: RunningCluster,
        *,
        on_restart: Callable[[str], None],
        on_slow: Callable[[float], None] = lambda _waited: None,
    ) -> None:
        self._cluster, self.running = cluster, running
        self._on_restart, self._on_slow = on_restart, on_slow
        self._ends = Event()
        self._says = ""
        self._thread = Thread(target=self._watch, name="database watch", daemon=True)

    def __enter__(self) -> Watch:
        return self

    def begin(self) -> None:
        self._thread.start()

    def __exit__(self, *_: object) -> None:
        self._ends.set()
        # The server ends with the thread that started it: stopped before, it ends in good order.
        self._cluster.stop()
        if self._thread.is_alive():
            self._thread.join(timeout=40)
        self._cluster.stop()

    def says(self) -> str:
        """What the application waits for, as a sentence; empty while the database runs."""
        return self._says

    def _watch(self) -> None:
        asked_at, patience = time.monotonic(), ANSWERS_WITHIN_S
        slow_since: float | None = None
        while not self._ends.wait(LOOKS_EVERY_S):
            why = self._ended()
            if why:
                self._start_again(why)
                asked_at, patience, slow_since = time.monotonic(), ANSWERS_WITHIN_S, None
            elif time.monotonic() - asked_at >= ASKS_EVERY_S:
                asked_at = time.monotonic()
                if self._answers(patience):
                    patience, slow_since, self._says = ANSWERS_WITHIN_S, None, ""
                elif not self._ended():
                    slow_since = asked_at if slow_since is None else slow_since
                    waited = time.monotonic() - slow_since
                    self._says = f"the database has not answered for {waited:.0f} s: this computer may be busy"
                    self._on_slow(waited)
                    patience = min(MOST_PATIENCE_S, 2 * patience)

    def _ended(self) -> str:
        """Why there is no server any more that could answer; empty while there is one, however slow."""
        if not self._cluster.is_running:
            return "the database ended"
        return "the database was stopped" if self._cluster.is_stopped else ""

    def _answers(self, patience: float) -> bool:
        try:
            with self.running.connect(within=patience) as connection:
                connection.execute("SELECT 1")
        except psycopg.OperationalError as error:
            # It said no, so it is there: too many ask, or it is getting up.
            return "FATAL" in str(error)
        return True

    def _start_again(self, why: str) -> None:
        pause = 0.2
        self._says = f"{why} and is being started again"
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
                self._on_restart(why)
                return
