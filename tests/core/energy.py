"""The energy of a bow the other way: from its limbs and string, not from the curve."""

import numpy as np

from lyrandis.core.bow.form import TRADE_OFFSET_IN
from lyrandis.core.units import J_PER_FTLB, M_PER_IN


def stored_energy_model_ftlb(statics, draw_in):
    """Energy from the limbs and string themselves [ft·lb]; equals the curve's area."""
    x = np.array([(draw_in - TRADE_OFFSET_IN) * M_PER_IN])
    return float(statics.draw(x).energy[0]) / J_PER_FTLB
