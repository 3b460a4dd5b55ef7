"""The migrations make the tables that the code has in mind."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from fidicula import limits
from fidicula.cli.opening import StartError, migrated
from fidicula.db.migrate import NewerSchemaError, config_for, upgrade
from fidicula.db.migrations.fits import COLUMNS, condition, name_of
from fidicula.db.schema import metadata
from fidicula.db.unit_of_work import DoesNotFitError, make_engine, translate_db_error
from sqlalchemy import Engine, inspect, text
from sqlalchemy.exc import DBAPIError


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


def test_every_column_that_takes_what_is_typed_has_its_limit(empty: Engine) -> None:
    with empty.connect() as connection:
        columns = list(connection.execute(text(COLUMNS)))
        there = set(connection.scalars(text("SELECT conname FROM pg_constraint")))
    wanted = {name_of(table, column) for table, column, type_ in columns if condition(table, column, type_)}
    assert len(wanted) > 200
    assert wanted <= there


@pytest.mark.parametrize(
    ("table", "values"),
    [
        ("question_entry", {"name": "a" * (limits.SENTENCE + 1), "words": ""}),
        ("addition", {"words": "a" * (limits.STORY + 1)}),
        ("figure_entry", {"aim": float("nan")}),
        ("tool_check", {"tool": "card", "checked_at": datetime(9999, 1, 1, tzinfo=UTC)}),
    ],
)
def test_what_is_beyond_the_limits_comes_in_by_no_way(empty: Engine, table: str, values: dict[str, object]) -> None:
    others = [
        column.name
        for column in metadata.tables[table].columns
        if column.name not in values and not (column.nullable or column.primary_key or column.identity)
    ]
    with empty.begin() as connection:
        # What has to be there is asked for first: here only the limit is to be met.
        for name in others:
            connection.execute(text(f'ALTER TABLE {table} ALTER "{name}" DROP NOT NULL'))
    row = text(f"INSERT INTO {table} ({', '.join(values)}) VALUES ({', '.join(f':{name}' for name in values)})")
    with empty.connect() as connection, pytest.raises(DBAPIError) as refused:
        connection.execute(row, values)
    assert isinstance(translate_db_error(refused.value), DoesNotFitError)
