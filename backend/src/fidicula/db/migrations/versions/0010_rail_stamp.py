"""A stamp that changes with everything that stands on the rail; the newest visit beside what it is found by"""

from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

ON_THE_TAG = "ticket, family, size, owner, left_handed, is_fleet"


def upgrade() -> None:
    op.execute("CREATE SEQUENCE rail_stamp")
    op.execute("ALTER TABLE visit ADD COLUMN stamp bigint NOT NULL DEFAULT nextval('rail_stamp')")
    op.execute("CREATE INDEX ix_visit_stamp ON visit (stamp) WHERE closed_at IS NULL")
    op.execute(
        "CREATE FUNCTION stamp_visit() RETURNS trigger LANGUAGE plpgsql AS "
        "$$ BEGIN NEW.stamp := nextval('rail_stamp'); RETURN NEW; END $$"
    )
    op.execute("CREATE TRIGGER stamped BEFORE UPDATE ON visit FOR EACH ROW EXECUTE FUNCTION stamp_visit()")
    op.execute(
        "CREATE FUNCTION stamp_visits_of() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "UPDATE visit SET stamp = 0 WHERE instrument_id = NEW.id AND closed_at IS NULL; RETURN NULL; END $$"
    )
    op.execute(
        f"CREATE TRIGGER stamps_visits AFTER UPDATE OF {ON_THE_TAG} ON instrument "
        "FOR EACH ROW EXECUTE FUNCTION stamp_visits_of()"
    )

    op.execute("ALTER TABLE instrument ADD COLUMN last_opened_at timestamptz")
    op.execute(
        "UPDATE instrument SET last_opened_at = "
        "(SELECT max(opened_at) FROM visit WHERE visit.instrument_id = instrument.id)"
    )
    op.execute("CREATE INDEX ix_instrument_last_opened_at ON instrument (last_opened_at DESC, ticket)")
    op.execute(
        "CREATE FUNCTION note_last_opened() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "UPDATE instrument SET last_opened_at = greatest(last_opened_at, NEW.opened_at) "
        "WHERE id = NEW.instrument_id; RETURN NULL; END $$"
    )
    op.execute("CREATE TRIGGER opened AFTER INSERT ON visit FOR EACH ROW EXECUTE FUNCTION note_last_opened()")
    op.execute("DROP INDEX ix_visit_opened_at")


def downgrade() -> None:
    op.execute("CREATE INDEX ix_visit_opened_at ON visit (opened_at)")
    op.execute("DROP TRIGGER opened ON visit")
    op.execute("DROP FUNCTION note_last_opened")
    op.execute("DROP INDEX ix_instrument_last_opened_at")
    op.execute("ALTER TABLE instrument DROP COLUMN last_opened_at")
    op.execute("DROP TRIGGER stamps_visits ON instrument")
    op.execute("DROP FUNCTION stamp_visits_of")
    op.execute("DROP TRIGGER stamped ON visit")
    op.execute("DROP FUNCTION stamp_visit")
    op.execute("DROP INDEX ix_visit_stamp")
    op.execute("ALTER TABLE visit DROP COLUMN stamp")
    op.execute("DROP SEQUENCE rail_stamp")
