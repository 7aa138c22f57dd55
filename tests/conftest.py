"""Shared by the tests: a store and an application on a fresh folder."""

from __future__ import annotations

import fcntl
import gc
import os
import shutil

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from lyrandis.api.app import create_app
from lyrandis.demo.folder import prepare
from lyrandis.store.database import open_database
from lyrandis.store.rigs import RigStore

BASE = "http://127.0.0.1"  # as the browser asks

# The same examples each time: a landing does not hang on luck. Look for new ones with
# `pytest --hypothesis-seed=N` and `settings.load_profile("default")`.
settings.register_profile("steady", derandomize=True, deadline=None)
settings.load_profile("steady")


def pytest_collection_modifyitems(items):
    """Whatever runs more with SOUNDNESS=1 is what `make soundness` runs."""
    for item in items:
        if any(hasattr(item.module, name) for name in ("share", "claimed", "ALL")):
            item.add_marker("soundness")


def pytest_collection_finish():
    """What is there by now stays: looking through it for garbage took a tenth of the time."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(50_000, 20, 50)


@pytest.fixture(scope="session")
def empty_folder(tmp_path_factory):
    """A folder with a database and nothing in it, made once: a test takes a copy of its own."""
    folder = tmp_path_factory.mktemp("empty")
    open_database(folder).dispose()
    return folder


@pytest.fixture
def store(tmp_path, empty_folder):
    shutil.copytree(empty_folder, tmp_path, dirs_exist_ok=True)
    engine = open_database(tmp_path)
    yield RigStore(engine)
    engine.dispose()


@pytest.fixture(scope="session")
def demo_rigs(tmp_path_factory):
    """The demo's folder, made once for all workers: a test takes a copy of its own."""
    place = tmp_path_factory.getbasetemp()
    if "PYTEST_XDIST_WORKER" in os.environ:
        place = place.parent
    with (place / "demo.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)  # whoever comes second finds it made
        prepare(place / "demo", False)
    return place / "demo"


def _app(tmp_path):
    site = tmp_path / "site"
    site.mkdir()
    (site / "index.html").write_text("<!doctype html><title>pages</title>")
    (site / "mark.svg").write_text("<svg/>")
    return create_app(tmp_path / "data", site)


@pytest.fixture
def app(tmp_path, empty_folder):
    shutil.copytree(empty_folder, tmp_path / "data")
    made = _app(tmp_path)
    yield made
    made.state.desk.engine.dispose()


@pytest.fixture
def demo_app(tmp_path, demo_rigs):
    """The application on the demo's rigs."""
    shutil.copytree(demo_rigs, tmp_path / "data")
    made = _app(tmp_path)
    yield made
    made.state.desk.engine.dispose()


@pytest.fixture
def client(app):
    with TestClient(app, base_url=BASE, raise_server_exceptions=False) as made:
        yield made
