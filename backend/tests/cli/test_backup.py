"""./fidicula backup and restore: what comes back is what was kept, row for row; nothing is lost on the way."""

from __future__ import annotations

from io import StringIO
from pathlib import Path

import psycopg
import pytest
from fidicula.cli import backup
from fidicula.cli.demo import demo_sign_ins
from fidicula.cli.replacing import finish_replacing
from fidicula.db.migrate import schemas, upgrade
from fidicula.db.schema import metadata
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.cluster import Cluster, ClusterError
from fidicula.hosting.dump import NOT_KEPT, check_dump, dump
from fidicula.hosting.server import KEEPER, RunningCluster
from sqlalchemy import select, text


@pytest.fixture
def home(house: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("FIDICULA_STATE", str(house))
    return house


@pytest.fixture(autouse=True)
def owners_password(monkeypatch: pytest.MonkeyPatch) -> None:
    """What is fed to a restore that replaces a shop."""
    monkeypatch.setattr("sys.stdin", StringIO(f"{demo_sign_ins()[0][2]}\n" * 9))


def everything(running: RunningCluster, database: str = "fidicula") -> dict[str, list[str]]:
    """Every row of every table that is kept, in words."""
    engine = make_engine(running.url(database))
    with engine.connect() as connection:
        found = {
            table.name: sorted(str(tuple(row)) for row in connection.execute(select(table)))
            for table in metadata.sorted_tables
            if table.name not in (*NOT_KEPT, "audit_entry")
        }
    engine.dispose()
    return found


def test_there_and_back_is_the_same_and_work_goes_on(home: Path, tmp_path: Path) -> None:
    """Kept while the shop runs; restored into an emptied one; the next reading still gets a number of its own."""
    file = tmp_path / "shop.backup"
    with Cluster(home, durable=False).running() as running:
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
        before = everything(running)
        assert backup.run([str(file)], restore=False) == 0
    capsys.readouterr()
    half, words, newer = tmp_path / "half", tmp_path / "words", tmp_path / "newer"
    newer.write_bytes(b"Fidicula backup 2\n" + b"x" * 600)
    half.write_bytes(file.read_bytes()[:-300])
    words.write_text("no backup")
    for path, said in (
        (half, "is damaged"),
        (words, "does not begin as one"),
        (newer, "it has a newer format"),
        (tmp_path / "none", "There is no file"),
    ):
        assert backup.run(["--replace", str(path)], restore=True) == 1
        assert said in capsys.readouterr().err
    for path, said in ((file, "already"), (tmp_path / "no" / "folder", "There is no folder")):
        assert backup.run([str(path)], restore=False) == 1
        assert said in capsys.readouterr().err
    with Cluster(home, durable=False).running() as running:
        assert everything(running) == before


def test_a_backup_of_a_newer_program_or_of_another_is_refused_by_its_head(
    home: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    """Nothing is dropped for it, not even what an earlier restore kept; a backup of the first manner is still read."""
    file, newer, plain = (tmp_path / name for name in ("shop", "newer", "plain"))
    with Cluster(home, durable=False).running() as running:
        assert backup.run([str(file)], restore=False) == 0
        running.ensure_database("fidicula_before_restore")
        written = file.read_bytes()
        schema = max(schemas()).encode()
        newer.write_bytes(written.replace(b'"schema": "' + schema, b'"schema": "9' + schema[1:], 1))
        plain.write_bytes(written[512:])
        with running.connect("postgres") as connection:
            connection.execute("CREATE DATABASE other")
        with running.connect("other") as connection:
            connection.execute("CREATE TABLE reading (x int); CREATE TABLE instrument (x int)")
        foreign = tmp_path / "foreign"
        dump(running, "other", foreign, schema=max(schemas()), made_at="2026-11-27")
        before = everything(running)
        for path, said in ((newer, "made by a newer Fidicula"), (foreign, "holds no shop of this program")):
            with pytest.raises(ClusterError, match=said):
                check_dump(running, path, known=schemas())
    for path, said in ((newer, "made by a newer Fidicula"), (foreign, "holds no shop of this program")):
        assert backup.run(["--replace", str(path)], restore=True) == 1
        told = capsys.readouterr().err
        assert said in told
        assert "the shop is as it was" in told
    with Cluster(home, durable=False).running() as running:
        assert everything(running) == before
        assert running.has_database("fidicula_before_restore")
    assert backup.run(["--replace", str(plain)], restore=True) == 0


def test_a_shop_is_replaced_by_an_owner_alone_and_a_stop_in_the_middle_loses_none(
    home: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    file = tmp_path / "shop"
    with Cluster(home, durable=False).running() as running:
        before = everything(running)
        assert backup.run([str(file)], restore=False) == 0
    monkeypatch.setattr("sys.stdin", StringIO("guessed wrong\n"))
    assert backup.run(["--replace", str(file)], restore=True) == 1
    assert "no owner's password" in capsys.readouterr().err
    with Cluster(home, durable=False).running() as running:
        running.rename_database("fidicula", "fidicula_going")
        finish_replacing(running, "fidicula")
        assert everything(running) == before


def test_the_application_and_a_restore_are_no_superusers(cluster: RunningCluster) -> None:
    """Nor may they read files of the machine or run its programs, which a hostile backup would try."""
    with cluster.connect() as connection:
        row = connection.execute("SELECT rolsuper, rolcreaterole FROM pg_roles WHERE rolname = current_user").fetchone()
        assert row == (False, False)
        for hostile in ("COPY (SELECT 1) TO PROGRAM 'id'", "SELECT pg_read_file('/etc/passwd')"):
            with pytest.raises(psycopg.errors.InsufficientPrivilege):
                connection.execute(hostile)


def test_a_cluster_of_the_first_manner_gives_its_shop_to_the_new_role(home: Path) -> None:
    """Its databases belonged to the superuser; afterwards the application owns them, and migrates them."""
    cluster = Cluster(home, durable=False)
    with cluster.running() as running:
        before = everything(running)
        keeper = RunningCluster(running.port, (home / "password").read_text(), user=KEEPER)
        with keeper.connect("fidicula") as connection:
            connection.execute("ALTER DATABASE fidicula OWNER TO fidicula")
            for kind, name in connection.execute(
                "SELECT CASE relkind WHEN 'S' THEN 'SEQUENCE' ELSE 'TABLE' END, oid::regclass::text FROM pg_class c "
                "WHERE relnamespace = 'public'::regnamespace AND (relkind = 'r' OR relname = 'rail_stamp')"
            ).fetchall():
                connection.execute(f"ALTER {kind} {name} OWNER TO fidicula")
    with cluster.running() as running:
        assert everything(running) == before
        engine = make_engine(running.url("fidicula"))
        upgrade(engine)
        with engine.begin() as connection:
            connection.execute(text("ALTER TABLE reading ADD COLUMN ours int"))
            connection.execute(text("SELECT nextval('rail_stamp')"))
        engine.dispose()


def test_a_folder_that_cannot_be_written_is_one_sentence(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    (tmp_path / "a file").write_text("")
    monkeypatch.setenv("FIDICULA_STATE", str(tmp_path / "a file" / "state"))
    for restore, says in ((True, "cannot write in its folder"), (False, "cannot be made in")):
        assert backup.run([str(tmp_path / "shop.backup")], restore=restore) == 1
        [said] = capsys.readouterr().err.splitlines()
        assert says in said
