"""What the product claims of worlds it was not built from, tried on a fifth of them or on all.

`make test` runs a fifth, with each limit widened by two standard errors of that number; `make
soundness` (SOUNDNESS=1) runs all of them against the limits themselves and prints a table.
"""

from __future__ import annotations

import json
import math
import os
from pathlib import Path

ALL = os.environ.get("SOUNDNESS") == "1"
TABLE = os.environ.get("SOUNDNESS_TABLE")
_SHARE = 5
_WIDER = 2.0  # standard errors


def share(count: int, least: int = 1) -> int:
    """How many of `count` worlds, rounds or examples are run this time."""
    return count if ALL else max(least, count // _SHARE)


def claimed(
    what: str,
    reached: float,
    *,
    of: int,
    least: float | None = None,
    most: float | None = None,
    sd: float | None = None,
) -> None:
    """Hold what was reached to its limits, and note it for the table.

    Parameters
    ----------
    of : worlds it was reached on, each by itself
    sd : of one world's figure; left out for a share of the worlds
    """
    for limit, sign in ((least, -1), (most, 1)):
        if limit is None:
            continue
        one = math.sqrt(max(limit * (1 - limit), 0)) if sd is None else sd
        wider = 0 if ALL else _WIDER * one / math.sqrt(of)
        assert sign * (reached - limit) <= wider, (
            f"{what}: {reached:.4g} of {of}, {'at least' if sign < 0 else 'at most'} {limit:.4g}"
            + ("" if ALL else f" (± {wider:.2g} for so few)")
        )
    if TABLE:
        line = {"what": what, "reached": round(float(reached), 4), "of": of,
                "least": least, "most": most}  # fmt: skip
        with Path(TABLE).open("a") as table:
            table.write(json.dumps(line) + "\n")
