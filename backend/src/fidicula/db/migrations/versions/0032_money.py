"""Prices as they were agreed, documents with numbers of their own, payments; an index that was missing"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

from fidicula.db.migrations import fits

revision = "0032"
down_revision = "0031"
branch_labels = None
depends_on = None

KEPT = (("plan_line", "terms"), ("approval", "terms"), ("approval", "prices"))
NEW = ("document", "payment")


def _log() -> list[sa.Column[object]]:
    return [
        sa.Column("number", sa.BigInteger, sa.Identity(always=True), primary_key=True),
        sa.Column("id", sa.Uuid, nullable=False, unique=True),
        sa.Column("visit_id", sa.Uuid, sa.ForeignKey("visit.id"), nullable=False, index=True),
    ]


def upgrade() -> None:
    op.create_index(op.f("ix_particular_visit_id"), "particular", ["visit_id"])
    for table, name in KEPT:
        op.add_column(table, sa.Column(name, JSONB, nullable=False, server_default="{}"))
    op.add_column("plan_line", sa.Column("refused", sa.Uuid))
    op.create_table(
        "document_series",
        sa.Column("kind", sa.Text, primary_key=True),
        sa.Column("year", sa.Integer, primary_key=True),
        sa.Column("last", sa.Integer, nullable=False),
    )
    op.create_table(
        "document",
        *_log(),
        *(sa.Column(name, sa.Text, nullable=False) for name in ("kind", "code")),
        sa.Column("issued_on", sa.Date, nullable=False),
        sa.Column("due_on", sa.Date),
        sa.Column("cancels", sa.Uuid, sa.ForeignKey("document.id"), unique=True),
        sa.Column("total", sa.Numeric, nullable=False),
        sa.Column("currency", sa.Text, nullable=False),
        sa.Column("content", JSONB, nullable=False),
        sa.Column("issued_by", sa.Text, nullable=False),
        sa.Column("issued_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now()),
        sa.UniqueConstraint("code"),
        sa.CheckConstraint("kind IN ('estimate', 'invoice', 'credit_note')", name="kind_known"),
        sa.CheckConstraint("(kind = 'credit_note') = (cancels IS NOT NULL)", name="cancels_one"),
    )
    op.create_table(
        "payment",
        *_log(),
        sa.Column("amount", sa.Numeric, nullable=False),
        *(sa.Column(name, sa.Text, nullable=False) for name in ("currency", "way")),
        sa.Column("paid_on", sa.Date, nullable=False),
        sa.Column("remark", sa.Text, nullable=False, server_default=""),
        sa.Column("entered_by", sa.Text, nullable=False),
        sa.Column("entered_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now()),
        sa.Column("taken_back_at", sa.DateTime(timezone=True)),
        sa.Column("taken_back_by", sa.Text),
        sa.CheckConstraint("amount <> 0", name="amount"),
        sa.CheckConstraint("way IN ('cash', 'card', 'transfer')", name="way_known"),
    )
    for table in NEW:
        op.execute(
            f"CREATE TRIGGER told AFTER INSERT OR UPDATE ON {table} FOR EACH ROW EXECUTE FUNCTION tell_of_visit()"
        )
    op.execute(
        "CREATE FUNCTION document_stays() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "RAISE EXCEPTION 'a document that was issued stays as it is: a credit note cancels it'; END $$"
    )
    op.execute(
        "CREATE TRIGGER stays BEFORE UPDATE OR DELETE ON document FOR EACH ROW EXECUTE FUNCTION document_stays()"
    )
    for table, name, kept in fits.constraints():
        if table in (*NEW, "document_series"):
            op.execute(f'ALTER TABLE "{table}" ADD CONSTRAINT "{name}" CHECK ({kept})')


def downgrade() -> None:
    for table in reversed(NEW):
        op.drop_table(table)
    op.drop_table("document_series")
    op.execute("DROP FUNCTION document_stays")
    op.drop_column("plan_line", "refused")
    for table, name in KEPT:
        op.drop_column(table, name)
    op.drop_index(op.f("ix_particular_visit_id"), "particular")
