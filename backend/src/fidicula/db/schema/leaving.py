"""How a visit ends: the check at pitch, the seal, what was added after it; the shop's own list of points."""

from __future__ import annotations

from sqlalchemy import (
    ARRAY,
    BigInteger,
    Boolean,
    CheckConstraint,
    Column,
    Date,
    DateTime,
    ForeignKey,
    Identity,
    Index,
    SmallInteger,
    Table,
    Text,
    Uuid,
    text,
)
from sqlalchemy.dialects.postgresql import JSONB

from fidicula.db.schema.base import metadata, now_column

point_check = Table(
    "point_check",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("point", Text, nullable=False),
    Column("verdict", Text, nullable=False),
    Column("words", Text, nullable=False, server_default=""),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("checked_by", Text, nullable=False),
    now_column("checked_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("verdict IN ('right', 'not_right')", name="verdict_known"),
)

seal = Table(
    "seal",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("format", SmallInteger, nullable=False),
    # Of each list of the record, and of all of them with what was signed.
    Column("hashes", JSONB, nullable=False),
    Column("hash", Text, nullable=False),
    Column("points", JSONB, nullable=False, server_default="[]"),
    Column("next_check", Date),
    Column("next_check_why", Text, nullable=False, server_default=""),
    Column("received_by", Text, nullable=False, server_default=""),
    Column("signature", Text, nullable=False, server_default=""),
    Column("signed_by", Text, nullable=False),
    Column("signed_at", DateTime(timezone=True), nullable=False),
    Column("opened_again_at", DateTime(timezone=True)),
    Column("opened_again_by", Text),
    # A visit has one seal that holds.
    Index("uq_seal_holds", "visit_id", unique=True, postgresql_where=text("opened_again_at IS NULL")),
    Index("ix_seal_next_check", "next_check", postgresql_where=text("opened_again_at IS NULL")),
)

addition = Table(
    "addition",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("words", Text, nullable=False),
    Column("added_by", Text, nullable=False),
    now_column("added_at"),
)

point_entry = Table(
    "point_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("point", Text, nullable=False),
    Column("label", Text, nullable=False),
    Column("look", Text, nullable=False, server_default=""),
    Column("means", Text, nullable=False, server_default=""),
    Column("families", ARRAY(Text), nullable=False, server_default="{}"),
    Column("place", SmallInteger, nullable=False, server_default="0"),
    Column("retired", Boolean, nullable=False, server_default="false"),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Index("ix_point_entry_point_number", "point", "number"),
)
