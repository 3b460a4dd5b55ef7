"""./fidicula devices: who is signed in where, and sending one of them away, also while the application runs."""

from __future__ import annotations

import argparse

from fidicula.cli.backup import server
from fidicula.cli.opening import StartError, migrated, say
from fidicula.hosting.cluster import ClusterError
from fidicula.services.people.audit import FROM_THE_SHELL
from fidicula.services.people.browsers import Browsers, BrowserView


def run(arguments: list[str]) -> int:
    """0 when it is done; 1, with one sentence, when it could not be."""
    parser = argparse.ArgumentParser(prog="./fidicula devices")
    parser.add_argument("act", nargs="?", choices=["list", "revoke"], default="list")
    parser.add_argument("number", nargs="?", type=int, help="of the device to revoke, as the list shows it")
    parser.add_argument("--demo", action="store_true", help="of the demo's shop, not of your own")
    options = parser.parse_args(arguments)
    if (options.act == "revoke") != (options.number is not None):
        parser.error("revoke takes the number of a device: './fidicula devices' lists them")
    try:
        with server("fidicula_demo" if options.demo else "fidicula") as (running, database):
            if not running.has_database(database):
                raise ClusterError("There is no shop here yet.")
            with migrated(running.url(database)) as engine:
                _act(Browsers(engine), options.number)
    except (StartError, ClusterError) as error:
        say(str(error))
        return 1
    return 0


def _act(browsers: Browsers, number: int | None) -> None:
    # The oldest first: numbers stay as they are while others are used.
    known = sorted(browsers.all(), key=lambda browser: (browser.since, browser.id))
    if number is None:
        print("\n".join(_line(i, browser) for i, browser in enumerate(known, 1)) or "No device is known yet.")
        return
    if not 1 <= number <= len(known):
        raise ClusterError(f"There is no device {number}: './fidicula devices' lists them.")
    chosen = known[number - 1]
    browsers.revoke(chosen.id, FROM_THE_SHELL)
    say(f"{chosen.name} is revoked: whoever was signed in there is signed out.")


def _line(number: int, browser: BrowserView) -> str:
    where = "paired, network" if browser.is_paired else "this computer"
    who = ", ".join(browser.signed_in) or "nobody signed in"
    return f"{number:3}  {browser.name}  ·  {where}  ·  {who}  ·  last used {browser.last_seen_at:%Y-%m-%d %H:%M}"
