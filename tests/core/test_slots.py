"""Every sentence has a value for each of its slots, and the other way round.

`say` refuses at run time what differs, and a choice within a sentence is seldom taken both ways.
"""

import ast
import re
from itertools import product
from pathlib import Path

CORE = Path(__file__).parents[2] / "src/lyrandis/core"


def texts(node):
    """All texts that an expression may come to; None where it cannot be told from here."""
    match node:
        case ast.Constant(value=str(text)):
            return {text}
        case ast.IfExp(body=one, orelse=other):
            found = texts(one), texts(other)
            return None if None in found else found[0] | found[1]
        case ast.BinOp(op=ast.Add(), left=one, right=other):
            found = texts(one), texts(other)
            return None if None in found else {a + b for a, b in product(*found)}
    return None


def sayings():
    for path in sorted(CORE.rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "say" and node.args:
                keys = {k.arg for k in node.keywords}
                found = texts(node.args[0])
                if found is not None and None not in keys:
                    yield f"{path.relative_to(CORE)}:{node.lineno}", found, keys


def slots(text):
    return set(re.findall(r"\{(\w+)\}", text))


def test_it_notices_a_slot_that_only_one_way_has():
    call = ast.parse("say('It ' + ('takes {h}.' if told else 'lasts.'), h=1)").body[0].value
    assert {frozenset(slots(t)) for t in texts(call.args[0])} == {frozenset({"h"}), frozenset()}


def test_each_way_of_saying_it_has_its_values():
    all_of_them = list(sayings())
    assert len(all_of_them) > 400
    assert [at for at, found, keys in all_of_them if any(slots(t) != keys for t in found)] == []
