"""A serial number of each instrument; it is found by it while typing"""

from alembic import op

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None

_BEFORE = "lower(ticket COLLATE \"default\" || ' ' || owner || ' ' || description)"
_NOW = "lower(ticket COLLATE \"default\" || ' ' || serial || ' ' || owner || ' ' || description)"


def upgrade() -> None:
    op.execute("ALTER TABLE instrument ADD COLUMN serial text NOT NULL DEFAULT ''")
    _known_by(_NOW)


def downgrade() -> None:
    _known_by(_BEFORE)
    op.execute("ALTER TABLE instrument DROP COLUMN serial")


def _known_by(words: str) -> None:
    op.execute("DROP INDEX ix_instrument_known_by")
    op.execute("ALTER TABLE instrument DROP COLUMN known_by")
    op.execute(f"ALTER TABLE instrument ADD COLUMN known_by text GENERATED ALWAYS AS ({words}) STORED")
    op.execute("CREATE INDEX ix_instrument_known_by ON instrument USING gin (known_by gin_trgm_ops)")
