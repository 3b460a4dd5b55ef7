"""./fidicula demo: from nothing to an answer, to a clean end, and on with the same data."""

from __future__ import annotations

import json
import os
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from fidicula.cli import serve
from fidicula.cli.__main__ import main
from fidicula.cli.demo import demo_sign_ins
from fidicula.hosting.cluster import free_port
from fidicula.hosting.server import RunningCluster


@contextmanager
def started(home: Path, port: int, **environment: str) -> Iterator[subprocess.Popen[str]]:
    process = subprocess.Popen(
        [sys.executable, "-m", "fidicula.cli", "demo", "--port", str(port)],
        env={**os.environ, "FIDICULA_STATE": str(home), **environment},
        stderr=subprocess.PIPE,
        text=True,
    )
    try:
        yield process
    finally:
        if process.poll() is None:
            process.kill()
        process.wait()
        assert process.stderr is not None
        process.stderr.close()


def wait_until_ready(process: subprocess.Popen[str], port: int) -> None:
    assert process.stderr is not None
    said = []
    for line in process.stderr:
        if f"http://127.0.0.1:{port}" in line:
            return
        said.append(line)
    pytest.fail("it ended before it was ready: " + "".join(said[-20:]))


class Browser:
    """The demo's owner, signed in with what the demo prints."""

    def __init__(self, port: int) -> None:
        self._address = f"http://127.0.0.1:{port}/api"
        self._opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor())
        self._headers = {"content-type": "application/json"}
        name, _, password, _ = demo_sign_ins()[0]
        self.ask("/session", {"name": name, "password": password})
        self._headers["X-Fidicula-Form"] = self.ask("/session")["signed_in"]["form_token"]

    def ask(self, path: str, body: dict[str, str] | None = None) -> Any:
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(self._address + path, data, self._headers)
        with self._opener.open(request, timeout=10) as answer:
            text = answer.read()
        return json.loads(text) if text else None

    def tickets(self) -> list[str]:
        return [tag["ticket"] for tag in self.ask("/rail")]


def server_processes(home: Path) -> list[str]:
    """PostgreSQL servers on this home's data."""
    found = []
    for command_line in Path("/proc").glob("[0-9]*/cmdline"):
        try:
            words = command_line.read_bytes().split(b"\0")
        except OSError:
            continue
        if str(home / "data").encode() in words:
            found.append(command_line.parent.name)
    return found


def test_whatever_ends_it_ends_the_database_too_and_the_data_stays(house: Path) -> None:
    port = free_port()
    ended = {signal.SIGTERM: 0, signal.SIGKILL: -9, signal.SIGINT: 0}
    for taken_in, (how, code) in enumerate(ended.items()):
        with started(house, port) as process:
            wait_until_ready(process, port)
            browser = Browser(port)
            assert len(browser.tickets()) == 15 + taken_in
            browser.ask("/instruments", {"id": str(uuid4()), "family": "violin", "size": "4/4"})
            assert server_processes(house)
            process.send_signal(how)
            assert process.wait(timeout=30) == code
        deadline = time.monotonic() + 20
        while server_processes(house):
            assert time.monotonic() < deadline, "PostgreSQL is still running"
            time.sleep(0.1)


def test_a_first_start_that_is_killed_anywhere_starts_again_whole(cluster_home: Path) -> None:
    """While the cluster is made, while tables are, while the demo is loaded: the next one is as if nothing was."""
    data = cluster_home / "data"
    moments: list[Callable[[], bool]] = [
        (cluster_home / "data.partial").exists,
        lambda: data.exists() and (data / "postmaster.pid").exists(),
        lambda: any((data / "base").glob("*/PG_VERSION")) and len(list((data / "base").iterdir())) > 3,
    ]
    for reached in moments:
        with started(cluster_home, free_port()) as process:
            deadline = time.monotonic() + 60
            while not reached():
                assert time.monotonic() < deadline
                time.sleep(0.01)
            time.sleep(0.4)
            process.kill()
    port = free_port()
    with started(cluster_home, port) as process:
        wait_until_ready(process, port)
        tickets = Browser(port).tickets()
        assert (len(tickets), tickets[0], tickets[-1]) == (15, "RW-101", "RW-115")
        process.send_signal(signal.SIGINT)
        process.wait(timeout=30)


def test_a_database_that_others_run_is_used_as_it_is(
    cluster: RunningCluster, cluster_home: Path, tmp_path: Path, refusal: Callable[..., str]
) -> None:
    """The settings name it; no cluster is made beside it; one that does not answer is one sentence."""
    cluster.ensure_database("of_others")
    port = free_port()
    with started(cluster_home, port, FIDICULA_DATABASE_URL=cluster.url("of_others")) as process:
        wait_until_ready(process, port)
        assert len(Browser(port).tickets()) == 15
        process.send_signal(signal.SIGINT)
        assert process.wait(timeout=30) == 0
    assert not (cluster_home / "data").exists()
    nobody = RunningCluster(free_port(), "none").url("of_others")
    assert "does not answer" in refusal(tmp_path, FIDICULA_DATABASE_URL=nobody)


def test_a_folder_that_cannot_be_written_is_one_sentence(refusal: Callable[..., str]) -> None:
    said = refusal(Path("/proc/fidicula"), "--port", str(free_port()))
    assert said.startswith("Fidicula cannot write in its folder /proc/fidicula: ")
    assert "FIDICULA_STATE" in said
    assert "\n" not in said


@pytest.fixture
def refusal(monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]) -> Callable[..., str]:
    """What the command says that does not start, in this process."""

    def said(home: Path, *arguments: str, **environment: str) -> str:
        for name, value in {"FIDICULA_STATE": str(home), **environment}.items():
            monkeypatch.setenv(name, value)
        assert main(["demo", *arguments]) == 1
        return capsys.readouterr().err.strip()

    return said


def test_a_port_in_use_is_one_sentence_and_names_another(cluster_home: Path, refusal: Callable[..., str]) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        said = refusal(cluster_home, "--port", str(port))
    assert said.startswith(f"Port {port} is in use")
    assert f"--port {port + 1}" in said
    assert "\n" not in said


def test_a_port_that_cannot_be_is_one_sentence(cluster_home: Path, refusal: Callable[..., str]) -> None:
    assert refusal(cluster_home, "--port", "80000") == "A port is a number from 1 to 65535; 80000 is not."


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["--lan", "--address", "8.8.8.8"], "can be reached from the whole world"),
        (["--lan", "--address", "10.255.255.254"], "does not have the address 10.255.255.254"),
    ],
)
def test_other_devices_are_served_on_the_workshops_own_network_alone(
    capsys: pytest.CaptureFixture[str], arguments: list[str], says: str
) -> None:
    assert serve.run(["--port", str(free_port()), *arguments], demo=False) == 1
    assert says in capsys.readouterr().err
