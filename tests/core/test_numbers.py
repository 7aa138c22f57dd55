"""What the bench computes for rigs made by hand is what it computed: tests/core/numbers.json.gz.

`python tests/core/test_numbers.py` writes it anew after a model was changed on purpose. Whether a number
is right is for other tests; this one notices that it moved.
"""

import gzip
import json
from dataclasses import fields, is_dataclass
from functools import cached_property
from pathlib import Path

import numpy as np
import pytest
from pydantic import BaseModel
from situations import SITUATIONS

from lyrandis.core.bench.what_if import arrow_on_bow, usual_others
from lyrandis.core.bow.drawing import pose
from lyrandis.core.errors import RefusedError

KEPT = Path(__file__).with_name("numbers.json.gz")
SUBJECTS = ("archer", "bow", "fit", "string", "in_line", "brace", "tiller", "centre_shot", "nock",
            "arrow", "shaft", "flex", "reading", "walk_back", "groups", "dozen", "quiet", "aim", "aiming")  # fmt: skip
NAMES = (
    "draw: a thumb archer, offset estimated", "bow-length: a longbow", "weight: readings of the scale",
    "weight: held three times", "weight: limbs alike", "weight: the upper bolt out",
    "weight: a plan to go up, held", "string: still settling", "tiller: large and positive, three under",
    "in-line: right above, left below", "centre-shot: looks farther out",
    "brace: quietest in the middle", "brace: two sources apart", "nock-point: level, and read twice",
    "arrow: too light and too weak", "arrow: ways that differ", "arrow: a shaft that flies out",
    "arrow: a cut that flew straight", "arrow: a chronograph, two weights",
    "arrow: a taper lengthened", "flight: a bounce", "flight: a read against the others",
    "flight: a walk-back, bowed", "quiet: quieter", "crawls: a chart learnt from shots",
    "crawls: crawls counted by fingers", "crawls: gaps shot", "crawls: one crawl", "crawls: uphill",
    "crawls: guesses too far", "crawls: only far distances", "crawls: a gap known before",
    "brace: a string whose turns are known", "string: with silencers", "string: settled a tenth lower",
)  # fmt: skip
BY_NAME = {f"{s.station}: {s.name}": s for s in SITUATIONS}
DEEP = 6


def numbers(value, deep=0):
    """All numbers and words within a value; of an array how many, the ends and the sum."""
    if value is None or isinstance(value, str | bool | int):
        return value
    if isinstance(value, float | np.floating):
        return float(f"{value:.7g}") if np.isfinite(value) else str(value)
    if isinstance(value, np.ndarray):
        flat = np.nan_to_num(value.astype(float)).ravel()
        ends = [float(f"{x:.7g}") for x in (flat[0], flat[-1], flat.sum())] if flat.size else []
        return [*value.shape, *ends]
    if deep >= DEEP:
        return None
    if isinstance(value, BaseModel):
        return {n: numbers(getattr(value, n), deep + 1) for n in type(value).model_fields}
    if is_dataclass(value):
        return {f.name: numbers(getattr(value, f.name), deep + 1) for f in fields(value)}
    if isinstance(value, dict):
        return {str(k): numbers(v, deep + 1) for k, v in value.items()}
    if isinstance(value, tuple | list):
        if len(value) > 8 and all(isinstance(v, float) for v in value):
            return numbers(np.array(value))
        return [numbers(v, deep + 1) for v in value[:12]]
    return None


def asked(subject):
    """What can be asked of a subject without saying more."""
    for name, member in vars(type(subject)).items():
        if isinstance(member, property | cached_property) and not name.startswith("_"):
            try:
                yield name, numbers(getattr(subject, name))
            except (RefusedError, ValueError) as error:
                yield name, f"{type(error).__name__}: {error}"


def computed(name):
    b = BY_NAME[name].bench()
    told = {subject: dict(asked(getattr(b, subject))) for subject in SUBJECTS}
    told["poses"] = [numbers(pose(b.bow.curve.statics, draw)) for draw in (None, b.bow.draw_in)]
    told["other arrows"] = {}
    for other, changes in usual_others(b).items():
        try:
            told["other arrows"][other] = numbers(arrow_on_bow(b, changes))
        except RefusedError as error:
            told["other arrows"][other] = str(error)
    return json.loads(json.dumps(told))


def same(now, kept, at=""):
    """Where two differ by more than numbers of another machine do."""
    if isinstance(now, dict) and isinstance(kept, dict) and now.keys() == kept.keys():
        return [x for k in now for x in same(now[k], kept[k], f"{at}.{k}")]
    if isinstance(now, list) and isinstance(kept, list) and len(now) == len(kept):
        return [
            x
            for i, (a, b) in enumerate(zip(now, kept, strict=True))
            for x in same(a, b, f"{at}.{i}")
        ]
    if isinstance(now, float) and isinstance(kept, float | int):
        return [] if now == pytest.approx(kept, rel=1e-5, abs=1e-7) else [f"{at}: {kept} is {now}"]
    return [] if now == kept else [f"{at}: {kept} is {now}"]


@pytest.fixture(scope="module")
def kept():
    return json.loads(gzip.decompress(KEPT.read_bytes()))


@pytest.mark.parametrize("name", NAMES, ids=[name.replace(" ", "-") for name in NAMES])
def test_the_bench_computes_what_it_computed(name, kept):
    assert same(computed(name), kept[name]) == []


if __name__ == "__main__":
    text = json.dumps({name: computed(name) for name in NAMES})
    KEPT.write_bytes(gzip.compress(text.encode(), mtime=0))
