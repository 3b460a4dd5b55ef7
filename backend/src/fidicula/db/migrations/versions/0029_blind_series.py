"""Blind comparisons come in a series, whose number is chosen before; a series may be given up"""

import sqlalchemy as sa
from alembic import op

revision = "0029"
down_revision = "0028"
branch_labels = None
depends_on = None

KNOWN = "ck_blind_trial_ck_blind_trial_chosen_known"
"""As 0013 named it, twice over."""


def upgrade() -> None:
    op.add_column("blind_trial", sa.Column("series_id", sa.Uuid))
    op.drop_constraint(op.f(KNOWN), "blind_trial")
    op.create_check_constraint(op.f(KNOWN), "blind_trial", "chosen IN ('first', 'second', 'neither', 'given_up')")


def downgrade() -> None:
    op.execute("UPDATE blind_trial SET chosen = 'neither' WHERE chosen = 'given_up'")
    op.drop_constraint(op.f(KNOWN), "blind_trial")
    op.create_check_constraint(op.f(KNOWN), "blind_trial", "chosen IN ('first', 'second', 'neither')")
    op.drop_column("blind_trial", "series_id")
