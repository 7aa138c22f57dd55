"""The drawing agrees with the statics it is drawn from."""

import numpy as np
import pytest

from lyrandis.core.bow.drawing import limb_line, pose
from lyrandis.core.bow.form import FORMS
from lyrandis.core.bow.statics import solve
from lyrandis.core.parts import Bow
from lyrandis.core.units import M_PER_IN

BOWS = [Bow(form=form, length_in=shape.reference_length_in) for form, shape in FORMS.items()]


def length(points):
    return float(np.hypot(*np.diff(np.array(points), axis=0).T).sum())


@pytest.mark.parametrize("bow", BOWS, ids=lambda b: b.form)
@pytest.mark.parametrize("draw", [None, 20.0, 28.0])
def test_the_drawn_string_is_as_long_as_the_computed(bow, draw):
    s = solve(bow)
    drawn = pose(s, draw)
    if draw is None:
        expected = 2 * s.braced.half_string
    else:
        x = np.array([(draw - 1.75) * M_PER_IN])
        d = s.draw(x)
        expected = 2 * s.braced.half_slack * (1 + float(d.tension[0]) / s.bundle)
    assert length(drawn.string) == pytest.approx(expected / M_PER_IN, rel=0.004)


@pytest.mark.parametrize("bow", BOWS, ids=lambda b: b.form)
def test_the_limb_keeps_its_length(bow):
    s = solve(bow)
    line, angle = limb_line(s.limb, s.braced.phi)
    whole = s.limb.working + s.limb.arc + s.limb.lever
    assert length(line) == pytest.approx(whole, rel=0.002)
    assert len(line) == len(angle)


@pytest.mark.parametrize("bow", BOWS, ids=lambda b: b.form)
def test_upper_and_lower_mirror_and_the_string_is_vertical_at_brace(bow):
    drawn = pose(solve(bow))
    assert drawn.lower_limb == [(x, -y) for x, y in drawn.upper_limb]
    assert drawn.arrow_nock[0] == pytest.approx(solve(bow).brace_x / M_PER_IN, abs=1e-3)
    assert (
        max(
            abs(x - drawn.arrow_nock[0])
            for x, y in drawn.string
            if abs(y) < drawn.string[0][1] * 0.3
        )
        < 0.01
    )
