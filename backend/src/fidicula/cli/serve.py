"""./fidicula demo and ./fidicula start: the cluster, the migrations, the application, and a clean end."""

from __future__ import annotations

import argparse
import contextlib
import errno
import fcntl
import os
import signal
import socket
import sys
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import uvicorn

from fidicula.cli.demo import demo_sign_ins, load_demo
from fidicula.db.migrate import upgrade
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.cluster import Cluster, ClusterError, default_home
from fidicula.hosting.lan import LanError, certificate, check_address, own_address, pairing_code, pairing_key
from fidicula.hosting.serving import settle
from fidicula.main import Application, create_app, for_paired_devices
from fidicula.settings import Settings

DEFAULT_PORT = 8470


class StartError(Exception):
    """The application cannot start; the message is one sentence for the user."""


def say(text: str) -> None:
    print(text, file=sys.stderr, flush=True)


def run(arguments: list[str], *, demo: bool) -> int:
    """Serve until Ctrl-C."""
    name = "demo" if demo else "start"
    parser = argparse.ArgumentParser(prog=f"./fidicula {name}")
    parser.add_argument("--port", type=int, default=DEFAULT_PORT, help="where the application listens, on loopback")
    parser.add_argument(
        "--lan", action="store_true", help="serve tablets and phones of the workshop too, over TLS, paired by a code"
    )
    parser.add_argument("--address", help="this machine's address on the workshop's network, with --lan")
    parser.add_argument("--fresh", action="store_true", help="throw the demo's data away and load it anew")
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


@contextlib.contextmanager
def alone(name: str) -> Iterator[None]:
    """Only one start in this folder at a time: they share one cluster."""
    settings = Settings()
    folder = settings.state or settings.root / ".state"
    folder.mkdir(parents=True, exist_ok=True)
    with (folder / "running.lock").open("w") as lock:
        for attempt in range(20):
            try:
                fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
                break
            except BlockingIOError:
                if attempt == 19:
                    raise StartError(
                        f"Fidicula is already running from this folder: stop it before './fidicula {name}'."
                    ) from None
                time.sleep(0.1)
        yield


@contextlib.contextmanager
def database(name: str, *, fresh: bool = False) -> Iterator[str]:
    """The checkout's own cluster with a migrated database; yields its address."""
    settings = Settings()
    home = settings.state or default_home(settings.root)
    cluster = Cluster(home)
    if not cluster.exists:
        if (home / "data.partial").exists():
            say("  An earlier start was interrupted; its unfinished database is made anew ...")
        say("  Making the database ...")
    with cluster.running() as running:
        if fresh:
            running.drop_database(name)
        running.ensure_database(name)
        url = running.url(name)
        engine = make_engine(url)
        try:
            upgrade(engine)
        finally:
            engine.dispose()
        yield url


class AnnouncingServer(uvicorn.Server):
    """Says where it listens once it does."""

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets)
        if self.started:
            say(f"Fidicula is ready: http://127.0.0.1:{self.config.port}   (Ctrl-C stops it)")


@contextlib.contextmanager
def _lan_serving(app: Application, folder: Path, address: str, port: int) -> Iterator[None]:
    """Other devices are served over TLS beside this machine's own browser, for as long as that is."""
    kept = certificate(folder, address)
    code = pairing_code()
    config = uvicorn.Config(
        for_paired_devices(app, code=code, key=pairing_key(folder)),
        host=address,
        port=port,
        ssl_keyfile=kept.key,
        ssl_certfile=kept.chain,
        log_level="warning",
        access_log=False,
        lifespan="off",
        timeout_graceful_shutdown=1,
    )
    server = uvicorn.Server(config)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    say(f"  Tablets and phones of the workshop: https://{address}:{port}   code {code[:4]} {code[4:]}")
    say("  Their browser warns of a certificate that it does not know; it is this one:")
    say(f"    {kept.fingerprint}")
    try:
        yield
    finally:
        server.should_exit = True
        thread.join(timeout=5)


def _serve(port: int, *, demo: bool, fresh: bool, lan: str) -> None:
    # A termination asks for the same clean end as Ctrl-C, also before the server listens.
    signal.signal(signal.SIGTERM, lambda *_: os.kill(os.getpid(), signal.SIGINT))
    with database("fidicula_demo" if demo else "fidicula", fresh=fresh) as url:
        app = create_app(Settings(database_url=url, lan_address=lan))
        if demo and load_demo(app.state.engine):
            say("  The invented Reedwater Workshop is loaded.")
        if demo:
            say("  Made-up people to sign in as (password, PIN at the bench):")
            for name, role, password, pin in demo_sign_ins():
                say(f"    {name}, {role}: {password}, {pin}")
        settle()
        server = AnnouncingServer(
            uvicorn.Config(
                app,
                host="127.0.0.1",
                port=port,
                log_level="warning",
                access_log=False,
                lifespan="off",
                # Pages that listen for changes would keep it from stopping.
                timeout_graceful_shutdown=1,
            )
        )
        try:
            with contextlib.ExitStack() as stack:
                if lan:
                    settings = Settings()
                    folder = (settings.state or default_home(settings.root)) / "lan"
                    stack.enter_context(_lan_serving(app, folder, lan, port + 1))
                server.run()
        finally:
            app.state.engine.dispose()
            say("\nStopped. The data is kept for the next start.")
