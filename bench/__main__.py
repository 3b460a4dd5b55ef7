"""./fidicula bench: run every benchmark and print its figures."""

from __future__ import annotations

import sys
from importlib import import_module

QUICK = ("bridge", "targets", "first_load", "save", "measuring", "pages", "house", "outbox", "estimate")
LONG = ("archives", "day", "faults", "load", "hostile", "mangled", "outcome", "mutation")
"""These take minutes, and run when they are named."""
IN_PARTS = ("day", "mangled")

if __name__ == "__main__":
    names = sys.argv[1:] or QUICK
    unknown = [name for name in names if name not in QUICK + LONG]
    if unknown:
        sys.exit(f"There is no benchmark {unknown[0]}; there are {', '.join(QUICK + LONG)}.")
    for name in names:
        import_module(f"bench.{name}.run" if name in IN_PARTS else f"bench.{name}").run()
