"""No request brings the application down, holds it up, or is answered with a fault."""

import json
import socket
import threading
import time

import numpy as np
import pytest
import soundfile

from lyrandis.api.security import MOST_BODY_BYTES
from lyrandis.core.parts import Rig

NEW = Rig(name="Test rig").model_dump(mode="json")


def send(client, path, text, method="POST"):
    content = text if isinstance(text, bytes) else text.encode("utf-8", "surrogatepass")
    return client.request(
        method, path, content=content, headers={"content-type": "application/json"}
    )


def many(item, times):
    return ",".join([item] * times)


NAMES = ",".join(f'"n{i}": 1' for i in range(50_000))
BODIES = {
    "a list too long": ("/api/compute/crawls", '{"distances_m": [' + many("5", 200_000) + "]}"),
    "nonsense in a list": ("/api/compute/crawls", '{"distances_m": [' + many('"x"', 150_000) + "]}"),
    "nonsense in a rig": ("/api/rigs", '{"aim": {"distances_m": [' + many("{}", 200_000) + "]}}"),
    "bows to line up": ("/api/rigs/1/line-up", '{"picks": [' + many("{}", 200_000) + "]}"),
    "names not known": ("/api/compute/arrow", "{" + NAMES + "}"),
    "units not known": ("/api/preferences", '{"units": {' + NAMES + "}}"),
    "deep": ("/api/rigs", '{"notes":' * 300 + "1" + "}" * 300),
    "very deep": ("/api/rigs", "[" * 100_000),
    "many digits": ("/api/compute/arrow", '{"arrow": {"point_gr": ' + "9" * 400 + "}}"),
    "too many digits": ("/api/compute/arrow", '{"arrow": {"point_gr": ' + "9" * 9000 + "}}"),
    "not finite": ("/api/compute/arrow", '{"arrow": {"point_gr": 1e400}}'),
    "not a number": ("/api/compute/arrow", '{"arrow": {"point_gr": NaN}}'),
    "half a sign": ("/api/units/parse", '{"text": "\\ud800", "quantity": "draw"}'),
    "half a name": ("/api/rigs", '{"\\udfff": 1}'),
    "no UTF-8": ("/api/rigs", b'{"name": "\xff"}'),
    "a zero sign": ("/api/units/parse", '{"text": "\\u0000", "quantity": "\\u0000"}'),
    "a bare list": ("/api/rigs", "[]"),
    "null": ("/api/rigs", "null"),
    "nothing": ("/api/rigs", ""),
    "whole numbers beyond": ("/api/rigs/1/undo", f'{{"seq": {2**70}}}'),
}  # fmt: skip


@pytest.mark.parametrize("name", BODIES)
def test_a_nonsense_body_is_refused_soon_and_small(client, name):
    path, text = BODIES[name]
    method = "PUT" if path.endswith("preferences") else "POST"
    answer = send(client, path, text, method)
    assert answer.status_code in (400, 404, 413, 422), answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    assert len(answer.content) < 20_000
    json.dumps(answer.json())


@pytest.mark.parametrize(
    "path",
    [
        "/%00", "/a%00b.js", "/" + "x" * 300, "/" + "x/" * 2000, "/api/rigs/" + "9" * 30,
        "/api/rigs/-1", "/api/rigs/99999999999999999999/sheet", "/api/rigs/1/recording?brace_in=nan",
        "/api/rigs/1/recording?shots=1e9", "/api/jobs/0", "/api/jobs/1e3/events",
        "/api/%F0%28%8C%28", "/..%2f..%2f..%2fetc%2fpasswd", "/api/", "/api",
    ],
)  # fmt: skip
def test_an_odd_address_is_no_fault(client, path):
    client.post("/api/rigs", json=NEW)
    answer = client.get(path)
    assert answer.status_code < 500
    assert "root:" not in answer.text


@pytest.mark.parametrize(
    "host", ["[::1", "[", "a]b", "", "testserver", "127.0.0.1.evil", "::::", "ü"]
)
def test_a_malformed_host_is_refused(client, host):
    answer = client.get("/api/health", headers={"host": host.encode()})
    assert answer.status_code == 400
    assert answer.headers["x-content-type-options"] == "nosniff"


@pytest.mark.parametrize("origin", ["http://[", "null", "http://evil", "//", "http://127.0.0.1:1"])
def test_a_malformed_origin_is_refused(client, origin):
    answer = client.post("/api/rigs", json=NEW, headers={"origin": origin})
    assert answer.status_code == 403
    assert answer.headers["x-frame-options"] == "DENY"


@pytest.mark.parametrize("length", ["-1", "x", "1e3", "9" * 40, "٣"])
def test_a_malformed_length_is_refused(client, length):
    headers = {"content-length": length.encode(), "content-type": "application/json"}
    assert client.post("/api/rigs", content=b"{}", headers=headers).status_code in (400, 413)


def test_head_is_answered_as_get_without_its_body(client):
    client.post("/api/rigs", json=NEW)
    for path in ("/", "/rig/1/draw", "/api/health", "/api/rigs/1/sheet", "/mark.svg"):
        got, head = client.get(path), client.head(path)
        assert head.status_code == got.status_code == 200
        assert head.content == b""
        assert head.headers["content-type"] == got.headers["content-type"]
    assert client.head("/api/rigs/99").status_code == 404


@pytest.mark.parametrize(
    "data",
    [
        b"draw (in),force (lb)\r20,18\r28,36\r", b"draw (in),force (lb)\n" + b"9" * 200_000 + b",3",
        b'draw (in),force (lb)\n"20,18\n', b"\x00\x00", b"draw (in),force (lb)\n20,1e400\n",
        b"draw (in),force (lb)\nnan,inf\n", b"," * 100_000, "draw (in),force (lb)\n２０,18".encode(),
    ],
)  # fmt: skip
def test_an_odd_csv_is_read_or_refused(client, data):
    answer = client.post("/api/readings", files={"file": ("a.csv", data)})
    assert answer.status_code in (200, 422), answer.text
    if b"\r20" in data:
        assert answer.json()["readings"] == [[20.0, 18.0], [28.0, 36.0]]


def test_a_form_without_its_file_is_refused(client):
    for path in ("/api/rigs/import", "/api/compute/sound", "/api/readings", "/api/data/restore"):
        assert client.post(path).status_code in (400, 422)
        assert client.post(path, files={"other": b"x"}).status_code == 422
        odd = {"content-type": "multipart/form-data; boundary=x"}
        assert client.post(path, content=b"--x\r\nrubbish", headers=odd).status_code in (400, 422)


def test_line_ends_in_a_name_break_no_calendar(client):
    rig = client.post("/api/rigs", json=NEW | {"name": "One\r\nATTENDEE:mailto:x\r\n\u2028two"})
    assert rig.status_code == 201
    text = client.get(f"/api/rigs/{rig.json()['id']}/schedule.ics").text
    assert "\nATTENDEE" not in text
    assert "\r" not in rig.json()["rig"]["name"]


def clicks(minutes):
    """Clicks as fast as they are told apart, all through a recording."""
    rate = 22_050
    one = np.zeros(int(0.0625 * rate), dtype=np.float32)
    one[:40] = np.hanning(40) * 0.8
    noise = np.random.default_rng(1).normal(0, 1e-4, len(one)).astype(np.float32)
    return np.tile(one + noise, int(minutes * 60 / 0.0625)), rate


def test_clicks_all_through_a_long_recording_cost_as_much_a_minute_as_a_short_one():
    """Linear in events: four times the minutes take nowhere near sixteen times as long."""
    from lyrandis.core.sound.events import analyse

    def cost(minutes):
        samples, rate = clicks(minutes)
        begins = time.process_time()
        analyse(samples, rate)
        return time.process_time() - begins

    cost(0.5)
    assert min(cost(4), cost(4)) < 10 * max(cost(1), cost(1))


@pytest.fixture
def served(app):
    """The application behind its real server, on a free port of this machine."""
    import uvicorn

    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port = s.getsockname()[1]
    server = uvicorn.Server(uvicorn.Config(app, host="127.0.0.1", port=port, log_level="error"))
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    while not server.started:
        time.sleep(0.02)
    yield port
    server.should_exit = True
    thread.join(30)


def ask(port, head, body=b"", wait=True):
    with socket.create_connection(("127.0.0.1", port), timeout=60) as s:
        s.sendall(head.encode() + b"\r\n\r\n" + body)
        if not wait:
            return None
        got = b""
        while chunk := s.recv(65536):
            got += chunk
        return got


def test_listening_ends_when_the_client_goes(served, tmp_path, monkeypatch):
    heard = threading.Event()
    ended = threading.Event()

    def slow(_samples, _rate, _added, heed, **_):
        heard.set()
        try:
            while True:
                heed()
                time.sleep(0.02)
        finally:
            ended.set()

    monkeypatch.setattr("lyrandis.api.listening.analyse", slow)
    file = tmp_path / "a.wav"
    soundfile.write(file, np.zeros(22_050), 22_050)
    body = b'--x\r\nContent-Disposition: form-data; name="file"; filename="a"\r\n\r\n'
    body += file.read_bytes() + b"\r\n--x--\r\n"
    head = (
        "POST /api/compute/sound HTTP/1.1\r\nHost: 127.0.0.1\r\n"
        f"Content-Type: multipart/form-data; boundary=x\r\nContent-Length: {len(body)}"
    )
    with socket.create_connection(("127.0.0.1", served), timeout=60) as s:
        s.sendall(head.encode() + b"\r\n\r\n" + body)
        assert heard.wait(30)
        assert not ended.is_set()
    assert ended.wait(30)


def test_one_large_nonsense_holds_nobody_up(served):
    """While bodies at the limit are judged, a small question is answered in between."""
    text = ('{"distances_m": [' + ",".join(['"x"'] * 240_000) + "]}").encode()[:MOST_BODY_BYTES]
    head = (
        "POST /api/compute/crawls HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n"
        f"Content-Type: application/json\r\nContent-Length: {len(text)}"
    )
    senders = [threading.Thread(target=ask, args=(served, head, text)) for _ in range(6)]
    for sender in senders:
        sender.start()
    question = "GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close"
    answers = [ask(served, question) for _ in range(10)]
    for sender in senders:
        sender.join()
    assert all(b" 200 " in a.split(b"\r\n")[0] for a in answers)
    too_much = (
        "POST /api/rigs HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\nContent-Length: 3600000"
    )
    assert b" 413 " in ask(served, too_much).split(b"\r\n")[0]


@pytest.mark.parametrize(
    "head",
    [
        "GET / HTTP/1.1\r\nHost: [::1", "GET / HTTP/1.1\r\nHost: \x80\xff", "GET / HTTP/1.1",
        "GET /api/health?token=\x80 HTTP/1.1\r\nHost: 127.0.0.1", "BREW / HTTP/1.1\r\nHost: 127.0.0.1",
        "GET //evil.example/%2e%2e HTTP/1.1\r\nHost: 127.0.0.1",
        "POST /api/rigs HTTP/1.1\r\nHost: 127.0.0.1\r\nTransfer-Encoding: chunked",
    ],
)  # fmt: skip
def test_odd_bytes_on_the_line_are_no_fault(served, head):
    got = ask(served, head + "\r\nConnection: close")
    status = int(got.split(b" ")[1]) if got else 400
    assert status < 500
    assert b" 200 " in ask(
        served, "GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close"
    )
