"""What one set's chart says of another set's: the same archer and bow, another arrow."""

from __future__ import annotations

import numpy as np

from lyrandis.core.aim.learn import NAMES, Learned, Prior

# How far the second arrow may go its own way: its speed against the model's ratio [share], and by
# NAMES what a different shaft, nock and fletching do to eye and kick.
RATIO_SD = 0.02
OWN_SD = {"eye_mm": 2.0, "kick_mrad": 0.3}


def borrowed(told: Learned, speed_ratio: float) -> Prior:
    """What is presumed of a second set by the first's shots.

    Eye, slope of the string, loss and kick are the archer's and the bow's and stay as learnt; the
    speed goes by the ratio that the model gives the two arrows.

    Parameters
    ----------
    told : the first set's, by its own visits
    speed_ratio : the second arrow's speed over the first's [-], by the shot's model

    Source: own derivation, docs/mechanics C2.
    """
    scale = np.array([speed_ratio if n == "speed_mps" else 1.0 for n in NAMES])
    mean = np.array([getattr(told.aimed, n) for n in NAMES]) * scale
    own = np.array([OWN_SD.get(n, 0.0) for n in NAMES])
    own[0] = RATIO_SD * mean[0]
    return Prior(mean, scale[:, None] * told.covariance * scale + np.diag(own**2))
