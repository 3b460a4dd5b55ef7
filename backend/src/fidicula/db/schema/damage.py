"""Damage of an instrument: marks on the damage map as a log, a line for each look; who signed for what was found."""

from __future__ import annotations

from sqlalchemy import (
    ARRAY,
    BigInteger,
    Boolean,
    CheckConstraint,
    Column,
    DateTime,
    Double,
    ForeignKey,
    Identity,
    Table,
    Text,
    Uuid,
)

from fidicula.db.schema.base import metadata, now_column

damage = Table(
    "damage",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("thing", Uuid, nullable=False, index=True),
    Column("kind", Text, nullable=False),
    Column("face", Text, nullable=False),
    Column("along", Double, nullable=False),
    Column("across", Double, nullable=False),
    Column("to_along", Double),
    Column("to_across", Double),
    Column("length", Double),
    Column("ends", Text, nullable=False, server_default=""),
    Column("state", Text, nullable=False),
    Column("under_tension", Boolean, nullable=False, server_default="false"),
    Column("words", Text, nullable=False, server_default=""),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("seen_by", Text, nullable=False),
    now_column("seen_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("length > 0", name="length_above_0"),
    CheckConstraint("state IN ('open', 'stable', 'repaired', 'poor')", name="state_known"),
    CheckConstraint("ends IN ('', 'both_seen', 'runs_on')", name="ends_known"),
    CheckConstraint("(to_along IS NULL) = (to_across IS NULL)", name="end_whole"),
)

damage_signed = Table(
    "damage_signed",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("who", Text, nullable=False),
    # Of the lines that stood as it was signed.
    Column("lines", ARRAY(Uuid), nullable=False),
    Column("signature", Text, nullable=False, server_default=""),
    Column("entered_by", Text, nullable=False),
    now_column("signed_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
)
