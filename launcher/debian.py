"""Programs from Debian's packages: found where they are, installed where we may."""

from __future__ import annotations

import os
import shutil
import subprocess
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from pathlib import Path

from launcher.console import SetupError, run_logged, step


def has_postgresql() -> bool:
    return any(Path("/usr/lib/postgresql").glob("*/bin/initdb")) or shutil.which("initdb") is not None


def has_chromium() -> bool:
    """Its headless shell, which does without the parts of a browser that nobody sees, or the whole of it."""
    return any(Path("/usr/bin", name).exists() for name in ("chromium-headless-shell", "chromium"))


def has_venv() -> bool:
    try:
        import ensurepip  # noqa: F401
        import venv  # noqa: F401
    except ImportError:
        return False
    return True


@dataclass(frozen=True)
class Program:
    name: str
    package: str
    is_there: Callable[[], bool]


PYTHON_VENV = Program("Python's venv", "python3-venv", has_venv)
POSTGRESQL = Program("PostgreSQL", "postgresql", has_postgresql)
CHROMIUM = Program("Chromium", "chromium-headless-shell", has_chromium)


def ensure(programs: Iterable[Program]) -> None:
    """Install what is missing, or say in one sentence what the user has to do."""
    missing = [program for program in programs if not program.is_there()]
    if not missing:
        return
    names = " and ".join(program.name for program in missing)
    packages = [program.package for program in missing]
    command = f"apt-get install {' '.join(packages)}"
    if shutil.which("apt-get") is None:
        raise SetupError(
            f"{names} cannot be found and this machine has no apt-get: install it by hand, then start again."
        )
    prefix: list[str] = []
    if os.geteuid() != 0:
        if not _may_use_sudo():
            raise SetupError(
                f"{names} cannot be found and only an administrator can install it: "
                f"ask for '{command}', then start again."
            )
        prefix = ["sudo", "-n", "--preserve-env=DEBIAN_FRONTEND"]
    env = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    with step(f"Installing {names} from Debian's packages"):
        failure = f"{names} could not be installed with '{command}'."
        run_logged([*prefix, "apt-get", "update"], failure=failure, env=env)
        run_logged(
            [*prefix, "apt-get", "install", "-y", "--no-install-recommends", *packages],
            failure=failure,
            env=env,
        )
    still = [program.name for program in missing if not program.is_there()]
    if still:
        raise SetupError(f"{' and '.join(still)} cannot be found even after '{command}'.")


def _may_use_sudo() -> bool:
    if shutil.which("sudo") is None:
        return False
    return subprocess.call(["sudo", "-n", "true"], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL) == 0
