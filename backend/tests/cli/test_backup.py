"""./fidicula backup and restore: what comes back is what was kept, row for row; nothing is lost on the way."""

from __future__ import annotations

from pathlib import Path

import pytest
from fidicula.cli import backup
from fidicula.cli.demo import load_demo
from fidicula.db.migrate import upgrade
from fidicula.db.schema import metadata
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.cluster import Cluster, RunningCluster
from fidicula.hosting.dump import NOT_KEPT
from sqlalchemy import select, text


@pytest.fixture
def home(cluster_home: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("FIDICULA_STATE", str(cluster_home))
    return cluster_home


def fill(running: RunningCluster) -> None:
    running.ensure_database("fidicula")
    engine = make_engine(running.url("fidicula"))
    upgrade(engine)
    load_demo(engine)
    engine.dispose()


def everything(running: RunningCluster, database: str = "fidicula") -> dict[str, list[str]]:
    """Every row of every table that is kept, in words."""
    engine = make_engine(running.url(database))
    with engine.connect() as connection:
        found = {
            table.name: sorted(str(tuple(row)) for row in connection.execute(select(table)))
            for table in metadata.sorted_tables
            if table.name not in NOT_KEPT
        }
    engine.dispose()
    return found


def test_there_and_back_is_the_same_and_work_goes_on(home: Path, tmp_path: Path) -> None:
    """Kept while the shop runs; restored into an emptied one; the next reading still gets a number of its own."""
    file = tmp_path / "shop.backup"
    with Cluster(home, durable=False).running() as running:
        fill(running)
        before = everything(running)
        assert len(before["reading"]) > 50
        assert backup.run([str(file)], restore=False) == 0
        assert file.stat().st_mode & 0o077 == 0
        running.drop_database("fidicula")
    assert backup.run([str(file)], restore=True) == 0
    with Cluster(home, durable=False).running() as running:
        assert everything(running) == before
        engine = make_engine(running.url("fidicula"))
        with engine.begin() as connection:
            highest = connection.execute(text("SELECT max(number) FROM work_done")).scalar_one()
            added = connection.execute(
                text(
                    "INSERT INTO work_done (id, visit_id, work, done_by) "
                    "SELECT gen_random_uuid(), id, 'crown_cut', 'Ilse' FROM visit LIMIT 1 RETURNING number"
                )
            ).scalar_one()
        engine.dispose()
        assert added == highest + 1


def test_a_shop_that_is_not_empty_is_replaced_only_when_told_and_kept_beside(
    home: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "shop.backup"
    with Cluster(home, durable=False).running() as running:
        fill(running)
        assert backup.run([str(file)], restore=False) == 0
        engine = make_engine(running.url("fidicula"))
        with engine.begin() as connection:
            connection.execute(text("UPDATE instrument SET owner = 'someone since' WHERE ticket = 'RW-101'"))
        engine.dispose()
        since = everything(running)
    assert backup.run([str(file)], restore=True) == 1
    assert "is not empty" in capsys.readouterr().err
    assert backup.run(["--replace", str(file)], restore=True) == 0
    with Cluster(home, durable=False).running() as running:
        assert everything(running) != since
        assert everything(running, "fidicula_before_restore") == since


def test_what_is_no_backup_changes_nothing(home: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    """Words, a missing file, a backup cut short; a file in the way and a missing folder: one sentence each."""
    file = tmp_path / "shop.backup"
    with Cluster(home, durable=False).running() as running:
        fill(running)
        before = everything(running)
        assert backup.run([str(file)], restore=False) == 0
    capsys.readouterr()
    half, words = tmp_path / "half", tmp_path / "words"
    half.write_bytes(file.read_bytes()[:-300])
    words.write_text("no backup")
    for path, said in (
        (half, "could not be read"),
        (words, "is not a backup"),
        (tmp_path / "none", "There is no file"),
    ):
        assert backup.run(["--replace", str(path)], restore=True) == 1
        assert said in capsys.readouterr().err
    for path, said in ((file, "already"), (tmp_path / "no" / "folder", "There is no folder")):
        assert backup.run([str(path)], restore=False) == 1
        assert said in capsys.readouterr().err
    with Cluster(home, durable=False).running() as running:
        assert everything(running) == before
