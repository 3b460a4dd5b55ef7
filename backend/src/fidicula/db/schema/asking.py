"""What questions about the whole house go by: the last reading of each place, and questions that are kept."""

from __future__ import annotations

from sqlalchemy import (
    BigInteger,
    Boolean,
    Column,
    DateTime,
    Double,
    ForeignKey,
    Identity,
    Index,
    SmallInteger,
    Table,
    Text,
    Uuid,
)

from fidicula.db.schema.base import metadata, now_column

last_read = Table(
    "last_read",
    metadata,
    # Triggers keep it: the newest reading of each place that stands and is not doubted.
    Column("instrument_id", Uuid, ForeignKey("instrument.id"), primary_key=True),
    Column("measure", Text, primary_key=True),
    # -1 for a single measure.
    Column("position", SmallInteger, primary_key=True),
    Column("value", Double, nullable=False),
    Column("taken_at", DateTime(timezone=True), nullable=False),
    Column("number", BigInteger, nullable=False),
    Index("ix_last_read_measure_position_value", "measure", "position", "value"),
)

question_entry = Table(
    "question_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("name", Text, nullable=False),
    Column("words", Text, nullable=False),
    Column("retired", Boolean, nullable=False, server_default="false"),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Index("ix_question_entry_name_number", "name", "number"),
)
