"""What others rely on stays as docs/contract.txt says, and the API's document keeps its manners."""

import pytest

import contract
from lyrandis.api.app import create_app
from lyrandis.api.problems import MEDIA_TYPE


def test_every_name_that_others_rely_on_is_there_and_listed():
    """A name that went stays as an alias; one that came is listed by `python tests/contract.py`."""
    listed, there = set(contract.TARGET.read_text().splitlines()), set(contract.names())
    assert sorted(listed - there) == [], "gone, or of another kind"
    assert sorted(there - listed) == [], "new: list it"


@pytest.mark.parametrize(
    ("schema", "said"),
    [
        ({"type": "array", "items": {"type": "number"}}, "[number]"),
        ({"anyOf": [{"type": "null"}, {"$ref": "#/components/schemas/Rig"}]}, "Rig|null"),
        ({"enum": ["b", "a"]}, "a|b"),
        ({"type": "object", "additionalProperties": {"type": "string"}}, "{string}"),
    ],
)
def test_a_change_of_kind_changes_the_line(schema, said):
    assert contract.kind(schema) == said


@pytest.fixture(scope="module")
def document(module_app):
    return module_app.openapi()


@pytest.fixture(scope="module")
def module_app(tmp_path_factory):
    folder = tmp_path_factory.mktemp("document")
    app = create_app(folder, folder)
    yield app
    app.state.desk.engine.dispose()


def test_every_operation_answers_problems_in_one_way_and_has_a_name_of_its_path(document):
    ids = []
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            problem = operation["responses"]["default"]["content"]
            assert problem[MEDIA_TYPE]["schema"]["$ref"].endswith("/ProblemDetails"), path
            assert not any(code.startswith(("4", "5")) for code in operation["responses"]), path
            assert operation["operationId"].startswith(f"{method}_api_")
            ids.append(operation["operationId"])
    assert len(set(ids)) == len(ids)


def test_a_thing_has_one_schema_under_a_name_without_the_place_of_its_code(document):
    names = document["components"]["schemas"]
    assert [n for n in names if "__" in n or n.endswith(("-Input", "-Output"))] == []
    assert {n for n in names if n.startswith("Rig")} >= {"Rig", "RigView", "RigNote"}
