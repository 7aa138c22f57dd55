"""`make bench`: the numbers of a whole rig, the core beside a plain scipy reference, in one run."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable

import numpy as np
from rich.console import Console
from rich.table import Table

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.stations import views
from reference import PlainBow, plain_crawl

RUNS = 15
out = Console()


def rigs() -> list[Rig]:
    """Rigs whose weights all differ, so that no solved bow serves twice."""
    return [changed(Rig(), {"bow.marked_weight_lbf": 36 + i * 0.37}) for i in range(RUNS)]


def median_ms(work: Callable[[Rig], object], over: list[Rig]) -> float:
    """Median time [ms] of `work` over rigs."""
    times = []
    for rig in over:
        start = time.perf_counter()
        work(rig)
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def core_curve(rig: Rig) -> tuple[float, float]:
    """Force and energy of the core."""
    curve = Bench(rig).bow.curve
    return curve.force(26), curve.energy_ftlb(28)


def plain_curve(rig: Rig) -> tuple[float, float]:
    """Force and energy of the reference, on the same number of draws."""
    bow = PlainBow(rig)
    bow.curve(np.arange(10.25, 36, 0.25))
    return bow.force((26 - 1.75) * 0.0254) / 4.4482216152605, bow.energy_ftlb(28)


def core_crawls(rig: Rig) -> list[float | None]:
    """The chart of the core, with its danger spaces and ±."""
    bench = Bench(rig)
    _ = bench.aim.plus_minus_mm
    return [row.crawl_mm for row in bench.aim.chart.rows]


def plain_crawls(rig: Rig) -> list[float]:
    """The reference's crawls alone, without danger spaces or ±."""
    sight = Bench(rig).aim.aimed
    return [plain_crawl(sight, d) for d in rig.aim.distances_m]


def whole(rig: Rig) -> object:
    """Everything the interface shows of a rig."""
    return views(Bench(rig))


def main() -> None:
    """Print times and ratios, and how far the two agree."""
    fresh = rigs()
    whole(Rig())  # warm
    table = Table("work", "core, ms", "reference, ms", "ratio", "agree within")
    for name, core, plain, few in (
        ("force–draw curve and energy", core_curve, plain_curve, 3),
        ("crawl chart of ten distances", core_crawls, plain_crawls, 3),
    ):
        fast, slow = median_ms(core, fresh), median_ms(plain, fresh[:few])
        apart = max(
            abs(a - b) for a, b in zip(core(Rig()), plain(Rig()), strict=True) if a is not None
        )
        table.add_row(name, f"{fast:.1f}", f"{slow:.0f}", f"{slow / fast:.0f} ×", f"{apart:.2g}")
    fresh = [changed(r, {"arrow.point_gr": 111.0, "bow.brace_height_in": 8.4}) for r in rigs()]
    table.add_row("whole rig, all stations", f"{median_ms(whole, fresh):.1f}", "–", "–", "–")
    out.print(table)
    out.print("Limit for a whole rig once warm: 40 ms.")


if __name__ == "__main__":
    main()
