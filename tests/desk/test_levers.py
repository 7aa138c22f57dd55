"""The tables that dragging looks up are what the builds themselves would be."""

import pytest

from lyrandis.core.arrow.build import build
from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.desk.shown.shaft import levers

WOOD = {"arrow.material": "wood", "arrow.diameter_mm": 8.7, "arrow.rear_taper_in": 9.0,
        "arrow.rear_end_mm": 7.2}  # fmt: skip


@pytest.mark.parametrize("changes", [{}, WOOD, {"arrow.weighed_gr": 500.0}])
def test_each_row_is_a_build(changes):
    b = Bench(changed(Rig(), changes))
    told, bare = levers(b), b.rig.arrow.model_copy(update={"weighed_gr": None})
    for i in (0, 20, 60):
        other = build(bare.model_copy(update={"point_gr": told.point_gr[i]}))
        assert told.balance_in[i] == pytest.approx(other.balance_in)
        gpi = told.grains_per_inch[i]
        other = build(bare.model_copy(update={"grains_per_inch": gpi}))
        assert told.gpp[i] == pytest.approx(other.mass_gr / b.bow.weight.value)
