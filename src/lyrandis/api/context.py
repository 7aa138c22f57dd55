"""What a router needs of the application: the desk, the preferences, the clock."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated

from fastapi import Depends, Path, Request

from lyrandis.desk.rigs import Desk
from lyrandis.store.preferences import PreferenceStore


def _desk(request: Request) -> Desk:
    desk: Desk = request.app.state.desk
    return desk


def _preferences(request: Request) -> PreferenceStore:
    store: PreferenceStore = request.app.state.preferences
    return store


AtDesk = Annotated[Desk, Depends(_desk)]
Preferences = Annotated[PreferenceStore, Depends(_preferences)]
RigId = Annotated[int, Path(ge=1, le=2**53 - 1, description="Number of a rig.")]


def now() -> str:
    """The present time in UTC, as the core and the files are told it."""
    return datetime.now(UTC).isoformat(timespec="seconds")
