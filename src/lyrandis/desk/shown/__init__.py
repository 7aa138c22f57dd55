"""What the pages draw of a rig: every number of it, or only what one station shows."""

from lyrandis.desk.shown.bench import BenchView, bench_view

__all__ = ["BenchView", "bench_view"]
