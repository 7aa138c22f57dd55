"""Where the data lies and where the application listens."""

from __future__ import annotations

import secrets
from pathlib import Path

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict


def new_token() -> str:
    """An access token that nobody guesses."""
    return secrets.token_urlsafe(24)


SITE = Path(__file__).parent / "site"


class Settings(BaseSettings):
    """Read from the environment: LYRANDIS_DATA, LYRANDIS_TOKEN."""

    model_config = SettingsConfigDict(env_prefix="LYRANDIS_")

    data: Path = Field(default_factory=lambda: Path.home() / ".local" / "share" / "lyrandis")
    token: str | None = None
