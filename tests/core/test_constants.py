"""Every constant stands on docs/mechanics' page of constants, with its unit and source.

The page is what counts: a constant that differs from it fails, as does one that is missing there.
"""

import re
from pathlib import Path

from constants import leaves

PAGE = Path(__file__).parents[2] / "docs/mechanics/constants.md"
ROW = re.compile(r"^\| `([^`]+)` \| ([^|]+) \| ([^|]+) \| ([^|]+) \|$")


def rows():
    """name -> value, unit, source, from the page."""
    found = {}
    for line in PAGE.read_text().splitlines():
        row = ROW.match(line)
        if row:
            name, text, unit, source = (part.strip() for part in row.groups())
            assert name not in found, f"{name} stands twice"
            numbers = tuple(float(part) for part in text.split(","))
            found[name] = (numbers if len(numbers) > 1 else numbers[0], unit, source)
    return found


def test_the_code_has_the_pages_numbers():
    page = {name: value for name, (value, _, _) in rows().items()}
    code = dict(leaves())
    differing = {n: (page[n], code[n]) for n in page.keys() & code.keys() if page[n] != code[n]}
    assert differing == {}, "on the page, in the code"


def test_no_constant_is_missing_on_either_side():
    page, code = rows().keys(), dict(leaves()).keys()
    assert sorted(code - page) == [], "not on the page"
    assert sorted(page - code) == [], "not in the code"


def test_every_constant_has_a_unit_and_a_source():
    for name, (_, unit, source) in rows().items():
        assert unit, name
        assert re.match(
            r"(A\d?|B\d|C\d|D|E\d|F\d|practice|own|accuracy|exact|calendar|IEC|of a normal)", source
        ), f"{name}: {source}"
