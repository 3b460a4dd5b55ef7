"""What is planned and priced, what the owner approved, what lies in the drawers, and the shop's settings"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None

_KNOWN_BY = "lower(kind || ' ' || label || ' ' || place || ' ' || supplier)"


def _log(name, *columns):
    op.create_table(
        name,
        sa.Column("number", sa.BigInteger, sa.Identity(always=True), primary_key=True),
        sa.Column("id", sa.Uuid, nullable=False, unique=True),
        *columns,
    )


def _now(name):
    return sa.Column(name, sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now())


def _text(name):
    return sa.Column(name, sa.Text, nullable=False, server_default="")


def _taken_back():
    return sa.Column("taken_back_at", sa.DateTime(timezone=True)), sa.Column("taken_back_by", sa.Text)


def upgrade() -> None:
    op.create_table(
        "stock_item",
        sa.Column("id", sa.Uuid, primary_key=True),
        sa.Column("kind", sa.Text, nullable=False),
        _text("family"),
        sa.Column("label", sa.Text, nullable=False),
        sa.Column("figure", sa.Numeric),
        sa.Column("details", JSONB, nullable=False, server_default="{}"),
        _text("place"),
        sa.Column("reorder_at", sa.Numeric, nullable=False, server_default="0"),
        _text("supplier"),
        sa.Column("string_set_id", sa.Uuid, sa.ForeignKey("string_set.id")),
        sa.Column("added_by", sa.Text, nullable=False),
        _now("added_at"),
        sa.Column("known_by", sa.Text, sa.Computed(_KNOWN_BY, persisted=True)),
        sa.CheckConstraint("figure > 0 AND reorder_at >= 0", name="ck_stock_item_amounts"),
    )
    op.execute("CREATE INDEX ix_stock_item_known_by ON stock_item USING gin (known_by gin_trgm_ops)")
    op.create_index("ix_stock_item_kind", "stock_item", ["kind", "family"])
    _log(
        "stock_entry",
        sa.Column("item_id", sa.Uuid, sa.ForeignKey("stock_item.id"), nullable=False),
        sa.Column("what", sa.Text, nullable=False),
        sa.Column("value", sa.Numeric, nullable=False),
        _text("reason"),
        sa.Column("entered_by", sa.Text, nullable=False),
        _now("entered_at"),
        sa.CheckConstraint("what = 'count' OR what = 'price' AND value >= 0", name="ck_stock_entry_what"),
    )
    op.create_index("ix_stock_entry_item_id", "stock_entry", ["item_id", "what", "number"])
    _log(
        "plan_line",
        sa.Column("visit_id", sa.Uuid, sa.ForeignKey("visit.id"), nullable=False),
        sa.Column("work", sa.Text, nullable=False),
        sa.Column("grade", sa.Text, nullable=False),
        sa.Column("origin", sa.Text, nullable=False),
        _text("because"),
        _text("reason"),
        sa.Column("place", sa.Double, nullable=False),
        sa.Column("added_by", sa.Text, nullable=False),
        _now("added_at"),
        sa.Column("done_at", sa.DateTime(timezone=True)),
        sa.Column("done_by", sa.Text),
        sa.Column("minutes", sa.Numeric),
        sa.Column("work_id", sa.Uuid),
        *_taken_back(),
        sa.CheckConstraint("minutes > 0", name="ck_plan_line_minutes"),
    )
    op.create_index("ix_plan_line_visit_id", "plan_line", ["visit_id"])
    op.execute("CREATE INDEX ix_plan_line_done ON plan_line (work, number) WHERE minutes IS NOT NULL")
    _log(
        "plan_part",
        sa.Column("line_id", sa.Uuid, sa.ForeignKey("plan_line.id"), nullable=False),
        sa.Column("item_id", sa.Uuid, sa.ForeignKey("stock_item.id"), nullable=False),
        sa.Column("count", sa.Numeric, nullable=False),
        sa.Column("price", sa.Numeric, nullable=False),
        sa.Column("added_by", sa.Text, nullable=False),
        _now("added_at"),
        *_taken_back(),
        sa.CheckConstraint("count > 0 AND price >= 0", name="ck_plan_part_amounts"),
    )
    op.create_index("ix_plan_part_line_id", "plan_part", ["line_id"])
    op.create_index("ix_plan_part_item_id", "plan_part", ["item_id"])
    _log(
        "plan_time",
        sa.Column("line_id", sa.Uuid, sa.ForeignKey("plan_line.id"), nullable=False),
        sa.Column("begun_by", sa.Text, nullable=False),
        _now("begun_at"),
        sa.Column("ended_at", sa.DateTime(timezone=True)),
    )
    op.execute("CREATE UNIQUE INDEX ix_plan_time_running ON plan_time (line_id) WHERE ended_at IS NULL")
    op.create_index("ix_plan_time_line_id", "plan_time", ["line_id"])
    _log(
        "approval",
        sa.Column("visit_id", sa.Uuid, sa.ForeignKey("visit.id"), nullable=False),
        sa.Column("who", sa.Text, nullable=False),
        sa.Column("how", sa.Text, nullable=False),
        sa.Column("lines", sa.ARRAY(sa.Uuid), nullable=False),
        sa.Column("total", sa.Numeric, nullable=False),
        sa.Column("up_to", sa.Numeric, nullable=False),
        sa.Column("currency", sa.Text, nullable=False),
        _text("words"),
        _text("signature"),
        sa.Column("entered_by", sa.Text, nullable=False),
        _now("approved_at"),
        *_taken_back(),
        sa.CheckConstraint("up_to >= 0", name="ck_approval_up_to"),
    )
    op.create_index("ix_approval_visit_id", "approval", ["visit_id"])
    _log(
        "plan_discount",
        sa.Column("visit_id", sa.Uuid, sa.ForeignKey("visit.id"), nullable=False),
        sa.Column("percent", sa.Numeric, nullable=False),
        _text("reason"),
        sa.Column("entered_by", sa.Text, nullable=False),
        _now("entered_at"),
        sa.CheckConstraint("percent BETWEEN 0 AND 100", name="ck_plan_discount_percent"),
    )
    op.create_index("ix_plan_discount_visit_id", "plan_discount", ["visit_id"])
    _log(
        "shop_entry",
        sa.Column("setting", sa.Text, nullable=False),
        sa.Column("value", sa.Text, nullable=False),
        sa.Column("entered_by", sa.Text, nullable=False),
        _now("entered_at"),
    )
    op.create_index("ix_shop_entry_setting", "shop_entry", ["setting", "number"])


def downgrade() -> None:
    for name in (
        "plan_time",
        "plan_part",
        "plan_line",
        "plan_discount",
        "approval",
        "stock_entry",
        "stock_item",
        "shop_entry",
    ):
        op.drop_table(name)
