"""Who works here, from which browsers, and what they did."""

from __future__ import annotations

from sqlalchemy import (
    BigInteger,
    Boolean,
    CheckConstraint,
    Column,
    DateTime,
    ForeignKey,
    Identity,
    Index,
    LargeBinary,
    Table,
    Text,
    Uuid,
    func,
    text,
)
from sqlalchemy.dialects import postgresql
from sqlalchemy.dialects.postgresql import JSONB

from fidicula.db.schema.base import metadata, now_column

person = Table(
    "person",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("name", Text, nullable=False),
    Column("role", Text, nullable=False),
    Column("password_hash", Text),
    Column("pin_hash", Text),
    Column("active", Boolean, nullable=False, server_default="true"),
    now_column("created_at"),
    CheckConstraint("role IN ('owner', 'luthier', 'apprentice', 'desk')", name="role_known"),
)
Index("uq_person_lower_name", func.lower(person.c.name), unique=True)
Index("uq_person_lower_name", func.lower(person.c.name), unique=True)

browser = Table(
    "browser",
    metadata,
    Column("id", Uuid, primary_key=True),
    Column("token_hash", LargeBinary, nullable=False, unique=True),
    Column("name", Text, nullable=False),
    # Over the workshop's network, by the code; else on this computer itself.
    Column("is_paired", Boolean, nullable=False, server_default="false"),
    # Who signed in here with a password before.
    Column("known_people", postgresql.ARRAY(Uuid), nullable=False, server_default="{}"),
    now_column("created_at"),
    now_column("last_seen_at"),
    Column("revoked_at", DateTime(timezone=True)),
    Column("revoked_by", Text),
)

sign_in = Table(
    "sign_in",
    metadata,
    Column("token_hash", LargeBinary, primary_key=True),
    Column("form_token", Text, nullable=False),
    Column("person_id", Uuid, ForeignKey("person.id"), nullable=False),
    Column("at_bench_id", Uuid, ForeignKey("person.id"), nullable=False),
    Column("others_in", postgresql.ARRAY(Uuid), nullable=False, server_default="{}"),
    Column("browser_id", Uuid, ForeignKey("browser.id"), nullable=False, index=True),
    # Who gave the password again, and when.
    Column("confirmed_by", Uuid),
    Column("confirmed_at", DateTime(timezone=True)),
    Column("last_seen_at", DateTime(timezone=True), nullable=False, server_default=func.now()),
    now_column("created_at"),
)

guess = Table(
    "guess",
    metadata,
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    Column("at_what", Text, nullable=False),
    Column("from_where", Text, nullable=False),
    now_column("guessed_at"),
    Index("ix_guess_from_where_guessed_at", "from_where", "guessed_at"),
    Index("ix_guess_guessed_at", "guessed_at"),
)

audit_entry = Table(
    "audit_entry",
    metadata,
    # Triggers keep every line as it was written.
    Column("number", BigInteger, Identity(always=True), primary_key=True),
    now_column("at"),
    Column("act", Text, nullable=False),
    Column("subject", Text, nullable=False, server_default=""),
    Column("instrument_id", Uuid, ForeignKey("instrument.id")),
    Column("detail", JSONB, nullable=False, server_default="{}"),
    Column("by", Text, nullable=False),
    Column("browser", Text, nullable=False, server_default=""),
    Column("request_id", Text, nullable=False, server_default=""),
    Index("ix_audit_entry_instrument_id_number", "instrument_id", "number"),
    Index(
        "ix_audit_entry_door",
        "act",
        "number",
        postgresql_where=text("act IN ('person.signed_in', 'person.guessed_at')"),
    ),
)
