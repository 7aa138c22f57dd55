"""The application with its numbers gone through once, so that a fork of it answers at once."""

import uvicorn  # noqa: F401

from lyrandis import cli  # noqa: F401
from lyrandis.core.bench import Bench
from lyrandis.core.parts import Rig
from lyrandis.desk.shown import bench_view

bench_view(Bench(Rig()))
