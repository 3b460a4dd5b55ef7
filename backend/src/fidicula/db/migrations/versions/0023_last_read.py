"""The last reading of each place, kept by triggers, for questions about the whole house; and questions that are kept"""

import sqlalchemy as sa
from alembic import op

revision = "0023"
down_revision = "0022"
branch_labels = None
depends_on = None

# Statement by statement, not row by row: a million readings of an archive come in as a few hundred statements.
_STANDS = "r.taken_back_at IS NULL AND r.corrected_by IS NULL AND (r.doubt IS NULL OR r.confirmed_at IS NOT NULL)"
_UPSERT = """
INSERT INTO last_read (instrument_id, measure, position, value, taken_at, number)
SELECT DISTINCT ON (v.instrument_id, r.measure, coalesce(r.position, -1))
    v.instrument_id, r.measure, coalesce(r.position, -1), r.value, r.taken_at, r.number
FROM {source} r JOIN visit v ON v.id = r.visit_id
WHERE {stands}
ORDER BY v.instrument_id, r.measure, coalesce(r.position, -1), r.taken_at DESC, r.number DESC
ON CONFLICT (instrument_id, measure, position) DO UPDATE
SET value = excluded.value, taken_at = excluded.taken_at, number = excluded.number
WHERE (excluded.taken_at, excluded.number) >= (last_read.taken_at, last_read.number)
"""


def upgrade() -> None:
    op.create_table(
        "last_read",
        sa.Column("instrument_id", sa.Uuid, sa.ForeignKey("instrument.id"), primary_key=True),
        sa.Column("measure", sa.Text, primary_key=True),
        sa.Column("position", sa.SmallInteger, primary_key=True),
        sa.Column("value", sa.Double, nullable=False),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("number", sa.BigInteger, nullable=False),
    )
    op.create_index("ix_last_read_measure_position_value", "last_read", ["measure", "position", "value"])
    op.create_table(
        "question_entry",
        sa.Column("number", sa.BigInteger, sa.Identity(always=True), primary_key=True),
        sa.Column("id", sa.Uuid, nullable=False, unique=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("words", sa.Text, nullable=False),
        sa.Column("retired", sa.Boolean, nullable=False, server_default="false"),
        sa.Column("entered_by", sa.Text, nullable=False),
        sa.Column("entered_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now()),
    )
    op.create_index("ix_question_entry_name_number", "question_entry", ["name", "number"])
    op.execute(
        "CREATE FUNCTION note_last_read() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        + _UPSERT.format(source="written", stands=_STANDS)
        + "; RETURN NULL; END $$"
    )
    # What a reading said before it was taken back, corrected or confirmed: its place is looked at again as a whole.
    op.execute(
        "CREATE FUNCTION look_again_at_last_read() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "DELETE FROM last_read l USING written w JOIN visit v ON v.id = w.visit_id "
        "WHERE l.instrument_id = v.instrument_id AND l.measure = w.measure AND l.position = coalesce(w.position, -1); "
        + _UPSERT.format(
            source=(
                "(SELECT DISTINCT o.* FROM written w JOIN visit wv ON wv.id = w.visit_id "
                "JOIN visit ov ON ov.instrument_id = wv.instrument_id "
                "JOIN reading o ON o.visit_id = ov.id AND o.measure = w.measure "
                "AND o.position IS NOT DISTINCT FROM w.position)"
            ),
            stands=_STANDS,
        )
        + "; RETURN NULL; END $$"
    )
    op.execute(
        "CREATE TRIGGER noted AFTER INSERT ON reading REFERENCING NEW TABLE AS written "
        "FOR EACH STATEMENT EXECUTE FUNCTION note_last_read()"
    )
    op.execute(
        "CREATE TRIGGER looked_at_again AFTER UPDATE ON reading REFERENCING NEW TABLE AS written "
        "FOR EACH STATEMENT EXECUTE FUNCTION look_again_at_last_read()"
    )
    op.execute(_UPSERT.format(source="reading", stands=_STANDS))
    # An archive tells of itself once, not of each of its readings.
    op.execute("DROP TRIGGER told ON reading")
    op.execute(
        "CREATE TRIGGER told AFTER INSERT OR UPDATE ON reading FOR EACH ROW "
        "WHEN (current_setting('fidicula.quiet', true) IS DISTINCT FROM 'on') EXECUTE FUNCTION tell_of_visit()"
    )
    op.execute("CREATE INDEX ix_work_done_work_done_at ON work_done (work, done_at) WHERE taken_back_at IS NULL")


def downgrade() -> None:
    op.execute("DROP TRIGGER told ON reading")
    op.execute("CREATE TRIGGER told AFTER INSERT OR UPDATE ON reading FOR EACH ROW EXECUTE FUNCTION tell_of_visit()")
    op.execute("DROP INDEX ix_work_done_work_done_at")
    op.execute("DROP TRIGGER looked_at_again ON reading")
    op.execute("DROP TRIGGER noted ON reading")
    op.execute("DROP FUNCTION look_again_at_last_read")
    op.execute("DROP FUNCTION note_last_read")
    op.drop_table("question_entry")
    op.drop_table("last_read")
