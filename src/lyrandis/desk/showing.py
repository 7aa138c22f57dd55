"""Whether a rig can be shown: everything a page or a paper asks for, computed before it is kept."""

from __future__ import annotations

import json
import logging
import uuid
from collections.abc import Callable, Iterable, Sequence
from contextlib import suppress

from lyrandis.core.errors import RefusedError
from lyrandis.core.history import Change, Entry
from lyrandis.core.logbook import sentences
from lyrandis.core.route import station_of
from lyrandis.core.stations import StationView, views
from lyrandis.desk import papers
from lyrandis.desk.papers import bench_of
from lyrandis.desk.shown import bench_view
from lyrandis.desk.views import view_of
from lyrandis.store.kept import Kept
from lyrandis.store.rigs import Check

log = logging.getLogger("lyrandis")


def _refuse_own(
    after: Sequence[StationView], before: Kept, changes: Sequence[Change], made: str
) -> None:
    """Refuse changes of which one makes the rig impossible, or that silence their own station.

    A brace height to the plunger, without how far the plunger lies in front of the grip, leaves
    the Brace station nothing to tell. What only strains a station downstream is let through, and
    that station says so.
    """
    paths = {station_of(c.path): c.path for c in changes}
    changed = {c.path for c in changes}
    problems = [(s.station, s.problem) for s in after if s.problem is not None]
    if not paths or not problems:
        return
    told = {s.station for s in views(bench_of(before, made)) if s.problem is None}
    for station, problem in problems:
        if problem.field in changed or (station in paths and station in told):
            at_home = station_of(problem.field) in paths
            field = problem.field if at_home else paths[station]
            raise RefusedError(field, problem.said or problem.reason, problem.limit, problem.unit)


def show_all(kept: Kept, before: Kept | None, entries: Sequence[Entry], made: str) -> None:
    """Compute all that the pages show of a rig; raises where one of them could not.

    Parameters
    ----------
    before : the rig before its latest entry; None for a new one
    entries : those that were not shown yet
    """
    b = papers.bench_of(kept, made)
    bench = bench_view(b)
    if before is not None:
        _refuse_own(bench.stations, before, entries[-1].changes, made)
    else:
        for said in sentences(entries):
            said.plain()
    for shown in (view_of(kept, _unnamed), bench):
        json.dumps(shown.model_dump(mode="python"), allow_nan=False, default=str)
    for line in bench.notes:
        line.note.plain()
    for station in bench.stations:
        for said in (station.answer, *(f.said for f in station.findings)):
            said.plain()
    papers.schedule_calendar(kept, b)
    with suppress(RefusedError):  # a rig without a plan has no such calendar
        papers.step_up_calendar(kept, b)
    papers.sheet_of(kept, b, {})


def _unnamed(_: int, seqs: Iterable[int]) -> dict[int, str]:
    """No digests: the entries that they are of need not be written yet."""
    return dict.fromkeys(seqs, "")


def refuse_unshowable(now: Callable[[], str]) -> Check:
    """The store's check: a change after which a page could not be shown is refused, with why."""

    def check(made: Kept, before: Kept | None, entries: Sequence[Entry]) -> None:
        fault = _fault(made, before, entries, now())
        if fault is None:
            return
        going_back = before is not None and entries[-1].kind == "undo"
        if before is not None and going_back and _fault(before, None, (), now()):
            return  # it could not be shown before either: going back stays open
        raise fault

    return check


def _fault(
    kept: Kept, before: Kept | None, entries: Sequence[Entry], made: str
) -> RefusedError | None:
    try:
        show_all(kept, before, entries, made)
    except RefusedError as error:
        return error
    except Exception as error:
        mark = uuid.uuid4().hex[:8]
        log.exception("a rig that could not be shown %s", mark, exc_info=error)
        latest = entries[-1] if entries else None
        field = next((c.path for c in latest.changes), "trial") if latest else "rig"
        return RefusedError(
            field,
            "With this the rig could not be shown, so nothing was kept. "
            f"Fault {mark} is in the server's log.",
        )
    return None
