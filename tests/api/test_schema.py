"""The API keeps to its own document, whatever it is sent; the kept copies are current.

Beside requests drawn at random each operation is sent every edge of its description: some twenty
thousand, of which a share is sent in `make test`.
"""

import shutil
import tempfile
from collections import Counter
from pathlib import Path

import pytest
import schemathesis
from hypothesis import HealthCheck, settings
from schemathesis import checks
from schemathesis.generation.hypothesis.builder import (
    HypothesisTestConfig,
    HypothesisTestMode,
    create_test,
)
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_headers_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from claims import ALL, share
from lyrandis.api.app import create_app

EXAMPLES = share(50)
FIRST, EVERY = 15, 40  # edges of one operation, where not all are sent
CHECKS = (
    checks.not_a_server_error,
    status_code_conformance,
    content_type_conformance,
    response_headers_conformance,
    response_schema_conformance,
)
# The test client calls itself by this name; nobody else is answered under it.
PLAIN = create_app(Path(tempfile.mkdtemp()), hosts=frozenset({"testserver"})).openapi()
# A job is followed for as long as it lasts; that is tried in its own tests.
ASKED = [
    (path, method)
    for path, methods in PLAIN["paths"].items()
    for method in methods
    if path != "/api/jobs/{id}/events"
]
_edges: Counter[str] = Counter()


@pytest.fixture(scope="module")
def described(tmp_path_factory, demo_rigs):
    """The document of an application on the demo's rigs, from which requests are drawn."""
    folder = tmp_path_factory.mktemp("described") / "data"
    shutil.copytree(demo_rigs, folder)
    app = create_app(folder, hosts=frozenset({"testserver"}))
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app)

    @schema.hook
    def filter_case(_, case):
        """Whether a request is sent this time: of an operation's edges the first, then every n-th."""
        if ALL or case.meta is None or case.meta.phase.name.name != "COVERAGE":
            return True
        operation = case.operation.label
        _edges[operation] += 1
        return _edges[operation] <= FIRST or _edges[operation] % EVERY == 0

    yield schema
    app.state.desk.engine.dispose()


@settings(max_examples=EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck))
def _no_fault(case):
    response = case.call(timeout=60)  # a busy machine is slow, not wrong
    assert response.status_code < 500, response.text
    case.validate_response(response, checks=CHECKS)
    if response.status_code == 422:
        told = response.json()
        assert told["detail"]
        assert told["errors"]


@pytest.mark.parametrize(("path", "method"), ASKED)
def test_no_request_makes_a_fault_or_an_answer_that_is_not_described(described, path, method):
    # Drawn here and not at the collection, which each worker would do for all of them.
    drawn = HypothesisTestConfig(project=described.config, modes=list(HypothesisTestMode))
    create_test(operation=described[path][method], test_func=_no_fault, config=drawn)()
    assert _edges or ALL


@pytest.mark.parametrize("path", ["/api/rigs", "/api/rigs/1", "/api/rigs/1/keep", "/api/health"])
@pytest.mark.parametrize("method", ["DELETE", "PATCH", "PUT", "TRACE", "POST", "GET"])
def test_what_is_not_done_there_is_a_405_that_says_what_is(client, path, method):
    known = {m.upper() for m in PLAIN["paths"][path.replace("/1", "/{id}")]}
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
    document = PLAIN
    components = document["components"]["schemas"]
    found = 0
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            for content in operation.get("requestBody", {}).get("content", {}).values():
                for array, where in arrays(content["schema"], components):
                    assert "maxItems" in array, (method, path, where)
                    found += 1
    assert found > 20
