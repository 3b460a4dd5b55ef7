"""Set-up: what is done again and what is not, and the one sentence that each obstacle gets."""

from __future__ import annotations

import os
import subprocess
import sys
from importlib.metadata import distributions
from pathlib import Path

import pytest

import launcher.__main__
from launcher import console, debian, stamps
from launcher.console import SetupError, run_logged
from launcher.debian import Program
from launcher.licences import UNSAID, licence_of

MISSING = Program("PostgreSQL", "postgresql", lambda: False)


def test_a_stamp_follows_names_and_contents_below_a_folder(tmp_path: Path) -> None:
    folder = tmp_path / "front"
    (folder / "src").mkdir(parents=True)
    (folder / "src" / "a.ts").write_text("one")
    first = stamps.digest([folder])
    assert stamps.digest([folder]) == first
    (folder / "node_modules").mkdir()
    (folder / "node_modules" / "b.js").write_text("made by set-up")
    assert stamps.digest([folder]) == first
    (folder / "src" / "a.ts").write_text("two")
    assert stamps.digest([folder]) != first
    (folder / "src" / "a.ts").write_text("one")
    (folder / "src" / "a.ts").rename(folder / "src" / "c.ts")
    assert stamps.digest([folder]) != first


def test_a_step_that_was_interrupted_has_no_stamp(tmp_path: Path) -> None:
    stamp = tmp_path / "stamp"
    assert not stamps.holds(stamp, "x")
    stamps.write(stamp, "x")
    assert stamps.holds(stamp, "x")
    assert not stamps.holds(stamp, "y")


def test_no_package_manager_is_one_sentence(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("launcher.debian.shutil.which", lambda _name: None)
    with pytest.raises(
        SetupError, match=r"^PostgreSQL cannot be found and this machine has no apt-get: .*start again\.$"
    ):
        debian.ensure([MISSING])


def test_without_the_right_to_install_it_says_what_to_ask_for(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("launcher.debian.shutil.which", lambda name: "/usr/bin/apt-get" if name == "apt-get" else None)
    monkeypatch.setattr("launcher.debian.os.geteuid", lambda: 1000)
    with pytest.raises(SetupError, match="ask for 'apt-get install postgresql', then start again"):
        debian.ensure([MISSING])


def test_what_is_there_is_not_installed(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("launcher.debian.subprocess.call", lambda *_args, **_more: pytest.fail("something was run"))
    debian.ensure([Program("PostgreSQL", "postgresql", lambda: True)])


def test_a_failed_step_shows_the_end_of_its_own_log(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    monkeypatch.setattr(console, "SETUP_LOG", tmp_path / "setup.log")
    (tmp_path / "setup.log").write_text("an older line\n")
    with pytest.raises(SetupError) as failed:
        run_logged([sys.executable, "-c", "print('no room'); raise SystemExit(3)"], failure="It could not be built.")
    assert str(failed.value).startswith("It could not be built.")
    assert str(failed.value).endswith("no room")
    assert "older" not in str(failed.value)


def launched(root: Path, *arguments: str) -> subprocess.CompletedProcess[str]:
    env = {k: v for k, v in os.environ.items() if k != "PYTHONPATH"}
    return subprocess.run([root / "fidicula", *arguments], capture_output=True, text=True, check=False, env=env)


def test_a_folder_that_cannot_be_written_is_one_sentence(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    """Root may write in what is read-only: so a folder stands where the lock goes."""
    (tmp_path / "setup.lock").mkdir()
    monkeypatch.setattr(launcher.__main__, "STATE", tmp_path)
    assert launcher.__main__.main(["devices"]) == 1
    [said] = capsys.readouterr().err.splitlines()
    assert said.startswith(f"Fidicula cannot write what it needs in {tmp_path / 'setup.lock'}: ")


def test_help_names_every_command_and_an_unknown_one_is_refused(root: Path) -> None:
    shown = launched(root, "help").stdout
    for command in ("demo", "start", "test", "compute", "client", "shots", "bench"):
        assert f"./fidicula {command}" in shown
    refused = launched(root, "frobnicate")
    assert refused.returncode == 2
    assert "'frobnicate' is not a command." in refused.stderr


def test_compute_runs_through_the_one_command(root: Path) -> None:
    """From the shell script to the answer, with nothing else on either stream."""
    done = subprocess.run(
        [root / "fidicula", "compute", "spacing"],
        input='{"spread": 10, "diameters": [1, 2, 1]}',
        capture_output=True,
        text=True,
        check=False,
    )
    assert (done.returncode, done.stderr) == (0, "")
    assert done.stdout.startswith('{"offsets": [-5.0, 0.0, 5.0]')


def test_every_package_says_under_which_licence_it_is_given() -> None:
    installed = [one for one in distributions() if one.name.lower() != "fidicula"]
    assert len(installed) > 50
    assert [one.name for one in installed if licence_of(one) == UNSAID] == []
