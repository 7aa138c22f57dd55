"""What the archer chose, by key."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from lyrandis.store.loose import Broken
from lyrandis.store.tables import PreferenceRow


class PreferenceStore:
    """Preferences by key, as JSON."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def get(self, key: str) -> Any:
        """The value of a preference, or None."""
        with Session(self.engine) as session:
            row = session.get(PreferenceRow, key)
            return None if row is None or isinstance(row.value, Broken) else row.value

    def change(self, key: str, to: Callable[[Any], Any]) -> Any:
        """Set a preference to what `to` makes of its present value, nobody else between."""
        with Session(self.engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(PreferenceRow, key)
            value = to(None if row is None or isinstance(row.value, Broken) else row.value)
            session.merge(PreferenceRow(key=key, value=value))
        return value

    def put(self, key: str, value: Any) -> None:
        """Set a preference."""
        with Session(self.engine.execution_options(writes=True)) as session, session.begin():
            session.merge(PreferenceRow(key=key, value=value))
