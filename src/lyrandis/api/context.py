"""What a router needs of the application: its stores."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated

from fastapi import Depends, Request

from lyrandis.store.rigs import PreferenceStore, RigStore


def _rigs(request: Request) -> RigStore:
    store: RigStore = request.app.state.rigs
    return store


def _preferences(request: Request) -> PreferenceStore:
    store: PreferenceStore = request.app.state.preferences
    return store


Rigs = Annotated[RigStore, Depends(_rigs)]
Preferences = Annotated[PreferenceStore, Depends(_preferences)]


def now() -> str:
    """The present time in UTC, as the core and the files are told it."""
    return datetime.now(UTC).isoformat(timespec="seconds")
