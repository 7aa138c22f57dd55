"""The jobs of one application: few at once, found by number, results found by their inputs."""

from __future__ import annotations

import hashlib
import itertools
import threading
from collections import OrderedDict
from concurrent.futures import ThreadPoolExecutor
from typing import IO

from lyrandis.jobs.job import Job, Work

HEAVY_AT_ONCE = 2  # of what fills memory or the processor: the others wait their turn
LIGHT_AT_ONCE = 8  # of what mostly waits
MOST_REMEMBERED = 200
MOST_RESULTS = 32


class UnknownJobError(LookupError):
    """No job has that number, or it was forgotten."""


def digest(*inputs: object, file: IO[bytes] | None = None) -> str:
    """A name for inputs: the same inputs have the same. The file is read whole and rewound."""
    hashed = hashlib.blake2b(repr(inputs).encode(), digest_size=20)
    if file is not None:
        file.seek(0)
        while piece := file.read(1 << 20):
            hashed.update(piece)
        file.seek(0)
    return hashed.hexdigest()


class Jobs:
    """Starts work in threads of its own and remembers the latest jobs."""

    def __init__(self) -> None:
        self._numbers = itertools.count(1)
        self._lock = threading.Lock()
        self._jobs: OrderedDict[int, Job] = OrderedDict()
        self._results: OrderedDict[str, Job] = OrderedDict()
        self._heavy = ThreadPoolExecutor(HEAVY_AT_ONCE, "heavy job")
        self._light = ThreadPoolExecutor(LIGHT_AT_ONCE, "light job")

    def start(self, kind: str, work: Work, key: str | None = None, heavy: bool = True) -> Job:
        """Begin a piece of work, or find the one that was begun with the same inputs.

        Parameters
        ----------
        kind : what it is, for whoever looks
        work : is given a function to tell how far it is; called in a thread
        key : name of its inputs, where the same ones give the same result; see `digest`
        heavy : whether it fills memory or the processor
        """
        with self._lock:
            known = self._results.get(key) if key is not None else None
            failed = known is None or known.stopping or known.error is not None
            if known is not None and not failed:
                known.askers += 1
                return known
            job = Job(next(self._numbers), kind, work)
            self._jobs[job.id] = job
            if key is not None:
                self._results[key] = job
                self._results.move_to_end(key)
            for kept, most in ((self._jobs, MOST_REMEMBERED), (self._results, MOST_RESULTS)):
                for name in [n for n, j in kept.items() if j.over][: max(len(kept) - most, 0)]:
                    del kept[name]  # type: ignore[arg-type]
            job.future = (self._heavy if heavy else self._light).submit(job.run)
            return job

    def get(self, id: int) -> Job:
        """A job by its number; raises UnknownJobError."""
        with self._lock:
            if id not in self._jobs:
                raise UnknownJobError(f"There is no job {id}, or it was over long ago.")
            return self._jobs[id]

    def close(self) -> None:
        """Stop everything and wait until it has stopped."""
        with self._lock:
            waiting = list(self._jobs.values())
        for job in waiting:
            job.stop()
        for pool in (self._heavy, self._light):
            pool.shutdown(cancel_futures=True)
