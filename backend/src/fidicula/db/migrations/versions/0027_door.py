"""Who signed in and who guessed is found in the audit without reading all of it"""

import sqlalchemy as sa
from alembic import op

revision = "0027"
down_revision = "0026"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_index(
        "ix_audit_entry_door",
        "audit_entry",
        ["act", "number"],
        postgresql_where=sa.text("act IN ('person.signed_in', 'person.guessed_at')"),
    )


def downgrade() -> None:
    op.drop_index("ix_audit_entry_door", "audit_entry")
