"""What the shop has on hand, in short lists"""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "shelf_entry",
        sa.Column("number", sa.BigInteger, sa.Identity(always=True), primary_key=True),
        sa.Column("id", sa.Uuid, nullable=False, unique=True),
        sa.Column("list", sa.Text, nullable=False),
        sa.Column("family", sa.Text, nullable=False),
        sa.Column("values", sa.ARRAY(sa.Double), nullable=False),
        sa.Column("entered_by", sa.Text, nullable=False),
        sa.Column("entered_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now()),
    )
    op.create_index("ix_shelf_entry_family_list_number", "shelf_entry", ["family", "list", "number"])


def downgrade() -> None:
    op.drop_table("shelf_entry")
