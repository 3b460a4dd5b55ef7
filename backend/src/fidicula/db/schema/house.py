"""What is in the house: strings, instruments, and their visits."""

from __future__ import annotations

from sqlalchemy import (
    ARRAY,
    BigInteger,
    Boolean,
    CheckConstraint,
    Column,
    Computed,
    Date,
    DateTime,
    Double,
    ForeignKey,
    Index,
    LargeBinary,
    Sequence,
    SmallInteger,
    Table,
    Text,
    UniqueConstraint,
    Uuid,
    text,
)

from fidicula.db.schema.base import NATURAL, metadata, now_column

entry = Table(
    "entry",
    metadata,
    # Of what was entered, made where that was; and what it was, so that the same id with another body is refused.
    Column("id", Uuid, primary_key=True),
    Column("digest", LargeBinary, nullable=False),
    # Where it was entered; empty where it belongs to no instrument.
    Column("ticket", Text, nullable=False),
)

string_set = Table(
    "string_set",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("name", Text, nullable=False),
    Column("family", Text, nullable=False),
    Column("material", Text, nullable=False),
    # Put together on an instrument, string by string; not on the shelf.
    Column("is_mixed", Boolean, nullable=False, server_default="false"),
    now_column("created_at"),
    UniqueConstraint("name", "family"),
)

string_of_set = Table(
    "string_of_set",
    metadata,
    Column("string_set_id", Uuid, ForeignKey("string_set.id", ondelete="CASCADE"), primary_key=True),
    Column("position", SmallInteger, primary_key=True),
    Column("name", Text, nullable=False),
    Column("diameter", Double, nullable=False),
    Column("tension", Double),
    Column("linear_density", Double),
    CheckConstraint("diameter > 0", name="diameter_above_0"),
)

instrument = Table(
    "instrument",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("ticket", Text(collation=NATURAL), nullable=False, unique=True),
    Column("family", Text, nullable=False),
    Column("size", Text, nullable=False),
    Column("string_names", ARRAY(Text), nullable=False),
    Column("left_handed", Boolean, nullable=False, server_default="false"),
    Column("opposite_build", Boolean, nullable=False, server_default="false"),
    Column("is_new", Boolean, nullable=False, server_default="false"),
    Column("is_fleet", Boolean, nullable=False, server_default="false"),
    Column("serial", Text, nullable=False, server_default=""),
    Column("owner", Text, nullable=False, server_default=""),
    Column("description", Text, nullable=False, server_default=""),
    Column("contact", Text, nullable=False, server_default=""),
    Column("plays", Text, nullable=False, server_default=""),
    Column("label_read", Text, nullable=False, server_default=""),
    Column("believed", Text, nullable=False, server_default=""),
    Column("worth", Text, nullable=False, server_default=""),
    Column("left_as_found", Text, nullable=False, server_default=""),
    # What it is found by while typing, in small letters: telling capitals apart takes longer than looking.
    Column(
        "known_by",
        Text,
        Computed(
            "lower(ticket COLLATE \"default\" || ' ' || serial || ' ' || owner || ' ' || description)", persisted=True
        ),
    ),
    now_column("created_at"),
    # Of its newest visit; a trigger of the database keeps it.
    Column("last_opened_at", DateTime(timezone=True)),
    Index("ix_instrument_last_opened_at", text("last_opened_at DESC"), "ticket"),
    Index("ix_instrument_known_by", "known_by", postgresql_using="gin", postgresql_ops={"known_by": "gin_trgm_ops"}),
    CheckConstraint("cardinality(string_names) BETWEEN 3 AND 6", name="three_to_six_strings"),
)

instrument_change = Table(
    "instrument_change",
    metadata,
    Column("instrument_id", Uuid, ForeignKey("instrument.id", ondelete="CASCADE"), primary_key=True),
    # Another one after every commit that changes what a sheet is made of: triggers of the database keep it.
    Column("number", BigInteger, nullable=False),
)

_RAIL_STAMP = Sequence("rail_stamp", metadata=metadata)

visit = Table(
    "visit",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("instrument_id", Uuid, ForeignKey("instrument.id"), nullable=False, index=True),
    Column("kind", Text, nullable=False),
    Column("complaint", Text, nullable=False, server_default=""),
    now_column("opened_at"),
    Column("closed_at", DateTime(timezone=True)),
    Column("closed_by", Text),
    Column("climate", Text, nullable=False, server_default=""),
    Column("deadline", Date),
    Column("freeze_days", SmallInteger, nullable=False, server_default="3"),
    Column("promised", Date),
    Column("instruction", Text, nullable=False, server_default=""),
    Column("subject", Text, nullable=False, server_default=""),
    Column("waits_for", Text, nullable=False, server_default=""),
    Column("waits_until", DateTime(timezone=True)),
    Column("settled", ARRAY(Double), nullable=False, server_default=text("'{}'::float8[]")),
    # Changes with everything that stands on the tag: triggers of the database keep it.
    Column("stamp", BigInteger, _RAIL_STAMP, nullable=False, server_default=_RAIL_STAMP.next_value()),
    Index("ix_visit_stamp", "stamp", postgresql_where=text("closed_at IS NULL")),
    # An instrument is in the house once.
    Index("uq_visit_open", "instrument_id", unique=True, postgresql_where=text("closed_at IS NULL")),
    CheckConstraint("climate IN ('', 'damp', 'dry')", name="climate_known"),
    CheckConstraint("freeze_days BETWEEN 0 AND 60", name="freeze_days_0_to_60"),
)
