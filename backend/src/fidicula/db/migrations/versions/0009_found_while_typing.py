"""Found while typing, also among twenty thousand"""

from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # Part of PostgreSQL's own packages: three letters of a word lead to the rows that have them.
    op.execute("CREATE EXTENSION IF NOT EXISTS pg_trgm")
    op.execute(
        "ALTER TABLE instrument ADD COLUMN known_by text "
        "GENERATED ALWAYS AS (lower(ticket COLLATE \"default\" || ' ' || owner || ' ' || description)) STORED"
    )
    op.execute("CREATE INDEX ix_instrument_known_by ON instrument USING gin (known_by gin_trgm_ops)")
    op.execute("CREATE INDEX ix_visit_opened_at ON visit (opened_at)")
    op.execute("CREATE INDEX ix_visit_open ON visit (instrument_id) WHERE closed_at IS NULL")


def downgrade() -> None:
    for name in ("ix_visit_open", "ix_visit_opened_at", "ix_instrument_known_by"):
        op.execute(f"DROP INDEX {name}")
    op.execute("ALTER TABLE instrument DROP COLUMN known_by")
    op.execute("DROP EXTENSION pg_trgm")
