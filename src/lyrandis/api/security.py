"""Who is answered: known hosts, own origin for changes, a token off this machine; how much."""

from __future__ import annotations

import hmac
import time
from collections.abc import Iterable
from http.cookies import CookieError, SimpleCookie
from urllib.parse import parse_qsl, urlencode, urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.responses import RedirectResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from lyrandis.api import shape
from lyrandis.api.problems import fault, problem
from lyrandis.files.photo import MOST_BYTES as MOST_PHOTO_BYTES
from lyrandis.files.rig_json import MOST_BYTES as MOST_RIG_BYTES
from lyrandis.files.wav import MOST_BYTES as MOST_WAV_BYTES

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "::1"})
LEAST_TOKEN = 20
_FORM = 1_000_000  # what a form around a file may take
MOST_BODY_BYTES = 1_000_000
MOST_BY_PATH = {
    **dict.fromkeys(("/api/compute/sound", "/api/jobs/sound"), MOST_WAV_BYTES + _FORM),
    "/api/compute/photo": MOST_PHOTO_BYTES + _FORM,
    **dict.fromkeys(("/api/rigs/import", "/api/jobs/import"), MOST_RIG_BYTES + _FORM),
    **dict.fromkeys(("/api/data/restore", "/api/jobs/restore"), 2_000_000_000),
    **dict.fromkeys(("/api/readings", "/api/courses", "/api/aim-table"), 1_000_000 + _FORM),
}
_SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
_COOKIE = "lyrandis-token"
_SECURE_HEADERS = {
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "X-Frame-Options": "DENY",
    "Cross-Origin-Resource-Policy": "same-origin",
}


def host_name(value: str) -> str:
    """The name or address in a Host header, without its port; empty where it is none."""
    try:
        return (urlsplit(f"//{value}").hostname or "").lower()
    except ValueError:
        return ""


def _same_origin(origin: str, host: str) -> bool:
    try:
        return urlsplit(origin).netloc == host
    except ValueError:
        return False


class Guesses:
    """Wrong tokens by address: each one more makes the next wait longer, up to a minute."""

    FREE, LONGEST_S, MOST_ADDRESSES = 3, 60.0, 10_000

    def __init__(self) -> None:
        self._wrong: dict[str, tuple[int, float]] = {}

    def wait_s(self, address: str) -> float:
        """Seconds until this address is listened to again."""
        count, last = self._wrong.get(address, (0, 0.0))
        if count < self.FREE:
            return 0.0
        pause = min(2.0 ** (count - self.FREE), self.LONGEST_S)
        return max(0.0, last + pause - time.monotonic())

    def wrong(self, address: str) -> None:
        """Note one more wrong token."""
        if len(self._wrong) >= self.MOST_ADDRESSES:
            self._wrong.pop(next(iter(self._wrong)))
        self._wrong[address] = (self._wrong.pop(address, (0, 0.0))[0] + 1, time.monotonic())

    def right(self, address: str) -> None:
        """Forget an address's wrong tokens."""
        self._wrong.pop(address, None)


def _cookie(headers: Headers) -> str | None:
    try:
        jar = SimpleCookie(headers.get("cookie", ""))
    except CookieError:
        return None
    return jar[_COOKIE].value if _COOKIE in jar else None


def _bearer(headers: Headers) -> str | None:
    kind, _, value = headers.get("authorization", "").partition(" ")
    return value.strip() if kind.lower() == "bearer" else None


class Guard:
    """Refuses unknown hosts, foreign origins, oversized bodies and, where set, a missing token.

    Every answer, refused or a fault, carries the security headers; HEAD is answered as GET without
    its body.
    """

    def __init__(self, app: ASGIApp, hosts: Iterable[str], token: str | None) -> None:
        self.app = app
        self.hosts = frozenset(h.lower() for h in hosts)
        self.token = token
        self.guesses = Guesses()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer or refuse one request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        head = scope["method"] == "HEAD"
        if head:
            scope = {**scope, "method": "GET"}

        begun = False

        async def guarded(message: Message) -> None:
            nonlocal begun
            begun = True
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in _SECURE_HEADERS.items():
                    headers[name] = value
                headers.setdefault("Content-Security-Policy", "frame-ancestors 'none'")
                if scope["path"].startswith("/api/"):
                    headers[shape.HEADER] = str(shape.SHAPE)
            elif head and message["type"] == "http.response.body":
                message = {**message, "body": b""}
            await send(message)

        answer = self._refuse(scope)
        try:
            await (answer or self.app)(scope, receive, guarded)
        except Exception as error:
            if begun:
                raise  # the answer is on its way: only cutting it off tells that it is not whole
            await fault(error)(scope, receive, guarded)

    def _refuse(self, scope: Scope) -> Response | None:
        headers = Headers(scope=scope)
        host = headers.get("host", "")
        if host_name(host) not in self.hosts:
            return problem(
                400,
                "Unknown host",
                "This host name is not one this server answers to. Start it with --name for "
                "a further name.",
            )
        if scope["method"] not in _SAFE:
            origin = headers.get("origin")
            if origin is not None and not _same_origin(origin, host):
                return problem(
                    403, "Foreign origin", "Changes are only taken from this server's own pages."
                )
            too_large = self._too_large(scope, headers)
            if too_large is not None:
                return too_large
        return None if self.token is None else self._wrong_token(scope, headers, self.token)

    @staticmethod
    def _too_large(scope: Scope, headers: Headers) -> Response | None:
        most = MOST_BY_PATH.get(scope["path"], MOST_BODY_BYTES)
        sent = headers.get("content-length")
        if sent is None:
            if headers.get("transfer-encoding"):
                return problem(411, "Length wanted", "Say how long the body is before sending it.")
            return None
        if not (sent.isascii() and sent.isdigit()):
            return problem(400, "No length", "The body's length is not a number.")
        if len(sent) > 15 or int(sent) > most:
            return problem(413, "Too large", f"At most {most / 1e6:.0f} MB are taken at once.")
        return None

    def _wrong_token(self, scope: Scope, headers: Headers, token: str) -> Response | None:
        query = parse_qsl(scope["query_string"].decode("latin-1"), keep_blank_values=True)
        given = next((value for name, value in query if name == "token"), None)
        shown = given or _cookie(headers) or _bearer(headers)
        address = str((scope.get("client") or ("?",))[0])
        wait = self.guesses.wait_s(address)
        if wait > 0:
            return problem(
                429,
                "Too many wrong tokens",
                "Wait a little, then open the address with the token as printed at the start.",
                headers={"Retry-After": str(int(wait) + 1)},
            )
        if shown is None or not hmac.compare_digest(
            shown.encode("utf-8", "replace"), token.encode("utf-8", "replace")
        ):
            if shown is not None:
                self.guesses.wrong(address)
            return problem(
                401,
                "Token wanted",
                "Open the address with ?token=… as printed at the start.",
                headers={"WWW-Authenticate": "Bearer"},
            )
        self.guesses.right(address)
        if given is None or scope["path"].startswith("/api/") or scope["method"] not in _SAFE:
            return None
        # The token leaves the address bar, the history and whatever is shared of them.
        rest = urlencode([(name, value) for name, value in query if name != "token"])
        path = "/" + scope["path"].lstrip("/")
        answer = RedirectResponse(path + (f"?{rest}" if rest else ""), status_code=303)
        secure = scope["scheme"] == "https"
        answer.set_cookie(_COOKIE, token, httponly=True, samesite="strict", secure=secure)
        return answer
