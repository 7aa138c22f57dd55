"""The command line."""

import json
import os
import socket
import subprocess
import sys
import time
import urllib.request

import pytest
from typer.testing import CliRunner

from lyrandis.cli import app
from lyrandis.core.parts import Rig
from lyrandis.store.database import FILE_NAME, open_database
from lyrandis.store.rigs import RigStore

runner = CliRunner()


def free_port():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


def test_help_names_the_commands():
    told = runner.invoke(app, ["--help"])
    assert told.exit_code == 0
    for command in ("serve", "demo", "backup"):
        assert command in told.output


def test_backup(tmp_path):
    store = RigStore(open_database(tmp_path / "data"))
    store.create(Rig())
    store.engine.dispose()
    target = tmp_path / "copy.db"
    told = runner.invoke(app, ["backup", str(target), "--data", str(tmp_path / "data")])
    assert told.exit_code == 0
    assert target.stat().st_size > 0
    nothing = runner.invoke(app, ["backup", str(target), "--data", str(tmp_path / "none")])
    assert nothing.exit_code == 1


def test_openapi(tmp_path):
    target = tmp_path / "openapi.json"
    assert runner.invoke(app, ["openapi", str(target)]).exit_code == 0
    assert "/api/compute/shot" in json.loads(target.read_text())["paths"]


@pytest.mark.parametrize(("command", "rigs"), [("serve", 0), ("demo", 3)])
def test_starts_with_its_data_by_the_environment(tmp_path, command, rigs):
    port = free_port()
    env = os.environ | {"LYRANDIS_DATA": str(tmp_path)}
    run = subprocess.Popen(
        [sys.executable, "-m", "lyrandis.cli", command, "--port", str(port)],
        env=env, stdout=subprocess.PIPE, text=True,
    )  # fmt: skip
    try:
        for _ in range(600):
            try:
                with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/rigs") as answer:
                    assert len(json.load(answer)) == rigs
                break
            except OSError:
                time.sleep(0.1)
        else:
            pytest.fail("the server did not answer")
    finally:
        run.terminate()
        printed = run.communicate(timeout=60)[0]
    assert f"http://127.0.0.1:{port}" in printed
    assert list(tmp_path.rglob(FILE_NAME))
    assert not list(tmp_path.rglob("*-wal"))  # an ordinary stop leaves one file


@pytest.mark.parametrize("command", ["serve", "demo"])
def test_by_https_with_a_certificate_and_its_key(tmp_path, monkeypatch, command):
    given = {}

    class Server:
        def __init__(self, config):
            given.update(ssl_certfile=config.ssl_certfile, ssl_keyfile=config.ssl_keyfile)

        def run(self, sockets):
            for one in sockets:
                one.close()

    monkeypatch.setattr("lyrandis.cli.uvicorn.Server", Server)
    port = str(free_port())
    for name in ("c.pem", "k.pem"):
        (tmp_path / name).touch()
    asked = [command, "--port", port, "--data", str(tmp_path / "data"),
             "--certificate", str(tmp_path / "c.pem")]  # fmt: skip
    told = runner.invoke(app, asked)
    assert told.exit_code == 1
    assert "go together" in told.output
    assert given == {}
    told = runner.invoke(app, [*asked, "--key", str(tmp_path / "k.pem")])
    assert told.exit_code == 0
    assert f"https://127.0.0.1:{port}" in told.output
    assert (given["ssl_certfile"].name, given["ssl_keyfile"].name) == ("c.pem", "k.pem")


@pytest.mark.parametrize("command", ["serve", "demo"])
def test_a_port_that_is_taken_is_said_in_three_lines_before_anything_else(tmp_path, command):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        folder = tmp_path / "data"
        told = runner.invoke(app, [command, "--port", str(port), "--data", str(folder)])
    assert told.exit_code == 1
    lines = told.output.splitlines()
    assert len(lines) == 3
    assert f"Port {port} of 127.0.0.1 is taken" in lines[0]
    assert f"--port {port + 1}" in lines[2]
    assert not folder.exists()


def test_an_address_that_is_not_this_machines_is_said_too(tmp_path):
    told = runner.invoke(app, ["serve", "--host", "192.0.2.1", "--data", str(tmp_path / "data")])
    assert told.exit_code == 1
    assert "cannot be listened on" in told.output
