"""The id of every entry is kept with a digest of what was entered, so that it serves for no other"""

import sqlalchemy as sa
from alembic import op

revision = "0026"
down_revision = "0025"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "entry",
        sa.Column("id", sa.Uuid, primary_key=True),
        sa.Column("digest", sa.LargeBinary, nullable=False),
        sa.Column("ticket", sa.Text, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("entry")
