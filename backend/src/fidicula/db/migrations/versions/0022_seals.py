"""The check at pitch, the seal of a visit with its next check, what was added after it, and the shop's own points"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY, JSONB

revision = "0022"
down_revision = "0021"
branch_labels = None
depends_on = None

_OF_VISIT = ("point_check", "seal", "addition")


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


def _visit():
    return sa.Column("visit_id", sa.Uuid, sa.ForeignKey("visit.id"), nullable=False, index=True)


def upgrade() -> None:
    _log(
        "point_check",
        _visit(),
        sa.Column("point", sa.Text, nullable=False),
        sa.Column("verdict", sa.Text, nullable=False),
        _text("words"),
        sa.Column("after_work", sa.BigInteger, nullable=False, server_default="0"),
        sa.Column("checked_by", sa.Text, nullable=False),
        _now("checked_at"),
        sa.Column("taken_back_at", sa.DateTime(timezone=True)),
        sa.Column("taken_back_by", sa.Text),
        sa.CheckConstraint("verdict IN ('right', 'not_right')", name="ck_point_check_verdict_known"),
    )
    _log(
        "seal",
        _visit(),
        sa.Column("format", sa.SmallInteger, nullable=False),
        sa.Column("hashes", JSONB, nullable=False),
        sa.Column("hash", sa.Text, nullable=False),
        sa.Column("points", JSONB, nullable=False, server_default="[]"),
        sa.Column("next_check", sa.Date),
        _text("next_check_why"),
        _text("received_by"),
        _text("signature"),
        sa.Column("signed_by", sa.Text, nullable=False),
        sa.Column("signed_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("opened_again_at", sa.DateTime(timezone=True)),
        sa.Column("opened_again_by", sa.Text),
    )
    op.execute("CREATE UNIQUE INDEX uq_seal_holds ON seal (visit_id) WHERE opened_again_at IS NULL")
    op.execute("CREATE INDEX ix_seal_next_check ON seal (next_check) WHERE opened_again_at IS NULL")
    _log(
        "addition",
        _visit(),
        sa.Column("words", sa.Text, nullable=False),
        sa.Column("added_by", sa.Text, nullable=False),
        _now("added_at"),
    )
    _log(
        "point_entry",
        sa.Column("point", sa.Text, nullable=False),
        sa.Column("label", sa.Text, nullable=False),
        _text("look"),
        _text("means"),
        sa.Column("families", ARRAY(sa.Text), nullable=False, server_default="{}"),
        sa.Column("place", sa.SmallInteger, nullable=False, server_default="0"),
        sa.Column("retired", sa.Boolean, nullable=False, server_default="false"),
        sa.Column("entered_by", sa.Text, nullable=False),
        _now("entered_at"),
    )
    op.create_index("ix_point_entry_point_number", "point_entry", ["point", "number"])
    op.execute("ALTER TABLE reading ALTER COLUMN recorded_at SET DEFAULT clock_timestamp()")
    for table in _OF_VISIT:
        op.execute(
            f"CREATE TRIGGER told AFTER INSERT OR UPDATE ON {table} FOR EACH ROW EXECUTE FUNCTION tell_of_visit()"
        )


def downgrade() -> None:
    op.execute("ALTER TABLE reading ALTER COLUMN recorded_at SET DEFAULT now()")
    for table in ("point_entry", "addition", "seal", "point_check"):
        op.drop_table(table)
