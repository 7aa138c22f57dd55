"""The sight picture: what the eye sees of spot, tip and shaft, as angles.

          eye
           · ·
           |    ·  ·                          the shaft falls away below the line eye to tip:
         h |       ·   ·                      at a share u of its length the eye looks down on it
           |          ·    ·                  by h (1 − u) over the way u L
    nock   ●━━━━━━━━━━━━━━━━━━━━▶ tip · · · · · · · · spot
           0        u L         L

Own derivation: small angles; h is the eye over the shaft at the nock less what the crawl raises it.
"""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.flight.trajectory import AimedArrow

_SHARES = (0.97, 0.94, 0.9, 0.86, 0.8, 0.7)  # of the shaft's length, from the tip towards the eye
# At least so much, so many spots, and so many times where the tip is held, are shown each way.
_REACH_MRAD, _REACH_SPOTS, _REACH_TIP = 12.0, 4.0, 1.3


@dataclass(frozen=True)
class SightPicture:
    """What is seen at a distance, in thousandths of a radian; up and right are positive.

    spot : half the spot's height
    over : how far the tip stands over the spot's middle
    shaft : (half width, height under the tip), from the tip towards the eye
    reach : how far the picture goes each way
    """

    distance_m: float
    spot_mrad: float
    over_mrad: float
    shaft_mrad: tuple[tuple[float, float], ...]
    reach_mrad: float


def sight_picture(
    aimed: AimedArrow,
    diameter_mm: float,
    spot_half_height_cm: float,
    distance_m: float,
    crawl_mm: float | None,
    hold_over_cm: float | None,
) -> SightPicture:
    """What the archer sees with the tip on the mark, or held over the spot.

    Parameters
    ----------
    aimed : eye over the nock [mm], nock to tip [m], and the crawl's share in the eye's height
    diameter_mm : of the shaft
    spot_half_height_cm : of the spot
    distance_m : to it
    crawl_mm : the hand down the string; None beyond point-on
    hold_over_cm : the tip over the spot, seen at the spot; None where it is on it

    >>> aimed = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.75)
    >>> seen = sight_picture(aimed, 6.0, 10.0, 20.0, None, 40.0)
    >>> seen.spot_mrad, seen.over_mrad, seen.reach_mrad
    (5.0, 20.0, 26.0)
    """
    eye_mm = aimed.eye_mm - aimed.q * (crawl_mm or 0.0)
    half = diameter_mm / 2 / aimed.nock_to_tip_m
    spot = spot_half_height_cm * 10 / distance_m
    over = (hold_over_cm or 0.0) * 10 / distance_m
    return SightPicture(
        distance_m=distance_m,
        spot_mrad=spot,
        over_mrad=over,
        shaft_mrad=(
            (0.0, 0.0),
            *((half / u, eye_mm * (1 - u) / u / aimed.nock_to_tip_m) for u in _SHARES),
        ),
        reach_mrad=max(_REACH_MRAD, _REACH_SPOTS * spot, _REACH_TIP * abs(over)),
    )
