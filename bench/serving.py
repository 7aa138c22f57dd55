"""`make bench`: what the running server spends on a request, in do-nothing requests.

The server is a process of its own, as the archer starts it; its CPU is read from the kernel. A
request that reads one typed measurement stands for doing nothing.
"""

from __future__ import annotations

import http.client
import json
import os
import signal
import socket
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from rich.console import Console
from rich.table import Table

TICKS = os.sysconf("SC_CLK_TCK")
HEADERS = {"Content-Type": "application/json"}
PLAIN = ("draw", "assembly", "string", "nock-point", "arrow", "quiet")
SOLVED = ("bow-length", "weight", "brace", "crawls")
CHANGES = {
    "draw": "archer.finger_width_mm", "assembly": "bow.maker_min_gpp",
    "string": "string.silencers_gr", "nock-point": "nock_height_mm", "arrow": "arrow.point_gr",
    "quiet": "string.silencers_gr", "bow-length": "taste", "weight": "bow.marked_weight_lbf",
    "brace": "bow.brace_height_in", "crawls": "archer.eye_above_nock_mm",
}  # fmt: skip
START = {
    "archer.finger_width_mm": 17, "bow.maker_min_gpp": 7, "string.silencers_gr": 20,
    "nock_height_mm": 9, "arrow.point_gr": 110, "taste": 0, "bow.marked_weight_lbf": 38,
    "bow.brace_height_in": 8, "archer.eye_above_nock_mm": 90,
}  # fmt: skip
READERS, SECONDS, LEAST_A_SECOND, MOST_P99_S = 50, 5.0, 100, 1.0
out = Console()


class Server:
    """A server with the demo's data on a free port of this machine."""

    def __init__(self, process: subprocess.Popen[bytes], port: int) -> None:
        self.process, self.port = process, port

    def wait(self) -> None:
        """Until it answers."""
        for _ in range(300):
            try:
                ask(self.connection(), "GET", "/api/health")
                return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def connection(self) -> http.client.HTTPConnection:
        """A connection that is kept."""
        return http.client.HTTPConnection("127.0.0.1", self.port)

    def cpu_s(self) -> float:
        """CPU the process has used so far [s]."""
        fields = Path(f"/proc/{self.process.pid}/stat").read_text().rpartition(")")[2].split()
        return (int(fields[11]) + int(fields[12])) / TICKS


@contextmanager
def demo_server() -> Iterator[Server]:
    """The demo, as one command starts it."""
    with tempfile.TemporaryDirectory() as place:
        lyrandis = Path(sys.executable).parent / "lyrandis"
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            port = free.getsockname()[1]
        process = subprocess.Popen(
            [lyrandis, "demo", "--port", str(port), "--data", str(Path(place) / "data")],
            stdout=subprocess.DEVNULL,
        )
        try:
            server = Server(process, port)
            server.wait()
            yield server
        finally:
            process.send_signal(signal.SIGTERM)
            process.wait(20)


def ask(to: http.client.HTTPConnection, method: str, path: str, body: object = None) -> bytes:
    """One request on a kept connection."""
    to.request(method, path, None if body is None else json.dumps(body), HEADERS)
    answer = to.getresponse()
    text = answer.read()
    if answer.status >= 300:
        raise RuntimeError(f"{path}: {text[:200]!r}")
    return text


def cpu_ms(server: Server, requests: Iterator[tuple[str, object]], count: int) -> float:
    """CPU of the server for each of `count` requests [ms]."""
    to = server.connection()
    for _ in range(5):
        path, body = next(requests)
        ask(to, "POST", path, body)
    start = server.cpu_s()
    for _ in range(count):
        path, body = next(requests)
        ask(to, "POST", path, body)
    to.close()
    return (server.cpu_s() - start) * 1000 / count


def nothing() -> Iterator[tuple[str, object]]:
    """Requests that ask for next to nothing."""
    while True:
        yield "/api/units/parse", {"text": "28 3/4", "quantity": "draw"}


def drag(station: str) -> Iterator[tuple[str, object]]:
    """The requests of a slider that is drawn along at a station."""
    path = CHANGES[station]
    step = 0
    while True:
        step += 1
        value = START[path] + step * (0.001 if path in ("taste", "bow.brace_height_in") else 0.01)
        yield "/api/rigs/1/preview", {"changes": {path: round(value, 3)}, "parts": [station]}


def readers(server: Server) -> tuple[float, float]:
    """Rig views a second, and the 99th percentile of the wait [s], with many asking at once."""
    waits: list[float] = []
    until = time.perf_counter() + SECONDS

    def read() -> None:
        to = server.connection()
        while time.perf_counter() < until:
            start = time.perf_counter()
            ask(to, "GET", "/api/rigs/1")
            waits.append(time.perf_counter() - start)
        to.close()

    threads = [threading.Thread(target=read) for _ in range(READERS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return len(waits) / SECONDS, statistics.quantiles(waits, n=100)[-1]


def main() -> None:
    """Print what a preview costs at each station, and how many rig views a second are served."""
    with demo_server() as server:
        empty = cpu_ms(server, nothing(), 400)
        table = Table("preview while dragging at", "CPU, ms", "do-nothing requests")
        for station in (*PLAIN, *SOLVED):
            cost = cpu_ms(server, drag(station), 60)
            table.add_row(station, f"{cost:.1f}", f"{cost / empty:.1f}")
        out.print(f"A do-nothing request: {empty:.2f} ms of CPU.")
        out.print(table)
        rate, p99 = readers(server)
        out.print(
            f"{READERS} readers at once: {rate:.0f} rig views a second "
            f"(at least {LEAST_A_SECOND}), 99 of 100 within {p99:.2f} s (limit {MOST_P99_S:g} s)."
        )


if __name__ == "__main__":
    main()
