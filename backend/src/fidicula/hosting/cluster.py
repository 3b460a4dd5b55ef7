"""A private PostgreSQL cluster: made once, started on loopback, ended with the program that started it."""

from __future__ import annotations

import contextlib
import os
import pwd
import secrets
import shutil
import signal
import socket
import subprocess
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path

import psutil
import psycopg

from fidicula.hosting.server import KEEPER, RunningCluster, ensure_role

SERVER_ACCOUNT = "postgres"
"""The account that Debian's package makes; PostgreSQL will not run as root."""


class ClusterError(Exception):
    """The database cannot be made or started; the message is one sentence for the user."""


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def binaries(version: str | None) -> Path:
    """The folder of PostgreSQL's programs: of this major version, or the newest."""
    found = {path.parent.parent.name: path.parent for path in Path("/usr/lib/postgresql").glob("*/bin/initdb")}
    if version is not None and version in found:
        return found[version]
    if version is None and found:
        return found[max(found, key=float)]
    on_path = shutil.which("initdb")
    if on_path is not None and version is None:
        return Path(on_path).resolve().parent
    if version is None:
        raise ClusterError("PostgreSQL cannot be found: install Debian's package postgresql, then start again.")
    raise ClusterError(
        f"The database here was made by PostgreSQL {version}, which is not installed any more: "
        f"install Debian's package postgresql-{version}, then start again."
    )


def _as_server() -> list[str]:
    """What to put before a command so that it ends with us, and is not root."""
    command = ["setpriv", "--pdeathsig=INT"]
    if os.geteuid() == 0:
        command += [f"--reuid={SERVER_ACCOUNT}", f"--regid={SERVER_ACCOUNT}", "--init-groups"]
    return [*command, "--"]


def _give_to_server(path: Path) -> None:
    if os.geteuid() == 0:
        account = pwd.getpwnam(SERVER_ACCOUNT)
        os.chown(path, account.pw_uid, account.pw_gid)


class Cluster:
    """The cluster below `home`: its data, its passwords and its log."""

    def __init__(self, home: Path, *, durable: bool = True) -> None:
        self._home = home
        self._data = home / "data"
        self._log = home / "server.log"
        self._durable = durable
        self._server: subprocess.Popen[bytes] | None = None

    @property
    def exists(self) -> bool:
        return (self._data / "PG_VERSION").is_file()

    @property
    def is_running(self) -> bool:
        """Whether the server that was started here still is a process."""
        server = self._server
        return server is not None and server.poll() is None

    @property
    def is_stopped(self) -> bool:
        """Whether it is a process that nobody lets run: it answers nothing, and ends by nothing but a kill."""
        server = self._server
        if server is None or server.poll() is not None:
            return False
        try:
            return psutil.Process(server.pid).status() in (psutil.STATUS_STOPPED, psutil.STATUS_TRACING_STOP)
        except psutil.NoSuchProcess:
            return False

    def create(self) -> None:
        """Make the cluster unless it is there. A half-made one of an interrupted start is made again.

        Raises ClusterError, also where the folder cannot be written.
        """
        if self.exists:
            return
        if os.geteuid() == 0:
            try:
                pwd.getpwnam(SERVER_ACCOUNT)
            except KeyError:
                raise ClusterError(
                    f"PostgreSQL does not run as root and there is no account '{SERVER_ACCOUNT}' here: "
                    "install Debian's package postgresql, or start as an ordinary user."
                ) from None
        try:
            self._make()
        except OSError as error:
            raise ClusterError(f"The database cannot be made in {self._home}: {error.strerror or error}.") from error

    def _make(self) -> None:
        self._home.mkdir(parents=True, exist_ok=True)
        if os.geteuid() == 0:
            self._home.chmod(0o755)
        partial = self._home / "data.partial"
        shutil.rmtree(partial, ignore_errors=True)
        for left_over in self._home.glob("*.pw"):
            left_over.unlink()
        partial.mkdir(mode=0o700)
        _give_to_server(partial)
        password = secrets.token_urlsafe(24)
        with tempfile.NamedTemporaryFile("w", dir=self._home, suffix=".pw") as password_file:
            password_file.write(password)
            password_file.flush()
            _give_to_server(Path(password_file.name))
            self._run(
                binaries(None) / "initdb",
                "-D",
                str(partial),
                "-U",
                KEEPER,
                "--auth=scram-sha-256",
                f"--pwfile={password_file.name}",
                "--encoding=UTF8",
                "--locale=C.UTF-8",
                *([] if self._durable else ["--no-sync"]),
            )
        self._keep_secret("password", password)
        partial.rename(self._data)

    def _keep_secret(self, name: str, secret: str) -> None:
        """Whole or not at all, readable for nobody else."""
        new = self._home / f"{name}.new"
        new.unlink(missing_ok=True)
        new.touch(mode=0o600)
        new.write_text(secret)
        new.rename(self._home / name)

    def _app_password(self) -> str:
        file = self._home / "app.password"
        if not file.exists():
            self._keep_secret(file.name, secrets.token_urlsafe(24))
        return file.read_text()

    def _run(self, *command: str | Path) -> None:
        done = subprocess.run(
            [*_as_server(), *map(str, command)],
            cwd="/",
            stdin=subprocess.DEVNULL,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
            check=False,
        )
        if done.returncode:
            last = done.stdout.strip().splitlines()[-1:] or ["no word"]
            raise ClusterError(f"The database could not be made: {last[0]}")

    def start(self, *, port: int | None = None, patience: float = 60.0) -> RunningCluster:
        """Start the server on a port of 127.0.0.1, and wait until it answers. port : None for a free one.

        Raises ClusterError, also where its folder cannot be written.
        """
        try:
            return self._start(free_port() if port is None else port, patience)
        except OSError as error:
            where = error.filename or self._home
            raise ClusterError(f"The database cannot be started, by {where}: {error.strerror or error}.") from error

    def _start(self, port: int, patience: float) -> RunningCluster:
        version = (self._data / "PG_VERSION").read_text().strip()
        options = {
            "listen_addresses": "127.0.0.1",
            "port": str(port),
            "unix_socket_directories": "",
            # What people wrote stands in no log: neither in a statement nor in the row that was refused.
            "log_min_error_statement": "panic",
            "log_error_verbosity": "terse",
        }
        if not self._durable:
            # A worker of the autovacuum runs as the server's keeper: a database that it is in cannot be dropped.
            options |= {"fsync": "off", "synchronous_commit": "off", "full_page_writes": "off", "autovacuum": "off"}
        settings = [word for key, value in options.items() for word in ("-c", f"{key}={value}")]
        if self._log.exists():
            self._log.replace(self._home / "server.earlier.log")
        with self._log.open("wb") as log:
            server = self._server = subprocess.Popen(
                [*_as_server(), str(binaries(version) / "postgres"), "-D", str(self._data), *settings],
                cwd="/",
                stdin=subprocess.DEVNULL,
                stdout=log,
                stderr=log,
                start_new_session=True,
            )
        keeper = RunningCluster(port=port, password=(self._home / "password").read_text(), user=KEEPER)
        deadline = time.monotonic() + patience
        while True:
            if server.poll() is not None:
                raise ClusterError(f"The database did not start: {self._said()}")
            try:
                return ensure_role(keeper, self._app_password())
            except psycopg.OperationalError:
                if time.monotonic() > deadline:
                    self.stop()
                    raise ClusterError(f"The database did not answer within {patience:.0f} seconds.") from None
                time.sleep(0.05)

    def _said(self) -> str:
        """The server's own reason for not starting."""
        lines = self._log.read_text(errors="replace").strip().splitlines()
        if any("No space left on device" in line for line in lines):
            return "the disk is full."
        said = next((line for line in lines if "FATAL" in line or "PANIC" in line), (lines or ["no word"])[-1])
        return said.split("FATAL:")[-1].split("PANIC:")[-1].strip()

    def found_running(self) -> RunningCluster | None:
        """The server that another start keeps on this data, if one answers."""
        try:
            lines = (self._data / "postmaster.pid").read_text().splitlines()
            running = RunningCluster(port=int(lines[3]), password=(self._home / "app.password").read_text())
            running.connect().close()
        except (OSError, IndexError, ValueError, psycopg.OperationalError):
            return None
        return running

    def stop(self) -> None:
        """A fast and clean shutdown; the data stays."""
        server = self._server
        if server is None:
            return
        if server.poll() is None:
            server.send_signal(signal.SIGINT)
            try:
                server.wait(timeout=30)
            except subprocess.TimeoutExpired:
                self.kill()
        self._server = None

    def kill(self) -> None:
        """End what is left of the server, also where it does not answer any more: its children hold its memory."""
        server = self._server
        if server is not None and server.poll() is None:
            server.kill()
            server.wait()
        orphans = [process for process in psutil.process_iter() if _works_in(process, self._data)]
        for process in orphans:
            with contextlib.suppress(psutil.NoSuchProcess):
                process.kill()
        psutil.wait_procs(orphans, timeout=10)

    @contextlib.contextmanager
    def running(self) -> Iterator[RunningCluster]:
        """Make, start, and stop at the end."""
        self.create()
        try:
            yield self.start()
        finally:
            self.stop()


def _works_in(process: psutil.Process, folder: Path) -> bool:
    try:
        return process.name() == "postgres" and process.cwd() == str(folder)
    except psutil.Error:
        return False
