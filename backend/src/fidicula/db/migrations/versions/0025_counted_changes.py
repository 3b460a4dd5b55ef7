"""Changes of each instrument are counted, so that its records need not be read again while none came"""

import sqlalchemy as sa
from alembic import op

revision = "0025"
down_revision = "0024"
branch_labels = None
depends_on = None

OF_VISIT = ("reading", "work_done", "decision", "seen", "course_mark", "plan_line")
WHOSE = {
    **dict.fromkeys(OF_VISIT, "SELECT v.instrument_id FROM written w JOIN visit v ON v.id = w.visit_id"),
    **dict.fromkeys(("visit", "target_choice"), "SELECT w.instrument_id FROM written w"),
    "instrument": "SELECT w.id FROM written w",
}
"""Of which instruments what was just written to a table is."""

NOTHING_TO_LOOK_AT = """
IF NOT EXISTS (
    SELECT 1 FROM written w
    WHERE w.taken_back_at IS NULL AND w.corrected_by IS NULL AND (w.doubt IS NULL OR w.confirmed_at IS NOT NULL)
) AND NOT EXISTS (
    SELECT 1 FROM written w JOIN visit v ON v.id = w.visit_id JOIN last_read l
    ON l.instrument_id = v.instrument_id AND l.measure = w.measure AND l.position = coalesce(w.position, -1)
    AND l.number = w.number
) THEN RETURN NULL; END IF;
"""
"""A reading that was not the last of its place, and does not hold now either, as one that is corrected."""


def _counted(table: str) -> list[tuple[str, str]]:
    """Each event, with the rows that say whose it is. An instrument that comes begins to be counted."""
    return [("UPDATE", "NEW"), *([] if table == "instrument" else [("INSERT", "NEW"), ("DELETE", "OLD")])]


def upgrade() -> None:
    op.execute("CREATE SEQUENCE instrument_change_number")
    op.create_table(
        "instrument_change",
        sa.Column("instrument_id", sa.Uuid, sa.ForeignKey("instrument.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("number", sa.BigInteger, nullable=False),
    )
    op.execute("INSERT INTO instrument_change SELECT id, nextval('instrument_change_number') FROM instrument")
    # Whoever holds the instrument knows beforehand what its own changes are counted as.
    op.execute(
        "CREATE FUNCTION change_now() RETURNS bigint LANGUAGE sql AS $$ SELECT coalesce("
        "nullif(current_setting('fidicula.change', true), '')::bigint, nextval('instrument_change_number')) $$"
    )
    op.execute(
        "CREATE FUNCTION hold_change(it uuid) RETURNS bigint[] LANGUAGE plpgsql AS $$ DECLARE was bigint; own bigint; "
        "BEGIN SELECT number INTO was FROM instrument_change WHERE instrument_id = it FOR NO KEY UPDATE; "
        "IF NOT FOUND THEN INSERT INTO instrument_change VALUES (it, nextval('instrument_change_number')) "
        "RETURNING number INTO was; END IF; "
        "own := nextval('instrument_change_number'); PERFORM set_config('fidicula.change', own::text, true); "
        "RETURN ARRAY[was, own]; END $$"
    )
    op.execute(
        "CREATE FUNCTION begin_counting() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "INSERT INTO instrument_change SELECT w.id, change_now() FROM written w; RETURN NULL; END $$"
    )
    op.execute(
        "CREATE TRIGGER counted_first AFTER INSERT ON instrument REFERENCING NEW TABLE AS written "
        "FOR EACH STATEMENT EXECUTE FUNCTION begin_counting()"
    )
    _change_body("look_again_at_last_read", "BEGIN ", f"BEGIN {NOTHING_TO_LOOK_AT}")
    for table, whose in WHOSE.items():
        op.execute(
            f"CREATE FUNCTION count_{table}() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
            f"UPDATE instrument_change SET number = change_now() WHERE instrument_id IN ({whose}); RETURN NULL; END $$"
        )
        for event, rows in _counted(table):
            op.execute(
                f"CREATE TRIGGER counted_{event.lower()} AFTER {event} ON {table} REFERENCING {rows} TABLE AS written "
                f"FOR EACH STATEMENT EXECUTE FUNCTION count_{table}()"
            )


def _change_body(function: str, old: str, new: str) -> None:
    """Change the first `old` of a function that there is."""
    whole: str = op.get_bind().execute(sa.text(f"SELECT pg_get_functiondef('{function}'::regproc)")).scalar_one()
    op.get_bind().exec_driver_sql(whole.replace(old, new, 1).replace("%", "%%"))


def downgrade() -> None:
    _change_body("look_again_at_last_read", NOTHING_TO_LOOK_AT, "")
    for table in WHOSE:
        for event, _ in _counted(table):
            op.execute(f"DROP TRIGGER counted_{event.lower()} ON {table}")
        op.execute(f"DROP FUNCTION count_{table}")
    op.execute("DROP TRIGGER counted_first ON instrument")
    for function in ("begin_counting", "hold_change", "change_now"):
        op.execute(f"DROP FUNCTION {function}")
    op.drop_table("instrument_change")
    op.execute("DROP SEQUENCE instrument_change_number")
