"""The application with the demo's numbers gone through once, so that a fork of it answers at once."""

import gc
import os
import shutil
import tempfile
from pathlib import Path

import uvicorn  # noqa: F401
from fastapi.testclient import TestClient

from lyrandis import cli  # noqa: F401
from lyrandis.api.app import create_app

HERE = "http://127.0.0.1"

with tempfile.TemporaryDirectory() as place:
    folder = Path(place) / "demo"
    shutil.copytree(os.environ["WARMED_ON"], folder)
    with TestClient(create_app(folder), base_url=HERE, headers={"origin": HERE}) as client:
        for note in client.get("/api/rigs").json():
            client.get(f"/api/rigs/{note['id']}")
            client.get(f"/api/rigs/{note['id']}/range")
            client.post(f"/api/rigs/{note['id']}/preview", json={"changes": {}})
        client.get("/api/catalog")
        client.get("/api/terms")
        client.get("/api/parts")

gc.collect()
gc.freeze()  # a fork shares what is not looked through
