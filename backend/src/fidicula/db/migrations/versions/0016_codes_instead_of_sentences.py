"""What was said becomes codes and amounts: doubts, steps on the rail, details of works; readings say if simulated"""

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


SHOTS = {
    "post_top": "the post's upper end, from the f-hole's side",
    "post_bottom": "the post's lower end, from the f-hole's side",
    "post_whole": "the post from the endpin's hole: upright, or leaning",
    "bar": "the bar along its length, and where it is glued",
    "seams": "the seams from inside, at the lower bout",
    "repairs": "patches and studs, under a raking light",
}
"""As they were called when photographs said which shot they are by its words."""


def upgrade() -> None:
    op.add_column("photo", sa.Column("shot", sa.Text, nullable=False, server_default=""))
    photo = sa.table("photo", sa.column("shot"), sa.column("words"), sa.column("camera"))
    for shot, words in SHOTS.items():
        op.execute(sa.update(photo).where(photo.c.words == words, photo.c.camera != "").values(shot=shot, words=""))
    op.add_column("reading", sa.Column("simulated", sa.Boolean, nullable=False, server_default="false"))
    op.add_column("reading", sa.Column("doubt_about", sa.Double))
    op.execute(r"""
        UPDATE reading SET
            doubt_about = substring(doubt FROM 'usually about ([0-9.]+[0-9])')::double precision,
            doubt = CASE
                WHEN doubt LIKE '%is very small for%' THEN 'small'
                WHEN doubt LIKE '%is very large for%' THEN 'large'
                ELSE 'impossible' END
        WHERE doubt IS NOT NULL
    """)
    op.create_check_constraint(
        op.f("ck_reading_doubt_known"), "reading", "doubt IN ('small', 'large', 'impossible', 'changed', 'leap')"
    )
    op.add_column("decision", sa.Column("after_work", sa.BigInteger, nullable=False, server_default="0"))
    op.execute("""
        UPDATE decision SET after_work = coalesce((SELECT max(w.number) FROM work_done w
            WHERE w.visit_id = decision.visit_id AND w.done_at <= decision.decided_at), 0)
    """)
    # Where each visit stands is told again, in codes, the next time the rail is asked for.
    op.alter_column("visit", "at_step", new_column_name="instruction")
    op.add_column("visit", sa.Column("subject", sa.Text, nullable=False, server_default=""))
    op.execute("UPDATE visit SET instruction = '', waits_for = '', waits_until = NULL")
    op.execute(
        "UPDATE work_done SET detail = (detail - 'down') || jsonb_build_object('drop', detail->'down') "
        "WHERE work = 'crown_cut' AND detail ? 'down'"
    )
    op.execute(
        "UPDATE work_done SET detail = (detail - 'from') || jsonb_build_object('of_set', detail->'from') "
        "WHERE work IN ('strings_changed', 'strings_named') AND detail ? 'from'"
    )


def downgrade() -> None:
    photo = sa.table("photo", sa.column("shot"), sa.column("words"))
    for shot, words in SHOTS.items():
        op.execute(sa.update(photo).where(photo.c.shot == shot).values(words=words))
    op.drop_column("photo", "shot")
    op.execute(
        "UPDATE work_done SET detail = (detail - 'of_set') || jsonb_build_object('from', detail->'of_set') "
        "WHERE work IN ('strings_changed', 'strings_named') AND detail ? 'of_set'"
    )
    op.execute(
        "UPDATE work_done SET detail = (detail - 'drop' - 'passes') || jsonb_build_object('down', detail->'drop') "
        "WHERE work = 'crown_cut' AND detail ? 'drop'"
    )
    op.drop_column("visit", "subject")
    op.alter_column("visit", "instruction", new_column_name="at_step")
    op.drop_column("decision", "after_work")
    op.drop_constraint(op.f("ck_reading_doubt_known"), "reading")
    op.drop_column("reading", "doubt_about")
    op.drop_column("reading", "simulated")
