"""The same shaft seen from the side: the nock point too high or too low over the rest.

    nock at +e:  the shaft lies on the rest, tail up, and leaves so
    nock at −e:  the tail is below; the shaft bounces off the rest and leaves tail up as well:
                 the false high

The string holds the nock on a path at its height; nothing pushes it aside. Counted from that path
the rest stands at −e: the lateral model with another plate.
"""

from __future__ import annotations

from dataclasses import replace

from lyrandis.core.flex.setting import PLATES, LettingGo, Setting

STRING_HOLDS = 5.0  # times as stiff up and down as sideways: tuned to +4 mm reading 3° nock-up
HIGHEST_MM, LOWEST_MM = 6.0, -6.0  # errors of the nock point that are computed


def from_the_side(s: Setting, error_mm: float) -> Setting:
    """The setting seen from the side, y upwards, for a nock point so much too high [mm].

    Parameters
    ----------
    error_mm : of the height at which the shaft leaves level, + high

    Source: docs/mechanics B3, the vertical plane.
    """
    still = LettingGo(0.0, s.go.over_m, s.go.held_share, s.go.k_n_m)
    return replace(
        s, offset_m=-error_mm / 1000, plate=PLATES["hard"], go=still, string_times=STRING_HOLDS
    )
