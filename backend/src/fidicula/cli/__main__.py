"""What ./fidicula hands over to, once everything is installed."""

from __future__ import annotations

import json
import sys


def main(arguments: list[str]) -> int:
    # Each command imports what it needs, so that `compute` needs no database and answers at once.
    command, *rest = arguments or [""]
    match command:
        case "compute":
            from fidicula.cli import compute

            return compute.run(rest)
        case "demo" | "start":
            from fidicula.cli import serve

            return serve.run(rest, demo=command == "demo")
        case "openapi":
            from fidicula.api.app import client_openapi

            print(json.dumps(client_openapi(), indent=1, ensure_ascii=False))
            return 0
        case "backup" | "restore":
            from fidicula.cli import backup

            return backup.run(rest, restore=command == "restore")
        case "export" | "import":
            from fidicula.cli import archives

            return archives.run(rest, taking_in=command == "import")
        case "devices":
            from fidicula.cli import devices

            return devices.run(rest)
        case "shots":
            from fidicula.cli import shots

            return shots.run(rest)
    print(f"'{command}' is not a command.", file=sys.stderr)
    return 2


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
