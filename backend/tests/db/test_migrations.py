"""The migrations make the tables that the code has in mind."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from fidicula.cli.opening import StartError, migrated
from fidicula.db.migrate import NewerSchemaError, config_for, upgrade
from fidicula.db.schema import metadata
from fidicula.db.unit_of_work import make_engine
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


def test_a_database_of_a_newer_version_is_left_alone_and_said_so(empty: Engine) -> None:
    with empty.begin() as connection:
        connection.execute(text("UPDATE alembic_version SET version_num = '9999'"))
    with pytest.raises(NewerSchemaError, match="schema 9999"):
        upgrade(empty)
    with (
        pytest.raises(StartError, match="A newer version of Fidicula made this database"),
        migrated(empty.url.render_as_string(hide_password=False)),
    ):
        pass


def test_of_two_that_bring_a_database_up_at_once_one_waits(empty: Engine) -> None:
    command.downgrade(config_for(empty), "0020")
    engines = [make_engine(empty.url.render_as_string(hide_password=False)) for _ in range(2)]
    with ThreadPoolExecutor(2) as pool:
        list(pool.map(upgrade, engines))
    for engine in engines:
        engine.dispose()
    with empty.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), metadata) == []
