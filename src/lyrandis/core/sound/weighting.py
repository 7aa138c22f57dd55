"""A-weighting (IEC 61672-1) in the frequency domain."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy import fft

from lyrandis.core.bow.geometry import Array

Samples = NDArray[np.floating[Any]]

_POLES_HZ = (20.598997, 107.65265, 737.86223, 12194.217)


def a_weight_db(frequency_hz: Array) -> Array:
    """A-weighting [dB] at frequencies [Hz], 0 dB at 1 kHz; −∞ at nothing.

    Source: IEC 61672-1, analytic form.
    """
    f2 = np.asarray(frequency_hz, dtype=float) ** 2
    a, b, c, d = (p**2 for p in _POLES_HZ)

    def response(g: Array) -> Array:
        out: Array = d * g**2 / ((g + a) * np.sqrt((g + b) * (g + c)) * (g + d))
        return out

    with np.errstate(divide="ignore"):
        weighted: Array = 20 * np.log10(response(f2) / response(np.array(1e6)))
    return weighted


def a_weighted(samples: Samples, rate_hz: float) -> Samples:
    """A recording weighted: samples of shape (n, channels) in full scale, same shape out.

    The whole is weighted at once, so that nothing is shifted in time.
    """
    n = len(samples)
    size = fft.next_fast_len(n, real=True)
    gain = 10 ** (a_weight_db(np.arange(size // 2 + 1, dtype=float) * (rate_hz / size)) / 20)
    spectrum = fft.rfft(samples, size, axis=0, workers=2)
    spectrum *= gain[:, None].astype(np.float32)
    weighted: Samples = fft.irfft(spectrum, size, axis=0, workers=2, overwrite_x=True)[:n]
    return weighted
