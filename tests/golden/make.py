"""Make a golden folder with this version, once: `python tests/golden/make.py 0008`.

The demo, and on top of it what a demo does not have: every kind of trial, a trial struck and one
put right, steps back and forth, parts lent, put away and condemned, a rig put away.
"""

from __future__ import annotations

import gzip
import json
import sys
import tempfile
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient
from reading import moment, read, served, taken

from lyrandis.demo import scenario
from lyrandis.store.database import closed_after, open_database
from lyrandis.store.rigs import RigStore

GOLDEN = Path(__file__).parent
NOT_IN_THE_DEMO: tuple[tuple[str, dict[str, Any]], ...] = (
    ("draw", {"kind": "inspection", "looked": ["cracks", "string"], "found": ["cracks"]}),
    ("draw", {"kind": "release", "places": ["cracks"], "word": "Bowyer Ruta"}),
    ("weight", {"kind": "coach", "weight_lbf": 22, "word": "Coach Emil", "notes": "a quiet draw"}),
)


def asked(client: TestClient, path: str, **body: Any) -> Any:
    """The answer to an act, which is done."""
    answer = client.post(path, json=body)
    assert answer.status_code < 300, (path, answer.text)
    return answer.json()


def act(client: TestClient, id: int, what: str, **body: Any) -> Any:
    """An act on a rig as it stands now."""
    rig = taken(client, f"/api/rigs/{id}")
    return asked(client, f"/api/rigs/{id}/{what}", seq=rig["seq"], digest=rig["digest"], **body)


def act_on_part(client: TestClient, mark: str, what: str, **body: Any) -> Any:
    """An act on a part as it stands now."""
    line = taken(client, f"/api/parts/{mark}")["line"]
    return asked(
        client, f"/api/parts/{mark}/{what}", seq=line["seq"], digest=line["digest"], **body
    )


def fill(client: TestClient) -> None:
    """What the demo does not have."""
    for station, trial in NOT_IN_THE_DEMO:
        act(client, 2, "keep", changes={}, station=station, trial=trial)
    act(client, 1, "keep", changes={"bow.brace_height_in": 8.75}, station="brace", why="by ear")
    act(client, 1, "keep", changes={"arrow.point_gr": 125}, station="arrow", why="heavier point")
    act(client, 1, "undo")
    act(client, 1, "undo")
    act(client, 1, "redo")
    first, second = taken(client, "/api/rigs/1")["trials"][:2]
    act(client, 1, "strike", about=first["seq"], out=True, why="written on the wrong rig")
    right = second["trial"] | {"notes": "the tape lay slack"}
    act(client, 1, "keep", changes={}, station=second["station"], trial=right, about=second["seq"])
    act(client, 1, "keep", changes={"string.strands": 16}, station="string", why="a thicker one")
    act(client, 1, "undo")
    asked(client, "/api/rigs/3/copy", name="Copy for the indoor months")
    asked(client, "/api/rigs/4/archive", away=True)
    marks = [p["mark"] for p in taken(client, "/api/parts") if not p["rigs"]]
    lent = {"state": "lent", "to": "Ilse", "since": "2026-05-02", "due_back": "2026-06-01"}
    gone = {"state": "condemned", "why": "a lifting layer", "word": "Bowyer Ruta"}
    away = {"state": "put_away", "why": "indoor string"}
    for mark, keeping in zip(marks, (lent, gone, away), strict=False):
        changes = {f"keeping.{name}": value for name, value in keeping.items()}
        act_on_part(client, mark, "keep", changes=changes, why="as the club decided")
    mark = marks[-1]
    act_on_part(client, mark, "keep", changes={"name": "Renamed once", "notes": "seen"}, why="so")
    act_on_part(client, mark, "keep", changes={"notes": "seen twice"})
    act_on_part(client, mark, "undo")
    act_on_part(client, mark, "undo")
    act_on_part(client, mark, "redo")


def write_expected(folder: Path, told: dict[str, Any]) -> None:
    """What is in a golden folder, a rig and a part a line."""
    rigs = ",\n".join(f"{json.dumps(id)}: {_line(rig)}" for id, rig in told["a_rigs"].items())
    parts = ",\n".join(map(_line, told["b_parts"]))
    text = f'{{"a_rigs": {{\n{rigs}\n}}, "b_parts": [\n{parts}\n]}}\n'
    (folder / "expected.json.gz").write_bytes(gzip.compress(text.encode(), mtime=0))


def _line(document: Any) -> str:
    return json.dumps(document, ensure_ascii=False, sort_keys=True)


def put_by(data: Path, folder: Path) -> None:
    """A data folder's database and files, and what is in them, as a golden folder."""
    database = (data / "lyrandis.db").read_bytes()
    (folder / "lyrandis.db.gz").write_bytes(gzip.compress(database, mtime=0))
    write_expected(folder, read(data, moment()))


def main(name: str) -> None:
    """Make the golden folder of this version."""
    folder = GOLDEN / name
    folder.mkdir()  # what is golden is never made again
    with tempfile.TemporaryDirectory() as place:
        data = Path(place) / "data"
        with closed_after(open_database(data)) as engine:
            scenario.load(RigStore(engine))
        with served(data) as client:
            fill(client)
            for note in taken(client, "/api/rigs"):
                text = client.get(f"/api/rigs/{note['id']}/file").text
                (folder / f"rig-{note['id']}.json").write_text(text)
            kinds = {p["kind"]: p["mark"] for p in taken(client, "/api/parts")}
            for kind, mark in kinds.items():
                text = client.get(f"/api/parts/{mark}/file").text
                (folder / f"part-{kind}.json").write_text(text)
        put_by(data, folder)


if __name__ == "__main__":
    main(sys.argv[1])
