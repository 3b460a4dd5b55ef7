"""The log of readings, and what it hangs on"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("CREATE COLLATION natural_order (provider = icu, locale = 'und-u-kn')")
    op.create_table(
        "instrument",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("ticket", sa.Text(collation="natural_order"), nullable=False),
        sa.Column("family", sa.Text(), nullable=False),
        sa.Column("size", sa.Text(), nullable=False),
        sa.Column("string_names", sa.ARRAY(sa.Text()), nullable=False),
        sa.Column("left_handed", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("is_new", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("owner", sa.Text(), server_default="", nullable=False),
        sa.Column("description", sa.Text(), server_default="", nullable=False),
        sa.Column("schools", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.CheckConstraint(
            "cardinality(string_names) BETWEEN 3 AND 6", name=op.f("ck_instrument_three_to_six_strings")
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_instrument")),
        sa.UniqueConstraint("ticket", name=op.f("uq_instrument_ticket")),
    )
    op.create_table(
        "string_set",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("family", sa.Text(), nullable=False),
        sa.Column("material", sa.Text(), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_string_set")),
        sa.UniqueConstraint("name", "family", name=op.f("uq_string_set_name_family")),
    )
    op.create_table(
        "string_of_set",
        sa.Column("string_set_id", sa.Uuid(), nullable=False),
        sa.Column("position", sa.SmallInteger(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("diameter", sa.Double(), nullable=False),
        sa.Column("tension", sa.Double(), nullable=True),
        sa.Column("linear_density", sa.Double(), nullable=True),
        sa.CheckConstraint("diameter > 0", name=op.f("ck_string_of_set_diameter_above_0")),
        sa.ForeignKeyConstraint(
            ["string_set_id"],
            ["string_set.id"],
            name=op.f("fk_string_of_set_string_set_id_string_set"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("string_set_id", "position", name=op.f("pk_string_of_set")),
    )
    op.create_table(
        "visit",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("instrument_id", sa.Uuid(), nullable=False),
        sa.Column("kind", sa.Text(), nullable=False),
        sa.Column("complaint", sa.Text(), server_default="", nullable=False),
        sa.Column("opened_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.Column("closed_at", sa.DateTime(timezone=True), nullable=True),
        sa.ForeignKeyConstraint(["instrument_id"], ["instrument.id"], name=op.f("fk_visit_instrument_id_instrument")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_visit")),
    )
    op.create_index(op.f("ix_visit_instrument_id"), "visit", ["instrument_id"], unique=False)
    op.create_table(
        "work_done",
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("visit_id", sa.Uuid(), nullable=False),
        sa.Column("work", sa.Text(), nullable=False),
        sa.Column("done_by", sa.Text(), nullable=False),
        sa.Column("done_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.Column("detail", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.Column("string_set_id", sa.Uuid(), nullable=True),
        sa.Column("taken_back_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("taken_back_by", sa.Text(), nullable=True),
        sa.ForeignKeyConstraint(
            ["string_set_id"], ["string_set.id"], name=op.f("fk_work_done_string_set_id_string_set")
        ),
        sa.ForeignKeyConstraint(["visit_id"], ["visit.id"], name=op.f("fk_work_done_visit_id_visit")),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_work_done")),
        sa.UniqueConstraint("id", name=op.f("uq_work_done_id")),
    )
    op.create_index(op.f("ix_work_done_visit_id"), "work_done", ["visit_id"], unique=False)
    op.create_table(
        "reading",
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("visit_id", sa.Uuid(), nullable=False),
        sa.Column("measure", sa.Text(), nullable=False),
        sa.Column("position", sa.SmallInteger(), nullable=True),
        sa.Column("typed", sa.Text(), nullable=False),
        sa.Column("value", sa.Double(), nullable=False),
        sa.Column("tool", sa.Text(), nullable=False),
        sa.Column("direction", sa.Text(), nullable=True),
        sa.Column("taken_by", sa.Text(), nullable=False),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("recorded_at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False),
        sa.Column("after_work", sa.BigInteger(), nullable=True),
        sa.Column("corrected_by", sa.BigInteger(), nullable=True),
        sa.Column("repeats", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("doubt", sa.Text(), nullable=True),
        sa.Column("suggested", sa.Double(), nullable=True),
        sa.Column("confirmed_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("confirmed_by", sa.Text(), nullable=True),
        sa.Column("taken_back_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("taken_back_by", sa.Text(), nullable=True),
        sa.ForeignKeyConstraint(["after_work"], ["work_done.number"], name=op.f("fk_reading_after_work_work_done")),
        sa.ForeignKeyConstraint(["corrected_by"], ["reading.number"], name=op.f("fk_reading_corrected_by_reading")),
        sa.ForeignKeyConstraint(["visit_id"], ["visit.id"], name=op.f("fk_reading_visit_id_visit")),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_reading")),
        sa.UniqueConstraint("id", name=op.f("uq_reading_id")),
    )
    op.create_index(op.f("ix_reading_corrected_by"), "reading", ["corrected_by"], unique=False)
    op.create_index("ix_reading_visit_id_number", "reading", ["visit_id", "number"], unique=False)


def downgrade() -> None:
    op.drop_index("ix_reading_visit_id_number", table_name="reading")
    op.drop_table("reading")
    op.drop_index(op.f("ix_work_done_visit_id"), table_name="work_done")
    op.drop_table("work_done")
    op.drop_index(op.f("ix_visit_instrument_id"), table_name="visit")
    op.drop_table("visit")
    op.drop_table("string_of_set")
    op.drop_table("string_set")
    op.drop_table("instrument")
    op.execute("DROP COLLATION natural_order")
