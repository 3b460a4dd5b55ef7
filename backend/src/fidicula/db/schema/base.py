"""What all tables share: naming, the order of tickets, the column that says when."""

from __future__ import annotations

from sqlalchemy import (
    Column,
    DateTime,
    MetaData,
    func,
)

metadata = MetaData(
    naming_convention={
        "ix": "ix_%(table_name)s_%(column_0_N_name)s",
        "uq": "uq_%(table_name)s_%(column_0_N_name)s",
        "ck": "ck_%(table_name)s_%(constraint_name)s",
        "fk": "fk_%(table_name)s_%(column_0_N_name)s_%(referred_table_name)s",
        "pk": "pk_%(table_name)s",
    }
)

NATURAL = "natural_order"
"""A collation that sorts RW-9 before RW-10."""


def now_column(name: str) -> Column[object]:
    return Column(name, DateTime(timezone=True), nullable=False, server_default=func.now())
