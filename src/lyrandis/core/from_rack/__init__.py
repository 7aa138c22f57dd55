"""Fit from the rack: what can be built for an archer of the parts that are there."""

from lyrandis.core.from_rack.built import Asking, bench_of, rig_of
from lyrandis.core.from_rack.fit import Buildable, Option, RackFit, rack_fit
from lyrandis.core.from_rack.judged import stops
from lyrandis.core.from_rack.lying import Lying

__all__ = [
    "Asking",
    "Buildable",
    "Lying",
    "Option",
    "RackFit",
    "bench_of",
    "rack_fit",
    "rig_of",
    "stops",
]
