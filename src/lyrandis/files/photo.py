"""Photos in: JPEG and PNG, turned upright, made smaller, re-encoded without their metadata."""

from __future__ import annotations

import io
import warnings
from typing import IO

from PIL import Image, ImageOps

from lyrandis.core.errors import RefusedError

FORMATS = ("JPEG", "PNG")
MOST_BYTES = 30_000_000
MOST_PIXELS = 60_000_000
LONGEST_PX = 2000  # of a side, as it is given back
_QUALITY = 88


def re_encoded(file: IO[bytes]) -> bytes:
    """A photo as a plain JPEG: where and when it was taken, and with what, is dropped.

    Raises
    ------
    RefusedError : no JPEG or PNG, one that is broken, or too large.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            with Image.open(file, formats=FORMATS) as photo:
                if photo.width * photo.height > MOST_PIXELS:
                    raise RefusedError(
                        "file", "The photo is too large.", MOST_PIXELS / 1e6, "million pixels"
                    )
                photo.draft("RGB", (LONGEST_PX, LONGEST_PX))
                upright = ImageOps.exif_transpose(photo).convert("RGB")
    except RefusedError:
        raise
    except Exception as error:  # whatever a broken file makes the decoder raise
        raise RefusedError("file", "This is no photo that can be read: JPEG or PNG.") from error
    upright.thumbnail((LONGEST_PX, LONGEST_PX))
    plain = Image.new("RGB", upright.size)
    plain.paste(upright)
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=_QUALITY)
    return out.getvalue()
