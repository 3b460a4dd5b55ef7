"""Posts, what players heard, recordings and blind comparisons."""

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
    Index,
    LargeBinary,
    Table,
    Text,
    Uuid,
)
from sqlalchemy.dialects import postgresql
from sqlalchemy.dialects.postgresql import JSONB

from fidicula.db.schema.base import metadata, now_column

post_entry = Table(
    "post_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("length", Double),
    Column("diameter", Double),
    Column("wood", Text, nullable=False, server_default=""),
    Column("grain_mark", Text, nullable=False, server_default=""),
    Column("end_down", Text, nullable=False, server_default=""),
    Column("fitted_on", Date),
    Column("marks_inside", Text, nullable=False, server_default=""),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("length > 0 AND diameter > 0", name="sizes_above_0"),
)

player_session = Table(
    "player_session",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("player", Text, nullable=False),
    Column("begun_by", Text, nullable=False),
    now_column("begun_at"),
)

heard = Table(
    "heard",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("player", Text, nullable=False),
    Column("rated", JSONB, nullable=False, server_default="{}"),
    Column("player_words", postgresql.ARRAY(Text), nullable=False, server_default="{}"),
    Column("remark", Text, nullable=False, server_default=""),
    Column("listened", JSONB, nullable=False, server_default="{}"),
    Column("written_by", Text, nullable=False),
    now_column("heard_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_heard_player", "player"),
)

recording = Table(
    "recording",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("media_type", Text, nullable=False),
    Column("sound", LargeBinary, nullable=False),
    Column("words", Text, nullable=False, server_default=""),
    Column("recorded_by", Text, nullable=False),
    now_column("recorded_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
)

blind_trial = Table(
    "blind_trial",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    # Empty for one that stands by itself, as before there were series.
    Column("series_id", Uuid),
    Column("player", Text, nullable=False),
    Column("first_id", Uuid, ForeignKey("recording.id"), nullable=False),
    Column("second_id", Uuid, ForeignKey("recording.id"), nullable=False),
    Column("chosen", Text),
    Column("led_by", Text, nullable=False),
    now_column("begun_at"),
    Column("chosen_at", DateTime(timezone=True)),
    CheckConstraint("chosen IN ('first', 'second', 'neither', 'given_up')", name="chosen_known"),
)
