"""An answer's schema does not change without its number: older pages would misread it."""

import hashlib
import json
import re
from pathlib import Path

from lyrandis.api.shape import HEADER, SHAPE

HERE = Path(__file__).parent
WEB = HERE.parents[1] / "web" / "src" / "lib" / "api" / "shape.ts"
NOTED = HERE / "shape.json"
_REF = "#/components/schemas/"
# Prose, and what only a request knows.
_PASSED_OVER = {"description", "title", "examples", "default"}


def _bare(schema):
    if isinstance(schema, dict):
        return {
            k: _bare(v) for k, v in schema.items() if k not in _PASSED_OVER or k == "properties"
        }
    return [_bare(v) for v in schema] if isinstance(schema, list) else schema


def _names(schema):
    return set(re.findall(rf'"{_REF}([^"]+)"', json.dumps(schema)))


def answers(document):
    """Every schema that an answer is made of, by its name, without its prose."""
    schemas = document["components"]["schemas"]
    told = [
        answer
        for path in document["paths"].values()
        for method in path.values()
        for status, answer in method["responses"].items()
        if status.startswith("2")
    ]
    waiting, found = _names(told), {}
    while waiting:
        name = waiting.pop()
        found[name] = _bare(schemas[name])
        waiting |= _names(schemas[name]) - found.keys()
    return found


def test_the_schemas_of_the_answers_are_those_of_their_number(client):
    now = answers(client.get("/api/openapi.json").json())
    digest = hashlib.sha256(json.dumps(now, sort_keys=True).encode()).hexdigest()
    noted = json.loads(NOTED.read_text())
    assert noted == {"shape": SHAPE, "digest": digest}, (
        "An answer's schema changed: raise SHAPE in api/shape.py and web/src/lib/api/shape.ts, and "
        f'write {{"shape": …, "digest": "{digest}"}} to {NOTED.name}.'
    )


def test_the_pages_are_built_for_the_same_number():
    assert re.search(r"SHAPE = (\d+);", WEB.read_text())[1] == str(SHAPE)


def test_every_answer_says_its_shape_and_no_page_does(client):
    for path in ("/api/rigs", "/api/rigs/99", "/api/nothing"):
        assert client.get(path).headers[HEADER] == str(SHAPE)
    assert HEADER not in client.get("/").headers
