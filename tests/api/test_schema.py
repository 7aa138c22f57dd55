"""The API keeps to its own document, whatever it is sent; the kept copies are current."""

import json
import tempfile
from pathlib import Path

import schemathesis
from hypothesis import HealthCheck, settings

from lyrandis.api.app import create_app

ROOT = Path(__file__).parents[2]
APP = create_app(Path(tempfile.mkdtemp()))
schema = schemathesis.openapi.from_asgi("/api/openapi.json", APP)


@schema.include(path_regex="^/api/(compute|units|preferences)").parametrize()
@settings(max_examples=12, deadline=None, suppress_health_check=list(HealthCheck))
def test_no_request_makes_a_fault(case):
    response = case.call()
    assert response.status_code < 500, response.text
    if response.status_code == 422:
        told = response.json()
        assert told["detail"]
        assert told["errors"]


def test_the_kept_document_is_current():
    """`make api` writes docs/openapi.json and the browser's types from it."""
    kept = json.loads((ROOT / "docs" / "openapi.json").read_text())
    assert kept == json.loads(json.dumps(APP.openapi()))
