"""People, who is signed in where, and wrong guesses"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def _at(name: str) -> sa.Column:
    return sa.Column(name, sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False)


def upgrade() -> None:
    op.create_table(
        "person",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("role", sa.Text(), nullable=False),
        sa.Column("password_hash", sa.Text(), nullable=True),
        sa.Column("pin_hash", sa.Text(), nullable=True),
        sa.Column("active", sa.Boolean(), server_default="true", nullable=False),
        _at("created_at"),
        sa.CheckConstraint("role IN ('owner', 'luthier', 'apprentice', 'desk')", name=op.f("ck_person_role_known")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_person")),
    )
    op.create_index("uq_person_lower_name", "person", [sa.text("lower(name)")], unique=True)
    op.create_table(
        "sign_in",
        sa.Column("token_hash", sa.LargeBinary(), nullable=False),
        sa.Column("form_token", sa.Text(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=False),
        sa.Column("at_bench_id", sa.Uuid(), nullable=False),
        sa.Column("others_in", postgresql.ARRAY(sa.Uuid()), server_default="{}", nullable=False),
        _at("last_seen_at"),
        _at("created_at"),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_sign_in_person_id_person")),
        sa.ForeignKeyConstraint(["at_bench_id"], ["person.id"], name=op.f("fk_sign_in_at_bench_id_person")),
        sa.PrimaryKeyConstraint("token_hash", name=op.f("pk_sign_in")),
    )
    op.create_table(
        "wrong_guess",
        sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("at_what", sa.Text(), nullable=False),
        _at("guessed_at"),
        sa.PrimaryKeyConstraint("number", name=op.f("pk_wrong_guess")),
    )
    op.create_index("ix_wrong_guess_at_what_guessed_at", "wrong_guess", ["at_what", "guessed_at"])


def downgrade() -> None:
    op.drop_table("wrong_guess")
    op.drop_table("sign_in")
    op.drop_table("person")
