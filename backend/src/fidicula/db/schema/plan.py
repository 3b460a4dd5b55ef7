"""What is planned at a visit, the time that it takes, what the owner approved; the drawers and the shop's settings."""

from __future__ import annotations

from sqlalchemy import (
    ARRAY,
    BigInteger,
    CheckConstraint,
    Column,
    Computed,
    Date,
    DateTime,
    Double,
    ForeignKey,
    Identity,
    Index,
    Integer,
    Numeric,
    Table,
    Text,
    Uuid,
    text,
)
from sqlalchemy.dialects.postgresql import JSONB

from fidicula.db.schema.base import metadata, now_column


def _number() -> Column[int]:
    return Column("number", BigInteger, Identity(always=True), primary_key=True)


def _id() -> Column[object]:
    return Column("id", Uuid, nullable=False, unique=True)


def _said(name: str) -> Column[str]:
    return Column(name, Text, nullable=False, server_default="")


def _taken_back() -> tuple[Column[object], Column[str]]:
    return Column("taken_back_at", DateTime(timezone=True)), Column("taken_back_by", Text)


stock_item = Table(
    "stock_item",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("kind", Text, nullable=False),
    _said("family"),
    Column("label", Text, nullable=False),
    Column("figure", Numeric),
    Column("details", JSONB, nullable=False, server_default="{}"),
    _said("place"),
    Column("reorder_at", Numeric, nullable=False, server_default="0"),
    _said("supplier"),
    Column("string_set_id", Uuid, ForeignKey("string_set.id")),
    Column("added_by", Text, nullable=False),
    now_column("added_at"),
    Column(
        "known_by",
        Text,
        Computed("lower(kind || ' ' || label || ' ' || place || ' ' || supplier)", persisted=True),
    ),
    Index("ix_stock_item_known_by", "known_by", postgresql_using="gin", postgresql_ops={"known_by": "gin_trgm_ops"}),
    Index("ix_stock_item_kind", "kind", "family"),
    CheckConstraint("figure > 0 AND reorder_at >= 0", name="amounts"),
)

stock_entry = Table(
    "stock_entry",
    metadata,
    _number(),
    _id(),
    Column("item_id", Uuid, ForeignKey("stock_item.id"), nullable=False),
    Column("what", Text, nullable=False),
    Column("value", Numeric, nullable=False),
    _said("reason"),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Index("ix_stock_entry_item_id", "item_id", "what", "number"),
    CheckConstraint("what = 'count' OR what = 'price' AND value >= 0", name="what"),
)

plan_line = Table(
    "plan_line",
    metadata,
    _number(),
    _id(),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("work", Text, nullable=False),
    Column("grade", Text, nullable=False),
    Column("origin", Text, nullable=False),
    _said("because"),
    _said("reason"),
    Column("place", Double, nullable=False),
    Column("added_by", Text, nullable=False),
    now_column("added_at"),
    Column("done_at", DateTime(timezone=True)),
    Column("done_by", Text),
    Column("minutes", Numeric),
    Column("work_id", Uuid),
    Column("terms", JSONB, nullable=False, server_default="{}"),
    Column("refused", Uuid),
    *_taken_back(),
    Index("ix_plan_line_done", "work", "number", postgresql_where=text("minutes IS NOT NULL")),
    CheckConstraint("minutes > 0", name="minutes"),
)

plan_part = Table(
    "plan_part",
    metadata,
    _number(),
    _id(),
    Column("line_id", Uuid, ForeignKey("plan_line.id"), nullable=False, index=True),
    Column("item_id", Uuid, ForeignKey("stock_item.id"), nullable=False, index=True),
    Column("count", Numeric, nullable=False),
    Column("price", Numeric, nullable=False),
    Column("added_by", Text, nullable=False),
    now_column("added_at"),
    *_taken_back(),
    CheckConstraint("count > 0 AND price >= 0", name="amounts"),
)

plan_time = Table(
    "plan_time",
    metadata,
    _number(),
    _id(),
    Column("line_id", Uuid, ForeignKey("plan_line.id"), nullable=False, index=True),
    Column("begun_by", Text, nullable=False),
    now_column("begun_at"),
    Column("ended_at", DateTime(timezone=True)),
    Index("ix_plan_time_running", "line_id", unique=True, postgresql_where=text("ended_at IS NULL")),
)

approval = Table(
    "approval",
    metadata,
    _number(),
    _id(),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("who", Text, nullable=False),
    Column("how", Text, nullable=False),
    Column("lines", ARRAY(Uuid), nullable=False),
    Column("total", Numeric, nullable=False),
    Column("up_to", Numeric, nullable=False),
    Column("currency", Text, nullable=False),
    _said("words"),
    _said("signature"),
    Column("terms", JSONB, nullable=False, server_default="{}"),
    Column("prices", JSONB, nullable=False, server_default="{}"),
    Column("entered_by", Text, nullable=False),
    now_column("approved_at"),
    *_taken_back(),
    CheckConstraint("up_to >= 0", name="up_to"),
)

document_series = Table(
    "document_series",
    metadata,
    Column("kind", Text, primary_key=True),
    Column("year", Integer, primary_key=True),
    Column("last", Integer, nullable=False),
)
"""The last number of each kind of document in a year. Its row is locked while one is issued: none is left out."""

document = Table(
    "document",
    metadata,
    _number(),
    _id(),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("kind", Text, nullable=False),
    Column("code", Text, nullable=False, unique=True),
    Column("issued_on", Date, nullable=False),
    Column("due_on", Date),
    Column("cancels", Uuid, ForeignKey("document.id"), unique=True),
    Column("total", Numeric, nullable=False),
    Column("currency", Text, nullable=False),
    Column("content", JSONB, nullable=False),
    Column("issued_by", Text, nullable=False),
    now_column("issued_at"),
    CheckConstraint("kind IN ('estimate', 'invoice', 'credit_note')", name="kind_known"),
    CheckConstraint("(kind = 'credit_note') = (cancels IS NOT NULL)", name="cancels_one"),
)

payment = Table(
    "payment",
    metadata,
    _number(),
    _id(),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("amount", Numeric, nullable=False),
    Column("currency", Text, nullable=False),
    Column("way", Text, nullable=False),
    Column("paid_on", Date, nullable=False),
    _said("remark"),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    *_taken_back(),
    CheckConstraint("amount <> 0", name="amount"),
    CheckConstraint("way IN ('cash', 'card', 'transfer')", name="way_known"),
)

plan_discount = Table(
    "plan_discount",
    metadata,
    _number(),
    _id(),
    Column("visit_id", Uuid, ForeignKey("visit.id"), nullable=False, index=True),
    Column("percent", Numeric, nullable=False),
    _said("reason"),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    CheckConstraint("percent BETWEEN 0 AND 100", name="percent"),
)

shop_entry = Table(
    "shop_entry",
    metadata,
    _number(),
    _id(),
    Column("setting", Text, nullable=False),
    Column("value", Text, nullable=False),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Index("ix_shop_entry_setting", "setting", "number"),
)
