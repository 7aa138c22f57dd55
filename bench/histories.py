"""`make bench`: what a long history costs, from 10² to nearly 10⁵ entries made up from a seed.

Each act is asked of the application itself, in this process and without a network: the CPU it
takes is compared with that of the shortest history. Beside it stands the plain way, reading and
replaying the whole list, on the same data.
"""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import numpy as np
from fastapi.testclient import TestClient
from rich.console import Console
from rich.table import Table
from sqlalchemy import select

from lyrandis.api.app import create_app
from lyrandis.core.history import Entry, replay
from lyrandis.core.parts import Rig
from lyrandis.core.trials import BraceTrial, HoldTrial, InspectionTrial, QuietTrial, WeighingTrial
from lyrandis.desk.rigs import Desk
from lyrandis.store.tables import EntryRow

SIZES = (100, 1_000, 10_000, 99_900)  # 100,000 is the most that a rig holds
FLAT = 1.5
PAGE_MS = 50.0
RUNS = 15
out = Console()

_SETTINGS = (
    ("bow.brace_height_in", "brace", lambda r: round(7.5 + r.random(), 3)),
    ("string.strands", "string", lambda r: int(r.integers(12, 19))),
    ("arrow.point_gr", "arrow", lambda r: float(r.integers(80, 160))),
    ("nock_height_mm", "nock-point", lambda r: round(8 + 4 * r.random(), 2)),
    ("archer.draw_length_in", "draw", lambda r: round(27.5 + r.random(), 2)),
)


def _trial(r: np.random.Generator) -> tuple[str, Any]:
    one = int(r.integers(5))
    levels = tuple(float(x) for x in np.round(r.normal(62, 0.6, 3), 2))
    if one == 0:
        return "weight", HoldTrial(weight_lbf=36, seconds=float(r.integers(4, 15)))
    if one == 1:
        return "brace", BraceTrial(brace_height_in=8.0, twists=24, levels_db=levels)
    if one == 2:
        return "bow-length", InspectionTrial(looked=("tips",))
    if one == 3:
        return "quiet", QuietTrial(check="loose", before_db=levels, after_db=levels)
    return "weight", WeighingTrial(readings=((26.0, 34.0), (28.0, 38.0 + float(r.random()))))


def entries(count: int, seed: int = 20260401) -> Iterator[Entry]:
    """A made-up history: settings, trials, checks, put right, struck out, taken back."""
    r = np.random.default_rng(seed)
    logged: list[int] = []
    done = 0
    for seq in range(1, count + 1):
        year, month, day_ = 2001 + (seq - 1) // 4400, 1 + (seq // 367) % 12, 1 + (seq // 13) % 28
        day = f"{year:04d}-{month:02d}-{day_:02d}"
        entry: dict[str, Any] = {"seq": seq, "at": f"{day}T10:00:00+00:00", "kind": "adjust"}
        what = r.random()
        if what < 0.45:
            path, station, value = _SETTINGS[int(r.integers(len(_SETTINGS)))]
            entry |= {"station": station, "standing": "provisional"}
            entry["changes"] = ({"path": path, "after": value(r)},)
        elif what < 0.9:
            station, trial = _trial(r)
            entry |= {"kind": "trial", "station": station, "trial": trial}
            logged.append(seq)
        elif what < 0.94 and logged:
            entry |= {"kind": "strike", "about": logged[-1], "station": "weight"}
        elif what < 0.97 or done < 2:
            entry |= {"kind": "check", "station": "string", "standing": "settled"}
        else:
            entry |= {"kind": "undo"}
            done = 0
            logged.clear()  # what was taken back is not spoken of again
        done += 1
        yield Entry.model_validate(entry)


def _cpu_ms(work: Callable[[], object]) -> float:
    times = []
    for _ in range(RUNS):
        start = time.process_time()
        work()
        times.append((time.process_time() - start) * 1000)
    return statistics.median(times)


def _acts(client: TestClient, id: int) -> dict[str, Callable[[], object]]:
    rig = f"/api/rigs/{id}"

    def ok(answer: Any) -> Any:
        assert answer.is_success, answer.text
        return answer.json()

    def keep() -> None:
        seq = ok(client.get(rig))["seq"]
        changes = {"string.strands": 12 + seq % 5}
        ok(client.post(f"{rig}/keep", json={"seq": seq, "station": "string", "changes": changes}))

    def back_and_again() -> None:
        seq = ok(client.get(rig))["seq"]
        ok(client.post(f"{rig}/undo", json={"seq": seq}))
        ok(client.post(f"{rig}/redo", json={"seq": seq + 1}))

    preview = {"changes": {"arrow.point_gr": 121}, "parts": ["arrow"]}
    return {
        "list the rigs": lambda: ok(client.get("/api/rigs")),
        "open": lambda: ok(client.get(rig)),
        "look ahead at a station": lambda: ok(client.post(f"{rig}/preview", json=preview)),
        "logbook, its latest page": lambda: ok(client.get(f"{rig}/history")),
        "logbook, its oldest page": lambda: ok(client.get(f"{rig}/history?before=80")),
        "earlier trials": lambda: ok(client.get(f"{rig}/trials?kind=brace&most=12")),
        "schedule": lambda: ok(client.get(f"{rig}/schedule")),
        "keep": keep,
        "take back and do again": back_and_again,
    }


PAGES = 7  # of these acts show a page; the rest write


def _plain_ms(desk: Desk, id: int) -> float:
    def work() -> None:
        with desk.engine.connect() as connection:
            base = Rig()
            rows = connection.execute(
                select(EntryRow.__table__).where(EntryRow.rig_id == id).order_by(EntryRow.seq)
            ).mappings()
            names = Entry.model_fields
            replay(base, [Entry.model_validate({n: row[n] for n in names}) for row in rows])

    start = time.process_time()
    work()
    return (time.process_time() - start) * 1000


def main() -> None:
    """Print the CPU of each act by the length of the history."""
    with tempfile.TemporaryDirectory() as place:
        app = create_app(Path(place), Path(place))
        desk: Desk = app.state.desk
        table = Table("CPU, ms", *(f"{n:,} entries" for n in SIZES), "longest / shortest")
        found: dict[str, list[float]] = {}
        plain, made, shown = [], [], []
        here = "http://127.0.0.1"
        with TestClient(app, base_url=here, headers={"Origin": here}) as client:
            for size in SIZES:
                id = desk.add(Rig(name=f"{size:,}").model_dump(mode="json"),
                              "2001-01-01T10:00:00+00:00", entries(size))  # fmt: skip
                start = time.process_time()
                desk.get(id)
                made.append((time.process_time() - start) * 1000)
                shown.append(id)
            for id in shown:
                for name, act in _acts(client, id).items():
                    act()
                    found.setdefault(name, []).append(_cpu_ms(act))
                plain.append(_plain_ms(desk, id))
        for name, times in found.items():
            table.add_row(name, *(f"{t:.1f}" for t in times), f"{times[-1] / times[0]:.2f} ×")
        made_up = {"the snapshot made anew, once": made, "reading and replaying it all": plain}
        for name, times in made_up.items():
            table.add_row(name, *(f"{t:.0f}" for t in times), f"{times[-1] / times[0]:.0f} ×")
        out.print(table)
        slow = {n: max(t) for n, t in list(found.items())[:PAGES]}
        worst = max(slow, key=lambda n: slow[n])
        steep = max(found, key=lambda n: found[n][-1] / found[n][0])
        ratio = found[steep][-1] / found[steep][0]
        out.print(f"Flat within {FLAT}: steepest is “{steep}”, {ratio:.2f} ×.")
        out.print(
            f"Every page under {PAGE_MS:g} ms of CPU: dearest is “{worst}”, {slow[worst]:.1f} ms."
        )


if __name__ == "__main__":
    main()
