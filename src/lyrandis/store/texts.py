"""What stands in the columns as text, read into the core's types: once for each text.

The same text always reads as the same frozen object, so nothing here can grow stale: what is
changed in the database is another text.
"""

from __future__ import annotations

import json
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter, ValidationError

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, difference, refused
from lyrandis.core.history import State
from lyrandis.core.parts import Rig
from lyrandis.core.route import Mark
from lyrandis.core.summary import Summary
from lyrandis.core.trials import Trial
from lyrandis.core.upcast import rig_document
from lyrandis.store.loose import Broken, read_loosely

_TRIAL: TypeAdapter[Any] = TypeAdapter(Trial)


@lru_cache(maxsize=512)
def base_of(text: str, form: int) -> Rig:
    """What a rig began as; raises RefusedError with a field that begins with `base`."""
    value = read_loosely(text)
    if isinstance(value, Broken):
        raise RefusedError("base", f"What the rig began as cannot be read: {value.reason}.")
    try:
        return Rig.model_validate(rig_document(value, form))
    except ValidationError as error:
        first = refused(error.errors()[0])
        raise first.at(f"base.{first.field}") from None


@lru_cache(maxsize=4096)
def _settings(text: str) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(text)
    return found


@lru_cache(maxsize=4096)
def rig_with(base: str, form: int, settings: str) -> Rig:
    """A rig of what it began as and the settings in which it differs from that."""
    return changed(base_of(base, form), _settings(settings))


def settings_text(base: Rig, rig: Rig) -> str:
    """The settings in which a rig differs from what it began as."""
    return json.dumps(difference(base, rig), allow_nan=False)


def state_text(base: Rig, state: State) -> str:
    """A rig and its marks, as differences from what it began as."""
    document = {
        "settings": difference(base, state.rig),
        "marks": [[m.station, m.standing, difference(base, m.rig)] for m in state.marks],
    }
    return json.dumps(document, allow_nan=False)


@lru_cache(maxsize=1024)
def state_of(base: str, form: int, text: str) -> State:
    """The reverse of `state_text`; raises ValueError or RefusedError for any other text."""
    document = json.loads(text)
    began = base_of(base, form)
    marks = (
        Mark(station, standing, changed(began, settings))
        for station, standing, settings in document["marks"]
    )
    return State(changed(began, document["settings"]), tuple(marks))


@lru_cache(maxsize=4096)
def trial_of(text: str) -> Any:
    """A trial as the core knows it; raises ValidationError."""
    return _TRIAL.validate_json(text)


@lru_cache(maxsize=4096)
def summary_of(text: str) -> Summary:
    """A rig's line in the list; raises ValidationError."""
    return Summary.model_validate_json(text)
