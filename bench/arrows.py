"""`make bench`: a set matched against brute force, shafts bent as a batch against one by one."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from itertools import combinations

import numpy as np
from rich.console import Console
from rich.table import Table

from lyrandis.core.arrow.matched_set import ShaftSeen, matched_set
from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig

RUNS = 5
SPINES = np.geomspace(400.0, 900.0, 24)


def shafts(count: int, seed: int) -> list[ShaftSeen]:
    """A made-up batch."""
    rng = np.random.default_rng(seed)
    masses, spines = rng.normal(400, 6, count), rng.normal(500, 15, count)
    return [ShaftSeen(str(i), float(masses[i]), float(spines[i])) for i in range(count)]


def plain_set(seen: list[ShaftSeen], count: int) -> float:
    """The size of the tightest set by trying them all."""

    def size(chosen: tuple[ShaftSeen, ...]) -> float:
        masses, spines = [s.mass_gr for s in chosen], [s.spine_28in for s in chosen]
        return max((max(masses) - min(masses)) / 5, (max(spines) - min(spines)) / 12)

    return min(size(chosen) for chosen in combinations(seen, count))


def median_ms(work: Callable[[int], object]) -> float:
    """Median time [ms] over some runs."""
    times = []
    for run in range(RUNS):
        start = time.perf_counter()
        work(run)
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def rig(run: int) -> Rig:
    """Rigs that differ, so that nothing is remembered."""
    return changed(Rig(), {"bow.marked_weight_lbf": 42 + run / 10})


table = Table(title="Arrows, median of five [ms]")
for head in ("", "core", "plain"):
    table.add_column(head, justify="left" if not head else "right")
small = [shafts(14, run) for run in range(RUNS)]
table.add_row(
    "6 of 14 shafts matched",
    f"{median_ms(lambda run: matched_set(small[run], 6)):.2f}",
    f"{median_ms(lambda run: plain_set(small[run], 6)):.1f}",
)
many = [shafts(200, run) for run in range(RUNS)]
table.add_row("12 of 200", f"{median_ms(lambda run: matched_set(many[run], 12)):.1f}", "–")
table.add_row(
    "24 spines past the bow",
    f"{median_ms(lambda run: Bench(rig(run)).flex.leaving(SPINES)):.0f}",
    f"{median_ms(lambda run: [Bench(rig(run)).flex.leaving(np.array([s])) for s in SPINES]):.0f}",
)
Console().print(table)
