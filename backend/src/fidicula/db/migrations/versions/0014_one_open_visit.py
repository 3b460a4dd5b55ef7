"""An instrument has one open visit; a ticket begins with a letter or digit; the rules' stamp counts commits"""

from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None

LOGS = ("reading", "work_done", "decision", "seen", "course_mark", "photo", "heard", "recording", "post_entry")
RULES = ("figure_entry", "recipe_entry", "shop_recipe", "tool_check", "own_size")
SHOWN_EVERYWHERE = ("figure_entry", "recipe_entry", "shop_recipe", "shelf_entry", "own_size", "string_set")


def upgrade() -> None:
    _close_doubled_visits()
    op.execute("DROP INDEX ix_visit_open")
    op.execute("CREATE UNIQUE INDEX uq_visit_open ON visit (instrument_id) WHERE closed_at IS NULL")
    op.execute("""
        UPDATE instrument AS i SET ticket = left('T' || ticket, 16) ||
            CASE WHEN EXISTS (SELECT 1 FROM instrument o WHERE o.ticket = left('T' || i.ticket, 16))
                THEN left(md5(i.id::text), 4) ELSE '' END
        WHERE ticket !~ '^[[:alnum:]]'
    """)
    op.execute(
        "CREATE TABLE rules_stamp (is_it boolean DEFAULT true NOT NULL CONSTRAINT pk_rules_stamp PRIMARY KEY "
        "CONSTRAINT ck_rules_stamp_one_row CHECK (is_it), stamp bigint DEFAULT 0 NOT NULL)"
    )
    op.execute("INSERT INTO rules_stamp DEFAULT VALUES")
    op.execute(
        "CREATE FUNCTION count_rules() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "UPDATE rules_stamp SET stamp = nextval('rail_stamp'); RETURN NULL; END $$"
    )
    for table in RULES:
        op.execute(
            f"CREATE TRIGGER counted AFTER INSERT OR UPDATE OR DELETE ON {table} "
            "FOR EACH STATEMENT EXECUTE FUNCTION count_rules()"
        )
    op.execute(
        "CREATE FUNCTION tell_everyone() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "PERFORM pg_notify('house', '*'); RETURN NULL; END $$"
    )
    for table in SHOWN_EVERYWHERE:
        op.execute(
            f"CREATE TRIGGER told AFTER INSERT OR UPDATE ON {table} FOR EACH STATEMENT EXECUTE FUNCTION tell_everyone()"
        )
    op.execute(
        "CREATE FUNCTION tell_of_itself() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "PERFORM pg_notify('house', NEW.ticket); RETURN NULL; END $$"
    )
    op.execute("CREATE TRIGGER told AFTER UPDATE ON instrument FOR EACH ROW EXECUTE FUNCTION tell_of_itself()")


def _close_doubled_visits() -> None:
    """Of several open visits the one with the most lines stays open, or else the newest."""
    lines = " + ".join(f"(SELECT count(*) FROM {table} l WHERE l.visit_id = v.id)" for table in LOGS)
    op.execute(f"""
        WITH ranked AS (
            SELECT v.id, row_number() OVER (
                PARTITION BY v.instrument_id ORDER BY {lines} DESC, v.opened_at DESC, v.id
            ) AS place FROM visit v WHERE v.closed_at IS NULL
        )
        UPDATE visit SET closed_at = now(), closed_by = '' FROM ranked WHERE ranked.id = visit.id AND ranked.place > 1
    """)


def downgrade() -> None:
    op.execute("DROP TRIGGER told ON instrument")
    op.execute("DROP FUNCTION tell_of_itself")
    for table in SHOWN_EVERYWHERE:
        op.execute(f"DROP TRIGGER told ON {table}")
    op.execute("DROP FUNCTION tell_everyone")
    for table in RULES:
        op.execute(f"DROP TRIGGER counted ON {table}")
    op.execute("DROP FUNCTION count_rules")
    op.execute("DROP TABLE rules_stamp")
    op.execute("DROP INDEX uq_visit_open")
    op.execute("CREATE INDEX ix_visit_open ON visit (instrument_id) WHERE closed_at IS NULL")
