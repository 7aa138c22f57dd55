"""Small faults put into the numeric core one at a time: do the core's own tests notice?

Each mutant changes one constant (a tenth more, or one more), one sign (+ and −, × and ÷, a unary
minus), one comparison (turned round), one choice (its branches exchanged) or one word by which an
archer acts (left for right). The tests that run the changed line are run against it,
the fastest first, until one fails. Not a test: it prints what survived, and why that is known.

    python bench/mutants.py [--sample N] [--seed S] [--only part/of/path] [--list] [--again]

A worker forks from a process that has the libraries loaded, so that a mutant costs about a second.
"""

from __future__ import annotations

import argparse
import ast
import contextlib
import hashlib
import importlib
import importlib.abc
import importlib.machinery
import json
import multiprocessing as mp
import os
import random
import re
import signal
import subprocess
import sys
import time
from collections import Counter, defaultdict
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
CORE = ROOT / "src/lyrandis/core"
TESTS = "tests/core"
CACHE = ROOT / ".mutants"
SURVIVORS = CACHE / "survivors.txt"  # not .json: those are baselines
KNOWN = ROOT / "bench/mutants_known.json"
PROSE = ("terms",)  # definitions and drawings of the words of the craft: nothing is computed there
# Words by which an archer acts: one taken for the other is a fault like a turned sign.
_WORDS = [
    ("left", "right"), ("up", "down"), ("more", "less"), ("in", "out"), ("high", "low"),
    ("higher", "lower"), ("longer", "shorter"), ("short of", "past"), ("stiff", "weak"),
    ("stiffer", "weaker"), ("heavier", "lighter"), ("above", "below"), ("nearer", "farther"),
    ("before", "after"), ("least", "most"),
]  # fmt: skip
# What has a name stands on one of these pages, which are quickly asked.
PAGES = [
    "tests/core/test_constants.py::test_the_code_has_the_pages_numbers",
    "tests/core/test_fields_page.py::test_the_code_has_the_pages_fields",
    "tests/core/test_words_page.py",
]
# The tests that compare most, and that a cache may keep from running a line in the baseline.
NUMBERS = "tests/core/test_numbers.py"
NOTICING = (NUMBERS, "tests/core/test_sentences.py")
MOST_TEST_S = 15.0  # of tests run against one mutant, beside those
TIMES = 8  # a mutant whose tests take this many times as long as usual has failed
_OPPOSITE: dict[type, type] = {
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult,
    ast.Lt: ast.Gt, ast.Gt: ast.Lt, ast.LtE: ast.GtE, ast.GtE: ast.LtE,
    ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
}  # fmt: skip
_SIGN = {ast.Add: "+", ast.Sub: "-", ast.Mult: "*", ast.Div: "/", ast.Lt: "<", ast.Gt: ">",
         ast.LtE: "<=", ast.GtE: ">=", ast.Eq: "==", ast.NotEq: "!="}  # fmt: skip
SMALLEST = 1e-5  # smaller constants guard against rounding: a tenth more changes nothing


@dataclass(frozen=True)
class Mutant:
    """One change: the file, the line and column, which node there, and what becomes of it."""

    file: str
    line: int
    column: int
    at: int  # the node's number in a walk of the module
    part: int  # which operator of a chained comparison
    what: str

    @property
    def name(self) -> str:
        """Stands as long as the line's text does: file, the line stripped, what changed."""
        text = (CORE / self.file).read_text().splitlines()[self.line - 1].strip()
        return f"{self.file} | {text} | {self.what}"


def _skipped(tree: ast.Module) -> set[int]:
    """Nodes that are no numbers of the job: sentences, annotations, indices, decorators."""
    skipped: set[int] = set()

    def skip(node: ast.AST | None) -> None:
        if node is not None:
            skipped.update(id(n) for n in ast.walk(node))

    for node in ast.walk(tree):
        if isinstance(node, ast.Raise | ast.JoinedStr):
            skip(node)
        elif isinstance(node, ast.AnnAssign | ast.arg):
            skip(node.annotation)
        elif isinstance(node, ast.FunctionDef):
            skip(node.returns)
            for d in node.decorator_list:
                skip(d)
        elif isinstance(node, ast.ClassDef):
            for d in node.decorator_list:
                skip(d)
        elif isinstance(node, ast.Subscript):
            for n in ast.walk(node.slice):
                if isinstance(n, ast.Constant | ast.UnaryOp):  # which item, not how much
                    skipped.add(id(n))
        elif isinstance(node, ast.keyword) and node.arg in ("axis", "maxsize", "decimals"):
            skip(node.value)
        elif isinstance(node, ast.Call) and getattr(node.func, "id", "") == "round":
            for a in node.args[1:]:
                skip(a)
        elif isinstance(node, ast.Call) and getattr(node.func, "id", "") in (
            "lru_cache", "RefusedError",
        ):  # fmt: skip
            skip(node)
        elif isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            skip(node)  # a docstring
    return skipped


def mutants_of(path: Path) -> Iterator[Mutant]:
    tree = ast.parse(path.read_text())
    skipped = _skipped(tree)
    file = str(path.relative_to(CORE))
    for at, node in enumerate(ast.walk(tree)):
        if id(node) in skipped:
            continue

        def made(what: str, node: ast.AST = node, at: int = at, part: int = 0) -> Mutant:
            return Mutant(file, node.lineno, node.col_offset, at, part, what)  # type: ignore[attr-defined]

        if isinstance(node, ast.Constant) and type(node.value) in (int, float):
            if abs(node.value) >= SMALLEST or node.value == 0:
                yield made(f"{node.value} -> {_other(node.value)}")
        elif isinstance(node, ast.Constant) and isinstance(node.value, str):
            if _exchanged(node.value) != node.value:
                yield made("word exchanged")
        elif isinstance(node, ast.IfExp):
            yield made("branches exchanged")
        elif isinstance(node, ast.BinOp | ast.AugAssign) and type(node.op) in _OPPOSITE:
            if not any(_is_text(n) for n in ast.walk(node)):
                other = _OPPOSITE[type(node.op)]
                yield made(f"{_SIGN[type(node.op)]} -> {_SIGN[other]}")
        elif isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.USub):
            yield made("unary - dropped")
        elif isinstance(node, ast.Compare):
            for part, op in enumerate(node.ops):
                if type(op) in _OPPOSITE:
                    yield made(f"{_SIGN[type(op)]} -> {_SIGN[_OPPOSITE[type(op)]]}", part=part)


def _is_text(node: ast.AST) -> bool:
    return isinstance(node, ast.JoinedStr | ast.List | ast.Tuple) or (
        isinstance(node, ast.Constant) and isinstance(node.value, str)
    )


def _exchanged(text: str) -> str:
    """A text with the first word of a pair that stands in it exchanged for the other."""
    found = [
        (m.start(), m.end(), new)
        for pair in _WORDS
        for old, new in (pair, pair[::-1])
        for m in re.finditer(rf"(?<![a-z]){old}(?![a-z])", text)
    ]
    if not found:
        return text
    start, end, new = min(found)
    return text[:start] + new + text[end:]


def _other(value: float) -> float:
    if isinstance(value, int):
        return value + 1
    return round(value * 1.1, 12) if value else 0.1


def mutated(mutant: Mutant) -> ast.Module:
    """The module with that one change in it."""
    tree = ast.parse((CORE / mutant.file).read_text())
    node = next(n for i, n in enumerate(ast.walk(tree)) if i == mutant.at)
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        node.value = _exchanged(node.value)
    elif isinstance(node, ast.Constant):
        node.value = _other(node.value)
    elif isinstance(node, ast.IfExp):
        node.body, node.orelse = node.orelse, node.body
    elif isinstance(node, ast.BinOp | ast.AugAssign):
        node.op = _OPPOSITE[type(node.op)]()
    elif isinstance(node, ast.UnaryOp):
        node.op = ast.UAdd()
    elif isinstance(node, ast.Compare):
        node.ops[mutant.part] = _OPPOSITE[type(node.ops[mutant.part])]()
    return tree


# Which tests run which lines, and how long each takes.


@dataclass
class Baseline:
    lines: dict[str, dict[int, list[str]]]  # file -> line -> tests
    seconds: dict[str, float]


def _stamp() -> str:
    files = sorted([*CORE.rglob("*.py"), *(ROOT / TESTS).rglob("*.py")])
    return hashlib.sha256(b"".join(f.read_bytes() for f in files)).hexdigest()[:16]


def baseline() -> Baseline:
    """Coverage by test, from one run of the core's tests; kept until code or tests change."""
    CACHE.mkdir(exist_ok=True)
    kept = CACHE / f"{_stamp()}.json"
    if kept.exists():
        return Baseline(**json.loads(kept.read_text()))
    data = CACHE / "coverage"
    env = {**os.environ, "COVERAGE_FILE": str(data), "PYTHONDONTWRITEBYTECODE": ""}
    print("reading which tests run which lines …", flush=True)
    run = subprocess.run(
        [sys.executable, "-m", "pytest", TESTS, "-q", "-n", "2", "-p", "no:cacheprovider",
         "--cov=lyrandis.core", "--cov-context=test", "--cov-report=", "--durations=0",
         "--durations-min=0", "-vv"],
        cwd=ROOT, env=env, capture_output=True, text=True, check=False,
    )  # fmt: skip
    if run.returncode:
        sys.exit(run.stdout[-3000:] + "\nthe tests must pass before mutants are made")
    seconds: dict[str, float] = defaultdict(float)
    for line in run.stdout.splitlines():
        words = line.split(maxsplit=2)
        if len(words) == 3 and words[0].endswith("s") and words[1] in ("call", "setup"):
            with contextlib.suppress(ValueError):
                seconds[words[2]] += float(words[0][:-1])
    from coverage import CoverageData

    found = CoverageData(str(data))
    found.read()
    lines: dict[str, dict[int, list[str]]] = {}
    for file in found.measured_files():
        contexts = found.contexts_by_lineno(file)
        lines[str(Path(file).relative_to(CORE))] = {
            n: sorted({c.rpartition("|")[0] for c in cs if c}) for n, cs in contexts.items()
        }
    made = Baseline(lines, dict(seconds))
    for old in CACHE.glob("*.json"):
        old.unlink()
    kept.write_text(json.dumps(asdict(made)))
    return made


def _names_defined(tree: ast.Module, line: int) -> set[str]:
    """Names that a module's own statement at that line gives a value to; none inside a function."""
    for top in tree.body:
        if not top.lineno <= line <= (top.end_lineno or top.lineno):
            continue
        if isinstance(top, ast.FunctionDef) and line < top.body[0].lineno:
            return {top.name}  # what it takes where nothing is given
        if isinstance(top, ast.Assign | ast.AnnAssign):
            targets = top.targets if isinstance(top, ast.Assign) else [top.target]
            return {n.id for t in targets for n in ast.walk(t) if isinstance(n, ast.Name)}
        if isinstance(top, ast.ClassDef) and not any(
            f.lineno <= line <= (f.end_lineno or 0)
            for f in top.body
            if isinstance(f, ast.FunctionDef)
        ):
            return {top.name}
    return set()


class Chooser:
    """The tests for a mutant: those that run its line; of a module's constant, its users' lines."""

    def __init__(self, base: Baseline) -> None:
        self.base = base
        self.trees = {
            str(p.relative_to(CORE)): ast.parse(p.read_text()) for p in CORE.rglob("*.py")
        }
        self.used: dict[str, list[tuple[str, int]]] = defaultdict(list)
        for file, tree in self.trees.items():
            for node in ast.walk(tree):
                if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Load):
                    self.used[node.id].append((file, node.lineno))

    def tests(self, mutant: Mutant) -> list[str]:
        names = _names_defined(self.trees[mutant.file], mutant.line)
        chosen = self._of_names(names) if names else self._at(mutant.file, mutant.line)
        ordered = sorted(
            chosen, key=lambda t: (not t.startswith(NOTICING), self.base.seconds.get(t, 0.0))
        )
        out, total = (list(PAGES) if names else []), 0.0
        for test in ordered:
            total += self.base.seconds.get(test, 0.0)
            if total > MOST_TEST_S:
                break
            out.append(test)
        others = [t for t in self.base.seconds if t.startswith(NUMBERS) and t not in out]
        return out + sorted(others)

    def _at(self, file: str, line: int) -> set[str]:
        """Tests that run a line; a statement over many lines counts at any of them."""
        lines = self.base.lines.get(file, {})
        for node in ast.walk(self.trees[file]):
            if isinstance(node, ast.stmt) and not isinstance(
                node,
                ast.FunctionDef | ast.ClassDef | ast.If | ast.For | ast.While | ast.With | ast.Try,
            ):
                end = node.end_lineno or node.lineno
                if node.lineno <= line <= end and end - node.lineno < 60:
                    got = {t for n in range(node.lineno, end + 1) for t in lines.get(n, [])}
                    if got:
                        return got
        return set(lines.get(line, []))

    def _of_names(self, names: set[str]) -> set[str]:
        """Tests that run the lines which use a name, and those of test files that use it."""
        seen: set[str] = set()
        chosen: set[str] = set()
        while names - seen:
            name = (names - seen).pop()
            seen.add(name)
            chosen |= self.mentioned(name)
            for file, line in self.used[name]:
                got = self._at(file, line)
                chosen |= got
                if not got:
                    names = names | _names_defined(self.trees[file], line)
        return chosen

    def mentioned(self, name: str) -> set[str]:
        files = [
            p for p in (ROOT / TESTS).glob("test_*.py") if re.search(rf"\b{name}\b", p.read_text())
        ]
        starts = tuple(f"{TESTS}/{p.name}::" for p in files)
        return {t for t in self.base.seconds if t.startswith(starts)}


# Running them.


class _Swap(importlib.abc.MetaPathFinder, importlib.abc.Loader):
    def __init__(self, mutant: Mutant) -> None:
        self.module = "lyrandis.core." + mutant.file.removesuffix(".py").replace("/", ".")
        self.module = self.module.removesuffix(".__init__")
        self.mutant = mutant

    def find_spec(self, name: str, *_: object) -> object:
        if name != self.module:
            return None
        return importlib.machinery.ModuleSpec(
            name, self, origin=str(CORE / self.mutant.file), is_package=name.count(".") < 2
        )

    def exec_module(self, module: object) -> None:
        exec(compile(mutated(self.mutant), str(CORE / self.mutant.file), "exec"), vars(module))


def _child(mutant: Mutant, tests: list[str]) -> None:
    import pytest

    sys.meta_path.insert(0, _Swap(mutant))
    nothing = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nothing, 1)
    os.dup2(nothing, 2)
    os.chdir(ROOT)
    code = pytest.main(["-x", "-q", "-p", "no:cacheprovider", "-p", "no:xdist", "-p", "no:cov",
                        "--no-header", "--tb=no", *tests])  # fmt: skip
    os._exit(int(code))


def killed(mutant: Mutant, tests: list[str], usual_s: float) -> bool:
    """Whether a test fails on it, or its tests never end."""
    if not tests:
        return False
    pid = os.fork()
    if pid == 0:
        _child(mutant, tests)
    ends = time.monotonic() + 20 + TIMES * usual_s
    while time.monotonic() < ends:
        done, status = os.waitpid(pid, os.WNOHANG)
        if done:
            return os.waitstatus_to_exitcode(status) not in (0, 5)
        time.sleep(0.02)
    os.kill(pid, signal.SIGKILL)
    os.waitpid(pid, 0)
    return True


def _work(job: tuple[Mutant, list[str], float]) -> tuple[Mutant, bool, int]:
    mutant, tests, usual = job
    return mutant, killed(mutant, tests, usual), len(tests)


def _preload() -> None:
    sys.dont_write_bytecode = False  # each child reads what an earlier one compiled
    os.environ.setdefault("OMP_NUM_THREADS", "1")
    os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
    for name in ("numpy", "scipy.interpolate", "scipy.optimize", "scipy.integrate", "scipy.fft",
                 "scipy.stats", "scipy.signal", "scipy.ndimage", "pydantic", "pytest",
                 "_pytest.assertion.rewrite", "hypothesis", "hypothesis.strategies"):  # fmt: skip
        importlib.import_module(name)


def all_mutants(only: str) -> list[Mutant]:
    paths = sorted(p for p in CORE.rglob("*.py") if p.relative_to(CORE).parts[0] not in PROSE)
    return [m for p in paths if only in str(p) for m in mutants_of(p)]


def main() -> None:
    read = argparse.ArgumentParser(description=__doc__)
    read.add_argument("--sample", type=int, default=0, help="how many to try; all if not given")
    read.add_argument("--seed", type=int, default=1)
    read.add_argument("--only", default="", help="files whose path holds this")
    read.add_argument("--list", action="store_true", help="only count them, by file")
    read.add_argument("--again", action="store_true", help="only those that survived last time")
    given = read.parse_args()
    chosen = all_mutants(given.only)
    if given.list:
        for file, n in Counter(m.file for m in chosen).items():
            print(f"{n:5}  {file}")
        print(f"{len(chosen):5}  in all")
        return
    if given.sample:
        chosen = random.Random(given.seed).sample(chosen, min(given.sample, len(chosen)))
    if given.again:
        if not SURVIVORS.exists():
            sys.exit("No run came to its end yet: begin without --again.")
        names = set(json.loads(SURVIVORS.read_text()))
        chosen = [m for m in chosen if m.name in names]
    known: dict[str, str] = json.loads(KNOWN.read_text()) if KNOWN.exists() else {}
    base = baseline()
    chooser = Chooser(base)
    jobs = []
    for m in chosen:
        tests = chooser.tests(m)
        jobs.append((m, tests, sum(base.seconds.get(t, 0.0) for t in tests)))
    random.Random(given.seed).shuffle(jobs)
    _preload()
    began, survivors, dead = time.monotonic(), [], 0
    with mp.get_context("fork").Pool(os.cpu_count()) as pool:
        for n, (m, was_killed, tests) in enumerate(pool.imap_unordered(_work, jobs), 1):
            dead += was_killed
            if not was_killed:
                survivors.append((m, tests))
                print(f"  survived [{tests} tests] {m.file}:{m.line}  {m.name}", flush=True)
            if n % 50 == 0:
                print(f"{n}/{len(jobs)}  {dead / n:.1%} killed", flush=True)
    SURVIVORS.write_text(json.dumps([m.name for m, _ in survivors]))
    told = [m for m, _ in survivors if m.name in known]
    print(f"\n{len(jobs)} mutants, {dead} killed ({dead / len(jobs):.1%}), "
          f"{time.monotonic() - began:.0f} s")  # fmt: skip
    print(f"{len(told)} of the {len(survivors)} survivors are known, with their reason:")
    for m in told:
        print(f"  {m.name}\n      {known[m.name]}")
    fresh = [m for m, _ in survivors if m.name not in known]
    print(f"{len(fresh)} are not:")
    for m in sorted(fresh, key=lambda m: (m.file, m.line)):
        print(f"  {m.file}:{m.line}  {m.name}")


if __name__ == "__main__":
    main()
