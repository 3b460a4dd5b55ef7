"""Browsers by name, the password given again, guesses counted for each browser, and who changed what"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def _now(name: str) -> sa.Column:
    return sa.Column(name, sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now())


def upgrade() -> None:
    op.create_table(
        "browser",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("token_hash", sa.LargeBinary, nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("is_paired", sa.Boolean, nullable=False, server_default="false"),
        sa.Column("known_people", sa.ARRAY(sa.Uuid), nullable=False, server_default="{}"),
        _now("created_at"),
        _now("last_seen_at"),
        sa.Column("revoked_at", sa.DateTime(timezone=True)),
        sa.Column("revoked_by", sa.Text),
        sa.PrimaryKeyConstraint("id", name="pk_browser"),
        sa.UniqueConstraint("token_hash", name="uq_browser_token_hash"),
    )
    # Whoever was signed in signs in once more, in a browser that has a name from then on.
    op.execute("DELETE FROM sign_in")
    op.add_column("sign_in", sa.Column("browser_id", sa.Uuid, nullable=False))
    op.create_foreign_key("fk_sign_in_browser_id_browser", "sign_in", "browser", ["browser_id"], ["id"])
    op.create_index("ix_sign_in_browser_id", "sign_in", ["browser_id"])
    op.add_column("sign_in", sa.Column("confirmed_by", sa.Uuid))
    op.add_column("sign_in", sa.Column("confirmed_at", sa.DateTime(timezone=True)))
    op.execute("DELETE FROM wrong_guess")
    op.rename_table("wrong_guess", "guess")
    op.execute("ALTER INDEX pk_wrong_guess RENAME TO pk_guess")
    op.drop_index("ix_wrong_guess_at_what_guessed_at", "guess")
    op.add_column("guess", sa.Column("from_where", sa.Text, nullable=False))
    op.create_index("ix_guess_from_where_guessed_at", "guess", ["from_where", "guessed_at"])
    op.create_index("ix_guess_guessed_at", "guess", ["guessed_at"])
    op.create_table(
        "audit_entry",
        sa.Column("number", sa.BigInteger, sa.Identity(always=True), nullable=False),
        _now("at"),
        sa.Column("act", sa.Text, nullable=False),
        sa.Column("subject", sa.Text, nullable=False, server_default=""),
        sa.Column("instrument_id", sa.Uuid),
        sa.Column("detail", JSONB, nullable=False, server_default="{}"),
        sa.Column("by", sa.Text, nullable=False),
        sa.Column("browser", sa.Text, nullable=False, server_default=""),
        sa.Column("request_id", sa.Text, nullable=False, server_default=""),
        sa.PrimaryKeyConstraint("number", name="pk_audit_entry"),
        sa.ForeignKeyConstraint(["instrument_id"], ["instrument.id"], name="fk_audit_entry_instrument_id_instrument"),
    )
    op.create_index("ix_audit_entry_instrument_id_number", "audit_entry", ["instrument_id", "number"])
    op.execute(
        "CREATE FUNCTION keep_as_written() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "RAISE EXCEPTION 'what is in the audit stays as it was written'; END $$"
    )
    op.execute(
        "CREATE TRIGGER kept BEFORE UPDATE OR DELETE OR TRUNCATE ON audit_entry "
        "FOR EACH STATEMENT EXECUTE FUNCTION keep_as_written()"
    )


def downgrade() -> None:
    op.drop_table("audit_entry")
    op.execute("DROP FUNCTION keep_as_written")
    op.drop_index("ix_guess_guessed_at", "guess")
    op.drop_index("ix_guess_from_where_guessed_at", "guess")
    op.drop_column("guess", "from_where")
    op.create_index("ix_wrong_guess_at_what_guessed_at", "guess", ["at_what", "guessed_at"])
    op.execute("ALTER INDEX pk_guess RENAME TO pk_wrong_guess")
    op.rename_table("guess", "wrong_guess")
    op.execute("DELETE FROM sign_in")
    op.drop_column("sign_in", "confirmed_at")
    op.drop_column("sign_in", "confirmed_by")
    op.drop_column("sign_in", "browser_id")
    op.drop_table("browser")
