"""What is seen, said of a step and changed of particulars; checked tools, own sizes; where a visit stands"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def _log_columns(by: str, at: str) -> list[sa.Column[object]]:
    return [
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column(by, sa.Text(), nullable=False),
        sa.Column(at, sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
    ]


def _taken_back() -> list[sa.Column[object]]:
    return [
        sa.Column("after_work", sa.BigInteger(), server_default="0", nullable=False),
        sa.Column("taken_back_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("taken_back_by", sa.Text(), nullable=True),
    ]


def upgrade() -> None:
    op.add_column("instrument", sa.Column("is_fleet", sa.Boolean(), server_default="false", nullable=False))
    op.add_column("visit", sa.Column("at_step", sa.Text(), server_default="", nullable=False))
    op.add_column("visit", sa.Column("waits_for", sa.Text(), server_default="", nullable=False))
    op.add_column("visit", sa.Column("waits_until", sa.DateTime(timezone=True), nullable=True))
    op.create_table(
        "seen",
        *_log_columns("seen_by", "seen_at"),
        sa.Column("visit_id", sa.Uuid(), nullable=False),
        sa.Column("item", sa.Text(), nullable=False),
        sa.Column("verdict", sa.Text(), nullable=False),
        sa.Column("findings", postgresql.ARRAY(sa.Text()), server_default="{}", nullable=False),
        sa.Column("words", sa.Text(), server_default="", nullable=False),
        *_taken_back(),
        sa.CheckConstraint("verdict IN ('fine', 'watch', 'work', 'not_looked_at')", name=op.f("ck_seen_verdict_known")),
        sa.ForeignKeyConstraint(["visit_id"], ["visit.id"], name=op.f("fk_seen_visit_id_visit")),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_seen")),
        sa.UniqueConstraint("id", name=op.f("uq_seen_id")),
    )
    op.create_index("ix_seen_visit_id_number", "seen", ["visit_id", "number"])
    op.create_table(
        "course_mark",
        *_log_columns("made_by", "made_at"),
        sa.Column("visit_id", sa.Uuid(), nullable=False),
        sa.Column("step", sa.Text(), nullable=False),
        sa.Column("mark", sa.Text(), nullable=False),
        sa.Column("reason", sa.Text(), server_default="", nullable=False),
        sa.Column("until", sa.DateTime(timezone=True), nullable=True),
        *_taken_back(),
        sa.CheckConstraint("mark IN ('done', 'passed', 'wait', 'go_on')", name=op.f("ck_course_mark_mark_known")),
        sa.ForeignKeyConstraint(["visit_id"], ["visit.id"], name=op.f("fk_course_mark_visit_id_visit")),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_course_mark")),
        sa.UniqueConstraint("id", name=op.f("uq_course_mark_id")),
    )
    op.create_index("ix_course_mark_visit_id_number", "course_mark", ["visit_id", "number"])
    op.create_table(
        "particular",
        *_log_columns("written_by", "written_at"),
        sa.Column("instrument_id", sa.Uuid(), nullable=False),
        sa.Column("visit_id", sa.Uuid(), nullable=False),
        sa.Column("field", sa.Text(), nullable=False),
        sa.Column("was", sa.Text(), nullable=False),
        sa.Column("now", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(
            ["instrument_id"], ["instrument.id"], name=op.f("fk_particular_instrument_id_instrument")
        ),
        sa.ForeignKeyConstraint(["visit_id"], ["visit.id"], name=op.f("fk_particular_visit_id_visit")),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_particular")),
        sa.UniqueConstraint("id", name=op.f("uq_particular_id")),
    )
    op.create_index("ix_particular_instrument_id_number", "particular", ["instrument_id", "number"])
    op.create_table(
        "tool_check",
        *_log_columns("checked_by", "checked_at"),
        sa.Column("tool", sa.Text(), nullable=False),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_tool_check")),
        sa.UniqueConstraint("id", name=op.f("uq_tool_check_id")),
    )
    op.create_table(
        "own_size",
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("family", sa.Text(), nullable=False),
        sa.Column("size", sa.Text(), nullable=False),
        sa.Column("entered_by", sa.Text(), nullable=False),
        sa.Column("entered_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_own_size")),
        sa.UniqueConstraint("family", "size", name=op.f("uq_own_size_family_size")),
    )


def downgrade() -> None:
    for name in ("own_size", "tool_check", "particular", "course_mark", "seen"):
        op.drop_table(name)
    for name in ("waits_until", "waits_for", "at_step"):
        op.drop_column("visit", name)
    op.drop_column("instrument", "is_fleet")
