"""Long work: begun, followed, stopped, refused; the same inputs give the same result once."""

import io
import json
import threading
import time

import pytest

from lyrandis.core.history import Entry
from lyrandis.core.parts import Rig
from lyrandis.files.wav import write_wav
from lyrandis.instruments.recorder import SimulatedRecorder
from lyrandis.jobs import Jobs, UnknownJobError, digest
from lyrandis.jobs.runner import HEAVY_AT_ONCE, MOST_REMEMBERED
from rig_files import write_rig

PATIENCE_S = 30
AT = "2026-05-01T09:00:00+00:00"


@pytest.fixture
def jobs():
    made = Jobs()
    yield made
    made.close()


def ended(job):
    job.future.result(PATIENCE_S)
    return job


class Gate:
    """Work that waits until it is let through, and says that it has begun."""

    def __init__(self):
        self.begun, self.through = threading.Event(), threading.Event()

    def __call__(self, tell):
        self.begun.set()
        while not self.through.wait(0.005):
            tell()
        return "through"


def test_work_tells_how_far_it_is_and_gives_its_result(jobs):
    def work(tell):
        for i in range(1001):
            tell(i / 1000)
        tell(live=[1, 2])
        return 7

    job = ended(jobs.start("count", work))
    assert (job.state, job.result, job.error) == ("done", 7, None)
    shares = [t.share for t in job.told[:-1]]
    assert shares == sorted(shares)
    assert 90 <= len(shares) <= 101  # told no finer than a hundredth
    assert job.told[-1].live == [1, 2]


def test_what_goes_wrong_is_handed_on(jobs):
    def work(_):
        raise ValueError("no")

    job = ended(jobs.start("wrong", work, key="k"))
    assert job.state == "failed"
    assert isinstance(job.error, ValueError)
    assert ended(jobs.start("wrong", lambda _: 1, key="k")).result == 1  # a failure is not kept


def test_running_work_stops_and_waiting_work_never_begins(jobs):
    gates = [Gate() for _ in range(HEAVY_AT_ONCE + 1)]
    running = [jobs.start("gate", gate) for gate in gates]
    for gate in gates[:-1]:
        assert gate.begun.wait(PATIENCE_S)
    assert not gates[-1].begun.is_set()  # its turn has not come
    running[-1].stop()
    assert running[-1].state == "stopped"
    running[0].stop()
    assert ended(running[0]).state == "stopped"
    gates[1].through.set()
    assert ended(running[1]).result == "through"
    assert not gates[-1].begun.is_set()


def test_light_work_does_not_wait_for_heavy_work(jobs):
    gates = [Gate() for _ in range(HEAVY_AT_ONCE)]
    for gate in gates:
        jobs.start("gate", gate)
    assert ended(jobs.start("light", lambda _: 3, heavy=False)).result == 3
    for gate in gates:
        gate.through.set()


def test_the_same_inputs_are_worked_on_once(jobs):
    gate = Gate()
    one = jobs.start("gate", gate, key="a")
    assert jobs.start("gate", gate, key="a") is one  # while it runs
    gate.through.set()
    assert jobs.start("gate", gate, key="a") is ended(one)  # and after
    other = jobs.start("gate", gate, key="b")
    assert other is not one
    other.stop()


def test_one_who_leaves_does_not_stop_the_others(jobs):
    gate = Gate()
    job = jobs.start("gate", gate, key="a")
    assert jobs.start("gate", gate, key="a") is job
    assert gate.begun.wait(PATIENCE_S)
    job.leave()
    gate.through.set()
    assert ended(job).result == "through"


def test_what_is_being_stopped_is_begun_anew_for_the_next(jobs):
    gate = Gate()
    job = jobs.start("gate", gate, key="a")
    assert gate.begun.wait(PATIENCE_S)
    job.leave()
    again = jobs.start("gate", lambda _: 5, key="a")
    assert again is not job
    assert ended(again).result == 5
    assert ended(job).state == "stopped"


def test_a_job_that_is_over_holds_no_file(jobs):
    done = ended(jobs.start("one", lambda _: 1))
    gates = [Gate() for _ in range(HEAVY_AT_ONCE + 1)]
    held = [jobs.start("gate", gate) for gate in gates]
    held[-1].stop()
    assert (done.work, held[-1].work) == (None, None)
    for gate in gates:
        gate.through.set()


def test_a_digest_is_of_all_its_inputs():
    def of(*inputs, text=b"abc"):
        return digest(*inputs, file=io.BytesIO(text))

    assert of("sound", (1.0,)) == of("sound", (1.0,))
    names = {of("sound", ()), of("sound", (1.0,)), of("other", ()), of("sound", (), text=b"abd")}
    assert len(names) == 4


def test_jobs_over_are_forgotten_in_time_and_running_ones_are_not(jobs):
    gate = Gate()
    running = jobs.start("gate", gate)
    for _ in range(MOST_REMEMBERED + 20):
        ended(jobs.start("quick", lambda _: 1, heavy=False))
    assert jobs.get(running.id) is running
    with pytest.raises(UnknownJobError):
        jobs.get(running.id + 1)
    gate.through.set()


def events_of(client, id):
    """The events of a job, as the browser reads them."""
    answer = client.get(f"/api/jobs/{id}/events")
    assert answer.headers["content-type"].startswith("text/event-stream")
    found = []
    for block in answer.text.strip().split("\n\n"):
        lines = dict(line.split(": ", 1) for line in block.splitlines() if not line.startswith(":"))
        if lines:
            found.append((lines.get("event", "message"), json.loads(lines.get("data", "null"))))
    return found


def begin(client, kind, data):
    answer = client.post(f"/api/jobs/{kind}", files={"file": ("a file", data)})
    assert answer.status_code == 202, answer.text
    return answer.json()["id"]


def test_an_import_is_followed_to_its_rig(client):
    text = write_rig(Rig(name="Brought"), [], AT).encode()
    *told, (last, rig) = events_of(client, begin(client, "import", text))
    assert all(name == "message" for name, _ in told)
    assert last == "done"
    assert client.get(f"/api/rigs/{rig['id']}").json() == rig
    assert rig["rig"]["name"] == "Brought"


def test_a_long_import_tells_how_far_it_is(client):
    entries = [
        Entry(seq=n, kind="check", at=AT, station="brace", standing="settled", why="so " * 60)
        for n in range(1, 2001)
    ]
    text = write_rig(Rig(), entries, AT).encode()
    told = [data["share"] for _, data in events_of(client, begin(client, "import", text))[:-1]]
    assert len(told) >= 5
    assert told == sorted(told)
    assert told[-1] <= 1


def test_a_refusal_is_told_as_everywhere(client):
    text = write_rig(Rig(), [], AT).replace('"length_in": 68.0', '"length_in": 680.0')
    events = events_of(client, begin(client, "import", text.encode()))
    name, problem = events[-1]
    assert name == "failed"
    assert problem["status"] == 422
    assert problem["errors"][0]["field"] == "base.bow.length_in"
    assert client.get("/api/rigs").json() == []


def test_a_recording_is_listened_to_once(client):
    recorder = SimulatedRecorder(seed=3, shots=2, seconds=12)
    wav = write_wav(recorder.record()[0], recorder.rate_hz)
    one, again = (begin(client, "sound", wav) for _ in range(2))
    assert one == again
    name, sound = events_of(client, one)[-1]
    assert name == "done"
    assert sum(e["kind"] == "shot" for e in sound["events"]) == 2
    # The stateless call answers the same.
    plain = client.post("/api/compute/sound", files={"file": ("a.wav", wav)})
    assert plain.json() == sound


def test_a_backup_is_put_back_and_a_foreign_file_refused(client):
    client.post("/api/rigs", json={"name": "Kept"})
    backup = client.get("/api/data/backup").content
    client.post("/api/rigs", json={"name": "Later"})
    name, told = events_of(client, begin(client, "restore", backup))[-1]
    assert (name, told["rigs"]) == ("done", 1)
    assert [n["name"] for n in client.get("/api/rigs").json()] == ["Kept"]
    name, problem = events_of(client, begin(client, "restore", b"no backup"))[-1]
    assert (name, problem["status"]) == ("failed", 422)
    assert "not a Lyrandis backup" in problem["detail"]


def test_a_pull_is_stopped(client):
    rig = client.post("/api/rigs", json={"name": "One"}).json()["id"]
    job = client.post("/api/jobs/pull", json={"rig": rig, "pace": 10}).json()
    assert client.delete(f"/api/jobs/{job['id']}").status_code == 200
    assert events_of(client, job["id"])[-1] == ("stopped", None)
    assert client.get(f"/api/jobs/{job['id']}").json()["state"] == "stopped"


def test_a_job_that_is_not_there(client):
    assert client.get("/api/jobs/99").status_code == 404
    assert client.delete("/api/jobs/99").status_code == 404
    name, problem = events_of(client, 99)[-1]
    assert (name, problem["status"]) == ("failed", 404)


def test_closing_ends_everything(jobs):
    gates = [Gate() for _ in range(HEAVY_AT_ONCE + 2)]
    running = [jobs.start("gate", gate) for gate in gates]
    start = time.monotonic()
    jobs.close()
    assert time.monotonic() - start < PATIENCE_S
    assert {job.state for job in running} == {"stopped"}
