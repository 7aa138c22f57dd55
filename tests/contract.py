"""Every name that somebody outside the code relies on: scripts, files, calendars, bookmarks, shells.

`docs/contract.txt` lists them, a name a line; a test holds the two alike. After adding a name:
`python tests/contract.py`. A name that would go or change its kind stays instead, as an alias.
"""

from __future__ import annotations

import csv
import io
import json
import re
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import typer
from fastapi.testclient import TestClient
from pydantic import BaseModel

sys.path.insert(0, str(Path(__file__).parent / "golden"))

from reading import HERE, taken

from lyrandis import cli
from lyrandis.api import doors, problems, security, shape
from lyrandis.api.app import create_app
from lyrandis.core.fields import field_notes
from lyrandis.core.parts import BODIES, Part
from lyrandis.core.terms import TERMS
from lyrandis.core.trials import KINDS
from lyrandis.demo import scenario
from lyrandis.files.part_json import PartFile
from lyrandis.files.rig_json import RigFile
from lyrandis.store.rigs import RigStore
from lyrandis.store.tables import Base

ROOT = Path(__file__).parents[1]
TARGET = ROOT / "docs" / "contract.txt"
WEB = ROOT / "web" / "src"
TODAY = "2026-05-20T10:00:00+00:00"  # what is due follows from the day


def kind(schema: dict[str, Any]) -> str:
    """What a schema is, in a word: its type, the name of the one it refers to, or its values."""
    if "$ref" in schema:
        return str(schema["$ref"]).rpartition("/")[2]
    if "enum" in schema or "const" in schema:
        return "|".join(sorted(map(str, schema.get("enum", [schema.get("const")]))))
    choices = schema.get("anyOf") or schema.get("oneOf")
    if choices:
        return "|".join(sorted(map(kind, choices)))
    if schema.get("type") == "array":
        inner = schema.get("prefixItems") or [schema.get("items") or {}]
        return f"[{', '.join(map(kind, inner))}]"
    more = schema.get("additionalProperties")
    if schema.get("type") == "object" and isinstance(more, dict):
        return f"{{{kind(more)}}}"
    return str(schema.get("type", "any"))


def of_api(document: dict[str, Any]) -> Iterator[str]:
    """Operations with what they are asked by and what they answer, and the schemas' fields."""
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            named = f"{method.upper()} {path}"
            yield f"route {named}"
            for asked in operation.get("parameters", ()):
                if asked["in"] != "path":
                    yield f"{asked['in']} {named} {asked['name']}: {kind(asked['schema'])}"
            for content in operation.get("requestBody", {}).get("content", {}).items():
                yield f"body {named} {content[0]}: {kind(content[1].get('schema', {}))}"
            for status, answer in operation["responses"].items():
                for media, content in answer.get("content", {}).items():
                    if status != "default":
                        yield f"answer {named} {status} {media}: {kind(content.get('schema', {}))}"
    for name, schema in document["components"]["schemas"].items():
        for field, inner in schema.get("properties", {}).items():
            yield f"field {name}.{field}: {kind(inner)}"
        if "properties" not in schema:
            yield f"schema {name}: {kind(schema)}"


def of_files() -> Iterator[str]:
    """What files hold: their own names, and the paths by which changes are kept."""
    for file in (RigFile, PartFile):
        for name in file.model_fields:
            yield f"file {'rig' if file is RigFile else 'part'}: {name}"
    for path in field_notes():
        yield f"path {path}"
    for kind_of, body in BODIES.items():
        yield from (f"part path {kind_of} of.{name}" for name in body.model_fields)
    for name, field in Part.model_fields.items():
        inner = field.annotation
        if isinstance(inner, type) and issubclass(inner, BaseModel):
            yield from (f"part path {name}.{n}" for n in inner.model_fields)
        else:
            yield f"part path {name}"
    for name, trial in KINDS.items():
        yield from (f"trial {name}.{field}" for field in trial.model_fields)


def of_store() -> Iterator[str]:
    """Tables and their columns."""
    for table in Base.metadata.sorted_tables:
        yield from (f"stored {table.name}.{column.name}" for column in table.columns)


def of_exports(client: TestClient) -> Iterator[str]:
    """Heads of tables and ids in calendars, as the demo writes them."""
    for rig in taken(client, "/api/rigs"):
        here = f"/api/rigs/{rig['id']}"
        for name in KINDS:
            answer = client.get(f"{here}/trials/{name}")
            if answer.status_code == 200:
                for column in next(csv.reader(io.StringIO(answer.text))):
                    yield f"csv trials/{name}: {column}"
        for calendar in ("schedule.ics", "step-up.ics"):
            answer = client.get(f"{here}/{calendar}")
            if answer.status_code == 200:
                yield from _uids(calendar, answer.text)
    yield from _uids("parts/lent.ics", taken(client, "/api/parts/lent.ics"))
    for lines in taken(client, "/api/catalog")["stations"]:
        yield f"station {lines['id']}"


def _uids(calendar: str, text: str) -> Iterator[str]:
    for uid in re.findall(r"^UID:(\S+)", text.replace("\r\n ", ""), re.MULTILINE):
        for chance, said in ((r"[0-9a-f]{12,32}", "<part>"), (r"-\d+(?=-|@)", "-<n>")):
            uid = re.sub(chance, said, uid)
        yield f"uid {calendar}: {uid}"


def of_pages() -> Iterator[str]:
    """Addresses of pages, and what the browser keeps under which name."""
    for page in (WEB / "routes").rglob("+page*.svelte"):
        yield f"page /{page.parent.relative_to(WEB / 'routes')}".replace("/.", "/")
    for term in TERMS:
        yield f"term {term.id}"
    for source in (*WEB.rglob("*.ts"), *WEB.rglob("*.svelte")):
        if source.name.endswith(".test.ts"):
            continue
        text = source.read_text()
        for name in re.findall(r"'(lyrandis[.-][a-z]+\.?)'|`(lyrandis\.[a-z]+\.)", text):
            yield f"browser {''.join(name)}"
        for form in re.findall(r"(?:useDraft|\.keeps)\(\s*['`]([^'`]+)['`]", text):
            yield f"browser draft {form}"
        for name in re.findall(r"(?:openDB<\w+>|createObjectStore|caches\.open)\('([a-z]+)'", text):
            yield f"browser store {name}"


def of_commands() -> Iterator[str]:
    """Commands and their options, settings of the environment."""
    group = typer.main.get_command(cli.app)
    for name, command in group.commands.items():  # type: ignore[attr-defined]
        yield f"command {name}"
        for option in command.params:
            yield from (f"command {name} {flag}" for flag in option.opts)
    yield from ("setting LYRANDIS_DATA", "setting LYRANDIS_TOKEN")


def of_wire() -> Iterator[str]:
    """Headers, cookies and types of problems."""
    for header in (shape.HEADER, security.FOLDER_HEADER, "Idempotency-Key"):
        yield f"header {header}"
    yield f"cookie {doors.COOKIE}"
    yield f"cookie {doors._TOKEN_COOKIE}"
    yield from (f"type {name}" for name in (problems.CONFLICT, problems.OTHER_DATA))


def names() -> list[str]:
    """All of them, sorted."""
    with tempfile.TemporaryDirectory() as place:
        app = create_app(Path(place), Path(place))
        app.state.desk.now = lambda: TODAY
        scenario.load(RigStore(app.state.desk.engine))
        with TestClient(app, base_url=HERE, headers={"origin": HERE}) as client:
            told = [*of_api(json.loads(json.dumps(app.openapi()))), *of_exports(client)]
    told += [*of_files(), *of_store(), *of_pages(), *of_commands(), *of_wire()]
    return sorted(set(told))


if __name__ == "__main__":
    TARGET.write_text("\n".join(names()) + "\n")
