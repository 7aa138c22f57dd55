"""What can be entered stands on docs/fields.md: title, limits, help, and what a trial stands on.

The page is what counts: a field that differs from it fails. `python tests/core/test_fields_page.py`
writes it anew; what changed there is read line by line.
"""

from pathlib import Path

from pydantic import BaseModel

from lyrandis.core import history, parts, trials
from lyrandis.core.units import QUANTITIES, UNITS

PAGE = Path(__file__).parents[2] / "docs/fields.md"
HEAD = """# What can be entered

Every field of rigs, parts and trials with its limits, in the unit that files and scripts use; a page
shows them in the archer's units. Under a trial stands what it was made with, and how far each of it
may move before the trial is of another setting.

"""


def models():
    """The classes whose fields an archer fills in, each once, by name."""
    found = {}

    def look(model):
        if model.__name__ in found or not model.__module__.startswith("lyrandis.core"):
            return
        found[model.__name__] = model
        for field in model.model_fields.values():
            for kind in inner(field.annotation):
                look(kind)

    for one in (parts.Rig, parts.Part, history.Entry, *trials.KINDS.values()):
        look(one)
    return [found[name] for name in sorted(found)]


def inner(annotation):
    """The models within a field's type."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        yield annotation
    for arg in getattr(annotation, "__args__", ()):
        yield from inner(arg)


def limits(field):
    """Least and most, or nothing."""
    bounds = {}
    for told in field.metadata:
        for name in ("ge", "gt", "le", "lt", "min_length", "max_length"):
            if (value := getattr(told, name, None)) is not None:
                bounds[name] = f"{value:g}" if isinstance(value, float | int) else str(value)
    return bounds


def row(name, field):
    """A field's line."""
    bounds = limits(field)
    least = bounds.get("ge") or bounds.get("gt") or bounds.get("min_length") or ""
    most = bounds.get("le") or bounds.get("lt") or bounds.get("max_length") or ""
    extra = field.json_schema_extra or {}
    quantity = QUANTITIES.get(extra.get("quantity", ""))
    unit = UNITS[quantity.stored].label if quantity is not None else ""
    text = " ".join(filter(None, [field.title and f"{field.title}.", field.description]))
    return f"| `{name}` | {least} | {most} | {usual(field)} | {unit} | {' '.join(text.split())} |"


def usual(field):
    """What stands there until something is entered, where that is a value."""
    value = field.get_default(call_default_factory=True)
    if isinstance(value, float):
        return f"{value:g}"
    return str(value) if isinstance(value, str | int | tuple) else ""


def page():
    """The page as the code has it."""
    lines = []
    for model in models():
        lines += [
            f"## {model.__name__}",
            "",
            "| field | least | most | usual | unit | |",
            "|---|---|---|---|---|---|",
        ]
        lines += [row(name, field) for name, field in model.model_fields.items()]
        grounds = getattr(model, "grounds", {})
        if grounds:
            told = ", ".join(f"{name} {far:g}" for name, far in grounds.items())
            lines += ["", f"Stands on: {told}."]
        lines.append("")
    return HEAD + "\n".join(lines)


def test_the_code_has_the_pages_fields():
    kept, made = PAGE.read_text().splitlines(), page().splitlines()
    differing = [line for line in made if line not in kept] + [x for x in kept if x not in made]
    assert differing == []
    assert kept == made


if __name__ == "__main__":
    PAGE.write_text(page())
