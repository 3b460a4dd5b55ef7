"""One database in the place of another, so that a stop at any moment leaves one of them there."""

from __future__ import annotations

import psycopg

from fidicula.hosting.cluster import ClusterError
from fidicula.hosting.server import RunningCluster

BEFORE = "before_restore"


def replace_database(running: RunningCluster, name: str, coming: str) -> None:
    """Put `coming` in the place of `name`, which is kept beside it until the next time. Raises ClusterError."""
    going, before = f"{name}_going", f"{name}_{BEFORE}"
    try:
        if running.has_database(name):
            running.drop_database(going)
            running.rename_database(name, going)
        running.rename_database(coming, name)
    except psycopg.Error as error:
        finish_replacing(running, name)
        raise ClusterError("somebody is using the shop that is here: stop what runs on it first") from error
    if running.has_database(going):
        running.drop_database(before)
        running.rename_database(going, before)


def finish_replacing(running: RunningCluster, name: str) -> None:
    """After a stop in the middle: what was on its way out stands in its place again where nothing took it."""
    going = f"{name}_going"
    if running.has_database(going) and not running.has_database(name):
        running.rename_database(going, name)
