"""Works stand on the rail: one that is done or taken back changes the stamp of its visit"""

from alembic import op

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute(
        "CREATE FUNCTION stamp_visit_of() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "UPDATE visit SET stamp = 0 WHERE id = NEW.visit_id AND closed_at IS NULL; RETURN NULL; END $$"
    )
    op.execute(
        "CREATE TRIGGER stamps_visit AFTER INSERT OR UPDATE OF taken_back_at ON work_done "
        "FOR EACH ROW EXECUTE FUNCTION stamp_visit_of()"
    )


def downgrade() -> None:
    op.execute("DROP TRIGGER stamps_visit ON work_done")
    op.execute("DROP FUNCTION stamp_visit_of")
