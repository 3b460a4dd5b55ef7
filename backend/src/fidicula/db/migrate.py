"""Bringing a database up to the newest schema."""

from __future__ import annotations

from importlib import resources

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Engine
from sqlalchemy.exc import DBAPIError

from fidicula.db.unit_of_work import as_ours


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


def upgrade(engine: Engine) -> None:
    """Apply every migration that is not there yet."""
    try:
        command.upgrade(config_for(engine), "head")
    except DBAPIError as error:
        raise as_ours(error) or error from error
