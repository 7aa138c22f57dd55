"""Who is answered: known hosts, same origin for changes, a token off this machine, strict CSP."""

from __future__ import annotations

import hmac
from urllib.parse import urlsplit

from fastapi import Request
from starlette.middleware.base import BaseHTTPMiddleware, RequestResponseEndpoint
from starlette.responses import Response
from starlette.types import ASGIApp

from lyrandis.api.problems import problem

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "::1", "[::1]", "testserver"})
MOST_BODY_BYTES = 4_000_000
MOST_RECORDING_BYTES = 61_000_000  # a WAV with its form around it
_SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
_COOKIE = "lyrandis-token"


def _host_name(value: str) -> str:
    return (urlsplit(f"//{value}").hostname or "").lower()


class Guard(BaseHTTPMiddleware):
    """Refuses unknown hosts, foreign origins, oversized bodies and, where set, a missing token."""

    def __init__(self, app: ASGIApp, hosts: frozenset[str], token: str | None) -> None:
        super().__init__(app)
        self.hosts = hosts
        self.token = token

    async def dispatch(self, request: Request, call_next: RequestResponseEndpoint) -> Response:
        """Answer or refuse one request."""
        host = request.headers.get("host", "")
        if _host_name(host) not in self.hosts:
            return problem(400, "Unknown host", "This host name is not one this server answers to.")
        if request.method not in _SAFE:
            origin = request.headers.get("origin")
            if origin is not None and urlsplit(origin).netloc != host:
                return problem(
                    403, "Foreign origin", "Changes are only taken from this server's own pages."
                )
            most = (
                MOST_RECORDING_BYTES
                if request.url.path == "/api/compute/sound"
                else MOST_BODY_BYTES
            )
            sent = request.headers.get("content-length")
            if sent is None and request.headers.get("transfer-encoding"):
                return problem(411, "Length wanted", "Say how long the body is before sending it.")
            if int(sent or 0) > most:
                return problem(413, "Too large", f"At most {most / 1e6:.0f} MB are taken at once.")
        given = request.query_params.get("token")
        if self.token is not None:
            shown = given or request.cookies.get(_COOKIE) or ""
            if not hmac.compare_digest(shown, self.token):
                return problem(
                    401, "Token wanted", "Open the address with ?token=… as printed at the start."
                )
        response = await call_next(request)
        if self.token is not None and given:
            response.set_cookie(_COOKIE, self.token, httponly=True, samesite="strict")
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["X-Frame-Options"] = "DENY"
        response.headers.setdefault("Content-Security-Policy", "frame-ancestors 'none'")
        return response
