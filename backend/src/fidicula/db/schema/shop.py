"""What the shop goes by: figures, recipes, targets, sizes, the shelf."""

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
    Table,
    Text,
    UniqueConstraint,
    Uuid,
)
from sqlalchemy.dialects.postgresql import JSONB

from fidicula.db.schema.base import metadata, now_column

figure_entry = Table(
    "figure_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("family", Text, nullable=False),
    Column("size", Text, nullable=False),
    Column("measure", Text, nullable=False),
    Column("question", Text, nullable=False),
    Column("school", Text, nullable=False),
    Column("low", Double),
    Column("aim", Double),
    Column("high", Double),
    Column("source", Text, nullable=False),
    Column("confirmed_by", Text),
    Column("withdrawn", Boolean, nullable=False, server_default="false"),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Index("ix_figure_entry_key", "family", "size", "measure", "question", "school", "number"),
)

recipe_entry = Table(
    "recipe_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("family", Text, nullable=False),
    Column("name", Text, nullable=False),
    Column("schools", JSONB, nullable=False),
    Column("retired", Boolean, nullable=False, server_default="false"),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Index("ix_recipe_entry_family_name_number", "family", "name", "number"),
)

shop_recipe = Table(
    "shop_recipe",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("family", Text, nullable=False, index=True),
    Column("recipe", Text, nullable=False),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
)

target_choice = Table(
    "target_choice",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("instrument_id", Uuid, ForeignKey("instrument.id"), nullable=False),
    Column("recipe", Text),
    Column("schools", JSONB, nullable=False, server_default="{}"),
    Column("sources", JSONB, nullable=False, server_default="{}"),
    Column("reason", Text, nullable=False, server_default=""),
    Column("chosen_by", Text, nullable=False),
    now_column("chosen_at"),
    Column("taken_back_at", DateTime(timezone=True)),
    Column("taken_back_by", Text),
    Index("ix_target_choice_instrument_id_number", "instrument_id", "number"),
)

rules_stamp = Table(
    "rules_stamp",
    metadata,
    # One row. Triggers change it with whatever the shop goes by: its lock lets one such commit follow the other, and
    # what was rolled back is never given out again.
    Column("is_it", Boolean, primary_key=True, server_default="true"),
    Column("stamp", BigInteger, nullable=False, server_default="0"),
    CheckConstraint("is_it", name="one_row"),
)

shelf_entry = Table(
    "shelf_entry",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("id", Uuid, nullable=False, unique=True),
    Column("list", Text, nullable=False),
    Column("family", Text, nullable=False),
    Column("values", ARRAY(Double), nullable=False),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    Index("ix_shelf_entry_family_list_number", "family", "list", "number"),
)

own_size = Table(
    "own_size",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("family", Text, nullable=False),
    Column("size", Text, nullable=False),
    Column("entered_by", Text, nullable=False),
    now_column("entered_at"),
    UniqueConstraint("family", "size"),
)
