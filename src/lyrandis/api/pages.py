"""The built front end: hashed files for ever, every other page answered by index.html."""

from __future__ import annotations

import re
from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, HTMLResponse, Response

from lyrandis.api.problems import allowed, not_allowed, problem
from lyrandis.core.route import STATIONS

_RIG_PAGES = "|".join((*STATIONS, "keep", "schedule", "beside", "range"))
_RACK_PAGES = r"rack(/fit|/beside|/[0-9a-f]{32})?"
_PAGES = re.compile(rf"|new|terms|range|{_RACK_PAGES}|rig/[1-9]\d{{0,15}}(/({_RIG_PAGES}))?/?")
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


def install(app: FastAPI, site: Path) -> None:
    """Serve the built pages from a folder."""
    root = site.resolve()

    @app.get("/{path:path}", include_in_schema=False, response_model=None)
    def page(path: str) -> Response:
        if path == "api" or path.startswith("api/"):
            methods = allowed(app, f"/{path}")
            if methods:
                return not_allowed(f"/{path}", methods)
            return problem(404, "No such thing", f"There is no /{path[:80]}.")
        file = _file(root, path) if path else None
        if file is not None:
            forever = path.startswith("_app/immutable/")
            cache = "public, max-age=31536000, immutable" if forever else "no-cache"
            return FileResponse(file, headers={"Cache-Control": cache})
        if Path(path).suffix or "\0" in path:
            return problem(404, "No such thing", f"There is no /{path[:80]}.")
        index = root / "index.html"
        if not index.is_file():
            return HTMLResponse(_NOT_BUILT, status_code=503)
        # The pages say themselves that there is nothing; the answer's status says it too.
        known = 200 if _PAGES.fullmatch(path) else 404
        return FileResponse(index, status_code=known, headers={"Cache-Control": "no-cache"})
