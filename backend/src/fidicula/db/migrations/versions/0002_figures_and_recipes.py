"""The shop's figures and recipes, and what each instrument follows, as logs"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def _number() -> sa.Column:
    return sa.Column("number", sa.BigInteger(), sa.Identity(always=True), nullable=False)


def _at(name: str) -> sa.Column:
    return sa.Column(name, sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False)


def _json(name: str, **more: object) -> sa.Column:
    return sa.Column(name, postgresql.JSONB(astext_type=sa.Text()), nullable=False, **more)


def _keys(table: str) -> list[sa.Constraint]:
    return [
        sa.PrimaryKeyConstraint("number", name=op.f(f"pk_{table}")),
        sa.UniqueConstraint("id", name=op.f(f"uq_{table}_id")),
    ]


def upgrade() -> None:
    op.create_table(
        "figure_entry",
        _number(),
        sa.Column("id", sa.Uuid(), nullable=False),
        *(sa.Column(name, sa.Text(), nullable=False) for name in ("family", "size", "measure", "question", "school")),
        *(sa.Column(name, sa.Double(), nullable=True) for name in ("low", "aim", "high")),
        sa.Column("source", sa.Text(), nullable=False),
        sa.Column("confirmed_by", sa.Text(), nullable=True),
        sa.Column("withdrawn", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("entered_by", sa.Text(), nullable=False),
        _at("entered_at"),
        *_keys("figure_entry"),
    )
    op.create_index(
        "ix_figure_entry_key", "figure_entry", ["family", "size", "measure", "question", "school", "number"]
    )
    op.create_table(
        "recipe_entry",
        _number(),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("family", sa.Text(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        _json("schools"),
        sa.Column("retired", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("entered_by", sa.Text(), nullable=False),
        _at("entered_at"),
        *_keys("recipe_entry"),
    )
    op.create_index("ix_recipe_entry_family_name_number", "recipe_entry", ["family", "name", "number"])
    op.create_table(
        "shop_recipe",
        _number(),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("family", sa.Text(), nullable=False),
        sa.Column("recipe", sa.Text(), nullable=False),
        sa.Column("entered_by", sa.Text(), nullable=False),
        _at("entered_at"),
        *_keys("shop_recipe"),
    )
    op.create_index(op.f("ix_shop_recipe_family"), "shop_recipe", ["family"])
    op.create_table(
        "target_choice",
        _number(),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("instrument_id", sa.Uuid(), nullable=False),
        sa.Column("recipe", sa.Text(), nullable=True),
        _json("schools", server_default="{}"),
        _json("sources", server_default="{}"),
        sa.Column("reason", sa.Text(), server_default="", nullable=False),
        sa.Column("chosen_by", sa.Text(), nullable=False),
        _at("chosen_at"),
        sa.Column("taken_back_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("taken_back_by", sa.Text(), nullable=True),
        sa.ForeignKeyConstraint(
            ["instrument_id"], ["instrument.id"], name=op.f("fk_target_choice_instrument_id_instrument")
        ),
        *_keys("target_choice"),
    )
    op.create_index("ix_target_choice_instrument_id_number", "target_choice", ["instrument_id", "number"])
    op.execute(
        "INSERT INTO target_choice (id, instrument_id, schools, chosen_by) "
        "SELECT gen_random_uuid(), id, schools, 'bench' FROM instrument WHERE schools <> '{}'"
    )
    op.drop_column("instrument", "schools")


def downgrade() -> None:
    op.add_column("instrument", _json("schools", server_default="{}"))
    op.execute(
        "UPDATE instrument SET schools = (SELECT schools FROM target_choice "
        "WHERE instrument_id = instrument.id AND taken_back_at IS NULL ORDER BY number DESC LIMIT 1) "
        "WHERE EXISTS (SELECT 1 FROM target_choice WHERE instrument_id = instrument.id AND taken_back_at IS NULL)"
    )
    op.drop_table("target_choice")
    op.drop_table("shop_recipe")
    op.drop_table("recipe_entry")
    op.drop_table("figure_entry")
