"""Reading a table file: every row becomes a checked, frozen value, or the program does not start."""

from __future__ import annotations

import csv
from collections.abc import Mapping
from importlib import resources
from typing import TypeVar, cast

from pydantic import BaseModel, ConfigDict, ValidationError


class TableRow(BaseModel):
    """One fact. Empty cells are None; unknown columns are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class SourcedRow(TableRow):
    """A fact with its source; `confirmed_by` is empty until someone of the shop stands by it."""

    source: str
    confirmed_by: str | None = None


class TableError(Exception):
    """A table file has a row that cannot be."""


Row = TypeVar("Row", bound=TableRow)


def read_rows(name: str, row_type: type[Row]) -> tuple[Row, ...]:
    """All rows of tables/data/NAME.csv. Raises TableError naming file and line."""
    text = resources.files("fidicula.tables").joinpath("data", f"{name}.csv").read_text(encoding="utf-8")
    return parse_rows(name, text, row_type)


def parse_rows(name: str, text: str, row_type: type[Row]) -> tuple[Row, ...]:
    """The rows of a table's text. Raises TableError naming file and line."""
    found = []
    for line, cells in enumerate(csv.DictReader(text.splitlines()), start=2):
        try:
            found.append(row_type.model_validate({k: v if v != "" else None for k, v in cells.items()}))
        except ValidationError as error:
            raise TableError(f"{name}.csv, line {line}: {error.errors()[0]['msg']}") from error
    return tuple(found)


Code = TypeVar("Code", bound=str)
Known = TypeVar("Known")


def row_of(rows: Mapping[Code, Known], typed: str) -> Known | None:
    """The row of a code that somebody typed or sent; None for what is no code of theirs."""
    return cast(Mapping[str, Known], rows).get(typed)


def code_of(rows: Mapping[Code, Known], typed: str) -> Code | None:
    """The same code, known to be one of theirs; None for what is not."""
    return cast(Code, typed) if typed in rows else None
