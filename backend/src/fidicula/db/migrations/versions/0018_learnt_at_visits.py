"""What a visit taught: how far repeats of each hand lie apart, and what the strings came down by as they settled"""

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "hand_repeats",
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), primary_key=True),
        sa.Column("visit_id", sa.Uuid(), sa.ForeignKey("visit.id"), nullable=False),
        sa.Column("person", sa.Text(), nullable=False),
        sa.Column("tool", sa.Text(), nullable=False),
        sa.Column("squares", sa.Double(), nullable=False),
        sa.Column("free", sa.SmallInteger(), nullable=False),
        sa.UniqueConstraint("visit_id", "person", "tool"),
        sa.CheckConstraint("squares >= 0 AND free > 0", name="something_shown"),
    )
    op.add_column(
        "visit", sa.Column("settled", sa.ARRAY(sa.Double()), server_default=sa.text("'{}'::float8[]"), nullable=False)
    )


def downgrade() -> None:
    op.drop_column("visit", "settled")
    op.drop_table("hand_repeats")
