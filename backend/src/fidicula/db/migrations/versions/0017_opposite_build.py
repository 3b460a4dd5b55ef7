"""An instrument that is built for the other hand than it is strung for"""

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("instrument", sa.Column("opposite_build", sa.Boolean(), server_default="false", nullable=False))


def downgrade() -> None:
    op.drop_column("instrument", "opposite_build")
