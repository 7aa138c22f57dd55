"""What a folder holds, as a script sees it: over HTTP, and in the tables by their stored names.

Nothing computed by a model is in it, so it may never change: neither by a better model, nor by
code that moved.
"""

from __future__ import annotations

import json
import re
import sqlite3
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from lyrandis.api.app import create_app

HERE = "http://127.0.0.1"
DERIVED = {
    "trials": "rig_id, seq, kind, at, day, struck, trial, made_with",
    "snapshots": "rig_id, seq, changed_at, state, fault",
    "checkpoints": "rig_id, seq, state",
    "rig_parts": "rig_id, slot, mark, is_on, last_at",
    "entries": "rig_id, seq, fate, acts_on",
}
_MOMENT = re.compile(r"\b\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\+00:00")
_MARK = re.compile(r"\b[0-9a-f]{32}\b")


def served(folder: Path) -> TestClient:
    """The application on a folder."""
    return TestClient(create_app(folder, folder), base_url=HERE, headers={"origin": HERE})


def taken(client: TestClient, path: str) -> Any:
    """An answer's body: JSON where it is, else its text."""
    answer = client.get(path)
    assert answer.status_code == 200, (path, answer.text)
    json_body = answer.headers["content-type"].startswith("application/json")
    return answer.json() if json_body else answer.text


def alike(document: Any, started: str) -> Any:
    """What is made as it is read: ids numbered in their order, and the present moment so called."""
    numbers: dict[str, str] = {}
    text = json.dumps(document)
    text = _MARK.sub(lambda m: numbers.setdefault(m[0], f"id {len(numbers)}"), text)
    return json.loads(_MOMENT.sub(lambda m: "now" if m[0] >= started else m[0], text))


def in_order(marks: Any, *documents: Any) -> list[str]:
    """Marks in the order in which documents name them; the others after, by themselves."""
    order = {mark: n for n, mark in enumerate(_MARK.findall(json.dumps(documents))[::-1])}
    return sorted(marks, key=lambda mark: (-order.get(mark, -1), mark))


def of_rig(client: TestClient, id: int) -> dict[str, Any]:
    """A rig as it stands, its lines, its file and its tables."""
    rig, file = taken(client, f"/api/rigs/{id}"), taken(client, f"/api/rigs/{id}/file")
    kinds = sorted({t["trial"]["kind"] for t in rig["trials"] if not t["struck"]})
    lines = taken(client, f"/api/rigs/{id}/history")
    assert len(lines) == len(file["entries"]), "the lines of a golden rig fit one page"
    return {
        "rig": rig["rig"],
        "trials": [
            {k: t[k] for k in ("seq", "at", "day", "station", "trial", "struck")}
            for t in rig["trials"]
        ],
        "undoable": rig["undoable"] is not None,
        "redoable": rig["redoable"] is not None,
        "on": {p["slot"]: p["name"] for p in rig["parts"]},
        "measured": rig["measured"],
        "lines": [[e[k] for k in ("seq", "at", "kind", "station", "standing")] for e in lines],
        "file": {k: v for k, v in file.items() if k not in ("uid", "parts")},
        "parts": [[m, file["parts"][m]] for m in in_order(file["parts"], rig["rig"], file)],
        "tables": {kind: taken(client, f"/api/rigs/{id}/trials/{kind}") for kind in kinds},
    }


def of_part(client: TestClient, mark: str) -> dict[str, Any]:
    """A part as it stands, where it is, and its file."""
    told = taken(client, f"/api/parts/{mark}")
    return {
        "part": told["part"],
        "state": told["line"]["state"],
        "rigs": told["line"]["rigs"],
        "undoable": told["undoable"] is not None,
        "redoable": told["redoable"] is not None,
        "file": taken(client, f"/api/parts/{mark}/file"),
    }


def moment() -> str:
    """The present moment."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def read(folder: Path, started: str) -> dict[str, Any]:
    """Everything in a folder, rig by rig and part by part; what was written since the start is so."""
    with served(folder) as client:
        health = taken(client, "/api/data")
        assert health["whole"], health
        notes = sorted(taken(client, "/api/rigs"), key=lambda note: note["id"])
        rigs = {
            str(n["id"]): {k: n[k] for k in ("name", "seq", "created_at", "archived")}
            | of_rig(client, n["id"])
            for n in notes
        }
        # Parts on rigs first: what is made as old data comes up has ids by chance.
        marks = in_order([p["mark"] for p in taken(client, "/api/parts")], rigs)
        told = [of_part(client, mark) for mark in marks]
    return alike({"a_rigs": rigs, "b_parts": told}, started)


def derived(folder: Path) -> dict[str, list[tuple[Any, ...]]]:
    """The rows of the tables that follow from the histories."""
    with sqlite3.connect(folder / "lyrandis.db") as connection:
        return {
            table: connection.execute(f"SELECT {columns} FROM {table} ORDER BY 1, 2, 3").fetchall()
            for table, columns in DERIVED.items()
        }


def forget_derived(folder: Path) -> None:
    """Take away all that follows from the histories, as another version would find it."""
    with sqlite3.connect(folder / "lyrandis.db") as connection:
        for table in ("trials", "checkpoints", "rig_parts", "snapshots"):
            connection.execute(f"DELETE FROM {table}")
        connection.execute("UPDATE entries SET fate = 'stands', acts_on = NULL")
