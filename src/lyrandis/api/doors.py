"""Who is let in from other machines: devices by their cookie, scripts by the token.

a device's cookie           let in; signed out: refused, and no guess
an invitation, on a page    used up: the device gets a cookie of its own
the token                   let in; opened on a page, the device gets a cookie too
anything else               refused, and a guess that makes the next one wait
"""

from __future__ import annotations

import hmac
import time
from dataclasses import dataclass, field
from http.cookies import CookieError, SimpleCookie
from urllib.parse import parse_qsl, urlencode

from starlette.concurrency import run_in_threadpool
from starlette.datastructures import Headers
from starlette.responses import RedirectResponse, Response
from starlette.types import Scope

from lyrandis.api.invitations import Invitations
from lyrandis.api.problems import problem
from lyrandis.store.devices import Device, Devices

COOKIE = "lyrandis-device"
_TOKEN_COOKIE = "lyrandis-token"  # of devices let in by an earlier version
COOKIE_DAYS = 400
_SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
_ONCE = frozenset({"token", "invitation"})
NOT_LET_IN = (
    "This device is not let in. Open an invitation on it: one is printed where Lyrandis is "
    "started, and any device that is in makes one under “All data”. What is kept on this device "
    "stays."
)
SIGNED_OUT = "This device was signed out. " + NOT_LET_IN.partition(". ")[2]
USED_UP = (
    "No such invitation is open: it was mistyped, used already, or is over ten minutes old. Type "
    "it again, or have another one made."
)


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


@dataclass(frozen=True)
class _Shown:
    """What a request shows of who it is."""

    device: str | None
    invitation: str | None
    token: str | None
    in_address: bool
    page: bool

    @property
    def anything(self) -> bool:
        return (self.device or self.invitation or self.token) is not None


def _shown(scope: Scope) -> _Shown:
    headers = Headers(scope=scope)
    query = dict(parse_qsl(scope["query_string"].decode("latin-1"), keep_blank_values=True))
    try:
        jar = SimpleCookie(headers.get("cookie", ""))
    except CookieError:
        jar = SimpleCookie()
    cookies = {name: jar[name].value for name in (COOKIE, _TOKEN_COOKIE) if name in jar}
    kind, _, bearer = headers.get("authorization", "").partition(" ")
    page = scope["method"] in _SAFE and not scope["path"].startswith("/api/")
    return _Shown(
        cookies.get(COOKIE),
        query.get("invitation") if page else None,
        query.get("token")
        or cookies.get(_TOKEN_COOKIE)
        or (bearer.strip() if kind.lower() == "bearer" else None),
        page and not _ONCE.isdisjoint(query),
        page,
    )


def name_of(headers: Headers) -> str:
    """What a device is called until its archer says otherwise."""
    told = headers.get("user-agent", "")
    if "Tablet" in told:
        return "Tablet"
    return "Phone" if "Mobi" in told else "Computer"


@dataclass
class Doors:
    """Judges each request that comes from another machine.

    token : asked of scripts
    """

    token: str
    devices: Devices
    invitations: Invitations = field(default_factory=Invitations)
    guesses: Guesses = field(default_factory=Guesses)

    async def refuse(self, scope: Scope) -> Response | None:
        """Why a request is not answered, or where it is led; None where it is let in."""
        shown = _shown(scope)
        device: Device | None = None
        if shown.device:
            device = await run_in_threadpool(self.devices.of, shown.device)
        if device is not None and device.gone_at is None:
            scope.setdefault("state", {})["device"] = device.id
            return _bare(scope) if shown.in_address else None
        address = str((scope.get("client") or ("?",))[0])
        wait = self.guesses.wait_s(address)
        if wait > 0:
            return problem(
                429,
                "Too many wrong tokens",
                "Too many were tried that let nobody in. Wait a little, then open an invitation.",
                headers={"Retry-After": str(int(wait) + 1)},
            )
        invited = shown.invitation is not None and self.invitations.take(shown.invitation)
        if invited or self._right(shown.token):
            self.guesses.right(address)
            if not shown.in_address:
                return None
            secret = await run_in_threadpool(self.devices.let_in, name_of(Headers(scope=scope)))
            return _with_cookie(_bare(scope), secret, scope["scheme"] == "https")
        # A cookie that was given once is no guess.
        if shown.anything and (device is None or shown.invitation or shown.token):
            self.guesses.wrong(address)
        said = SIGNED_OUT if device else USED_UP if shown.invitation else NOT_LET_IN
        return problem(401, "Not let in", said, headers={"WWW-Authenticate": "Bearer"})

    def _right(self, token: str | None) -> bool:
        return token is not None and hmac.compare_digest(
            token.encode("utf-8", "replace"), self.token.encode("utf-8", "replace")
        )


def _bare(scope: Scope) -> Response:
    """To the same page without what leaves the address bar, the history and all that is shared."""
    query = parse_qsl(scope["query_string"].decode("latin-1"), keep_blank_values=True)
    rest = urlencode([(name, value) for name, value in query if name not in _ONCE])
    path = "/" + scope["path"].lstrip("/")
    return RedirectResponse(path + (f"?{rest}" if rest else ""), status_code=303)


def _with_cookie(answer: Response, secret: str, secure: bool) -> Response:
    lasts_s = COOKIE_DAYS * 86_400
    answer.set_cookie(COOKIE, secret, max_age=lasts_s, httponly=True, samesite="lax", secure=secure)
    answer.delete_cookie(_TOKEN_COOKIE)
    return answer
