"""Recordings in and out: WAV, read block by block and refused before it is read whole."""

from __future__ import annotations

import io
from collections.abc import Iterator
from typing import IO

import numpy as np
import soundfile

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.sound.events import LEAST_RATE_HZ, MOST_S

MOST_BYTES = 180_000_000
_MOST_CHANNELS, _MOST_RATE_HZ = 2, 192_000
_LENGTH_UNKNOWN = 0x7FFF0000
_SUBTYPES = ("PCM_16", "PCM_24", "PCM_32", "FLOAT", "DOUBLE")


def read_wav(file: IO[bytes]) -> tuple[Array, int]:
    """Samples of shape (n, channels) in full scale ±1, and the rate [Hz].

    The header is judged before any sound is read.

    Raises
    ------
    RefusedError : too large, no WAV, another coding, too many channels, too slow, fast or long,
        or a file that ends before its header says.
    """
    file.seek(0, io.SEEK_END)
    size = file.tell()
    if size > MOST_BYTES:
        raise RefusedError(
            "file",
            f"The recording has {size / 1e6:.0f} MB; cut it to {MOST_BYTES / 1e6:.0f} MB, which is "
            "ten minutes in stereo.",
            MOST_BYTES / 1e6,
            "MB",
        )
    file.seek(0)
    if size < 44 or file.read(4) not in (b"RIFF", b"RF64"):
        raise RefusedError("file", "This is not a WAV file: it does not begin with RIFF.")
    _refuse_cut(file, size)
    file.seek(0)
    try:
        with soundfile.SoundFile(file) as sound:
            _judge(sound)
            samples = sound.read(dtype="float32", always_2d=True)
            told = sound.frames
            rate = int(sound.samplerate)
    except (soundfile.SoundFileError, RuntimeError, ValueError) as error:
        if isinstance(error, RefusedError):
            raise
        raise RefusedError(
            "file", "The WAV file is broken: its sound cannot be read. Save it as WAV once more."
        ) from None
    if len(samples) < told:
        raise RefusedError(
            "file", f"The WAV file is broken: it ends after {len(samples)} of {told} samples."
        )
    return np.asarray(samples), rate


def _chunks(file: IO[bytes], size: int) -> Iterator[tuple[bytes, int, int]]:
    """Each chunk's name, the length its head tells, and where its contents begin."""
    at = 12
    while at + 8 <= size:
        file.seek(at)
        name, told = file.read(4), int.from_bytes(file.read(4), "little")
        yield name, told, at + 8
        at += 8 + told + told % 2


def _refuse_cut(file: IO[bytes], size: int) -> None:
    """Refuse a recording whose head tells of more sound than the file holds.

    A recorder that did not know its length beforehand tells none or nearly 4 GB: that is no cut.
    """
    rate = 0
    for name, told, at in _chunks(file, size):
        if name == b"fmt " and at + 16 <= size:
            file.seek(at + 8)
            rate = int.from_bytes(file.read(4), "little")
        elif name == b"data" and size - at < told < _LENGTH_UNKNOWN:
            spoken = (
                f"{told / rate:.1f} s, the file holds {(size - at) / rate:.1f} s"
                if rate
                else f"{told} bytes, the file holds {size - at}"
            )
            raise RefusedError(
                "file",
                f"The recording is cut off: its head tells of {spoken}. Send it again, whole.",
            )


def _judge(sound: soundfile.SoundFile) -> None:
    if sound.subtype not in _SUBTYPES:
        raise RefusedError(
            "file", f"The WAV is coded as {sound.subtype}; save it as 16, 24 or 32 bit or float."
        )
    if sound.channels > _MOST_CHANNELS:
        raise RefusedError("file", "One or two channels are listened to.", 2, "channels")
    if not LEAST_RATE_HZ <= sound.samplerate <= _MOST_RATE_HZ:
        raise RefusedError(
            "file",
            f"The recording runs at {sound.samplerate} Hz; 22.05 to 192 kHz are listened to.",
            LEAST_RATE_HZ,
            "Hz",
        )
    if sound.frames / sound.samplerate > MOST_S:
        raise RefusedError("file", "The recording is too long.", MOST_S, "s")


def write_wav(samples: Array, rate_hz: int) -> bytes:
    """A recording as WAV, 16 bit."""
    out = io.BytesIO()
    soundfile.write(out, samples, rate_hz, format="WAV", subtype="PCM_16")
    return out.getvalue()
