"""The names of routes and stations, and how one may stand; what each is, is the route's."""

from __future__ import annotations

from typing import Literal

StationId = Literal[
    "draw", "bow-length", "weight", "assembly", "string", "tiller", "in-line", "centre-shot",
    "weights", "final-tiller", "brace", "nock-point", "arrow", "flight", "quiet",
    "crawls",
]  # fmt: skip
RouteId = Literal["shelf", "takedown", "thumb"]
Standing = Literal["provisional", "settled"]
