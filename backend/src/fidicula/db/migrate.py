"""Bringing a database up to the newest schema."""

from __future__ import annotations

from importlib import resources

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Engine
from sqlalchemy.exc import DBAPIError

from fidicula.db.unit_of_work import translate_db_error


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(resources.files("fidicula.db").joinpath("migrations")))
    return config


def config_for(engine: Engine) -> Config:
    config = _config()
    config.attributes["engine"] = engine
    return config


def schemas() -> set[str]:
    """The numbers of every schema that can be brought up to the newest."""
    directory = ScriptDirectory.from_config(_config())
    return {script.revision for script in directory.walk_revisions()}


def schema_of(engine: Engine) -> str:
    """The number of the schema that a database has; empty for none."""
    with engine.connect() as connection:
        return MigrationContext.configure(connection).get_current_revision() or ""


class NewerSchemaError(Exception):
    """A newer version of the program made this database. schema : its number."""

    def __init__(self, schema: str) -> None:
        super().__init__(f"the database has schema {schema}, which a newer version made")
        self.schema = schema


_ONE_AT_A_TIME = 0x66696463
"""Of several processes that come to one database one brings it up, and the others wait."""


def upgrade(engine: Engine) -> None:
    """Apply every migration that is not there yet. Raises NewerSchemaError, and DatabaseError."""
    try:
        with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as holding:
            holding.exec_driver_sql("SET lock_timeout = 0")
            holding.exec_driver_sql("SET statement_timeout = 0")
            holding.exec_driver_sql(f"SELECT pg_advisory_lock({_ONE_AT_A_TIME})")
            try:
                schema = schema_of(engine)
                if schema and schema not in schemas():
                    raise NewerSchemaError(schema)
                command.upgrade(config_for(engine), "head")
            finally:
                # The connection goes back to its pool: what was set for this does not stay with it.
                holding.exec_driver_sql(f"SELECT pg_advisory_unlock({_ONE_AT_A_TIME})")
                holding.exec_driver_sql("RESET lock_timeout")
                holding.exec_driver_sql("RESET statement_timeout")
    except DBAPIError as error:
        raise translate_db_error(error) or error from error
