"""`./fidicula packages`: what is known of weaknesses in the packages of the lock files."""

from __future__ import annotations

import json
import subprocess

from launcher.console import say
from launcher.environment import node_bin, node_env
from launcher.places import FRONTEND, REQUIREMENTS, ROOT, VENV

UNKNOWN = "could not be asked: the registry's list of weaknesses cannot be reached from here"


def check() -> int:
    """0 where nothing is known against them, 1 where something is, 2 where the lists could not be reached."""
    outcomes = [_python(lock) for lock in ("app.lock", "dev.lock", "tools.lock")]
    outcomes.append(_front_end())
    return 1 if 1 in outcomes else max(outcomes)


def _python(lock: str) -> int:
    command = [str(VENV / "bin" / "pip-audit"), "--requirement", str(REQUIREMENTS / lock), "--require-hashes"]
    command += ["--disable-pip", "--format", "json", "--progress-spinner", "off"]
    done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, stdin=subprocess.DEVNULL, check=False)
    try:
        found = json.loads(done.stdout)["dependencies"]
    except (ValueError, KeyError):
        return _said(lock, None, 0)
    asked = [one for one in found if "vulns" in one]
    weak = [
        f"{one['name']} {one['version']}: {', '.join(v['id'] for v in one['vulns'])}" for one in asked if one["vulns"]
    ]
    return _said(lock, weak if asked else None, len(found))


def _ids(weaknesses: list[dict[str, str]]) -> str:
    return ", ".join(one["id"] for one in weaknesses)


def _front_end() -> int:
    done = subprocess.run(
        [str(node_bin() / "npm"), "audit", "--json"],
        cwd=FRONTEND,
        env=node_env(),
        capture_output=True,
        text=True,
        stdin=subprocess.DEVNULL,
        check=False,
    )
    try:
        found = json.loads(done.stdout)
        weak = [f"{name}: {one['severity']}" for name, one in found["vulnerabilities"].items()]
        count = int(found["metadata"]["dependencies"]["total"])
    except (ValueError, KeyError):
        return _said("package-lock.json", None, 0)
    return _said("package-lock.json", weak, count)


def _said(name: str, weak: list[str] | None, count: int) -> int:
    """weak : what is known, None where nobody could be asked."""
    if weak is None:
        say(f"  {name}: {UNKNOWN}")
        return 2
    for line in weak:
        say(f"  {name}: {line}")
    say(f"  {name}: {count} packages, {len(weak)} with a known weakness")
    return 1 if weak else 0
