"""The real interface: a real server on a free port of this machine, Debian's Chromium."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from urllib.parse import urlsplit

import pytest
from playwright.sync_api import expect

SITE = Path(__file__).parents[2] / "src" / "lyrandis" / "site" / "index.html"


PATIENCE_S = 30  # a busy machine is slow, not wrong
expect.set_options(timeout=PATIENCE_S * 1000)


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    flags = [
        "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
        "--disable-background-networking", "--disable-component-update", "--disable-sync",
        "--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream",
    ]  # fmt: skip
    return browser_type_launch_args | {"executable_path": "/usr/bin/chromium", "args": flags}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return browser_context_args | {
        "viewport": {"width": 1280, "height": 800},
        "reduced_motion": "reduce",
        "color_scheme": "light",
    }


def _serve(folder, command):
    assert SITE.exists(), "build the pages first: make test"
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port = s.getsockname()[1]
    run = subprocess.Popen(
        [sys.executable, "-m", "lyrandis.cli", command, "--port", str(port), "--data", str(folder)],
        env=os.environ, stdout=subprocess.DEVNULL,
    )  # fmt: skip
    address = f"http://127.0.0.1:{port}"
    for _ in range(PATIENCE_S * 20):
        try:
            urllib.request.urlopen(f"{address}/api/health").close()
            return run, address
        except OSError:
            time.sleep(0.1)
    run.terminate()
    raise RuntimeError("the server did not answer")


def _server(command):
    """A fixture: the application on a folder of its own, stopped after the test."""

    @pytest.fixture
    def address(tmp_path):
        run, at = _serve(tmp_path, command)
        yield at
        run.terminate()
        run.wait(PATIENCE_S)

    return address


empty = _server("serve")
demo = _server("demo")


@pytest.fixture
def page(page):
    """A page on which no error, and no request to another machine, goes unnoticed."""
    page.set_default_timeout(PATIENCE_S * 1000)
    page.set_default_navigation_timeout(2 * PATIENCE_S * 1000)
    faults = []
    page.on("pageerror", lambda error: faults.append(str(error)))

    def console(message):
        # A refused value is answered 422, which the browser logs by itself.
        if message.type == "error" and "422" not in message.text and "409" not in message.text:
            faults.append(message.text)

    def request(sent):
        host = urlsplit(sent.url).hostname
        if host not in ("127.0.0.1", None):
            faults.append(f"a request to {sent.url}")

    page.on("console", console)
    page.on("request", request)
    yield page
    assert faults == []
