"""The damage map: marks with a line for each look, and who signed for what was found; photographs of a mark"""

import sqlalchemy as sa
from alembic import op

from fidicula.db.migrations import fits

revision = "0030"
down_revision = "0029"
branch_labels = None
depends_on = None

NEW = ("damage", "damage_signed")


def _text(*names: str) -> list[sa.Column[str]]:
    return [sa.Column(name, sa.Text, nullable=False) for name in names]


def _undone() -> list[sa.Column[object]]:
    return [sa.Column("taken_back_at", sa.DateTime(timezone=True)), sa.Column("taken_back_by", sa.Text)]


def _log() -> list[sa.Column[object]]:
    return [
        sa.Column("number", sa.BigInteger, sa.Identity(always=True), primary_key=True),
        sa.Column("id", sa.Uuid, nullable=False, unique=True),
        sa.Column("visit_id", sa.Uuid, sa.ForeignKey("visit.id"), nullable=False, index=True),
    ]


def upgrade() -> None:
    op.create_table(
        "damage",
        *_log(),
        sa.Column("thing", sa.Uuid, nullable=False, index=True),
        *_text("kind", "face"),
        *(sa.Column(name, sa.Double, nullable=False) for name in ("along", "across")),
        *(sa.Column(name, sa.Double) for name in ("to_along", "to_across", "length")),
        sa.Column("ends", sa.Text, nullable=False, server_default=""),
        *_text("state"),
        sa.Column("under_tension", sa.Boolean, nullable=False, server_default="false"),
        sa.Column("words", sa.Text, nullable=False, server_default=""),
        sa.Column("after_work", sa.BigInteger, nullable=False, server_default="0"),
        *_text("seen_by"),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now()),
        *_undone(),
        sa.CheckConstraint("length > 0", name="length_above_0"),
        sa.CheckConstraint("state IN ('open', 'stable', 'repaired', 'poor')", name="state_known"),
        sa.CheckConstraint("ends IN ('', 'both_seen', 'runs_on')", name="ends_known"),
        sa.CheckConstraint("(to_along IS NULL) = (to_across IS NULL)", name="end_whole"),
    )
    op.create_table(
        "damage_signed",
        *_log(),
        *_text("who"),
        sa.Column("lines", sa.ARRAY(sa.Uuid), nullable=False),
        sa.Column("signature", sa.Text, nullable=False, server_default=""),
        *_text("entered_by"),
        sa.Column("signed_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now()),
        *_undone(),
    )
    op.add_column("photo", sa.Column("thing", sa.Uuid))
    for table in NEW:
        op.execute(
            f"CREATE TRIGGER told AFTER INSERT OR UPDATE ON {table} FOR EACH ROW EXECUTE FUNCTION tell_of_visit()"
        )
    op.execute(
        "CREATE FUNCTION count_damage() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "UPDATE instrument_change SET number = change_now() WHERE instrument_id IN "
        "(SELECT v.instrument_id FROM written w JOIN visit v ON v.id = w.visit_id); RETURN NULL; END $$"
    )
    for event, rows in (("UPDATE", "NEW"), ("INSERT", "NEW"), ("DELETE", "OLD")):
        op.execute(
            f"CREATE TRIGGER counted_{event.lower()} AFTER {event} ON damage REFERENCING {rows} TABLE AS written "
            "FOR EACH STATEMENT EXECUTE FUNCTION count_damage()"
        )
    for table, name, kept in fits.constraints():
        if table in NEW:
            op.execute(f'ALTER TABLE "{table}" ADD CONSTRAINT "{name}" CHECK ({kept})')


def downgrade() -> None:
    op.drop_column("photo", "thing")
    for table in NEW:
        op.drop_table(table)
    op.execute("DROP FUNCTION count_damage")
