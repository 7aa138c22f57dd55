"""Killed at any moment while it serves, it starts again whole and has all that it answered for."""

import multiprocessing
import os
import random
import signal
import socket
import threading
import time
from contextlib import suppress

import httpx
import uvicorn

from claims import ALL, claimed
from lyrandis.api.app import create_app
from lyrandis.core.parts import Rig
from lyrandis.store import derived, rack
from lyrandis.store.database import closed_after, open_database
from lyrandis.store.rigs import RigStore

KILLS = 200 if ALL else 12
PATIENCE_S = 30


def serve(folder, listening):
    uvicorn.Server(uvicorn.Config(create_app(folder), log_level="critical")).run([listening])


def started(folder):
    listening = socket.socket()
    listening.bind(("127.0.0.1", 0))
    listening.listen()
    process = multiprocessing.get_context("fork").Process(
        target=serve, args=(folder, listening), daemon=True
    )
    process.start()
    address = f"http://127.0.0.1:{listening.getsockname()[1]}"
    listening.close()
    return process, address


def acts(address, begun, answered):
    """Act after act, by turns on the rig's own settings and on its part's, until nobody answers."""
    with httpx.Client(base_url=address, headers={"origin": address}, timeout=PATIENCE_S) as client:
        seq = client.get("/api/rigs/1").json()["seq"]
        for n in range(10_000):
            brace = 8.0 + (n % 8) / 8
            changes = {
                "bow.brace_height_in": brace,
                "string.strands": 12 + 2 * (n % 3),
                "notes": str(n),
            }
            body = {"seq": seq, "station": "brace", "changes": changes, "why": f"act {n}"}
            answer = client.post("/api/rigs/1/keep", json=body)
            assert answer.status_code == 200, answer.text
            seq = answer.json()["seq"]
            answered.append(seq)
            begun.set()


def killed_once(folder, rng):
    """Kill the server while it works; whether what is left is whole and has what was answered."""
    process, address = started(folder)
    begun, answered = threading.Event(), []

    def work():
        with suppress(httpx.TransportError):
            acts(address, begun, answered)

    worker = threading.Thread(target=work)
    worker.start()
    assert begun.wait(PATIENCE_S)
    time.sleep(rng.uniform(0.0, 0.6))
    os.kill(process.pid, signal.SIGKILL)
    process.join(PATIENCE_S)
    worker.join(PATIENCE_S)
    with closed_after(open_database(folder)) as engine:
        kept = RigStore(engine).get(1)
        with engine.connect() as connection:
            faults = [*derived.unlike_their_history(connection), *rack.faults(connection)]
        latest = answered[-1] if answered else 0
        return not faults and latest <= kept.seq, len(answered)


def test_nothing_that_was_answered_is_lost_and_what_is_left_is_whole(tmp_path):
    with closed_after(open_database(tmp_path)) as engine:
        RigStore(engine).create(Rig(name="Killed often"))
    rng = random.Random(9)
    told = [killed_once(tmp_path, rng) for _ in range(KILLS)]
    assert sum(done for _, done in told) >= KILLS
    claimed("killed while serving: whole again", sum(w for w, _ in told) / KILLS, least=1, of=KILLS)
