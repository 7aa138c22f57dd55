"""What is answered: known hosts, own origin for changes, who is let in; how much at once."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from lyrandis.api import shape
from lyrandis.api.bare_page import page_of
from lyrandis.api.doors import Doors
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
FOLDER_HEADER = "X-Lyrandis-Folder"
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


class Guard:
    """Refuses unknown hosts, foreign origins, oversized bodies and, where set, who is not let in.

    Parameters
    ----------
    doors : judges who is let in; None where only this machine is answered
    folder : gives the data folder's id and generation, which every answer of the API says

    Every answer, refused or a fault, carries the security headers; HEAD is answered as GET without
    its body.
    """

    def __init__(
        self,
        app: ASGIApp,
        hosts: Iterable[str],
        doors: Doors | None,
        folder: Callable[[], str],
    ) -> None:
        self.app = app
        self.hosts = frozenset(h.lower() for h in hosts)
        self.doors = doors
        self.folder = folder

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
                    headers[FOLDER_HEADER] = self.folder()
            elif head and message["type"] == "http.response.body":
                message = {**message, "body": b""}
            await send(message)

        try:
            answer = self._refuse(scope)
            if answer is None and self.doors is not None:
                answer = await self.doors.refuse(scope)
            shown = None if answer is None else page_of(scope, answer)
            await (shown or self.app)(scope, receive, guarded)
        except Exception as error:
            if begun:
                raise  # the answer is on its way: only cutting it off tells that it is not whole
            await page_of(scope, fault(error))(scope, receive, guarded)

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
        return None

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
