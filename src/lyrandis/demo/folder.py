"""The demo's own folder: marked as such, loaded whole, and never anybody else's."""

from __future__ import annotations

import json
import shutil
import tempfile
from pathlib import Path

from lyrandis.demo import scenario
from lyrandis.store import database
from lyrandis.store import folder as places
from lyrandis.store.kept import Kept
from lyrandis.store.restore import restore
from lyrandis.store.rigs import RigStore

_MARK = "lyrandis-demo.json"
_UNDER_WAY = "under way"
_READY = "ready"


class NotTheDemosError(RuntimeError):
    """The folder holds data that the demo did not make."""


def _mark(folder: Path, state: str) -> None:
    growing = places.beside(folder / _MARK)
    places.touch(growing)
    growing.write_text(json.dumps({"made by": "lyrandis demo", "state": state}) + "\n")
    growing.replace(folder / _MARK)


def _state(folder: Path) -> str | None:
    try:
        return str(json.loads((folder / _MARK).read_text())["state"])
    except FileNotFoundError:
        return None
    except (ValueError, KeyError, TypeError):  # a mark that was not finished
        return _UNDER_WAY


def scenario_in(folder: Path) -> list[Kept]:
    """The demo's rigs in a fresh folder, closed again."""
    with database.closed_after(database.open_database(folder)) as engine:
        store = RigStore(engine)
        scenario.load(store)
        return [kept for kept in store.all() if isinstance(kept, Kept)]


def _made_by_an_earlier_demo(folder: Path) -> bool:
    """Whether an unmarked folder holds rigs of the demo and no other; it is only looked at."""
    found = database.beginnings(folder)
    with tempfile.TemporaryDirectory() as place:
        own = {(kept.created_at, kept.base.archer.name) for kept in scenario_in(Path(place))}
    return bool(found) and all(
        isinstance(base, dict) and (at, base.get("archer", {}).get("name")) in own
        for at, base in found
    )


def prepare(folder: Path, reset: bool) -> None:
    """Make the folder the demo's with its data in it; `reset` makes the data anew.

    Killed on the way, it is finished at the next call.

    Raises
    ------
    NotTheDemosError : the folder holds somebody's data; nothing was touched.
    InUseError : it is to be reset while a server runs on it.
    """
    places.make(folder)
    state = _state(folder)
    if state is None and (folder / database.FILE_NAME).exists():
        if not _made_by_an_earlier_demo(folder):
            raise NotTheDemosError(
                f"{folder} holds rigs that the demo did not make. Nothing was touched.\n"
                f"To open them: lyrandis serve --data {folder}\n"
                "To see the demo, give it a folder of its own: lyrandis demo --data FOLDER"
            )
        _mark(folder, _READY)
        state = _READY
    if state == _READY and not reset and (folder / database.FILE_NAME).exists():
        return
    with places.nobody_else(folder):  # else a refused reset would be made up for at the next start
        _mark(folder, _UNDER_WAY)
    for left in folder.glob(".demo-*"):  # of one that was killed
        shutil.rmtree(left, ignore_errors=True)
    with tempfile.TemporaryDirectory(dir=folder, prefix=".demo-") as place:
        scenario_in(Path(place))
        aside, _ = restore(folder, Path(place) / database.FILE_NAME)
    if aside is not None:
        aside.unlink()  # the demo's own data, thrown away as asked
    _mark(folder, _READY)
