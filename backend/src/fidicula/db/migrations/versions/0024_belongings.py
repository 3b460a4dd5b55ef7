"""What belongs to an instrument; how and from where a sound was listened to"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0024"
down_revision = "0023"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "belonging",
        sa.Column("number", sa.BigInteger, sa.Identity(always=True), primary_key=True),
        sa.Column("id", sa.Uuid, nullable=False, unique=True),
        sa.Column("visit_id", sa.Uuid, sa.ForeignKey("visit.id"), nullable=False, index=True),
        sa.Column("thing", sa.Uuid, nullable=False),
        sa.Column("kind", sa.Text, nullable=False),
        *(sa.Column(name, sa.Text, nullable=False, server_default="") for name in ("which", "material")),
        sa.Column("count", sa.Integer),
        sa.Column("mass", sa.Double),
        sa.Column("made_on", sa.Date),
        sa.Column("stamp", sa.Text, nullable=False, server_default=""),
        sa.Column("place", sa.Text, nullable=False),
        sa.Column("lies", sa.Text, nullable=False, server_default=""),
        sa.Column("entered_by", sa.Text, nullable=False),
        sa.Column("entered_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now()),
        sa.Column("taken_back_at", sa.DateTime(timezone=True)),
        sa.Column("taken_back_by", sa.Text),
        sa.CheckConstraint("mass > 0 AND count > 0", name="sizes_above_0"),
        sa.CheckConstraint("place IN ('with_it', 'off', 'gone')", name="place_known"),
    )
    op.add_column("heard", sa.Column("listened", JSONB, nullable=False, server_default="{}"))
    op.execute("CREATE TRIGGER told AFTER INSERT OR UPDATE ON belonging FOR EACH ROW EXECUTE FUNCTION tell_of_visit()")


def downgrade() -> None:
    op.drop_column("heard", "listened")
    op.drop_table("belonging")
