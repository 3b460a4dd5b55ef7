"""Bringing a database up to the newest schema."""

from __future__ import annotations

from importlib import resources

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine


def config_for(engine: Engine) -> Config:
    config = Config()
    config.set_main_option("script_location", str(resources.files("fidicula.db").joinpath("migrations")))
    config.attributes["engine"] = engine
    return config


def upgrade(engine: Engine) -> None:
    """Apply every migration that is not there yet."""
    command.upgrade(config_for(engine), "head")
