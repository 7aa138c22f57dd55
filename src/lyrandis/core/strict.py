"""What a JSON document may hold before anything reads it: finite numbers, whole text, bounded size.

One walk, without recursion, for requests and files alike.
"""

from __future__ import annotations

import math
from typing import Any

from lyrandis.core.errors import RefusedError

MOST_DEPTH = 30
MOST_KEYS = 1_000  # of one object: no document of ours has more names
MOST_WHOLE = 2**53 - 1  # beyond it a number is no longer exact everywhere


def refuse_unfit(document: Any, at: str = "body") -> None:
    """Refuse what no field could take.

    Parameters
    ----------
    document : parsed JSON: dicts, lists, strings, numbers, booleans and None
    at : what the document is called in the refusal

    Raises
    ------
    RefusedError : a number that is not finite or not exact, half a sign (a lone surrogate), an
        object with too many names, or too deep a nesting, by its path.
    """
    waiting: list[tuple[Any, str, int]] = [(document, "", 0)]
    while waiting:
        value, path, depth = waiting.pop()
        if isinstance(value, str):
            _text(value, path or at)
        elif isinstance(value, bool) or value is None:
            continue
        elif isinstance(value, int):
            if abs(value) > MOST_WHOLE:
                raise RefusedError(path or at, "The number has too many digits.", MOST_WHOLE)
        elif isinstance(value, float):
            if not math.isfinite(value):
                raise RefusedError(path or at, "The number is not finite; leave the field empty.")
        elif depth >= MOST_DEPTH:
            raise RefusedError(path or at, "It is nested too deeply.", MOST_DEPTH, "levels")
        elif isinstance(value, dict):
            if len(value) > MOST_KEYS:
                raise RefusedError(path or at, "It has too many names.", MOST_KEYS, "names")
            for name, inner in value.items():
                _text(name, path or at)
                waiting.append((inner, f"{path}.{name[:80]}" if path else name[:80], depth + 1))
        else:
            waiting.extend((v, f"{path or at}.{i}", depth + 1) for i, v in enumerate(value))


def _text(text: str, path: str) -> None:
    try:
        text.encode()
    except UnicodeEncodeError:
        raise RefusedError(
            path.encode("ascii", "replace").decode(),
            "The text holds half a sign (a lone surrogate): type it again.",
        ) from None
