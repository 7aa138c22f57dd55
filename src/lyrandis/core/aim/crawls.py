"""How far down the string the hand must for each distance, and what that costs (mechanics C1)."""

from __future__ import annotations

import math
from dataclasses import dataclass, fields, replace

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import say
from lyrandis.core.flight.trajectory import (
    NEAREST_M,
    AimedArrow,
    crawl_for_mm,
    impact_m,
    point_on_m,
    points_on_m,
    shaft_angle,
)
from lyrandis.core.units import G_STANDARD, M_PER_FT

MOST_DISTANCES = 60
FARTHEST_M = 120.0
# Flat fire holds to 50 m, and on with a fast arrow: to this share of speed²/g, less on slopes.
_FLAT_TO_M, _FLAT_SHARE = 50.0, 0.36
_MOST_CRAWL_MM = 160.0
_DANGER_FROM_M, _DANGER_PAST_M = 1.0, 60.0
_NEAREST_OFF_M = 1.5
OFF_M = 5.0  # how wrong a distance is taken, for what it would do
_LEAST_FLIGHT_M = 0.5
FINGERS_AT_M, FINGERS_PER_M = 20.0, 10.0  # the two numbers of the finger-width school
_FINGERS_FIT_M, _FINGERS_LEAST_M = (10.0, 50.0), 25.0


def danger_space_m(
    aimed: AimedArrow,
    crawl_mm: Array,
    distance_m: Array,
    half_height_m: float,
    held_m: Array | None = None,
) -> tuple[Array, Array]:
    """Near and far distances [m] over which each crawl keeps the arrow within ± half_height [m].

    crawl_mm and distance_m have shape (n,), as have the results; held_m, how far under the spot
    the tip is held on the butt, as well. The near bound is not below 1 m, the far one not more
    than 60 m beyond the distance.
    """
    n = len(distance_m)
    aim = np.tile(distance_m, 2)
    crawl = np.tile(crawl_mm, 2)
    held = np.zeros(2 * n) if held_m is None else np.tile(held_m, 2)
    stop = np.concatenate([np.full(n, _DANGER_FROM_M), distance_m + _DANGER_PAST_M])
    # Both edges of all crawls at once: a grid, fine near the aim, then halving the last cell.
    grid = aim[:, None] + (stop - aim)[:, None] * np.linspace(0, 1, 161) ** 2
    out = np.abs(impact_m(aimed, crawl[:, None], grid) - held[:, None]) > half_height_m
    first = np.argmax(out, axis=1)
    rows = np.arange(2 * n)
    inside, outside = grid[rows, np.maximum(first - 1, 0)], grid[rows, first]
    for _ in range(22):
        middle = (inside + outside) / 2
        beyond = np.abs(impact_m(aimed, crawl, middle) - held) > half_height_m
        inside, outside = np.where(beyond, inside, middle), np.where(beyond, middle, outside)
    edge = np.where(out.any(axis=1), inside, stop)
    return edge[:n], edge[n:]


@dataclass(frozen=True)
class CrawlRow:
    """One distance of the chart. Beyond point-on crawl_mm is None and hold_over_cm is set."""

    distance_m: float
    crawl_mm: float | None
    hold_over_cm: float | None
    near_m: float
    far_m: float
    stitches: float | None
    fingers: float | None
    level_distance_m: float
    impact_cm_if_5m_nearer: float
    impact_cm_if_5m_farther: float


@dataclass(frozen=True)
class FingerRule:
    """The finger-width school: two numbers to remember, and what they cost at each distance.

    at_20m_fingers and per_10m_fingers [finger widths]; errors_cm [cm] on the butt per row
    (None beyond point-on).
    """

    at_20m_fingers: float
    per_10m_fingers: float
    errors_cm: tuple[float | None, ...]


@dataclass(frozen=True)
class CrawlChart:
    """The chart for a set of distances."""

    point_on_m: float | None
    rows: tuple[CrawlRow, ...]
    finger_rule: FingerRule | None


def farthest_m(aimed: AimedArrow) -> float:
    """How far [m] the flat-fire model is good to a few centimetres with this arrow."""
    share = _FLAT_SHARE * (1 - abs(math.sin(math.radians(aimed.slope_deg))))
    flat = max(_FLAT_TO_M, share * aimed.speed_mps**2 / G_STANDARD)
    return min(FARTHEST_M, flat)


def refuse_distances(aimed: AimedArrow, distances: Array) -> None:
    """Refuses distances [m], shape (n,), for which no chart is made: none, too many, or outside
    what the flight model covers."""
    if len(distances) == 0:
        raise RefusedError("aim.distances_m", "Enter at least one distance.", 1, "distances")
    if len(distances) > MOST_DISTANCES:
        raise RefusedError(
            "aim.distances_m",
            f"{len(distances)} distances are more than a chart can carry; "
            f"at most {MOST_DISTANCES} fit on a tab card.",
            MOST_DISTANCES,
            "distances",
        )
    nearest = max(NEAREST_M, aimed.nock_to_tip_m + aimed.stroke_m + _LEAST_FLIGHT_M)
    farthest = farthest_m(aimed)
    for d in distances:
        if not (nearest <= d <= farthest):
            bound = nearest if d < nearest else farthest
            raise RefusedError(
                "aim.distances_m",
                say(
                    "{d} is outside what the flight model covers: {near} to {far}.",
                    d=("distance", float(d)),
                    near=("distance", nearest),
                    far=("distance", farthest),
                ),
                bound,
                "m",
            )


def _finger_rule(
    aimed: AimedArrow, d: Array, c: Array, finger_mm: float, point_on: float | None
) -> FingerRule | None:
    at20 = float(crawl_for_mm(aimed, np.array([FINGERS_AT_M]))[0])
    if at20 <= 0:
        return None
    near, far = _FINGERS_FIT_M
    top = min(far, point_on or far)
    if top < _FINGERS_LEAST_M:
        return None
    fit_d = np.linspace(near, top, 9)
    fit_c = crawl_for_mm(aimed, fit_d)
    away = fit_d - FINGERS_AT_M
    step = float(np.sum((fit_c - at20) * away) / np.sum(away**2))
    ruled = at20 + step * (d - FINGERS_AT_M)
    miss = impact_m(aimed, np.maximum(ruled, 0.0), d) * 100
    return FingerRule(
        at20 / finger_mm,
        step * FINGERS_PER_M / finger_mm,
        tuple(float(m) if crawl > 0 else None for m, crawl in zip(miss, c, strict=True)),
    )


def checked_crawls(aimed: AimedArrow, distances_m: Array) -> Array:
    """Crawls [mm], shape (n,), for distances [m] that a chart can be made for.

    Raises
    ------
    RefusedError : no distance, too many, or one outside what the flight model covers; an arrow
        too slow to reach a distance; a crawl that no hand makes.
    """
    d = np.asarray(distances_m, dtype=float)
    refuse_distances(aimed, d)
    crawls = crawl_for_mm(aimed, d)
    if not np.isfinite(crawls).all():
        raise RefusedError(
            "aim.distances_m",
            say(
                "At {speed} the arrow does not reach {far} this way.",
                speed=("speed", aimed.speed_mps / M_PER_FT),
                far=("distance", float(d.max())),
            ),
            unit="m",
        )
    if float(crawls.max()) > _MOST_CRAWL_MM:
        raise RefusedError(
            "archer.eye_above_nock_mm",
            say(
                "The crawl at {at} would be {crawl}; beyond {most} no hand hooks a string.",
                at=("distance", float(d[int(crawls.argmax())])),
                crawl=("crawl", float(crawls.max())),
                most=("crawl", _MOST_CRAWL_MM),
            ),
            _MOST_CRAWL_MM,
            "mm",
        )
    return crawls


def crawl_chart(
    aimed: AimedArrow,
    distances_m: Array,
    spot_half_height_cm: float = 5.0,
    stitch_pitch_mm: float | None = None,
    finger_width_mm: float | None = None,
) -> CrawlChart:
    """Crawls, holds over and danger spaces for distances [m].

    Parameters
    ----------
    aimed : how the arrow flies and is looked along
    distances_m : shape (n,) [m], at most 60 of them, from 2 to 120 m
    spot_half_height_cm : how far off the arrow may land [cm]
    stitch_pitch_mm, finger_width_mm : the archer's own ways to count [mm]; None leaves them out

    Raises
    ------
    RefusedError : no distance, too many, or one outside what the flight model covers; an arrow
        too slow to reach a distance.

    Source: docs/mechanics C1.
    """
    d = np.asarray(distances_m, dtype=float)
    crawls = checked_crawls(aimed, d)
    point_on = point_on_m(aimed)
    at_eye = aimed.eye_mm / 1000 / aimed.nock_to_tip_m
    virtual = (aimed.eye_mm - aimed.q * crawls) / 1000 / aimed.nock_to_tip_m
    over_cm = d * (np.arctan(virtual) - math.atan(at_eye)) * 100
    beta = math.radians(aimed.slope_deg)
    level = d * math.cos(beta) * (1 + shaft_angle(aimed, crawls) * math.tan(beta))
    near, far = danger_space_m(aimed, crawls, d, spot_half_height_cm / 100)
    nearer = impact_m(aimed, crawls, np.maximum(d - OFF_M, _NEAREST_OFF_M)) * 100
    farther = impact_m(aimed, crawls, d + OFF_M) * 100
    rows = []
    for i, crawl in enumerate(crawls):
        held = crawl < -1e-9
        crawled = max(float(crawl), 0.0)
        rows.append(
            CrawlRow(
                distance_m=float(d[i]),
                crawl_mm=None if held else crawled,
                hold_over_cm=float(over_cm[i]) if held else None,
                near_m=float(near[i]),
                far_m=float(far[i]),
                stitches=None if held or not stitch_pitch_mm else crawled / stitch_pitch_mm,
                fingers=None if held or not finger_width_mm else crawled / finger_width_mm,
                level_distance_m=float(level[i]),
                impact_cm_if_5m_nearer=float(nearer[i]),
                impact_cm_if_5m_farther=float(farther[i]),
            )
        )
    rule = _finger_rule(aimed, d, crawls, finger_width_mm, point_on) if finger_width_mm else None
    return CrawlChart(point_on, tuple(rows), rule)


def rule_off_cm(aimed: AimedArrow, distance_m: float, level_m: float) -> float:
    """How high [cm] an arrow lands that is aimed on a slope as for a distance on the level."""
    level = float(crawl_for_mm(replace(aimed, slope_deg=0.0), np.array([level_m]))[0])
    return 100 * float(impact_m(aimed, level, distance_m))


@dataclass(frozen=True)
class Unshot:
    """What a chart rests on before it was shot, each with its one standard deviation (C2).

    speed_mps : of the arrow; the others as AimedArrow has them
    """

    speed_mps: float
    eye_mm: float = 15.0  # archers with the same name for their anchor differ by so much
    speed_loss_per_mm: float = 0.0006
    q: float = 0.05
    kick_mrad: float = 1.0

    def sides(self, aimed: AimedArrow) -> list[tuple[AimedArrow, AimedArrow]]:
        """The arrow with each of these one sd more, and one less."""
        return [
            (
                replace(aimed, **{f.name: getattr(aimed, f.name) + getattr(self, f.name)}),
                replace(aimed, **{f.name: getattr(aimed, f.name) - getattr(self, f.name)}),
            )
            for f in fields(self)
            if getattr(self, f.name)
        ]


def point_on_unshot(aimed: AimedArrow, unshot: Unshot) -> Estimate | None:
    """Point-on [m] before any shot, its ± from speed and eye taken as independent; None beyond
    400 m."""
    here, *moved = points_on_m(
        (
            aimed,
            replace(aimed, speed_mps=aimed.speed_mps + unshot.speed_mps),
            replace(aimed, eye_mm=aimed.eye_mm + unshot.eye_mm),
        )
    )
    if here is None:
        return None
    spread = [there - here for there in moved if there is not None]
    return Estimate(value=here, plus_minus=float(np.hypot.reduce(spread or [here])), source="model")


def crawl_plus_minus_mm(aimed: AimedArrow, distance_m: Array, unshot: Unshot) -> Array:
    """One standard deviation [mm] of each distance's crawl before any was shot, shape (n,).

    Central differences of the chart; what it rests on taken as independent.
    """
    halves = [
        (crawl_for_mm(more, distance_m) - crawl_for_mm(less, distance_m)) / 2
        for more, less in unshot.sides(aimed)
    ]
    return _in_squares(halves, distance_m)


def impact_plus_minus_cm(
    aimed: AimedArrow, crawl_mm: Array, distance_m: Array, unshot: Unshot
) -> Array:
    """How far [cm] each distance's arrow may land off for the same reasons, one sd, shape (n,)."""
    halves = [
        (impact_m(more, crawl_mm, distance_m) - impact_m(less, crawl_mm, distance_m)) / 2
        for more, less in unshot.sides(aimed)
    ]
    return _in_squares(halves, distance_m) * 100


def _in_squares(halves: list[Array], distance_m: Array) -> Array:
    """Independent doubts added, shape of the distances; nought where there is none."""
    return np.asarray(np.sqrt(sum((h**2 for h in halves), np.zeros(len(distance_m)))))
