"""Golden folders, made by the version they are named after, say today what they said then.

`make.py NAME` makes the next one; what is in one is never changed.
"""

import gzip
import json
import re
from pathlib import Path

import pytest
from alembic.script import ScriptDirectory
from reading import alike, derived, forget_derived, moment, of_part, of_rig, read, served, taken

from lyrandis.core.trials import KINDS
from lyrandis.store import database

GOLDEN = Path(__file__).parent
FOLDERS = sorted(p for p in GOLDEN.iterdir() if (p / "lyrandis.db.gz").exists())
PARTS = sorted(GOLDEN.glob("*/part-*.json"))


def name(path):
    return "/".join(path.relative_to(GOLDEN).parts)


def expected(folder):
    return json.loads(gzip.decompress((folder / "expected.json.gz").read_bytes()))


@pytest.fixture
def data(tmp_path, request):
    """A golden folder's database, as its version left it."""
    there = gzip.decompress((request.param / "lyrandis.db.gz").read_bytes())
    (tmp_path / "lyrandis.db").write_bytes(there)
    return tmp_path, expected(request.param)


@pytest.mark.parametrize("data", FOLDERS, ids=name, indirect=True)
def test_a_database_says_what_it_said_and_again_once_all_that_follows_is_made_anew(data):
    (folder, then), started = data, moment()
    assert read(folder, started) == then
    rows = derived(folder)
    forget_derived(folder)
    assert read(folder, started) == then
    assert derived(folder) == rows


@pytest.mark.parametrize("golden", FOLDERS, ids=name)
def test_files_of_rigs_come_in_as_the_rigs_that_they_were(golden, tmp_path):
    then, started = expected(golden)["a_rigs"], moment()
    with served(tmp_path) as client:
        for number, file in numbered_files(golden):
            came = client.post("/api/rigs/import", files={"file": (file.name, file.read_bytes())})
            assert came.status_code == 201, came.text
            now = alike(of_rig(client, came.json()["id"]), started)
            the_same_rig(now, then[number])


def numbered_files(golden):
    return [(f.stem.removeprefix("rig-"), f) for f in sorted(golden.glob("rig-*.json"))]


def the_same_rig(now, then):
    """But for ids; what came in from a file has the settings written out that did not exist then."""
    assert without_ids(now["rig"]) == without_ids(then["rig"])
    assert [t["trial"] for t in now["trials"]] == [t["trial"] for t in then["trials"]]
    for told in ("lines", "tables", "undoable", "redoable"):
        assert now[told] == then[told], told
    assert without_ids(now["file"]["entries"]) == without_ids(then["file"]["entries"])
    assert holds(without_ids(now["file"]["base"]), without_ids(then["file"]["base"]))


def holds(whole, part):
    """Whether one document says all that another says, at every depth."""
    if isinstance(part, dict):
        return part.keys() <= whole.keys() and all(holds(whole[k], part[k]) for k in part)
    return whole == part


def without_ids(document):
    """A document without the parts' ids: a file of old gives none, and each folder makes its own."""
    document = json.loads(re.sub(r'"(id \d+|[0-9a-f]{32})"', '"id"', json.dumps(document)))
    for inner in document if isinstance(document, list) else [document]:
        inner.pop("on", None)
        inner.pop("parts", None)
    return document


def test_files_of_parts_go_in_and_out(tmp_path):
    for file in PARTS:
        then = json.loads(file.read_text())
        with served(tmp_path / file.parent.name) as client:
            came = client.post("/api/parts/import", files={"file": (file.name, file.read_bytes())})
            assert came.status_code == 201, came.text
            out = taken(client, f"/api/parts/{then['mark']}/file")
            now = of_part(client, then["mark"])
        assert out == then | {"version": out["version"]}, file
        kept = [p for p in expected(file.parent)["b_parts"] if p["part"] == now["part"]]
        assert [p["undoable"] for p in kept] == [now["undoable"]], file


def test_the_revision_of_today_has_its_folder_with_every_kind_of_trial_and_of_part():
    head = ScriptDirectory.from_config(database._config()).get_current_head()
    told = expected(GOLDEN / head)
    rigs, parts = told["a_rigs"].values(), told["b_parts"]
    assert {t["trial"]["kind"] for rig in rigs for t in rig["trials"]} == set(KINDS)
    assert {e["kind"] for rig in rigs for e in rig["file"]["entries"]} >= {
        "adjust", "check", "trial", "strike", "undo", "redo",
    }  # fmt: skip
    assert {p["part"]["of"]["kind"] for p in parts} == {
        "archer", "arrows", "bow", "limb", "riser", "string",
    }  # fmt: skip
    assert {p["state"] for p in parts} == {"in_use", "lent", "put_away", "condemned"}
    assert {e["kind"] for p in parts for e in p["file"]["story"]} == {"adjust", "undo", "redo"}
    assert [rig["archived"] for rig in rigs].count(True) == 1
