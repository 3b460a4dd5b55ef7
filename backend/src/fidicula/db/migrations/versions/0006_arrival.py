"""What is asked at the door: of the owner, of the instrument, and of this visit"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

OF_INSTRUMENT = ("contact", "plays", "label_read", "believed", "worth", "left_as_found")


def upgrade() -> None:
    for name in OF_INSTRUMENT:
        op.add_column("instrument", sa.Column(name, sa.Text(), server_default="", nullable=False))
    op.add_column("visit", sa.Column("climate", sa.Text(), server_default="", nullable=False))
    op.add_column("visit", sa.Column("deadline", sa.Date(), nullable=True))
    op.add_column("visit", sa.Column("freeze_days", sa.SmallInteger(), server_default="3", nullable=False))
    op.add_column("visit", sa.Column("promised", sa.Date(), nullable=True))
    op.create_check_constraint(op.f("ck_visit_climate_known"), "visit", "climate IN ('', 'damp', 'dry')")
    op.create_check_constraint(op.f("ck_visit_freeze_days_0_to_60"), "visit", "freeze_days BETWEEN 0 AND 60")


def downgrade() -> None:
    for name in ("promised", "freeze_days", "deadline", "climate"):
        op.drop_column("visit", name)
    for name in OF_INSTRUMENT:
        op.drop_column("instrument", name)
