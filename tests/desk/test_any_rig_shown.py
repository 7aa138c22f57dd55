"""Whatever rig the fields allow: its bench is shown and its sheet is printed, and none faults."""

import math

import pytest
from hypothesis import given, settings

from any_rig import SETTINGS, SOME
from claims import share
from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.desk.shown import bench_view
from lyrandis.files.sheet import rig_sheet


def numbers(value):
    """Every number in a view."""
    if isinstance(value, dict):
        for inner in value.values():
            yield from numbers(inner)
    elif isinstance(value, list):
        for inner in value:
            yield from numbers(inner)
    elif isinstance(value, float):
        yield value


@SETTINGS
@given(SOME)
def test_every_station_is_shown_and_every_number_is_one(changes):
    view = bench_view(Bench(changed(Rig(), changes)))
    for station in view.stations:
        assert station.answer.plain()
        if station.problem is not None:
            assert station.findings[0].level == "stop"
            assert len(station.problem.reason) > 15
    assert all(math.isfinite(n) for n in numbers(view.model_dump()))


@settings(SETTINGS, max_examples=share(15, 5))
@given(SOME)
def test_every_rig_prints(changes):
    assert rig_sheet(Bench(changed(Rig(), changes), (), "2026-11-23"), {}).startswith(b"%PDF-")


@pytest.mark.parametrize(
    "readings",
    [
        [(12.0, 50.0)],
        [(28.0, 1e-30)],
        [(28.0, 5e-324)],
        [(12.0, 1e-300), (28.0, 2e-300)],
        [(28.0, 1e-30), (34.0, 20.0)],
    ],
)
def test_scale_readings_that_are_next_to_nothing_fault_nothing(readings):
    """At brace there is nothing to compare with, and a scale that read nothing held no bow."""
    b = Bench(changed(Rig(), {"bow.measured": readings}), (), "2026-11-23")
    assert rig_sheet(b, {}).startswith(b"%PDF-")
    assert all(math.isfinite(n) for n in numbers(bench_view(b).model_dump()))
