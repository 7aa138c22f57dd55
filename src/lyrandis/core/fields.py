"""Fields by their dotted path: what each is called, its quantity, and why a value was refused.

One place turns a validation error into a sentence with field, limit, unit and reason, for
requests, files and kept changes alike.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from typing import Any, TypeVar, get_args, get_origin

from pydantic import BaseModel, ConfigDict, ValidationError
from pydantic.fields import FieldInfo
from pydantic_core import ErrorDetails

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, Value, joined, say
from lyrandis.core.parts import BODIES, OWNED, Frozen, On, Part, PartKind, Rig
from lyrandis.core.parts.base import at
from lyrandis.core.units import QUANTITIES
from lyrandis.core.words import WORDS

# Units stand at the end of every field's name: the rule of the house.
_UNIT_BY_SUFFIX = {
    "_in": "in", "_mm": "mm", "_cm": "cm", "_m": "m", "_lbf": "lb", "_gr": "gr",
    "_gpp": "gr/lb", "_g": "g",
    "_deg": "°", "_mps": "m/s", "_fps": "ft/s", "_per_inch": "gr/in", "_db": "dB",
}  # fmt: skip
# What a field measures that no setting of a rig shares its name with.
_QUANTITY_BY_SUFFIX = {
    "_in": "draw", "_mm": "small", "_cm": "spot", "_m": "distance", "_lbf": "weight",
    "_gr": "mass", "_g": "hung", "_gpp": "gpp",
    "_deg": "angle", "_fps": "speed", "_per_inch": "gpi",
    "_db": "level",
}  # fmt: skip
_PAIRS = {"measured": ("in", "lb"), "readings": ("in", "lb")}  # a scale's draw and force
_PAIR_QUANTITIES = ("draw", "weight")


class FieldNote(BaseModel):
    """What the interface needs to know of one setting of a rig; `words` names its choices."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)

    path: str
    title: str
    help: str
    quantity: str | None = None
    low: float | None = None
    high: float | None = None
    choices: list[str] = []
    words: dict[str, str] = {}
    optional: bool = False


def unit_of(name: str) -> str | None:
    """The unit that a field's name ends with; None for a name without one."""
    return next((u for s, u in _UNIT_BY_SUFFIX.items() if name.endswith(s)), None)


def _plain_name(name: str) -> str:
    """A field's name as a word: without its unit."""
    suffix = next((s for s in _UNIT_BY_SUFFIX if name.endswith(s)), "")
    return name.removesuffix(suffix).replace("_", " ").capitalize()


def _model_of(info: FieldInfo) -> type[BaseModel] | None:
    kind = info.annotation
    return kind if isinstance(kind, type) and issubclass(kind, BaseModel) else None


def bound(info: FieldInfo, name: str) -> float | None:
    """The least (`ge`) or most (`le`) that a field takes; None where it has no such limit."""
    for rule in info.metadata:
        if getattr(rule, name, None) is not None:
            return float(getattr(rule, name))
    return None


def _choices(kind: Any) -> list[str]:
    found = []
    for arg in get_args(kind):
        found += [arg] if isinstance(arg, str) else _choices(arg)
    return found


def _walk(model: type[BaseModel], prefix: str) -> dict[str, FieldNote]:
    notes: dict[str, FieldNote] = {}
    for name, info in model.model_fields.items():
        path = f"{prefix}{name}"
        inner = _model_of(info)
        if inner is On:  # parts are put on, not typed
            continue
        if inner is not None:
            notes |= _walk(inner, f"{path}.")
            continue
        extra = info.json_schema_extra if isinstance(info.json_schema_extra, dict) else {}
        quantity = extra.get("quantity")
        notes[path] = FieldNote(
            path=path,
            title=info.title or name.replace("_", " ").capitalize(),
            help=info.description or "",
            quantity=str(quantity) if quantity else None,
            low=bound(info, "ge"),
            high=bound(info, "le"),
            choices=[] if get_origin(info.annotation) is tuple else _choices(info.annotation),
            words=WORDS.get(path, {}),
            optional=type(None) in get_args(info.annotation),
        )
    return notes


@lru_cache(maxsize=1)
def field_notes() -> dict[str, FieldNote]:
    """Every setting of a rig by its dotted path."""
    return _walk(Rig, "")


@lru_cache(maxsize=len(BODIES))
def part_notes(kind: PartKind) -> dict[str, FieldNote]:
    """Every setting of a kind of part by its dotted path; options are called as on a rig."""
    as_on_rig = {place: path for owned in OWNED.values() for path, place in owned.items()}
    notes = _walk(Part, "")
    notes.pop("of")
    own = _walk(BODIES[kind], "of.")
    for path in [path for path, note in own.items() if path == "of.kind" or not note.title]:
        del own[path]
    for path, note in own.items():
        named = WORDS.get(f"{kind}.{path.removeprefix('of.')}")
        words = named or WORDS.get(as_on_rig.get(path, ""))
        own[path] = note.model_copy(update={"words": words or {}})
    return notes | own


def is_on(path: str) -> bool:
    """Whether a path says which part is on a rig: such are put on, not typed."""
    return path.startswith("on.") and path.removeprefix("on.") in On.model_fields


def value_at(rig: Rig, path: str) -> Any:
    """The value of a setting; raises RefusedError for a path that no rig has."""
    if path not in field_notes() and not is_on(path):
        raise RefusedError(path, f"“{path}” is not a setting of a rig.")
    return at(rig, path)


_Model = TypeVar("_Model", bound=Frozen)


def _replaced(model: _Model, changes: Mapping[str, Any]) -> _Model:
    document = model.model_dump()
    for path, value in changes.items():
        *parents, leaf = path.split(".")
        place = document
        for name in parents:
            place = place[name]
        place[leaf] = value
    try:
        return type(model).model_validate(document)
    except ValidationError as error:
        raise refused(error.errors()[0]) from None


def changed(rig: Rig, changes: Mapping[str, Any]) -> Rig:
    """A rig with settings changed.

    Parameters
    ----------
    changes : dotted path to new value

    Raises
    ------
    RefusedError : an unknown path or a value out of its range, for the first fault found.
    """
    for path in changes:
        value_at(rig, path)
    return _replaced(rig, changes)


def part_value(part: Part, path: str) -> Any:
    """The value of a part's setting; raises RefusedError for a path that its kind has not."""
    if path not in part_notes(part.kind):
        raise RefusedError(path, f"“{path}” is not a setting of this kind of part.")
    return at(part, path)


def part_changed(part: Part, changes: Mapping[str, Any]) -> Part:
    """A part with settings changed; raises RefusedError as `changed` does."""
    for path in changes:
        part_value(part, path)
    return _replaced(part, changes)


def difference(before: Rig, after: Rig) -> dict[str, Any]:
    """The settings in which two rigs differ, as plain JSON: dotted path to the value after.

    `changed(before, difference(before, after))` is `after`.
    """
    found: dict[str, Any] = {}
    waiting = [("", before.model_dump(mode="json"), after.model_dump(mode="json"))]
    while waiting:
        prefix, old, new = waiting.pop()
        for name, value in new.items():
            if isinstance(value, dict):
                waiting.append((f"{prefix}{name}.", old[name], value))
            elif value != old[name]:
                found[prefix + name] = value
    return found


def _why(path: str) -> str:
    info: FieldInfo | None = None
    model: type[BaseModel] | None = Rig
    for name in path.split("."):
        info = model.model_fields.get(name) if model else None
        model = _model_of(info) if info else None
    extra = info.json_schema_extra if info and isinstance(info.json_schema_extra, dict) else {}
    return str(extra.get("why", ""))


_BOUNDS = {
    "greater_than_equal": ("at least", "ge"), "greater_than": ("more than", "gt"),
    "less_than_equal": ("at most", "le"), "less_than": ("less than", "lt"),
}  # fmt: skip


def _quantity(names: list[str], last: str, note: FieldNote | None) -> str | None:
    """What a field measures, as far as its setting or its name tells."""
    if not names:
        return None
    if names[-1] in _PAIRS and last.isdigit():
        return _PAIR_QUANTITIES[int(last) % 2]
    if note is not None and note.quantity in QUANTITIES:
        return note.quantity
    return next((q for s, q in _QUANTITY_BY_SUFFIX.items() if names[-1].endswith(s)), None)


_SHOWN_BELOW = 1e9  # larger numbers, and none at all, stand as they came


def _given(given: Any, quantity: str | None, unit: str | None) -> Said:
    """What was given, as the end of a sentence; nothing where it cannot be shown."""
    if isinstance(given, str) and given:
        return say("; “{given}” was given", given=given[:60])
    if isinstance(given, int | float) and not isinstance(given, bool):
        if quantity is not None and abs(given) < _SHOWN_BELOW:
            value = Value(value=float(given), quantity=quantity, exact=True)
            return say("; {given} was given", given=value)
        return say("; {given} was given", given=f"{given:g}{f' {unit}' if unit else ''}")
    return say("")


def refused(error: ErrorDetails, skip: tuple[str, ...] = ("body",)) -> RefusedError:
    """A validation error of pydantic as a refusal that names field, limit, unit and reason."""
    loc = [str(part) for part in error["loc"] if part not in skip]
    if "trial" in loc[:-2]:  # the kind of trial is no part of the field's path
        del loc[loc.index("trial") + 1]
    path = ".".join(loc) or "body"
    names = [part for part in loc if not part.isdigit()]
    note = field_notes().get(".".join(names)) or next(
        (n for p, n in field_notes().items() if names and p.endswith(f".{names[-1]}")), None
    )
    title = note.title if note else (_plain_name(names[-1]) if names else "The request")
    unit = unit_of(names[-1]) if names else None
    if names and names[-1] in _PAIRS and loc[-1].isdigit():
        unit = _PAIRS[names[-1]][int(loc[-1]) % 2]
    quantity = _quantity(names, loc[-1] if loc else "", note)
    shown = _given(error.get("input"), quantity, unit)
    context = error.get("ctx", {})
    told = context.get("error")
    if isinstance(told, RefusedError):  # refused by a rule of ours, in its own words
        return told.at(path)
    limit: float | None = None
    kind = error["type"]
    if kind in _BOUNDS:
        word, bound = _BOUNDS[kind]
        limit = float(context.get(bound, 0))
        at: str | Value = f"{limit:g}{f' {unit}' if unit else ''}"
        if quantity is not None:
            at = Value(value=limit, quantity=quantity, exact=True)
        text = joined(say("{title} must be " + word + " {limit}", title=title, limit=at), shown)
        why = _why(note.path) if note else ""
        text = text.around("", f". {why}" if why else ".")
    elif kind == "literal_error":
        wanted = str(context.get("expected", ""))
        text = joined(say("{title} must be one of {wanted}", title=title, wanted=wanted), shown)
        text = text.around("", ".")
    elif kind == "missing":
        text = say(f"{title} is missing: without it there is no answer.")
    elif kind == "extra_forbidden":
        text = say("“{path}” is not known here; check the spelling.", path=path)
    elif kind in ("too_short", "too_long"):
        word = "at least" if kind == "too_short" else "at most"
        limit = float(context.get("min_length", context.get("max_length", 0)) or 0)
        unit = "distances" if names and names[-1] == "distances_m" else "entries"
        one = "distance" if unit == "distances" else "entry"
        actual = context.get("actual_length")
        counted = f"; {actual} {'was' if actual == 1 else 'were'} given"
        text = say(
            f"{title}: {word} {limit:g} {one if limit == 1 else unit}"
            f"{counted if isinstance(actual, int) else ''}."
        )
    elif kind in ("string_too_short", "string_too_long"):
        word = "at least" if kind == "string_too_short" else "at most"
        limit = float(context.get("min_length", context.get("max_length", 0)))
        text = say(f"{title} must have {word} {limit:g} sign{'' if limit == 1 else 's'}.")
        unit = "signs"
    elif kind.startswith(("float", "int", "finite", "decimal")):
        text = joined(
            say(f"{title} must be a number{f' in {unit}' if unit and unit != 'in' else ''}"), shown
        )
        text = text.around("", ".")
    else:
        wrong = str(error["msg"]).removeprefix("Value error, ")
        text = joined(say("{title}: {wrong}", title=title, wrong=wrong), shown).around("", ".")
    return RefusedError(path, text, limit, unit)
