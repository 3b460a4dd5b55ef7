"""Whatever is written of an instrument is told at once to every process that listens"""

from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

OF_VISIT = ("reading", "work_done", "decision", "seen", "course_mark", "photo")
OF_INSTRUMENT = ("visit", "target_choice")


def upgrade() -> None:
    for name, ticket in (
        ("tell_of_visit", "SELECT i.ticket FROM visit v JOIN instrument i ON i.id = v.instrument_id WHERE v.id = it"),
        ("tell_of_instrument", "SELECT i.ticket FROM instrument i WHERE i.id = it"),
    ):
        column = "visit_id" if name == "tell_of_visit" else "instrument_id"
        op.execute(
            f"CREATE FUNCTION {name}() RETURNS trigger LANGUAGE plpgsql AS $$ DECLARE it uuid := NEW.{column}; "
            f"BEGIN PERFORM pg_notify('house', ({ticket})); RETURN NULL; END $$"
        )
    for table in OF_VISIT:
        op.execute(
            f"CREATE TRIGGER told AFTER INSERT OR UPDATE ON {table} FOR EACH ROW EXECUTE FUNCTION tell_of_visit()"
        )
    for table in OF_INSTRUMENT:
        op.execute(
            f"CREATE TRIGGER told AFTER INSERT OR UPDATE ON {table} FOR EACH ROW EXECUTE FUNCTION tell_of_instrument()"
        )


def downgrade() -> None:
    for table in (*OF_VISIT, *OF_INSTRUMENT):
        op.execute(f"DROP TRIGGER told ON {table}")
    op.execute("DROP FUNCTION tell_of_visit")
    op.execute("DROP FUNCTION tell_of_instrument")
