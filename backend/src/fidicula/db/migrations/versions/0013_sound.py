"""The post, what was heard with a player, and strings one by one"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None

TABLES = ("post_entry", "player_session", "heard", "recording", "blind_trial", "retuning")


def _of_visit(name, *columns, causal=True):
    """A log of a visit; causal: each line knows the last work before it."""
    op.create_table(
        name,
        sa.Column("number", sa.BigInteger, sa.Identity(always=True), primary_key=True),
        sa.Column("id", sa.Uuid, nullable=False, unique=True),
        sa.Column("visit_id", sa.Uuid, sa.ForeignKey("visit.id"), nullable=False),
        *([sa.Column("after_work", sa.BigInteger, nullable=False, server_default="0")] if causal else []),
        *columns,
    )
    op.create_index(f"ix_{name}_visit_id", name, ["visit_id"])


def _now(name):
    return sa.Column(name, sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now())


def _said(name):
    return sa.Column(name, sa.Text, nullable=False, server_default="")


def _taken_back():
    return sa.Column("taken_back_at", sa.DateTime(timezone=True)), sa.Column("taken_back_by", sa.Text)


def upgrade() -> None:
    _of_visit(
        "post_entry",
        sa.Column("length", sa.Double),
        sa.Column("diameter", sa.Double),
        _said("wood"),
        _said("grain_mark"),
        _said("end_down"),
        sa.Column("fitted_on", sa.Date),
        _said("marks_inside"),
        sa.Column("entered_by", sa.Text, nullable=False),
        _now("entered_at"),
        *_taken_back(),
        sa.CheckConstraint("length > 0 AND diameter > 0", name="ck_post_entry_sizes_above_0"),
    )
    _of_visit(
        "player_session",
        sa.Column("player", sa.Text, nullable=False),
        sa.Column("begun_by", sa.Text, nullable=False),
        _now("begun_at"),
        causal=False,
    )
    _of_visit(
        "heard",
        sa.Column("player", sa.Text, nullable=False),
        sa.Column("rated", JSONB, nullable=False, server_default="{}"),
        sa.Column("player_words", sa.ARRAY(sa.Text), nullable=False, server_default="{}"),
        _said("remark"),
        sa.Column("written_by", sa.Text, nullable=False),
        _now("heard_at"),
        *_taken_back(),
    )
    op.create_index("ix_heard_player", "heard", ["player"])
    _of_visit(
        "recording",
        sa.Column("media_type", sa.Text, nullable=False),
        sa.Column("sound", sa.LargeBinary, nullable=False),
        _said("words"),
        sa.Column("recorded_by", sa.Text, nullable=False),
        _now("recorded_at"),
        *_taken_back(),
    )
    op.execute("ALTER TABLE recording ALTER COLUMN sound SET STORAGE EXTERNAL")
    _of_visit(
        "blind_trial",
        sa.Column("player", sa.Text, nullable=False),
        sa.Column("first_id", sa.Uuid, sa.ForeignKey("recording.id"), nullable=False),
        sa.Column("second_id", sa.Uuid, sa.ForeignKey("recording.id"), nullable=False),
        sa.Column("chosen", sa.Text),
        sa.Column("led_by", sa.Text, nullable=False),
        _now("begun_at"),
        sa.Column("chosen_at", sa.DateTime(timezone=True)),
        sa.CheckConstraint("chosen IN ('first', 'second', 'neither')", name="ck_blind_trial_chosen_known"),
        causal=False,
    )
    _of_visit(
        "retuning",
        sa.Column("cents", sa.ARRAY(sa.Double), nullable=False),
        _said("remark"),
        sa.Column("tuned_by", sa.Text, nullable=False),
        _now("tuned_at"),
        *_taken_back(),
    )
    op.add_column("string_set", sa.Column("is_mixed", sa.Boolean, nullable=False, server_default="false"))
    for table in TABLES:
        op.execute(
            f"CREATE TRIGGER told AFTER INSERT OR UPDATE ON {table} FOR EACH ROW EXECUTE FUNCTION tell_of_visit()"
        )


def downgrade() -> None:
    op.drop_column("string_set", "is_mixed")
    for table in ("blind_trial", *(table for table in TABLES if table != "blind_trial")):
        op.drop_table(table)
