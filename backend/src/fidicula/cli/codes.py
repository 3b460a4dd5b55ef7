"""The codes of the tables as types, for Python and for the front end: written by `./fidicula codes`."""

from __future__ import annotations

import csv
import sys
from importlib import resources
from pathlib import Path

COLUMNS = {
    "MeasureCode": ("measures", "measure"),
    "FigureCode": ("figure_measures", "measure"),
    "ToolCode": ("tools", "tool"),
    "WorkCode": ("works", "work"),
    "QuestionCode": ("deciding", "question"),
    "OutcomeCode": ("decisions", "outcome"),
    "TargetQuestionCode": ("questions", "question"),
    "SchoolCode": ("schools", "school"),
    "FindingCode": ("findings", "finding"),
    "ComputedSignCode": ("computed_signs", "sign"),
    "InstructionCode": ("instructions", "instruction"),
    "StepCode": ("steps", "step"),
    "ItemCode": ("items", "item"),
    "VisitKindCode": ("visit_kinds", "kind"),
    "Family": ("sizes", "family"),
    "Part": ("parts", "part"),
}
"""Each type with the table and the column that its codes stand in."""

LISTED = {"Family": "FAMILIES"}
"""Those that the front end lists too, with what it calls the list."""


def codes() -> dict[str, list[str]]:
    """The codes of each type, in the order of their tables."""
    folder = resources.files("fidicula.tables").joinpath("data")
    found = {}
    for name, (table, column) in COLUMNS.items():
        text = folder.joinpath(f"{table}.csv").read_text(encoding="utf-8")
        found[name] = list(dict.fromkeys(row[column] for row in csv.DictReader(text.splitlines())))
    return found


def as_python() -> str:
    lines = [
        '"""The codes that stand in the tables, as types. Written by `./fidicula codes` from `tables/data`."""',
        "",
        "from __future__ import annotations",
        "",
        "from typing import Literal",
        "",
    ]
    for name, values in codes().items():
        lines += [f"{name} = Literal[", *(f'    "{value}",' for value in values), "]"]
        lines += [f'"""`{COLUMNS[name][0]}.csv`."""']
    lines += ["SignCode = FindingCode | ComputedSignCode", '"""What a condition of a table may ask for."""']
    return "\n".join(lines) + "\n"


def as_typescript() -> str:
    parts = ["// The codes that stand in the tables, as types. Written by `./fidicula codes` from `tables/data`."]
    for name, values in codes().items():
        if name in LISTED:
            each = ", ".join(f"'{value}'" for value in values)
            parts.append(
                f"export const {LISTED[name]} = [{each}] as const\nexport type {name} = (typeof {LISTED[name]})[number]"
            )
        else:
            parts.append("\n".join([f"export type {name} =", *(f"  | '{value}'" for value in values)]))
    return "\n\n".join(parts) + "\n"


def write(root: Path) -> None:
    """root : of the project."""
    (root / "backend" / "src" / "fidicula" / "codes.py").write_text(as_python(), encoding="utf-8")
    (root / "frontend" / "src" / "api" / "codes.ts").write_text(as_typescript(), encoding="utf-8")


if __name__ == "__main__":
    write(Path(sys.argv[1]))
