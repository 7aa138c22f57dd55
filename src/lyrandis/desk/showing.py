"""Whether a rig can be shown: everything a page or a paper asks for, computed before it is kept."""

from __future__ import annotations

import json
import logging
import uuid
from collections.abc import Callable
from contextlib import suppress

from lyrandis.core.errors import RefusedError
from lyrandis.desk import papers
from lyrandis.desk.bench_view import bench_view
from lyrandis.desk.views import history_of, note_of, view_of
from lyrandis.store.kept import Kept

log = logging.getLogger("lyrandis")


def show_all(kept: Kept, made: str, all_new: bool = False) -> None:
    """Compute all that the pages show of a rig; raises where one of them could not.

    Parameters
    ----------
    all_new : whether no entry of the history was shown before; else only the latest is told
    """
    note_of(kept)
    if all_new:
        for line in history_of(kept):
            line.said.plain()
    view = view_of(kept)
    bench = bench_view(kept.present.rig, kept.present.trials, made)
    for shown in (view, bench):
        json.dumps(shown.model_dump(mode="python"), allow_nan=False, default=str)
    for station in bench.stations:
        for said in (station.answer, station.note, *(f.said for f in station.findings)):
            said.plain()
    papers.schedule_calendar(kept, made)
    with suppress(RefusedError):  # a rig without a plan has no such calendar
        papers.step_up_calendar(kept, made)
    papers.sheet_of(kept, {}, made)


def refuse_unshowable(now: Callable[[], str]) -> Callable[[Kept, Kept | None], None]:
    """The store's check: a change after which a page could not be shown is refused, with why."""

    def check(made: Kept, before: Kept | None) -> None:
        fault = _fault(made, now(), before is None)
        if fault is None:
            return
        takes_back = bool(made.entries) and made.entries[-1].kind == "undo"
        if takes_back and before is not None and _fault(before, now()) is not None:
            return  # it could not be shown before either: going back stays open
        raise fault

    return check


def _fault(kept: Kept, made: str, all_new: bool = False) -> RefusedError | None:
    try:
        show_all(kept, made, all_new)
    except RefusedError as error:
        return error
    except Exception as error:
        mark = uuid.uuid4().hex[:8]
        log.exception("a rig that could not be shown %s", mark, exc_info=error)
        latest = kept.entries[-1] if kept.entries else None
        field = next((c.path for c in latest.changes), "trial") if latest else "rig"
        return RefusedError(
            field,
            "With this the rig could not be shown, so nothing was kept. "
            f"Fault {mark} is in the server's log.",
        )
    return None
