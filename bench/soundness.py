"""All worlds, rounds and kills of the tests, and a table of what is claimed: `make soundness`.

Writes docs/mechanics/soundness.md.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
from datetime import UTC, datetime
from pathlib import Path

ROOT = Path(__file__).parents[1]
TARGET = ROOT / "docs" / "mechanics" / "soundness.md"
HEAD = """# Soundness

What is claimed of worlds that no model was built from, as `make soundness` reached it on {day}.
`make test` runs a fifth of them. A share of worlds where no unit stands.

| claim | least | most | reached | n |
|---|---|---|---|---|
"""


def row(line: dict[str, object]) -> str:
    """A line of the table."""
    limits = " | ".join("" if line[k] is None else f"{line[k]:g}" for k in ("least", "most"))
    return f"| {line['what']} | {limits} | {line['reached']:.3g} | {line['of']} |"


def main() -> int:
    """Run them, and write and print the table."""
    with tempfile.TemporaryDirectory() as place:
        told = Path(place) / "table"
        told.touch()
        known = os.environ | {"SOUNDNESS": "1", "SOUNDNESS_TABLE": str(told)}
        asked = [sys.executable, "-m", "pytest", "-n", "2", "-m", "soundness", "--timeout", "3600"]
        ended = subprocess.run([*asked, *sys.argv[1:]], cwd=ROOT, env=known, check=False)
        lines = sorted({row(json.loads(line)) for line in told.read_text().splitlines()})
    text = HEAD.format(day=datetime.now(UTC).date()) + "\n".join(lines) + "\n"
    print(text)
    if ended.returncode == 0 and not sys.argv[1:]:
        TARGET.write_text(text)
    return ended.returncode


if __name__ == "__main__":
    sys.exit(main())
