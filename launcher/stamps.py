"""Stamps: a step is done when its stamp holds the hash of what it was made from.

A stamp is written last, so a step that was interrupted is simply done again.
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Iterable
from pathlib import Path

SKIPPED = {"node_modules", "dist", "tests", "__pycache__"}
MADE = {"schema.d.ts"}
"""Written by the build itself, from a file that counts."""


def digest(paths: Iterable[Path], *words: str) -> str:
    """Hash of the files, and of every file below the folders, with their names."""
    result = hashlib.sha256()
    for word in words:
        result.update(word.encode() + b"\0")
    for path in paths:
        for file in _files(path):
            result.update(str(file.relative_to(path.parent)).encode() + b"\0")
            result.update(hashlib.sha256(file.read_bytes()).digest())
    return result.hexdigest()


def _files(path: Path) -> list[Path]:
    if path.is_file():
        return [path]
    found: list[Path] = []
    for folder, names, files in os.walk(path):
        names[:] = [name for name in names if name not in SKIPPED]
        found.extend(Path(folder, name) for name in files if name not in MADE and not name.endswith(".tsbuildinfo"))
    return sorted(found)


def holds(stamp: Path, wanted: str) -> bool:
    return stamp.is_file() and stamp.read_text() == wanted


def write(stamp: Path, value: str) -> None:
    partial = stamp.with_suffix(".partial")
    partial.write_text(value)
    partial.replace(stamp)
