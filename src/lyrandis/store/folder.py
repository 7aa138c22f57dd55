"""The data folder: for its owner alone, who is in it, and files that appear whole or not at all."""

from __future__ import annotations

import fcntl
import os
import secrets
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

_IN_USE, _OPENING = ".in-use", ".opening"
_STALE_S = 3600.0
PRIVATE_FOLDER, PRIVATE_FILE = 0o700, 0o600


class InUseError(RuntimeError):
    """A server is running on the folder."""


def make(folder: Path) -> None:
    """Make the folder if it is not there; only its owner may look into it, and into its data.

    A folder that holds other things already is left as open as it is.
    """
    if not folder.exists():
        folder.mkdir(parents=True)
        folder.chmod(PRIVATE_FOLDER)
        return
    inside = {entry.name for entry in folder.iterdir()}
    own = folder.stat().st_uid == os.geteuid() and not folder.stat().st_mode & 0o1000
    if own and (not inside or "lyrandis.db" in inside):
        folder.chmod(PRIVATE_FOLDER)
    for name in inside:
        if name.endswith((".db", ".db-wal", ".db-shm")) and own:
            (folder / name).chmod(PRIVATE_FILE)


def touch(file: Path) -> None:
    """Make an empty file that only its owner may read; one that is there is left as it is."""
    os.close(os.open(file, os.O_CREAT | os.O_RDWR, PRIVATE_FILE))


def beside(file: Path) -> Path:
    """A temporary name in the same folder."""
    return file.with_name(f".{file.name}.{secrets.token_hex(4)}.part")


def sweep(folder: Path) -> None:
    """Remove what was growing under a temporary name when its process was ended."""
    for part in folder.glob(".*.part*"):
        if time.time() - part.stat().st_mtime > _STALE_S:
            part.unlink(missing_ok=True)


def move(file: Path, to: Path) -> None:
    """Move a database with what belongs to it."""
    for ending in ("", "-wal", "-shm", "-journal"):
        part = file.with_name(file.name + ending)
        if part.exists():
            part.replace(to.with_name(to.name + ending))


@contextmanager
def _locked(folder: Path, name: str, how: int) -> Iterator[None]:
    handle = os.open(folder / name, os.O_CREAT | os.O_RDWR, PRIVATE_FILE)
    try:
        fcntl.flock(handle, how)
        yield
    finally:
        os.close(handle)


@contextmanager
def alone_at_opening(folder: Path) -> Iterator[None]:
    """Whoever opens the database meanwhile waits."""
    with _locked(folder, _OPENING, fcntl.LOCK_EX):
        yield


@contextmanager
def in_use(folder: Path) -> Iterator[None]:
    """A server runs on the folder; several may."""
    with _locked(folder, _IN_USE, fcntl.LOCK_SH):
        yield


@contextmanager
def nobody_else(folder: Path) -> Iterator[None]:
    """Nobody serves the folder meanwhile.

    Raises
    ------
    InUseError : a server is running on it.
    """
    try:
        with _locked(folder, _IN_USE, fcntl.LOCK_EX | fcntl.LOCK_NB):
            yield
    except BlockingIOError:
        raise InUseError(
            f"Lyrandis is running on {folder}.\nNothing was changed.\n"
            "Stop it first (Ctrl+C where it was started), then try again."
        ) from None
