"""Devices that are let in: listed, named, invited, signed out one by one."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import segno
from fastapi import Path as InPath
from fastapi import Request, Response
from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from lyrandis.api.context import now
from lyrandis.api.doors import COOKIE, Doors
from lyrandis.api.problems import answers
from lyrandis.api.routers import router_of
from lyrandis.store.devices import Devices
from lyrandis.store.errors import MissingError

router = router_of("devices", "/api/devices")
DeviceId = Annotated[int, InPath(ge=1, le=2**53 - 1, description="Number of a device.")]
DeviceName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]


class DeviceView(BaseModel):
    """A device that is let in; mine : it is the one that asks."""

    id: int
    name: str
    made_at: str
    seen_at: str
    mine: bool


class DevicesView(BaseModel):
    """Who is let in from other machines.

    open : whether others are answered at all; else this machine alone is
    addresses : where they reach it
    authority : whether it is served by a certificate whose authority phones install
    """

    open: bool
    addresses: list[str]
    authority: bool
    devices: list[DeviceView]


class Scanned(BaseModel):
    """An address with its invitation, as text and as a code to scan: rows of 1 (dark) and 0."""

    address: str
    rows: list[str]


class InvitationView(BaseModel):
    """An invitation: it lets one device in, once, as long as it lasts."""

    code: str
    lasts_s: float
    addresses: list[Scanned]


def scanned(address: str) -> Scanned:
    """An address as a QR code with its quiet border."""
    rows = segno.make(address, error="m", micro=False).matrix_iter(border=2)
    return Scanned(
        address=address, rows=["".join("1" if dark else "0" for dark in r) for r in rows]
    )


def invited(address: str, code: str) -> str:
    """Where an invitation is opened."""
    return f"{address}/?invitation={code}"


def _doors(request: Request) -> Doors:
    doors: Doors | None = request.app.state.doors
    if doors is None:
        raise MissingError(
            "Only this machine is answered: start Lyrandis with --host 0.0.0.0 to let others in."
        )
    return doors


@router.get("")
def list_devices(request: Request) -> DevicesView:
    """The devices that are let in, the latest seen first."""
    state = request.app.state
    own = getattr(request.state, "device", None)
    known = Devices(lambda: state.desk.engine, now).all()
    return DevicesView(
        open=state.doors is not None,
        addresses=state.addresses,
        authority=state.authority is not None,
        devices=[
            DeviceView(id=d.id, name=d.name, made_at=d.made_at, seen_at=d.seen_at, mine=d.id == own)
            for d in known
        ],
    )


@router.get(
    "/authority",
    response_class=Response,
    responses=answers("application/x-x509-ca-cert", "The authority's certificate"),
)
def authority(request: Request) -> Response:
    """The certificate of its own authority, to be installed on a phone."""
    file: Path | None = request.app.state.authority
    if file is None:
        raise MissingError(
            "It is not served by a certificate of its own: see lyrandis certificate."
        )
    headers = {"Content-Disposition": 'attachment; filename="lyrandis-authority.crt"'}
    return Response(file.read_bytes(), media_type="application/x-x509-ca-cert", headers=headers)


@router.post("/invitations", status_code=201)
def invite(request: Request) -> InvitationView:
    """Make an invitation for one more device; opened once, within ten minutes, it lets it in."""
    made = _doors(request).invitations.make()
    addresses: list[str] = request.app.state.addresses
    return InvitationView(
        code=made.code,
        lasts_s=made.lasts_s,
        addresses=[scanned(invited(address, made.code)) for address in addresses],
    )


class DeviceIn(BaseModel):
    """What a device is called."""

    model_config = ConfigDict(extra="forbid")

    name: DeviceName = Field()


@router.patch("/{id}")
def rename(id: DeviceId, body: DeviceIn, request: Request) -> DevicesView:
    """Call a device otherwise."""
    Devices(lambda: request.app.state.desk.engine, now).rename(id, body.name)
    return list_devices(request)


@router.delete("/{id}")
def sign_out(id: DeviceId, request: Request, response: Response) -> DevicesView:
    """Sign a device out: it needs another invitation. What is kept on it stays there."""
    Devices(lambda: request.app.state.desk.engine, now).sign_out(id)
    if id == getattr(request.state, "device", None):
        response.delete_cookie(COOKIE)
    return list_devices(request)
