"""What belongs to an instrument: fittings, what came along, what the shop lent; a log, the last line of each stands."""

from __future__ import annotations

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    Column,
    Date,
    DateTime,
    Double,
    ForeignKey,
    Identity,
    Integer,
    Table,
    Text,
    Uuid,
)

from fidicula.db.schema.base import metadata, now_column

belonging = Table(
    "belonging",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("thing", Uuid, nullable=False),
    Column("kind", Text, nullable=False),
    Column("which", Text, nullable=False, server_default=""),
    Column("material", Text, nullable=False, server_default=""),
    Column("count", Integer),
    Column("mass", Double),
    Column("made_on", Date),
    Column("stamp", Text, nullable=False, server_default=""),
    Column("place", Text, nullable=False),
    Column("lies", Text, nullable=False, server_default=""),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("mass > 0 AND count > 0", name="sizes_above_0"),
    CheckConstraint("place IN ('with_it', 'off', 'gone')", name="place_known"),
)
