"""The command line: serve, demo, certificate, backup, restore, check, openapi."""

from __future__ import annotations

import errno
import io
import json
import socket
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Annotated

import segno
import typer
import uvicorn
from rich.console import Console
from rich.markup import escape
from sqlalchemy.exc import DatabaseError

from lyrandis import certificates
from lyrandis.api.app import create_app
from lyrandis.api.devices import invited
from lyrandis.api.doors import Doors
from lyrandis.api.names import is_any, own_names
from lyrandis.api.security import LEAST_TOKEN, LOCAL_HOSTS
from lyrandis.demo import folder as demo_folder
from lyrandis.settings import Settings, new_token
from lyrandis.store import database
from lyrandis.store import folder as places
from lyrandis.store.folder import InUseError
from lyrandis.store.restore import Looked, NoBackupError, look_over
from lyrandis.store.restore import restore as put_back

app = typer.Typer(
    help="Lyrandis: setting up a bow that is shot without a sight.", no_args_is_help=True
)
out = Console()
DEFAULT_PORT = 8730
GRACE_S = 5  # what is under way at the end may take this long

Host = Annotated[
    str, typer.Option(help="Address to listen on; another than this machine's asks for a token.")
]
Port = Annotated[int, typer.Option(help="Port to listen on.", min=1, max=65535)]
Data = Annotated[Path | None, typer.Option(help="Data folder; else LYRANDIS_DATA, else your own.")]
Names = Annotated[
    list[str] | None,
    typer.Option("--name", help="A further host name to answer to; may be given again."),
]
Certificate = Annotated[
    Path | None,
    typer.Option(
        help="Certificate (PEM) to be reached by https: a phone opens the page for the range out "
        "of reach only from such an address.",
        exists=True,
        dir_okay=False,
    ),
]
Key = Annotated[
    Path | None, typer.Option(help="The certificate's key (PEM).", exists=True, dir_okay=False)
]
_OWN_WORDS = (
    database.NewerDataError,
    database.UnfinishedError,
    database.NotABackupError,
    demo_folder.NotTheDemosError,
    InUseError,
    NoBackupError,
)


def _fail(*lines: str) -> typer.Exit:
    for line in lines:
        out.print(escape(line), style="red", soft_wrap=True)
    return typer.Exit(1)


@contextmanager
def _told(folder: Path) -> Iterator[None]:
    """What goes wrong with a data folder, in three lines: what, where, and what to do."""
    try:
        yield
    except _OWN_WORDS as error:
        raise _fail(*str(error).split("\n")) from None
    except (OSError, DatabaseError, sqlite3.Error) as error:
        reason = getattr(error, "orig", None) or error
        raise _fail(
            f"The data in {folder} cannot be opened or written: {reason}",
            "Nothing kept was changed. Look whether the disk is full or the folder is read-only.",
            "If the file is damaged: lyrandis check, then lyrandis restore FILE with a backup.",
        ) from None


def _serve(
    folder: Path,
    host: str,
    port: int,
    names: list[str],
    certificate: Path | None = None,
    key: Path | None = None,
    prepare: Callable[[], None] = lambda: None,
) -> None:
    if (certificate is None) != (key is None):
        raise _fail("A certificate and its key go together: give --certificate and --key.")
    local = host in LOCAL_HOSTS  # which is a secure address as it is
    own = None
    if certificate is None and not local:
        own = _own_certificate(folder, host, names)
    if own is not None:
        certificate, key = own.own, own.own_key
    with _listening(host, port) as listening:
        token = None if local else (Settings().token or new_token())
        if token is not None and len(token) < LEAST_TOKEN:
            raise _fail(
                f"LYRANDIS_TOKEN has {len(token)} signs; a token has at least {LEAST_TOKEN}.",
                "Leave it out to have one made, or set a longer one.",
            )
        prepare()
        hosts = LOCAL_HOSTS | frozenset(names) | (frozenset() if local else own_names() | {host})
        scheme = "http" if certificate is None else "https"
        reached = [*names, *(sorted(_shown_names()) if is_any(host) else [host])]
        addresses = [f"{scheme}://{f'[{n}]' if ':' in n else n}:{port}" for n in reached]
        with _told(folder):
            application = create_app(
                folder,
                hosts=hosts,
                token=token,
                addresses=[] if local else addresses,
                authority=None if own is None else own.authority,
            )
        for address in [f"{scheme}://{host}:{port}"] if local else addresses:
            out.print(escape(f"Lyrandis is open at {address}"), soft_wrap=True)
        if not local:
            _invite(application.state.doors, addresses[0])
        out.print(escape(f"Data in {folder}. Stop with Ctrl+C."), style="dim", soft_wrap=True)
        config = uvicorn.Config(
            application,
            log_level="warning",
            timeout_graceful_shutdown=GRACE_S,
            server_header=False,
            ssl_certfile=certificate,
            ssl_keyfile=key,
        )
        uvicorn.Server(config).run(sockets=[listening])


def _shown_names() -> frozenset[str]:
    """This machine's names and addresses as others are told them, without those for itself."""
    return frozenset(n for n in own_names() - LOCAL_HOSTS if not n.startswith(("127.", "fe80")))


def _own_certificate(folder: Path, host: str, names: list[str]) -> certificates.Place | None:
    """The certificate of one's own authority, where one was made."""
    made = [one for one in (folder, Settings().data) if certificates.of(one).authority.exists()]
    if not made:
        return None
    with _told(made[0]):
        place, left = certificates.ready(made[0], _named(host, names), certificates.today())
    unnamed = [one for one in left if one in (host, *names)]
    if unnamed:
        out.print(
            escape(
                f"The certificate is not for {', '.join(unnamed)}: its authority may not vouch for "
                f"that. Delete {place.authority.parent} and make another with --name, which phones "
                "then install anew."
            ),
            style="yellow",
            soft_wrap=True,
        )
    return place


def _named(host: str, names: list[str]) -> list[str]:
    """Every name and address that a certificate is to be for."""
    shown = _shown_names() if is_any(host) else {host}
    return sorted({*names, *shown, *LOCAL_HOSTS})


def _invite(doors: Doors, address: str) -> None:
    """Print what lets the first device in: to be typed, and to be scanned."""
    at = invited(address, doors.invitations.make().code)
    out.print(escape(f"To let one device in, once, within ten minutes: {at}"), soft_wrap=True)
    drawn = io.StringIO()
    segno.make(at, error="m", micro=False).terminal(drawn, compact=True, border=2)
    out.print(escape(drawn.getvalue()), end="", highlight=False, soft_wrap=True)
    out.print("It lets others in too, under “All data”.", style="dim")


def _listening(host: str, port: int) -> socket.socket:
    """The port, taken before anything else is done: where it cannot be, three lines say so."""
    try:
        family = socket.getaddrinfo(host, port, type=socket.SOCK_STREAM)[0][0]
        taken = socket.socket(family, socket.SOCK_STREAM)
        taken.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        taken.bind((host, port))
        taken.listen()  # else a second server could take it as well
    except OSError as error:
        at = f"Port {port} of {host}"
        if error.errno == errno.EADDRINUSE:
            raise _fail(
                f"{at} is taken: something listens there already, perhaps Lyrandis itself.",
                f"Look whether it is open in a browser at port {port}.",
                f"Or start it on another port: --port {port + 1 if port < 65535 else 8730}.",
            ) from None
        raise _fail(
            f"{at} cannot be listened on: {error.strerror or error}.",
            "The address must be one of this machine's; ports under 1024 ask for rights.",
            f"Start it with the usual ones: --host 127.0.0.1 --port {DEFAULT_PORT}.",
        ) from None
    return taken


@app.command()
def serve(
    host: Host = "127.0.0.1",
    port: Port = DEFAULT_PORT,
    data: Data = None,
    name: Names = None,
    certificate: Certificate = None,
    key: Key = None,
) -> None:
    """Start the application on your own data."""
    _serve(data or Settings().data, host, port, name or [], certificate, key)


@app.command()
def demo(
    host: Host = "127.0.0.1",
    port: Port = DEFAULT_PORT,
    data: Data = None,
    name: Names = None,
    certificate: Certificate = None,
    key: Key = None,
    reset: Annotated[
        bool, typer.Option(help="Throw the demo's data away and load it anew.")
    ] = False,
) -> None:
    """Start the application on the demo's data, in a folder of its own."""
    folder = data or Settings().data / "demo"

    def prepare() -> None:
        with _told(folder):
            demo_folder.prepare(folder, reset)

    _serve(folder, host, port, name or [], certificate, key, prepare)


@app.command()
def certificate(data: Data = None, name: Names = None) -> None:
    """Make an authority of one's own, once, so that phones reach this machine by https."""
    folder = data or Settings().data
    places.make(folder)
    with _told(folder):
        authority = certificates.make_authority(
            folder, {*own_names(), *(name or [])}, certificates.today()
        )
        certificates.ready(folder, _named("0.0.0.0", name or []), certificates.today())
    out.print(escape(f"The authority lies in {authority}"), soft_wrap=True)
    out.print(
        escape(
            "Start with --host 0.0.0.0: it is used from now on. “All data” says how phones "
            "install it."
        ),
        soft_wrap=True,
    )
    out.print(
        escape(
            f"Show nobody {certificates.of(folder).authority_key}: who has it can pass for this "
            "machine."
        ),
        style="dim",
        soft_wrap=True,
    )


def _folder_with_data(data: Path | None) -> Path:
    folder = data or Settings().data
    if not (folder / database.FILE_NAME).exists():
        raise _fail(f"There is no data in {folder}.")
    return folder


@app.command()
def backup(target: Path, data: Data = None) -> None:
    """Copy the data to a file, at any time."""
    folder = _folder_with_data(data)
    with _told(folder):
        database.backup(folder, target)
    out.print(escape(f"Copied to {target}"), soft_wrap=True)


@app.command()
def restore(file: Path, data: Data = None) -> None:
    """Put a backup in the place of the data; what it replaces is kept beside it."""
    folder = data or Settings().data
    if not file.exists():
        raise _fail(f"There is no {file}.")
    with _told(folder):
        aside, found = put_back(folder, file)
    _tell(found)
    if aside is not None:
        out.print(escape(f"What was there lies in {aside}"), soft_wrap=True)
    out.print(escape(f"Restored into {folder}"), soft_wrap=True)


@app.command()
def check(data: Data = None) -> None:
    """Look the data over: integrity, tables, and whether every rig can be read."""
    folder = _folder_with_data(data)
    with _told(folder):
        found = look_over(folder / database.FILE_NAME)
    _tell(found)
    if not found.whole:
        raise _fail("Put a backup back with: lyrandis restore FILE")
    out.print(escape(f"All is well in {folder}"), soft_wrap=True)


def _tell(found: Looked) -> None:
    for fault in found.faults:
        out.print(escape(f"Damaged: {fault}"), style="red", soft_wrap=True)
    if not found.faults and found.revision != database.head():
        noted = found.revision or "not noted"
        out.print(
            escape(f"Its tables are of another version ({noted}); starting brings them up."),
            soft_wrap=True,
        )
    for name, why in found.unreadable:
        out.print(escape(f"Cannot be read: {name} ({why})"), style="red", soft_wrap=True)
    if not found.faults and found.revision == database.head():
        out.print(f"{found.rigs} rig{'' if found.rigs == 1 else 's'}")


@app.command()
def openapi(target: Path) -> None:
    """Write the API's OpenAPI document (the browser's types are made from it)."""
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        document = create_app(Path(folder)).openapi()
    target.write_text(json.dumps(document, indent=1, sort_keys=True) + "\n")


if __name__ == "__main__":
    app()
