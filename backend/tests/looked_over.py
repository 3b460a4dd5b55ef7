"""Answers that were looked over and found right, kept as text.

A file holds what a reader of the answer sees first, and one line that stands for all the rest of it: no number changes
unseen. `FIDICULA_LOOKED_OVER=1 ./fidicula test ...` writes the files again, and the difference is read. To read what
the last line stands for, write whole answers of two versions with `FIDICULA_WHOLE=FOLDER`, and compare the folders.
"""

from __future__ import annotations

import hashlib
import os
import re
from collections.abc import Iterable, Iterator, Mapping, Sequence, Set
from dataclasses import fields, is_dataclass
from datetime import date, datetime
from pathlib import Path
from typing import Any
from uuid import UUID

from pydantic import BaseModel

_ID = re.compile(r"[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}")
PLACES = 4
"""So many places a number is kept to."""


DRAWN = frozenset({"swing", "surface"})
"""Lines on a drawing, which are held to what is judged elsewhere: left out."""


DAYS: dict[str, re.Pattern[str]] = {
    "DAY": re.compile(
        r"\b\d{1,2} (January|February|March|April|May|June|July|August|September|October|November|December)\b"
        r"( 20\d\d)?"
    ),
    "SERVED": re.compile(r"about \d+ of \d+ hours: \d+ \w+ left"),
    "CLOCK": re.compile(r"\b\d\d:\d\d\b"),
    "SEAL": re.compile(r"\b([0-9a-f]{16}|[0-9a-f]{4}( [0-9a-f]{4})+)\b"),
}


def undated(sentence: str) -> str:
    """Without what differs from day to day."""
    for what, pattern in DAYS.items():
        sentence = pattern.sub(what, sentence)
    return sentence


def check(path: Path, text: str, *, shown: Iterable[str] | None = None) -> None:
    """Compares with what is kept under that name; what is not kept yet fails.

    shown : what is kept of it in words, with one line for the whole; None for all of it.
    """
    if (folder := os.environ.get("FIDICULA_WHOLE")) is not None:
        Path(folder).mkdir(exist_ok=True, parents=True)
        (Path(folder) / f"{path.parent.name}_{path.name}").write_text(text)
    if shown is not None:
        digest = hashlib.sha256(text.encode()).hexdigest()[:16]
        text = "".join(f"{line}\n" for line in (*shown, f"{len(text.splitlines())} lines in all, {digest}"))
    if os.environ.get("FIDICULA_LOOKED_OVER"):
        path.parent.mkdir(exist_ok=True)
        path.write_text(text)
    assert path.is_file(), f"{path.name} was never looked over"
    assert text.splitlines() == path.read_text().splitlines()


def sections_of(path: Path) -> dict[str, list[str]]:
    """A file of many, by what is not set in."""
    sections: dict[str, list[str]] = {}
    for line in path.read_text().splitlines() if path.is_file() else ():
        if line.startswith("  "):
            sections[next(reversed(sections))].append(line)
        else:
            sections[line] = []
    return sections


def check_section(path: Path, name: str, kept: Sequence[str]) -> None:
    """Compares with the lines under that name in a file of many, which are set in."""
    sections = sections_of(path)
    if os.environ.get("FIDICULA_LOOKED_OVER"):
        sections[name] = list(kept)
        path.parent.mkdir(exist_ok=True)
        path.write_text("".join(f"{line}\n" for title, inside in sections.items() for line in (title, *inside)))
    assert name in sections, f"{name} was never looked over"
    assert list(kept) == sections[name]


def lines(value: Any, name: str = "", *, now: datetime, depth: int = 0, without: Set[str] = DRAWN) -> Iterator[str]:
    """A value as text, without what is empty: a line for each part, parts of a part set in."""
    simple = _simple(value, now)
    if simple is not None:
        if simple:
            yield f"{'  ' * depth}{name}: {simple}" if name else f"{'  ' * depth}{simple}"
        return
    parts = [] if name in without else list(_parts(value))
    inside = [line for key, part in parts for line in lines(part, key, now=now, depth=depth + 1, without=without)]
    if inside:
        yield f"{'  ' * depth}{name or type(value).__name__}"
        yield from inside


def _parts(value: Any) -> Iterator[tuple[str, Any]]:
    if isinstance(value, BaseModel):
        value = value.model_dump()
    if is_dataclass(value):
        yield from ((one.name, getattr(value, one.name)) for one in fields(value))
    elif isinstance(value, Mapping):
        yield from ((str(key), part) for key, part in value.items())
    else:
        yield from (("-", part) for part in value)


def _simple(value: Any, now: datetime) -> str | None:
    """None for what has parts; empty for what says nothing."""
    if value is None or isinstance(value, UUID):
        return ""
    if isinstance(value, bool):
        return "yes" if value else ""
    if isinstance(value, float | int):
        return f"{round(value, PLACES) + 0.0:g}" if abs(value) < 1e5 else f"{value:.6g}"
    if isinstance(value, datetime):
        return f"{(value - now).total_seconds() / 3600:+.2f} h"
    if isinstance(value, date):
        return f"{(value - now.date()).days:+d} d"
    if isinstance(value, str):
        return "" if _ID.fullmatch(value) else value
    if isinstance(value, Set):
        return ", ".join(sorted(str(one) for one in value))
    if isinstance(value, Sequence) and all(isinstance(one, str | float | int) for one in value):
        return ", ".join(str(_simple(one, now)) for one in value)
    return None
