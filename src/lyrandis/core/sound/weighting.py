"""A-weighting (IEC 61672-1) in the frequency domain."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy import fft

from lyrandis.core.arrays import Array

Samples = NDArray[np.floating[Any]]

_POLES_HZ = (20.598997, 107.65265, 737.86223, 12194.217)


def a_weight_db(frequency_hz: Array) -> Array:
    """A-weighting [dB] at frequencies [Hz], 0 dB at 1 kHz; −∞ at nothing.

    Source: IEC 61672-1, analytic form.

    >>> np.round(a_weight_db(np.array([31.5, 100.0, 1000.0, 4000.0])), 1).tolist()
    [-39.5, -19.1, 0.0, 1.0]
    """
    f2 = np.asarray(frequency_hz, dtype=float) ** 2
    a, b, c, d = (p**2 for p in _POLES_HZ)

    def response(g: Array) -> Array:
        out: Array = d * g**2 / ((g + a) * np.sqrt((g + b) * (g + c)) * (g + d))
        return out

    with np.errstate(divide="ignore"):
        weighted: Array = 20 * np.log10(response(f2) / response(np.array(1e6)))
    return weighted


# The weighting's slowest poles die away with 1/(2π·20.6 Hz) = 7.7 ms: past 20 of these nothing of
# a block is heard in the next one.
_REACH_S = 0.155
_BLOCK = 1 << 18


def a_weighted(
    samples: Samples,
    rate_hz: float,
    spoil: bool = False,
    heed: Callable[[float], None] = lambda _: None,
) -> Samples:
    """A recording weighted without any shift in time, block by block.

        block:      |--reach--|------- kept -------|--reach--|
        next block:                     |--reach--|------- kept -------|--reach--|

    Parameters
    ----------
    samples : shape (n, channels), float32, full scale
    spoil : whether they may be overwritten by the result
    heed : called between blocks with the share that is done; it raises to end the work

    Returns
    -------
    Same shape.
    """
    out = samples if spoil else samples.copy()
    reach = int(_REACH_S * rate_hz)
    size = fft.next_fast_len(min(_BLOCK, len(samples)) + 2 * reach, real=True)
    hop = size - 2 * reach
    gain = 10 ** (a_weight_db(np.arange(size // 2 + 1, dtype=float) * (rate_hz / size)) / 20)
    gain32 = gain[:, None].astype(np.float32)
    before = np.zeros((reach, samples.shape[1]), dtype=samples.dtype)
    for start in range(0, len(out), hop):
        heed(start / len(out))
        end = min(start + hop, len(out))
        block = np.concatenate([before, out[start : end + reach]])
        before = block[hop : hop + reach].copy()
        spectrum = fft.rfft(block, size, axis=0)
        spectrum *= gain32
        weighted = fft.irfft(spectrum, size, axis=0, overwrite_x=True)
        out[start:end] = weighted[reach : reach + end - start]
    return out
