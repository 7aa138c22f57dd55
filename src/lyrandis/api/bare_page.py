"""What a person sees where a page cannot be served: the reason in words, and the way on."""

from __future__ import annotations

import html
import json

from starlette.responses import HTMLResponse, Response
from starlette.types import Scope

# Nothing is loaded, and no script runs.
_POLICY = (
    "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; "
    "frame-ancestors 'none'"
)
_PAGE = """<!doctype html>
<html lang="en"><head><meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>{title} · Lyrandis</title>
<style>
:root {{ color-scheme: light dark; --paper: #f5f2ea; --ink: #20302b; --line: #c9c3b3; }}
@media (prefers-color-scheme: dark) {{
  :root {{ --paper: #1a211e; --ink: #e9e4d6; --line: #55605a; }}
}}
body {{ background: var(--paper); color: var(--ink); font: 1.1rem/1.45 Georgia, serif;
  max-width: 32rem; margin: 16vh auto; padding: 0 1.2rem; }}
h1 {{ font-size: 1.6rem; border-bottom: 1px solid var(--line); padding-bottom: .4rem; }}
label, input, button {{ font: inherit; }}
a {{ color: inherit; }}
input, button {{ min-height: 44px; padding: 0 .7rem; background: none; color: inherit;
  border: 1px solid var(--ink); border-radius: 2px; }}
input {{ width: 11rem; text-transform: uppercase; }}
form {{ display: flex; flex-wrap: wrap; gap: .6rem; align-items: center; }}
</style></head>
<body><main><h1>{title}</h1><p>{detail}</p>{form}
<p><a href="{again}">Try again</a></p></main></body>
</html>"""
_FORM = """<form method="get" action="{again}"><label for="code">Invitation</label>
<input id="code" name="invitation" required maxlength="20" autocomplete="off">
<button>Let this device in</button></form>"""


def wants_page(scope: Scope) -> bool:
    """Whether a person opens a page, and no page or script asks for data."""
    if scope["method"] != "GET" or scope["path"].startswith("/api/"):
        return False
    accepted = dict(scope["headers"]).get(b"accept", b"")
    return b"text/html" in accepted


def page_of(scope: Scope, answer: Response) -> Response:
    """A refusal as a page, where a page was asked for; else as it is."""
    if not wants_page(scope) or answer.status_code < 400:
        return answer
    told = json.loads(bytes(answer.body))
    again = html.escape("/" + scope["path"].lstrip("/"))
    page = HTMLResponse(
        _PAGE.format(
            title=html.escape(told["title"]),
            detail=html.escape(told["detail"]),
            form=_FORM.format(again=again) if answer.status_code == 401 else "",
            again=again,
        ),
        answer.status_code,
        headers={"Content-Security-Policy": _POLICY, "Cache-Control": "no-store"},
    )
    for name in ("retry-after", "www-authenticate"):
        if name in answer.headers:
            page.headers[name] = answer.headers[name]
    return page
