"""./fidicula COMMAND: set up what the command needs, then run it."""

from __future__ import annotations

import contextlib
import fcntl
import os
import sys
from collections.abc import Iterator

from launcher import checks, console, debian, environment, packages
from launcher.console import SetupError, say
from launcher.places import FRONTEND, ROOT, STATE, VENV_PYTHON

HELP = """\
Fidicula: the workshop's bench for the violin family.

  ./fidicula demo [--port N]       set up, load the invented workshop, start; Ctrl-C stops it
  ./fidicula test [pytest words]   set up and run every check and the whole suite
  ./fidicula start [--port N]      start with an empty house of your own
  ./fidicula backup FILE           the whole shop into one file, also while it runs
  ./fidicula restore FILE          and back, into an empty shop; --replace for one that is not
  ./fidicula devices [revoke N]    who is signed in where; sign one out, or send a paired device away
  ./fidicula compute KIND          one computation, JSON in and out (spacing, bridge, nut, post ...)
  ./fidicula client                write the front end's API client again from the OpenAPI file
  ./fidicula codes                 write the code types again from the tables, after a new row
  ./fidicula shots                 take the pictures in docs/screenshots again
  ./fidicula packages              known weaknesses of the packages in the lock files
  ./fidicula licences              under which licence each installed package is given
  ./fidicula bench [NAME]          the benchmarks, as ratios; archives, day, faults, load ...: by name, long
"""


_SERVING = ("demo", "start", "backup", "restore", "export", "import", "devices")
_WRITING = ("client", "codes", "shots")
_ASKING = ("test", "compute", "packages", "licences", "bench")
COMMANDS = (*_SERVING, *_WRITING, *_ASKING)


@contextlib.contextmanager
def one_set_up_at_a_time() -> Iterator[None]:
    STATE.mkdir(exist_ok=True)
    with (STATE / "setup.lock").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            say("  Waiting for another set-up in this folder to end ...")
            fcntl.flock(lock, fcntl.LOCK_EX)
        yield


def set_up(command: str) -> None:
    environment.check_writable()
    with one_set_up_at_a_time():
        programs = [debian.PYTHON_VENV]
        if command not in ("compute", "client", "codes", "packages", "licences") and not _uses_others_database(command):
            programs.append(debian.POSTGRESQL)
        if command in ("test", "shots"):
            programs.append(debian.CHROMIUM)
        debian.ensure(programs)
        environment.ensure_python(for_development=command in ("test", "shots", "bench", "packages"))
        if command in ("test", "client", "shots", "packages", "licences"):
            environment.ensure_tools()
        if command in ("test", "client", "licences"):
            environment.ensure_node_modules()
        if command in ("demo", "start", "test", "shots", "bench"):
            environment.ensure_front_end()


def _uses_others_database(command: str) -> bool:
    """A database that others run needs no server here; only a backup needs PostgreSQL's own programs."""
    return bool(os.environ.get("FIDICULA_DATABASE_URL")) and command in ("demo", "start", "devices")


def hand_over(module: str, arguments: list[str]) -> None:
    """Become the application's own command line, or another module of this checkout."""
    sys.stdout.flush()
    env = {**environment.node_env(), "FIDICULA_ROOT": str(ROOT)}
    if module == "fidicula.cli":
        env.pop("PYTHONPATH", None)
    os.execve(VENV_PYTHON, [str(VENV_PYTHON), "-m", module, *arguments], env)


def write_client() -> int:
    import subprocess

    spec = subprocess.run(
        [VENV_PYTHON, "-m", "fidicula.cli", "openapi"], check=True, capture_output=True, cwd=ROOT
    ).stdout
    (FRONTEND / "src" / "api" / "openapi.json").write_bytes(spec)
    return subprocess.call(
        [environment.node_bin() / "npm", "run", "--silent", "client"],
        cwd=FRONTEND,
        env=environment.node_env(),
    )


def main(arguments: list[str]) -> int:
    command = arguments[0] if arguments else "help"
    if command in ("help", "-h", "--help"):
        print(HELP, end="")
        return 0
    if command not in COMMANDS:
        print(HELP, end="", file=sys.stderr)
        say(f"\n'{command}' is not a command.")
        return 2
    console.quiet = command == "compute" and not sys.stderr.isatty()
    try:
        set_up(command)
    except SetupError as error:
        say(str(error))
        return 1
    except OSError as error:
        where = f" in {error.filename}" if error.filename else ""
        say(f"Fidicula cannot write what it needs{where}: {error.strerror or error}.")
        return 1
    except KeyboardInterrupt:
        say("\nStopped; the next start goes on from here.")
        return 130
    if command == "test":
        os.environ.pop("PYTHONPATH", None)
        return checks.run_all(arguments[1:])
    if command == "client":
        return write_client()
    if command == "codes":
        hand_over("fidicula.cli.codes", [str(ROOT)])
    if command == "packages":
        return packages.check()
    if command == "licences":
        hand_over("launcher.licences", [])
    if command == "bench":
        hand_over("bench", arguments[1:])
    hand_over("fidicula.cli", arguments)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
