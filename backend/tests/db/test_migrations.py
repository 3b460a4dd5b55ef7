"""The migrations make the tables that the code has in mind."""

from __future__ import annotations

from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from fidicula.db.migrate import config_for, upgrade
from fidicula.db.schema import metadata
from sqlalchemy import Engine, inspect


def test_migrated_database_is_the_schema(empty: Engine) -> None:
    with empty.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), metadata) == []


def test_down_and_up_again(empty: Engine) -> None:
    command.downgrade(config_for(empty), "base")
    assert inspect(empty).get_table_names() == ["alembic_version"]
    upgrade(empty)
    assert "reading" in inspect(empty).get_table_names()
