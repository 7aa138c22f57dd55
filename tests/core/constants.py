"""Every number that the core gives a name to, found in the code itself."""

import ast
import importlib
from dataclasses import fields, is_dataclass
from pathlib import Path

import numpy as np

import lyrandis.core
from lyrandis.core.parts import SchoolNumbers

CORE = Path(lyrandis.core.__file__).parent
# Ways to write a unit and what trials stand on, held by docs/words.md and docs/fields.md; what an
# earlier form filled in, held by its files; and what has no number of its own.
ELSEWHERE = {
    "units.UNITS", "units._WRITTEN", "units.QUANTITIES", "trials.crawl_visit.CHART_GROUNDS",
    "upcast._RIG_BEFORE_3", "upcast._TRIAL_BEFORE_3", "bench.line._HUNG", "flight.held.NONE_TRIED",
}  # fmt: skip
MODULES = [
    ".".join(p.relative_to(CORE).with_suffix("").parts)
    for p in sorted(CORE.rglob("*.py"))
    if p.stem != "__init__" and p.relative_to(CORE).parts[0] != "terms"
]


def _flat(value):
    """A tuple of numbers as one flat tuple, words among them left out; None if it holds others."""
    if isinstance(value, bool):
        return ()
    if value is None:
        return None
    if isinstance(value, int | float | np.floating):
        return () if value == float("inf") else (float(value),)
    if isinstance(value, str):
        return ()
    if isinstance(value, np.ndarray):
        return tuple(float(v) for v in value)
    if isinstance(value, tuple) and not hasattr(value, "_fields"):
        parts = [_flat(v) for v in value]
        if all(p is not None for p in parts):
            return tuple(v for p in parts for v in p)
    return None


def _leaves(name, value):
    flat = _flat(value)
    if flat:
        yield name, flat if len(flat) > 1 else flat[0]
    elif isinstance(value, dict):
        for key, inner in value.items():
            yield from _leaves(f"{name}[{key}]", inner)
    elif is_dataclass(value):
        for f in fields(value):
            yield from _leaves(f"{name}.{f.name}", getattr(value, f.name))


def _holds_numbers(node):
    return any(
        isinstance(n, ast.Constant) and type(n.value) in (int, float)
        for n in ast.walk(node)
    )  # fmt: skip


def leaves():
    """(name, number or tuple of numbers) for every named constant of the numeric core."""
    for module in MODULES:
        loaded = importlib.import_module(f"lyrandis.core.{module}")
        path = CORE / (module.replace(".", "/") + ".py")
        for statement in ast.parse(path.read_text()).body:
            if not isinstance(statement, ast.Assign | ast.AnnAssign) or statement.value is None:
                continue
            targets = statement.targets if isinstance(statement, ast.Assign) else [statement.target]
            names = [n.id for t in targets for n in ast.walk(t) if isinstance(n, ast.Name)]
            for name in names:
                if not name.strip("_").isupper() or f"{module}.{name}" in ELSEWHERE:
                    continue
                if name == "WATCHES":
                    for w in loaded.WATCHES:
                        if 0 < w.threshold < float("inf"):
                            yield f"route.WATCHES[{w.station}, {w.read}]", float(w.threshold)
                elif _holds_numbers(statement.value) or is_dataclass(getattr(loaded, name)):
                    yield from _leaves(f"{module}.{name}", getattr(loaded, name))
    for name, field in SchoolNumbers.model_fields.items():
        yield f"rig.SchoolNumbers.{name}", float(field.default)
