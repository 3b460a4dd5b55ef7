"""Where a checkout keeps its private cluster; two checkouts never share one."""

from __future__ import annotations

import os
from hashlib import sha256
from pathlib import Path

SYSTEM_FOLDER = Path("/var/lib/fidicula")
"""For root: the server's own account may enter it."""
_MARK = "checkout"


def default_home(root: Path, *, system: Path = SYSTEM_FOLDER) -> Path:
    """Where a checkout's cluster lives: inside it, or, for root, where the server's account may enter."""
    if os.geteuid() != 0:
        return root / ".state" / "database"
    root = root.resolve()
    own = system / f"{root.name or 'root'}-{sha256(str(root).encode()).hexdigest()[:12]}"
    earlier = system / ("-".join(root.parts[1:]) or "root")
    return earlier if not own.exists() and _is_of(earlier, root) else own


def mark_home(home: Path, root: Path) -> None:
    """Write down whose it is: a place named in the earlier manner could be another checkout's too."""
    mark = home / _MARK
    if home.is_dir() and not mark.exists():
        mark.write_text(f"{root.resolve()}\n")


def _is_of(home: Path, root: Path) -> bool:
    """Whether a cluster of the earlier manner of naming is this checkout's, or nobody's yet."""
    if not (home / "data" / "PG_VERSION").is_file():
        return False
    try:
        return (home / _MARK).read_text().strip() == str(root)
    except OSError:
        return True
