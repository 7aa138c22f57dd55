"""Small cases with known answers, each for a line that no larger test would miss being turned."""

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.bow.form import limb_of
from lyrandis.core.bow.geometry import end_of_working_part
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.parts.owned import part_of
from lyrandis.core.sound.usable import clipped_at
from lyrandis.core.trials import ShaftReadTrial
from lyrandis.core.tune.nock_reads import NockRead, nock_found
from lyrandis.core.upcast import trial_document


def test_the_limbs_second_derivatives_are_those_of_the_first():
    limb = limb_of(Rig().bow)
    phi, step = np.array([-0.4, 0.3, 0.9]), 1e-5
    up, down = (end_of_working_part(limb, phi + d) for d in (step, -step))
    here = end_of_working_part(limb, phi)
    for first, second in ((2, 4), (3, 5)):
        assert here[second] == pytest.approx((up[first] - down[first]) / (2 * step), rel=1e-5)


def test_at_point_on_the_hand_stays_at_the_nock():
    rig = changed(Rig(), {"archer.release": "three_under"})
    on = Bench(rig).aim.point_on.value
    row = Bench(changed(rig, {"aim.distances_m": (on - 0.01,)})).aim.chart.rows[0]
    assert 0 <= row.crawl_mm < 0.09


@pytest.mark.parametrize(
    ("slot", "name"),
    [("archer", "Ada"), ("string", "Woodland: string"), ("bow", "Woodland: bow")],
)
def test_a_part_that_had_no_name_is_called_by_what_it_is(slot, name):
    rig = changed(Rig(), {"name": "Woodland", "archer.name": "Ada"})
    assert part_of(rig, slot).name.lower() == name.lower()


def test_full_scale_is_found_where_samples_stay_at_it():
    t = np.arange(4800) / 48000
    wave = np.clip(1.5 * np.sin(2 * np.pi * 100 * t), -1, 1)[:, None]
    assert len(clipped_at(wave)) > 0
    assert len(clipped_at(0.5 * np.sin(2 * np.pi * 100 * t)[:, None])) < len(clipped_at(wave))


@pytest.mark.parametrize(("value", "said"), [(900, "at most 76 in"), (3, "at least 40 in")])
def test_a_limit_is_said_the_right_way_round(value, said):
    with pytest.raises(RefusedError, match=said):
        changed(Rig(), {"bow.length_in": value})


def test_a_start_may_be_followed_downward():
    """A nock that reads high at one height and lower is not sent up to where heights end."""
    reads = tuple(NockRead(h, "high", 3) for h in (6.0, 3.0, 3.0))
    assert nock_found(0.0, reads).next_mm < 3.0


@pytest.mark.parametrize(("form", "there"), [(3, True), (4, False)])
def test_a_quiet_check_of_an_earlier_form_was_heard_by_nobody_knows_what(form, there):
    assert ("heard_by" in trial_document({"kind": "quiet", "check": "loose"}, form)) is there


@pytest.mark.parametrize(("arrows", "said"), [(1, "1 arrow"), (2, "2 arrows")])
def test_one_arrow_is_no_arrows(arrows, said):
    trial = ShaftReadTrial(tuned="length", length_in=30, read="weak", arrows=arrows)
    assert trial.said().plain().endswith(said)
