"""The log of a visit: readings, works, decisions, findings, marks of the course."""

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
    Index,
    LargeBinary,
    SmallInteger,
    Table,
    Text,
    UniqueConstraint,
    Uuid,
    func,
    text,
)
from sqlalchemy.dialects import postgresql
from sqlalchemy.dialects.postgresql import JSONB

from fidicula.db.schema.base import metadata, now_column

work_done = Table(
    "work_done",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("work", Text, nullable=False),
    Column("done_by", Text, nullable=False),
    now_column("done_at"),
    Column("detail", JSONB, nullable=False, server_default="{}"),
    Column("string_set_id", Uuid, ForeignKey("string_set.id")),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_work_done_work_done_at", "work", "done_at", postgresql_where=text("taken_back_at IS NULL")),
)

reading = Table(
    "reading",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("measure", Text, nullable=False),
    Column("position", SmallInteger),
    Column("typed", Text, nullable=False),
    Column("value", Double, nullable=False),
    Column("tool", Text, nullable=False),
    Column("direction", Text),
    Column("taken_by", Text, nullable=False),
    Column("taken_at", DateTime(timezone=True), nullable=False),
    # As the line is written, with the instrument locked: a seal tells by it what came before and what after.
    Column("recorded_at", DateTime(timezone=True), nullable=False, server_default=func.clock_timestamp()),
    Column("after_work", BigInteger, ForeignKey("work_done.number")),
    Column("corrected_by", BigInteger, ForeignKey("reading.number"), index=True),
    Column("repeats", Boolean, nullable=False, server_default="false"),
    Column("doubt", Text),
    Column("doubt_about", Double),
    Column("suggested", Double),
    Column("simulated", Boolean, nullable=False, server_default="false"),
    Column("confirmed_at", DateTime(timezone=True)),
    Column("confirmed_by", Text),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_reading_visit_id_number", "visit_id", "number"),
    CheckConstraint("doubt IN ('small', 'large', 'impossible', 'changed', 'leap')", name="doubt_known"),
)

decision = Table(
    "decision",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("question", Text, nullable=False),
    Column("outcome", Text, nullable=False),
    Column("reason", Text, nullable=False, server_default=""),
    Column("at_value", Double),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("decided_by", Text, nullable=False),
    now_column("decided_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_decision_visit_id_number", "visit_id", "number"),
)

seen = Table(
    "seen",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("item", Text, nullable=False),
    Column("verdict", Text, nullable=False),
    Column("findings", postgresql.ARRAY(Text), nullable=False, server_default="{}"),
    Column("words", Text, nullable=False, server_default=""),
    Column("seen_by", Text, nullable=False),
    now_column("seen_at"),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("verdict IN ('fine', 'watch', 'work', 'not_looked_at')", name="verdict_known"),
    Index("ix_seen_visit_id_number", "visit_id", "number"),
)

course_mark = Table(
    "course_mark",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("step", Text, nullable=False),
    Column("mark", Text, nullable=False),
    Column("reason", Text, nullable=False, server_default=""),
    Column("until", DateTime(timezone=True)),
    Column("made_by", Text, nullable=False),
    now_column("made_at"),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    CheckConstraint("mark IN ('done', 'passed', 'wait', 'go_on')", name="mark_known"),
    Index("ix_course_mark_visit_id_number", "visit_id", "number"),
)

hand_repeats = Table(
    "hand_repeats",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("person", Text, nullable=False),
    Column("tool", Text, nullable=False),
    Column("squares", Double, nullable=False),
    Column("free", SmallInteger, nullable=False),
    UniqueConstraint("visit_id", "person", "tool"),
    CheckConstraint("squares >= 0 AND free > 0", name="something_shown"),
)

particular = Table(
    "particular",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("instrument_id", Uuid, ForeignKey("instrument.id"), nullable=False),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("field", Text, nullable=False),
    Column("was", Text, nullable=False),
    Column("now", Text, nullable=False),
    Column("written_by", Text, nullable=False),
    now_column("written_at"),
    Index("ix_particular_instrument_id_number", "instrument_id", "number"),
)

tool_check = Table(
    "tool_check",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("tool", Text, nullable=False),
    # Lengths that are known, and what the tool read of each, in one order.
    Column("known", ARRAY(Double), nullable=False, server_default="{}"),
    Column("read", ARRAY(Double), nullable=False, server_default="{}"),
    Column("checked_by", Text, nullable=False),
    now_column("checked_at"),
    CheckConstraint("cardinality(known) = cardinality(read)", name="pairs"),
)

photo = Table(
    "photo",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False),
    Column("item", Text, nullable=False),
    # A mark of the damage map that it shows.
    Column("thing", Uuid),
    Column("words", Text, nullable=False, server_default=""),
    Column("shot", Text, nullable=False, server_default=""),
    Column("camera", Text, nullable=False, server_default=""),
    Column("width", SmallInteger, nullable=False),
    Column("height", SmallInteger, nullable=False),
    Column("jpeg", LargeBinary, nullable=False),
    Column("small", LargeBinary, nullable=False),
    Column("taken_by", Text, nullable=False),
    now_column("taken_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_photo_visit_id_number", "visit_id", "number"),
)

retuning = Table(
    "retuning",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("after_work", BigInteger, nullable=False, server_default="0"),
    Column("cents", ARRAY(Double), nullable=False),
    Column("remark", Text, nullable=False, server_default=""),
    Column("tuned_by", Text, nullable=False),
    now_column("tuned_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
)
