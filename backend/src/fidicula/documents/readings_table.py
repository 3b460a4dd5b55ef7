"""A table of readings as a spreadsheet writes it: which encoding, separator and columns it has, and its lines."""

from __future__ import annotations

import codecs
import csv
import io
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

ENCODINGS = ("utf-8", "utf-16", "windows-1252")
SEPARATORS: Mapping[str, str] = {",": "comma", ";": "semicolon", "\t": "tab", "|": "bar"}
MOST_LINES = 5_000
COLUMNS: Mapping[str, tuple[str, ...]] = {
    "ticket": ("ticket", "instrument", "tag"),
    "measure": ("measure", "what", "reading of", "place"),
    "position": ("position", "string", "at"),
    "typed": ("typed", "value", "reading", "mm"),
    "tool": ("tool", "with", "read with"),
    "taken_by": ("taken_by", "by", "who", "taken by"),
    "taken_at": ("taken_at", "when", "date", "taken at", "day"),
}
"""What each column may be called. The first is what an export calls it."""
NEEDED = ("measure", "typed")


class TableError(Exception):
    """The file is no such table. field : encoding, separator or file.  The message is a sentence."""

    def __init__(self, field: str, sentence: str) -> None:
        super().__init__(sentence)
        self.field = field


@dataclass(frozen=True)
class ReadingsTable:
    """encoding, separator : as it was read.  columns : by what they mean, the name in the file.  ignored : the rest.

    lines : number in the file, and cells by what they mean.
    """

    encoding: str
    separator: str
    columns: Mapping[str, str]
    ignored: Sequence[str]
    lines: Sequence[tuple[int, Mapping[str, str]]]


def readings_table(data: bytes, *, encoding: str = "", separator: str = "") -> ReadingsTable:
    """Read a table. encoding, separator : empty where the file itself is to say. Raises TableError."""
    encoding, text = _decoded(data, encoding)
    head = text.split("\n", 1)[0]
    separator = separator or max(SEPARATORS, key=head.count)
    if separator not in SEPARATORS:
        raise TableError("separator", f"between columns stands {', '.join(SEPARATORS.values())}")
    rows = csv.reader(io.StringIO(text, newline=""), delimiter=separator)
    try:
        names = [name.strip() for name in next(rows)]
        columns = _columns(names)
        lines: list[tuple[int, Mapping[str, str]]] = []
        for row in rows:
            if not any(cell.strip() for cell in row):
                continue
            if len(lines) >= MOST_LINES:
                raise TableError("file", f"it has over {MOST_LINES} lines: divide it")
            cells = {names[i]: cell.strip() for i, cell in enumerate(row) if i < len(names)}
            lines.append((rows.line_num, {meant: cells.get(name, "") for meant, name in columns.items()}))
    except StopIteration:
        raise TableError("file", "there is nothing in it: its first line names the columns") from None
    except csv.Error as error:
        raise TableError("file", f"it cannot be read as a table: {error}") from error
    ignored = [name for name in names if name and name not in columns.values()]
    return ReadingsTable(encoding, separator, columns, ignored, lines)


def _decoded(data: bytes, encoding: str) -> tuple[str, str]:
    marked = data.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE))
    if b"\0" in data[:2000] and not marked and encoding != "utf-16":
        raise TableError("file", "this is no table of text: save it as CSV first")
    if encoding and encoding not in ENCODINGS:
        raise TableError("encoding", f"it is read as {', '.join(ENCODINGS)}")
    if not encoding:
        tries: Sequence[str] = ("utf-16",) if marked else ("utf-8", "windows-1252")
    else:
        tries = (encoding,)
    for one in tries:
        try:
            return one, data.decode("utf-8-sig" if one == "utf-8" else one)
        except UnicodeDecodeError:
            continue
    raise TableError("encoding", f"it cannot be read as {tries[-1]}: choose another encoding")


def _columns(names: Sequence[str]) -> dict[str, str]:
    """Columns by what they mean. Raises TableError where one that is needed is missing."""
    found: dict[str, str] = {}
    for meant, called in COLUMNS.items():
        name = next((name for name in names if name.lower() in called), None)
        if name is not None and name not in found.values():
            found[meant] = name
    missing = [meant for meant in NEEDED if meant not in found]
    if missing:
        told = " and ".join(COLUMNS[one][0] for one in missing)
        raise TableError("separator", f"no column is called {told}; the first line is: {', '.join(names)[:200]}")
    return found
