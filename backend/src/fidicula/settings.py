"""What the start command tells the application, through FIDICULA_ variables."""

from __future__ import annotations

from pathlib import Path

from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    """root : of the checkout.  database_url : where PostgreSQL listens, for SQLAlchemy.

    stand_ins : simulated devices are wired, for the demo and practice.
    lan_address : of this machine on the workshop's network, where other devices are served too.
    """

    model_config = SettingsConfigDict(env_prefix="FIDICULA_")

    root: Path = Path(__file__).resolve().parents[3]
    database_url: str = ""
    state: Path | None = None
    lan_address: str = ""
    stand_ins: bool = False

    @property
    def front_end(self) -> Path:
        """The built front end."""
        return self.root / "frontend" / "dist"
