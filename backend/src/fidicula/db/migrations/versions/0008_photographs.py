"""Photographs"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "photo",
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("visit_id", sa.Uuid(), nullable=False),
        sa.Column("item", sa.Text(), nullable=False),
        sa.Column("words", sa.Text(), server_default="", nullable=False),
        sa.Column("camera", sa.Text(), server_default="", nullable=False),
        sa.Column("width", sa.SmallInteger(), nullable=False),
        sa.Column("height", sa.SmallInteger(), nullable=False),
        sa.Column("jpeg", sa.LargeBinary(), nullable=False),
        sa.Column("small", sa.LargeBinary(), nullable=False),
        sa.Column("taken_by", sa.Text(), nullable=False),
        sa.Column("taken_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.Column("taken_back_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("taken_back_by", sa.Text(), nullable=True),
        sa.ForeignKeyConstraint(["visit_id"], ["visit.id"], name=op.f("fk_photo_visit_id_visit")),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_photo")),
        sa.UniqueConstraint("id", name=op.f("uq_photo_id")),
    )
    op.create_index("ix_photo_visit_id_number", "photo", ["visit_id", "number"])
    # Pictures are as small as they get: trying to press them further only takes time.
    op.execute("ALTER TABLE photo ALTER COLUMN jpeg SET STORAGE EXTERNAL")


def downgrade() -> None:
    op.drop_table("photo")
