"""The built front end: hashed files for ever, every other page answered by index.html."""

from __future__ import annotations

import mimetypes
import re
from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.responses import HTMLResponse, Response

from lyrandis.api.problems import allowed, not_allowed, problem
from lyrandis.core.route import STATIONS

_RIG_PAGES = "|".join((*STATIONS, "keep", "schedule", "beside", "range"))
_RACK_PAGES = r"rack(/fit|/beside|/[0-9a-f]{32})?"
_PAGES = re.compile(rf"|new|terms|range|{_RACK_PAGES}|rig/[1-9]\d{{0,15}}(/({_RIG_PAGES}))?/?")
_PACKED = {"br": ".br", "gzip": ".gz"}  # smallest first
_NOT_BUILT = (
    "<!doctype html><title>Lyrandis</title><p>The pages are not built yet. "
    "Run <code>make demo</code>, or <code>npm run build</code> in <code>web/</code>."
)


def _file(root: Path, path: str) -> Path | None:
    """The file that a path names, if there is one inside the folder of the pages."""
    try:
        file = (root / path).resolve()
        return file if file.is_relative_to(root) and file.is_file() else None
    except (OSError, ValueError):  # a name too long, or one that no file can have
        return None


def _answer(file: Path, accepted: str, cache: str, status: int = 200) -> Response:
    """A built file, as it was packed when it was built where the asker can unpack it."""
    kind, _ = mimetypes.guess_type(file.name)
    headers = {"Cache-Control": cache, "Vary": "Accept-Encoding"}
    offered = {word.partition(";")[0].strip() for word in accepted.split(",")}
    for packing, suffix in _PACKED.items():
        packed = file.with_name(file.name + suffix)
        if packing in offered and packed.is_file():
            headers["Content-Encoding"] = packing
            file = packed
            break
    return Response(file.read_bytes(), status, headers, kind or "application/octet-stream")


def install(app: FastAPI, site: Path) -> None:
    """Serve the built pages from a folder."""
    root = site.resolve()

    @app.get("/{path:path}", include_in_schema=False, response_model=None)
    def page(request: Request, path: str) -> Response:
        accepted = request.headers.get("accept-encoding", "")
        if path == "api" or path.startswith("api/"):
            methods = allowed(app, f"/{path}")
            if methods:
                return not_allowed(f"/{path}", methods)
            return problem(404, "No such thing", f"There is no /{path[:80]}.")
        file = _file(root, path) if path else None
        if file is not None:
            forever = path.startswith("_app/immutable/")
            cache = "public, max-age=31536000, immutable" if forever else "no-cache"
            return _answer(file, accepted, cache)
        if Path(path).suffix or "\0" in path:
            return problem(404, "No such thing", f"There is no /{path[:80]}.")
        index = root / "index.html"
        if not index.is_file():
            return HTMLResponse(_NOT_BUILT, status_code=503)
        # The pages say themselves that there is nothing; the answer's status says it too.
        known = 200 if _PAGES.fullmatch(path) else 404
        return _answer(index, accepted, "no-cache", known)
