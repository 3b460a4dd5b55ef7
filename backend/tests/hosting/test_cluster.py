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


def test_what_cannot_be_written_is_one_sentence_that_names_it(cluster_home: Path) -> None:
    """Root may write in what is read-only: so a folder with something in it stands where the log goes."""
    cluster = Cluster(cluster_home, durable=False)
    cluster.create()
    (cluster_home / "server.log").write_text("the last start's")
    (cluster_home / "server.earlier.log" / "in the way").mkdir(parents=True)
    with pytest.raises(ClusterError, match=r"cannot be started, by .*server\.log: "):
        cluster.start()
    below_a_file = cluster_home / "server.log" / "home"
    with pytest.raises(ClusterError, match="cannot be made in"):
        Cluster(below_a_file).create()


def test_a_cluster_of_a_version_that_is_gone_says_what_to_install(cluster_home: Path) -> None:
    (cluster_home / "data").mkdir(parents=True)
    (cluster_home / "data" / "PG_VERSION").write_text("9")
    with pytest.raises(ClusterError, match="postgresql-9"):
        Cluster(cluster_home).start()
