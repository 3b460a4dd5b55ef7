"""The private cluster: made once, cleared when half made, ended cleanly."""

from __future__ import annotations

from pathlib import Path

import psycopg
import pytest
from fidicula.hosting.cluster import Cluster, ClusterError


def test_a_half_made_cluster_is_made_anew_and_a_second_start_keeps_the_data(cluster_home: Path) -> None:
    (cluster_home / "data.partial").mkdir(parents=True)
    (cluster_home / "data.partial" / "PG_VERSION").write_text("15")
    cluster = Cluster(cluster_home, durable=False)
    assert not cluster.exists
    with cluster.running() as running:
        running.ensure_database("kept")
        assert oct((cluster_home / "password").stat().st_mode & 0o777) == "0o600"
        with pytest.raises(psycopg.OperationalError):
            psycopg.connect(host="127.0.0.1", port=running.port, user="fidicula", password="wrong", dbname="kept")
    with pytest.raises(psycopg.OperationalError):
        running.connect("kept")
    with cluster.running() as again, again.connect("kept") as connection:
        assert connection.execute("SELECT 1").fetchone() == (1,)


def test_a_cluster_of_a_version_that_is_gone_says_what_to_install(cluster_home: Path) -> None:
    (cluster_home / "data").mkdir(parents=True)
    (cluster_home / "data" / "PG_VERSION").write_text("9")
    with pytest.raises(ClusterError, match="postgresql-9"):
        Cluster(cluster_home).start()
