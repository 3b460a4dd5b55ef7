"""The migrations make the tables that the code has in mind."""

from __future__ import annotations

from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from fidicula.db.migrate import config_for, upgrade
from fidicula.db.schema import metadata
from sqlalchemy import Engine, inspect, text


def test_migrated_database_is_the_schema(empty: Engine) -> None:
    with empty.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), metadata) == []


def test_down_and_up_again(empty: Engine) -> None:
    command.downgrade(config_for(empty), "base")
    assert inspect(empty).get_table_names() == ["alembic_version"]
    upgrade(empty)
    assert "reading" in inspect(empty).get_table_names()


def test_schools_chosen_before_recipes_came_are_kept(empty: Engine) -> None:
    """Up from the first version, an instrument's schools become its first choice; down again, they are there."""
    command.downgrade(config_for(empty), "0001")
    with empty.begin() as connection:
        connection.execute(
            text(
                "INSERT INTO instrument (id, ticket, family, size, string_names, schools) VALUES "
                "(gen_random_uuid(), 'RW-1', 'violin', '4/4', '{G,D,A,E}', '{\"crown\": \"flatter\"}')"
            )
        )
    upgrade(empty)
    with empty.begin() as connection:
        assert connection.execute(text("SELECT schools FROM target_choice")).scalar_one() == {"crown": "flatter"}
    command.downgrade(config_for(empty), "0001")
    with empty.begin() as connection:
        assert connection.execute(text("SELECT schools FROM instrument")).scalar_one() == {"crown": "flatter"}
