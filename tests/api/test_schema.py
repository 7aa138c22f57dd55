"""The API keeps to its own document, whatever it is sent; the kept copies are current.

`LYRANDIS_EXAMPLES=250 pytest tests/api/test_schema.py` sends some ten thousand requests.
"""

import json
import os
import tempfile
from pathlib import Path

import pytest
import schemathesis
from hypothesis import HealthCheck, settings
from schemathesis import checks
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_headers_conformance,
    response_schema_conformance,
    status_code_conformance,
)

import web_answers
from lyrandis.api.app import create_app
from lyrandis.demo import scenario
from lyrandis.store.rigs import RigStore

ROOT = Path(__file__).parents[2]
EXAMPLES = int(os.environ.get("LYRANDIS_EXAMPLES", "10"))
# The test client calls itself by this name; nobody else is answered under it.
APP = create_app(Path(tempfile.mkdtemp()), hosts=frozenset({"testserver"}))
scenario.load(RigStore(APP.state.desk.engine))
schema = schemathesis.openapi.from_asgi("/api/openapi.json", APP)
CHECKS = (
    checks.not_a_server_error,
    status_code_conformance,
    content_type_conformance,
    response_headers_conformance,
    response_schema_conformance,
)


# A job is followed for as long as it lasts; that is tried in its own tests.
@schema.exclude(path="/api/jobs/{id}/events").parametrize()
@settings(max_examples=EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck))
def test_no_request_makes_a_fault_or_an_answer_that_is_not_described(case):
    response = case.call()
    assert response.status_code < 500, response.text
    case.validate_response(response, checks=CHECKS)
    if response.status_code == 422:
        told = response.json()
        assert told["detail"]
        assert told["errors"]


@pytest.mark.parametrize("path", ["/api/rigs", "/api/rigs/1", "/api/rigs/1/keep", "/api/health"])
@pytest.mark.parametrize("method", ["DELETE", "PATCH", "PUT", "TRACE", "POST", "GET"])
def test_what_is_not_done_there_is_a_405_that_says_what_is(client, path, method):
    known = {m.upper() for m in APP.openapi()["paths"][path.replace("/1", "/{id}")]}
    if method in known:
        return
    answer = client.request(method, path)
    assert answer.status_code == 405
    assert answer.headers["content-type"] == "application/problem+json"
    assert known <= set(answer.headers["allow"].split(", "))


def arrays(schema, components, seen=()):
    """Every list that a request may hold, by its path."""
    if "$ref" in schema:
        name = schema["$ref"].rpartition("/")[2]
        if name not in seen:
            yield from arrays(components[name], components, (*seen, name))
        return
    if schema.get("type") == "array":
        yield schema, seen
    for inner in [
        *schema.get("properties", {}).values(),
        *schema.get("anyOf", []),
        *schema.get("oneOf", []),
        *schema.get("prefixItems", []),
        *([schema["items"]] if isinstance(schema.get("items"), dict) else []),
    ]:
        yield from arrays(inner, components, seen)


def test_every_list_of_a_request_is_bounded_in_the_document():
    document = APP.openapi()
    components = document["components"]["schemas"]
    found = 0
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            for content in operation.get("requestBody", {}).get("content", {}).values():
                for array, where in arrays(content["schema"], components):
                    assert "maxItems" in array, (method, path, where)
                    found += 1
    assert found > 20


def test_the_kept_document_is_current():
    """`make api` writes docs/openapi.json and the browser's types from it."""
    kept = json.loads((ROOT / "docs" / "openapi.json").read_text())
    assert kept == json.loads(json.dumps(APP.openapi()))


def alike(one, other):
    """The same shape, words and whole numbers; other numbers to a thousandth."""
    if isinstance(one, dict):
        return one.keys() == other.keys() and all(alike(one[k], other[k]) for k in one)
    if isinstance(one, list):
        return len(one) == len(other) and all(map(alike, one, other))
    if isinstance(one, float) or isinstance(other, float):
        return one == pytest.approx(other, rel=1e-3, abs=1e-3)
    return one == other


def test_the_answers_that_the_browsers_tests_use_are_the_servers():
    """`make api` writes them."""
    kept = web_answers.TARGET.read_text()
    for name, document in web_answers.answers().items():
        line = next(t for t in kept.splitlines() if t.startswith(f"export const {name}:"))
        assert alike(json.loads(line.partition(" = ")[2].removesuffix(";")), document), name
