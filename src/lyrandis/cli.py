"""The command line: serve, demo, backup, openapi."""

from __future__ import annotations

import json
import secrets
from pathlib import Path
from typing import Annotated

import typer
import uvicorn
from rich.console import Console

from lyrandis.api.app import create_app
from lyrandis.api.security import LOCAL_HOSTS
from lyrandis.demo import scenario
from lyrandis.settings import Settings
from lyrandis.store import database
from lyrandis.store.rigs import RigStore

app = typer.Typer(
    help="Lyrandis: setting up a bow that is shot without a sight.", no_args_is_help=True
)
out = Console()
DEFAULT_PORT = 8730

Host = Annotated[
    str, typer.Option(help="Address to listen on; another than this machine's asks for a token.")
]
Port = Annotated[int, typer.Option(help="Port to listen on.", min=1, max=65535)]
Data = Annotated[Path | None, typer.Option(help="Data folder; else LYRANDIS_DATA, else your own.")]


def _serve(data: Path, host: str, port: int) -> None:
    local = host in LOCAL_HOSTS
    token = None if local else (Settings().token or secrets.token_urlsafe(16))
    hosts = LOCAL_HOSTS if local else LOCAL_HOSTS | {host.lower()}
    try:
        application = create_app(data, hosts=hosts, token=token)
    except database.NewerDataError as error:
        out.print(str(error), style="red")
        raise typer.Exit(1) from None
    address = f"http://{host}:{port}" + (f"/?token={token}" if token else "")
    out.print(f"Lyrandis is open at {address}", soft_wrap=True)
    out.print(f"Data in {data}. Stop with Ctrl+C.", style="dim", soft_wrap=True)
    uvicorn.run(application, host=host, port=port, log_level="warning")


@app.command()
def serve(host: Host = "127.0.0.1", port: Port = DEFAULT_PORT, data: Data = None) -> None:
    """Start the application on your own data."""
    _serve(data or Settings().data, host, port)


@app.command()
def demo(
    host: Host = "127.0.0.1",
    port: Port = DEFAULT_PORT,
    data: Data = None,
    reset: Annotated[
        bool, typer.Option(help="Throw the demo's data away and load it anew.")
    ] = False,
) -> None:
    """Start the application on the demo's data, in a folder of its own."""
    folder = data or Settings().data / "demo"
    store = RigStore(database.open_database(folder))
    if reset:
        scenario.reset(store)
    elif not store.all():
        scenario.load(store)
    store.engine.dispose()
    _serve(folder, host, port)


@app.command()
def backup(target: Path, data: Data = None) -> None:
    """Copy the data to a file, at any time."""
    folder = data or Settings().data
    if not (folder / database.FILE_NAME).exists():
        out.print(f"There is no data in {folder}.", style="red")
        raise typer.Exit(1)
    database.backup(folder, target)
    out.print(f"Copied to {target}", soft_wrap=True)


@app.command()
def openapi(target: Path) -> None:
    """Write the API's OpenAPI document (the browser's types are made from it)."""
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        document = create_app(Path(folder)).openapi()
    target.write_text(json.dumps(document, indent=1, sort_keys=True) + "\n")


if __name__ == "__main__":
    app()
