"""The database itself holds how long a text and how large a number may be

What is longer on record already stays, and is given out.
"""

from alembic import op
from sqlalchemy import text

from fidicula.db.migrations.fits import constraints

revision = "0028"
down_revision = "0027"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for table, name, kept in constraints():
        longer = op.get_bind().scalar(text(f'SELECT EXISTS (SELECT FROM "{table}" WHERE NOT ({kept}))'))
        op.execute(f'ALTER TABLE "{table}" ADD CONSTRAINT "{name}" CHECK ({kept}){" NOT VALID" if longer else ""}')


def downgrade() -> None:
    for table, name, _ in constraints():
        op.execute(f'ALTER TABLE "{table}" DROP CONSTRAINT "{name}"')
