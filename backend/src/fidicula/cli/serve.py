"""./fidicula demo and ./fidicula start: the cluster, the migrations, the application, and a clean end."""

from __future__ import annotations

import argparse
import asyncio
import contextlib
import errno
import os
import signal
import socket
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Any

import uvicorn

from fidicula.cli.demo import demo_sign_ins, load_demo
from fidicula.cli.opening import StartError, alone, migrated, say
from fidicula.cli.replacing import finish_replacing
from fidicula.db.unit_of_work import DatabaseError
from fidicula.hosting.cluster import Cluster, ClusterError
from fidicula.hosting.home import default_home, mark_home
from fidicula.hosting.lan import LanError, certificate, check_address, own_address, pairing_code
from fidicula.hosting.server import RunningCluster
from fidicula.hosting.serving import settle
from fidicula.hosting.watch import Watch
from fidicula.main import Application, create_app, for_paired_devices
from fidicula.services.logging import journal, keep_log
from fidicula.services.metrics import note_database_restart
from fidicula.settings import Settings

DEFAULT_PORT = 8470


def run(arguments: list[str], *, demo: bool) -> int:
    """Serve until Ctrl-C."""
    name = "demo" if demo else "start"
    parser = argparse.ArgumentParser(prog=f"./fidicula {name}")
    parser.add_argument("--port", type=int, default=DEFAULT_PORT, help="where the application listens, on loopback")
    parser.add_argument(
        "--lan", action="store_true", help="serve tablets and phones of the workshop too, over TLS, paired by a code"
    )
    parser.add_argument("--address", help="this machine's address on the workshop's network, with --lan")
    parser.add_argument("--fresh", action="store_true", help="throw the demo's data away and load it again")
    options = parser.parse_args(arguments)
    if options.fresh and not demo:
        parser.error("--fresh is for the demo alone")
    if options.address and not options.lan:
        parser.error("--address goes with --lan")
    try:
        lan = ""
        if options.lan:
            lan = check_address(options.address) if options.address else own_address()
            _check_port(options.port + 1, name, lan)
        _check_port(options.port, name)
        with alone(name):
            _serve(options.port, demo=demo, fresh=options.fresh, lan=lan)
    except (StartError, ClusterError, LanError) as error:
        say(str(error))
        return 1
    except OSError as error:
        where = f" in {error.filename}" if error.filename else ""
        say(f"Fidicula cannot write what it needs{where}: {error.strerror or error}.")
        return 1
    except KeyboardInterrupt:
        pass
    return 0


def _check_port(port: int, name: str, address: str = "127.0.0.1") -> None:
    if not 1 <= port <= 65535:
        raise StartError(f"A port is a number from 1 to 65535; {port} is not.")
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((address, port))
        except PermissionError:
            raise StartError(
                f"Port {port} is for root alone: choose another with './fidicula {name} --port N'."
            ) from None
        except OSError as error:
            if error.errno == errno.EADDRNOTAVAIL:
                raise StartError(f"This machine does not have the address {address}.") from None
            raise StartError(
                f"Port {port} is in use, perhaps by a Fidicula that is running already: "
                f"stop that, or choose another with './fidicula {name} --port {port + 1}'."
            ) from None


@dataclass(frozen=True)
class Database:
    """url : for SQLAlchemy.  says : what the application waits for, empty while the database runs."""

    url: str
    says: Callable[[], str]


@contextlib.contextmanager
def database(name: str, *, demo: bool = False, fresh: bool = False) -> Iterator[Database]:
    """The checkout's own cluster with a migrated database, watched over; or the one that the settings name."""
    settings = Settings()
    if settings.database_url:
        yield _of_others(settings.database_url, demo=demo)
        return
    home = settings.state or default_home(settings.root)
    cluster = Cluster(home)
    if not cluster.exists:
        if (home / "data.partial").exists():
            say("  An earlier start was interrupted; its unfinished database is made again ...")
        say("  Making the database ...")
    cluster.create()
    mark_home(home, settings.root)
    with Watch(cluster, cluster.start(), on_restart=_restarted, on_slow=_slow) as watch:
        _prepare(watch.running, name, demo=demo, fresh=fresh)
        watch.begin()
        yield Database(watch.running.url(name), watch.says)


def _restarted(why: str) -> None:
    journal().warning("database restarted", why=why)
    note_database_restart()


def _slow(waited: float) -> None:
    journal().warning("database slow", waited_s=round(waited, 1))


def _prepare(running: RunningCluster, name: str, *, demo: bool, fresh: bool) -> None:
    """Bring a database to the newest schema; a demo is loaded beside its place, and stands there whole or not."""
    finish_replacing(running, name)
    if fresh:
        running.drop_database(name)
    if demo and not running.has_database(name):
        coming = f"{name}_loading"
        running.drop_database(coming)
        running.ensure_database(coming)
        with migrated(running.url(coming)) as engine:
            load_demo(engine)
        running.rename_database(coming, name)
        say("  The invented Reedwater Workshop is loaded.")
        return
    running.ensure_database(name)
    with migrated(running.url(name)) as engine:
        # A demo of an earlier manner, of which the first start was cut short before anything was in it.
        if demo and load_demo(engine):
            say("  The invented Reedwater Workshop is loaded.")


def _of_others(url: str, *, demo: bool) -> Database:
    """A database that others run: it has to be there, and its role has to own it."""
    try:
        with migrated(url) as engine:
            if demo and load_demo(engine):
                say("  The invented Reedwater Workshop is loaded.")
    except DatabaseError as error:
        raise StartError("The database that FIDICULA_DATABASE_URL names does not answer.") from error
    return Database(url, lambda: "")


class AnnouncingServer(uvicorn.Server):
    """Says where it listens once it does."""

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets)
        if self.started:
            say(f"Fidicula is ready: http://127.0.0.1:{self.config.port}   (Ctrl-C stops it)")


def _serve(port: int, *, demo: bool, fresh: bool, lan: str) -> None:
    # A termination asks for the same clean end as Ctrl-C, also before the server listens.
    signal.signal(signal.SIGTERM, lambda *_: os.kill(os.getpid(), signal.SIGINT))
    settings = Settings()
    folder = settings.state or default_home(settings.root)
    keep_log((settings.state or settings.root / ".state") / "application.log")
    with database("fidicula_demo" if demo else "fidicula", demo=demo, fresh=fresh) as found:
        app = create_app(
            Settings(database_url=found.url, lan_address=lan, lan_port=port + 1, stand_ins=demo or settings.stand_ins),
            database_says=found.says,
        )
        if demo:
            say("  Made-up people to sign in as (password, PIN at the bench):")
            for name, role, password, pin in demo_sign_ins():
                say(f"    {name}, {role}: {password}, {pin}")
        settle()
        servers: list[uvicorn.Server] = [AnnouncingServer(_served(app, "127.0.0.1", port))]
        if lan:
            servers.append(_lan_server(partial(for_paired_devices, app), folder / "lan", lan, port + 1))
        try:
            asyncio.run(_all_of(servers))
        finally:
            app.state.engine.dispose()
            say("\nStopped. The data is kept for the next start.")


def _served(app: Application, host: str, port: int, **more: Any) -> uvicorn.Config:
    return uvicorn.Config(
        app,
        host=host,
        port=port,
        log_level="warning",
        access_log=False,
        lifespan="off",
        server_header=False,
        # Heads that do not end, and pages that listen for changes, would keep it from stopping.
        timeout_graceful_shutdown=1,
        h11_max_incomplete_event_size=32_000,
        **more,
    )


def _lan_server(door: Callable[[str], Application], folder: Path, address: str, port: int) -> uvicorn.Server:
    """Other devices are served over TLS beside this machine's own browser, for as long as that is."""
    kept = certificate(folder, address)
    code = pairing_code()
    say(f"  Tablets and phones of the workshop: https://{address}:{port}   code {code[:4]} {code[4:]}")
    say("  Their browser warns of a certificate that it does not know; it is this one:")
    say(f"    {kept.fingerprint}")
    return BesideServer(_served(door(code), address, port, ssl_keyfile=kept.key, ssl_certfile=kept.chain))


class BesideServer(uvicorn.Server):
    """Ends when the one that it stands beside does: signals are that one's."""

    @contextlib.contextmanager
    def capture_signals(self) -> Iterator[None]:
        yield


async def _all_of(servers: Sequence[uvicorn.Server]) -> None:
    """Every listener in one event loop: what is told to pages goes from one of them to all."""
    first, *others = servers
    beside = [asyncio.create_task(server.serve()) for server in others]
    try:
        await first.serve()
    finally:
        for server in others:
            server.should_exit = True
        await asyncio.gather(*beside)
