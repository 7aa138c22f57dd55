"""The real interface: a real server on a free port of this machine, Debian's Chromium."""

from __future__ import annotations

import base64
import hashlib
import multiprocessing
import os
import shutil
import socket
import sys
import time
from pathlib import Path
from urllib.parse import urlsplit

import pytest
from cryptography.hazmat.primitives.serialization import Encoding, PublicFormat
from cryptography.x509 import load_pem_x509_certificate
from playwright.sync_api import expect
from rest import COUNTS_QUESTIONS
from typer.testing import CliRunner

from lyrandis import certificates, cli

SITE = Path(__file__).parents[2] / "src" / "lyrandis" / "site" / "index.html"


PATIENCE_S = 30  # a busy machine is slow, not wrong
expect.set_options(timeout=PATIENCE_S * 1000)


@pytest.fixture(scope="session")
def certified(tmp_path_factory):
    """A folder with an authority of its own, and a certificate for this machine's addresses."""
    folder = tmp_path_factory.mktemp("certified")
    made = CliRunner().invoke(cli.app, ["certificate", "--data", str(folder)])
    assert made.exit_code == 0, made.output
    return folder


def _key_known_to_browser(folder):
    """The certificate's key as a phone that installed the authority would trust it."""
    own = load_pem_x509_certificate(certificates.of(folder).own.read_bytes())
    key = own.public_key().public_bytes(Encoding.DER, PublicFormat.SubjectPublicKeyInfo)
    return base64.b64encode(hashlib.sha256(key).digest()).decode()


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args, certified):
    flags = [
        f"--ignore-certificate-errors-spki-list={_key_known_to_browser(certified)}",
        "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
        "--disable-background-networking", "--disable-component-update", "--disable-sync",
        "--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream",
    ]  # fmt: skip
    return browser_type_launch_args | {
        "executable_path": "/usr/bin/chromium-headless-shell",
        "args": flags,
    }


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return browser_context_args | {
        "viewport": {"width": 1280, "height": 800},
        "reduced_motion": "reduce",
        "color_scheme": "light",
    }


# One process holds the application in memory; each server is a fork of it, up in a moment.
os.environ["PYTHONPATH"] = os.pathsep.join(
    filter(None, [str(Path(__file__).parent), os.environ.get("PYTHONPATH")])
)
_SPARE = multiprocessing.get_context("forkserver")
_SPARE.set_forkserver_preload(["warmed"])


def _run(folder, command, port, more, told):
    if told is not None:
        sys.stdout = told.open("w", buffering=1)
        cli.out.file = sys.stdout
    cli.app([command, "--port", str(port), "--data", folder, *more], standalone_mode=False)


class Served:
    """The application on a folder, at an address of its own; stopped and started again at will."""

    def __init__(self, folder, command, more=(), told=None):
        assert SITE.exists(), "build the pages first: make test"
        self.folder, self.command, self.more, self.told = folder, command, more, told
        with socket.socket() as s:
            s.bind(("127.0.0.1", 0))
            self.port = s.getsockname()[1]
        self.at = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self):
        args = (str(self.folder), self.command, self.port, self.more, self.told)
        self.run = _SPARE.Process(target=_run, args=args)
        self.run.start()
        for _ in range(PATIENCE_S * 20):
            with socket.socket() as s:
                if s.connect_ex(("127.0.0.1", self.port)) == 0:
                    return
            time.sleep(0.05)
        self.run.terminate()
        raise RuntimeError("the server did not answer")

    def stop(self):
        self.run.terminate()
        self.run.join(PATIENCE_S)

    def end(self):
        """Without waiting for questions that are open."""
        self.run.kill()
        self.run.join(PATIENCE_S)


@pytest.fixture
def serve(demo_rigs):
    """Starts the application on a folder, as often as asked; all are stopped after the test."""
    os.environ["WARMED_ON"] = str(demo_rigs)  # read by the process that is forked
    started = []

    def on(folder, command, *more):
        started.append(Served(folder, command, *more))
        return started[-1]

    yield on
    for server in started:
        server.end()


@pytest.fixture
def empty(tmp_path, serve):
    """The address of the application on an empty folder."""
    return serve(tmp_path / "data", "serve").at


@pytest.fixture
def demo_server(tmp_path, demo_rigs, serve):
    """The application on the demo's data, stopped after the test and whenever it wants."""
    folder = tmp_path / "demo"
    shutil.copytree(demo_rigs, folder)
    return serve(folder, "demo")


@pytest.fixture
def away_server(tmp_path, demo_rigs, certified, serve):
    """The application on the demo's data as others reach it: by https, with invitations."""
    folder, told = tmp_path / "away", tmp_path / "told.txt"
    shutil.copytree(demo_rigs, folder)
    shutil.copytree(certified / "certificates", folder / "certificates")
    return serve(folder, "demo", ("--host", "0.0.0.0"), told)


@pytest.fixture
def demo(demo_server):
    """The address of the application on the demo's data."""
    return demo_server.at


@pytest.fixture
def page(page):
    """A page on which no error, and no request to another machine, goes unnoticed."""
    page.add_init_script(COUNTS_QUESTIONS)
    page.set_default_timeout(PATIENCE_S * 1000)
    page.set_default_navigation_timeout(2 * PATIENCE_S * 1000)
    faults = []
    no_fault = ("422", "409")
    page.on("pageerror", lambda error: faults.append(str(error)))

    def console(message):
        # A refused value is answered 422, which the browser logs by itself.
        if message.type == "error" and not any(told in message.text for told in no_fault):
            faults.append(message.text)

    def sent_to(sent):
        host = urlsplit(sent.url).hostname
        if host not in ("127.0.0.1", None):
            faults.append(f"a request to {sent.url}")

    page.on("console", console)
    page.on("request", sent_to)
    yield page
    assert faults == []
