"""The names of the route's stations, and how one may stand; what each is, is the route's."""

from __future__ import annotations

from typing import Literal

StationId = Literal[
    "draw", "bow-length", "weight", "assembly", "string", "in-line", "brace", "nock-point", "arrow",
    "quiet", "crawls",
]  # fmt: skip
Standing = Literal["provisional", "settled"]
