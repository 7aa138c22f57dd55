"""How a file that is sent is named."""

from __future__ import annotations

import re


def file_name(name: str, ending: str) -> str:
    """The header that has a browser save what is sent, under a plain name.

    >>> file_name("Räucher & Söhne", "pdf")
    'attachment; filename="r-ucher-s-hne.pdf"'
    """
    plain = re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "rig"
    return f'attachment; filename="{plain}.{ending}"'
