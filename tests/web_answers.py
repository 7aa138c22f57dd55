"""Real answers of the API for the browser's own tests: `make api` writes them as TypeScript.

The front end's type check then holds them to the types it is written with, and a test here to
what the server says today.
"""

from __future__ import annotations

import itertools
import json
import tempfile
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from lyrandis.api.app import create_app

TARGET = Path(__file__).parents[1] / "web" / "src" / "lib" / "tests" / "answers.ts"
RIG = {
    "name": "One",
    "use": "range",
    "archer": {"draw_length_in": 28, "release": "split"},
    "bow": {"marked_weight_lbf": 36},
    "string": {"strands": 14},
    "aim": {"distances_m": [10, 20]},
}


def _rounded(value: Any) -> Any:
    """Numbers to the sixth digit: the last ones are the machine's."""
    if isinstance(value, float):
        return float(f"{value:.6g}")
    if isinstance(value, dict):
        return {k: _rounded(v) for k, v in value.items()}
    return [_rounded(v) for v in value] if isinstance(value, list) else value


def answers() -> dict[str, Any]:
    """The catalog, a rig as it is kept, and all its numbers."""
    with tempfile.TemporaryDirectory() as place:
        here = "http://127.0.0.1"
        app = create_app(Path(place), Path(place))
        marks = (f"{n:032x}" for n in itertools.count(1))
        app.state.desk.rack.new_mark = lambda: next(marks)
        client = TestClient(app, base_url=here, headers={"origin": here})
        rig = client.post("/api/rigs", json=RIG).json()
        seen = client.post("/api/rigs/1/preview", json={"changes": {}}).json()
        catalog = client.get("/api/catalog").json()
        app.state.desk.engine.dispose()
    for told in (rig, *rig["trials"]):
        told["digest"] = "0" * 32  # the time is in it
    return _rounded({"catalog": catalog, "rig": rig, "bench": seen["bench"]})


TYPES = {"catalog": "Catalog", "rig": "RigView", "bench": "Bench"}


def text() -> str:
    """The TypeScript file."""
    told = answers()
    lines = [
        "// Written by `make api` from the server's own answers; not to be changed by hand.",
        "import type { Bench, Catalog, RigView } from '$lib/api/client';",
    ]
    for name, kind in TYPES.items():
        document = json.dumps(told[name], ensure_ascii=False)
        lines.append(f"\nexport const {name}: {kind} = {document};")
    return "\n".join(lines) + "\n"


if __name__ == "__main__":
    TARGET.write_text(text())
