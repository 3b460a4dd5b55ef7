"""Decisions, each with its reason"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "decision",
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("visit_id", sa.Uuid(), nullable=False),
        sa.Column("question", sa.Text(), nullable=False),
        sa.Column("outcome", sa.Text(), nullable=False),
        sa.Column("reason", sa.Text(), server_default="", nullable=False),
        sa.Column("at_value", sa.Double(), nullable=True),
        sa.Column("decided_by", sa.Text(), nullable=False),
        sa.Column("decided_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.Column("taken_back_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("taken_back_by", sa.Text(), nullable=True),
        sa.ForeignKeyConstraint(["visit_id"], ["visit.id"], name=op.f("fk_decision_visit_id_visit")),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_decision")),
        sa.UniqueConstraint("id", name=op.f("uq_decision_id")),
    )
    op.create_index("ix_decision_visit_id_number", "decision", ["visit_id", "number"])


def downgrade() -> None:
    op.drop_table("decision")
