"""What a tool read of known lengths when it was checked"""

import sqlalchemy as sa
from alembic import op

revision = "0031"
down_revision = "0030"
branch_labels = None
depends_on = None

NEW = ("known", "read")


def upgrade() -> None:
    for name in NEW:
        op.add_column("tool_check", sa.Column(name, sa.ARRAY(sa.Double), nullable=False, server_default="{}"))
    op.create_check_constraint(op.f("ck_tool_check_pairs"), "tool_check", "cardinality(known) = cardinality(read)")
    # What is known of every reading follows from it.
    op.execute(
        "CREATE TRIGGER told AFTER INSERT OR UPDATE ON tool_check FOR EACH STATEMENT EXECUTE FUNCTION tell_everyone()"
    )


def downgrade() -> None:
    op.execute("DROP TRIGGER told ON tool_check")
    op.drop_constraint(op.f("ck_tool_check_pairs"), "tool_check")
    for name in NEW:
        op.drop_column("tool_check", name)
