"""What the start command tells the application, through FIDICULA_ variables."""

from __future__ import annotations

from pathlib import Path

from pydantic_settings import BaseSettings, SettingsConfigDict

LOOPBACK = ("127.0.0.1", "localhost", "[::1]")
"""Names of this machine that lead nowhere from another."""


class Settings(BaseSettings):
    """root : of the checkout.  database_url : where PostgreSQL listens, for SQLAlchemy.

    stand_ins : simulated devices are wired, for the demo and practice.
    lan_address, lan_port : of this machine on the workshop's network, where other devices are served too.
    """

    model_config = SettingsConfigDict(env_prefix="FIDICULA_")

    root: Path = Path(__file__).resolve().parents[3]
    database_url: str = ""
    state: Path | None = None
    lan_address: str = ""
    lan_port: int = 0
    stand_ins: bool = False

    @property
    def reached_at(self) -> str:
        """Where a telephone in the workshop reaches the application; empty where it is served to this machine alone."""
        return f"https://{self.lan_address}:{self.lan_port}" if self.lan_address and self.lan_port else ""

    @property
    def front_end(self) -> Path:
        """The built front end."""
        return self.root / "frontend" / "dist"
