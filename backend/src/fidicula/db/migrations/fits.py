"""How much a column holds, as a constraint of the database: it asks last what `fidicula/limits.py` asks at each door.

A limit that changes there asks for a migration that drops these constraints and makes them again.
"""

from __future__ import annotations

from collections.abc import Iterator

from alembic import op
from sqlalchemy import text

from fidicula import limits

SIGNATURES = {("approval", "signature"), ("seal", "signature"), ("damage_signed", "signature")}
STORIES = {
    ("addition", "words"),
    ("approval", "words"),
    ("audit_entry", "subject"),
    ("decision", "reason"),
    ("heard", "remark"),
    ("instrument", "believed"),
    ("instrument", "contact"),
    ("instrument", "description"),
    ("instrument", "label_read"),
    ("instrument", "left_as_found"),
    ("instrument", "plays"),
    ("particular", "now"),
    ("particular", "was"),
    ("post_entry", "marks_inside"),
    ("seen", "words"),
    ("visit", "complaint"),
    ("visit", "instruction"),
    ("visit", "subject"),
    ("visit", "waits_for"),
}
"""Columns of what is said at length; every other text is a sentence or shorter."""

COLUMNS = """
SELECT c.table_name, c.column_name, c.udt_name FROM information_schema.columns c
JOIN information_schema.tables t USING (table_schema, table_name)
WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' AND c.is_generated = 'NEVER'
  AND c.table_name <> 'alembic_version'
ORDER BY c.table_name, c.ordinal_position
"""


def name_of(table: str, column: str) -> str:
    return f"ck_{table}_{column}_fits"


def condition(table: str, column: str, type_: str) -> str | None:
    """What a value of the column keeps to; None for a type that has bounds of its own. type_ : by PostgreSQL's name."""
    match type_:
        case "text":
            return f'char_length("{column}") <= {_longest(table, column)}'
        case "_text":
            return f"char_length(array_to_string(\"{column}\", '')) <= {_longest(table, column)}"
        # In PostgreSQL's order NaN is larger than every number.
        case "numeric":
            return f'abs("{column}") < {10 ** (limits.AMOUNT_DIGITS - limits.AMOUNT_PLACES)}'
        case "float8":
            return f'"{column}" BETWEEN {-limits.FARTHEST} AND {limits.FARTHEST}'
        case "timestamptz" | "date":
            return f"\"{column}\" >= '{limits.EARLIEST:%Y-%m-%d}' AND \"{column}\" < '{limits.LATEST:%Y-%m-%d}'"
        case _:
            return None


def _longest(table: str, column: str) -> int:
    if (table, column) in SIGNATURES:
        return limits.SIGNATURE
    return limits.STORY if (table, column) in STORIES else limits.SENTENCE


def constraints() -> Iterator[tuple[str, str, str]]:
    """For a migration: table, name and condition of each that the database ought to have."""
    for table, column, type_ in list(op.get_bind().execute(text(COLUMNS))):
        if kept := condition(table, column, type_):
            yield table, name_of(table, column), kept
