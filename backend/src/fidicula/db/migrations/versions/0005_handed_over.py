"""Who handed an instrument over"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("visit", sa.Column("closed_by", sa.Text(), nullable=True))


def downgrade() -> None:
    op.drop_column("visit", "closed_by")
