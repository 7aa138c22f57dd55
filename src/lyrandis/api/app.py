"""The application put together."""

from __future__ import annotations

from collections.abc import AsyncIterator, Sequence
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI
from starlette.middleware.gzip import GZipMiddleware

import lyrandis
from lyrandis.api import (
    aiming,
    arrows,
    at_range,
    beside,
    compute,
    compute_arrow,
    compute_crawls,
    compute_reads,
    data,
    devices,
    document,
    fitting,
    flight,
    instruments,
    jobs,
    listening,
    pages,
    parts,
    photos,
    problems,
    reference,
    rigs,
    scale,
    strings,
)
from lyrandis.api.context import now
from lyrandis.api.doors import Doors
from lyrandis.api.once import Once
from lyrandis.api.security import LEAST_TOKEN, LOCAL_HOSTS, Guard
from lyrandis.desk.rigs import Desk
from lyrandis.jobs import Jobs
from lyrandis.settings import SITE
from lyrandis.store.database import open_database
from lyrandis.store.devices import Devices
from lyrandis.store.folder import in_use
from lyrandis.store.preferences import PreferenceStore


def create_app(
    folder: Path,
    site: Path = SITE,
    hosts: frozenset[str] = LOCAL_HOSTS,
    token: str | None = None,
    addresses: Sequence[str] = (),
    authority: Path | None = None,
) -> FastAPI:
    """The whole application on a data folder.

    Parameters
    ----------
    folder : folder of the database, made if it is not there
    site : folder of the built pages
    hosts : host names answered
    token : access token of scripts, 20 signs or more; devices are let in by invitations; None on
        this machine only, where all are let in
    addresses : where other devices reach it, as they are told
    authority : file of the certificate that phones install, where it is served by one of that

    Raises
    ------
    ValueError : a token that could be guessed.
    """
    if token is not None and len(token) < LEAST_TOKEN:
        raise ValueError(f"An access token has at least {LEAST_TOKEN} signs.")
    engine = open_database(folder)

    @asynccontextmanager
    async def lifespan(_: FastAPI) -> AsyncIterator[None]:
        with in_use(folder):
            engine.dispose()  # what was opened before the folder was held may have been replaced
            app.state.jobs = Jobs()
            yield
            app.state.jobs.close()
        engine.dispose()  # folds the write-ahead log into the file

    app = FastAPI(
        title="Lyrandis",
        version=lyrandis.__version__,
        description="Setting up a bow that is shot without a sight. Units stand in the names.",
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=lifespan,
    )
    app.state.folder = folder
    app.state.desk = Desk(engine, now)
    app.state.jobs = Jobs()
    app.state.doors = (
        None if token is None else Doors(token, Devices(lambda: app.state.desk.engine, now))
    )
    app.state.addresses = list(addresses)
    app.state.authority = authority
    app.state.preferences = PreferenceStore(engine)
    problems.install(app)
    modules = (
        reference,
        compute,
        compute_arrow,
        compute_crawls,
        compute_reads,
        arrows,
        strings,
        rigs,
        parts,
        fitting,
        aiming,
        at_range,
        flight,
        photos,
        beside,
        scale,
        listening,
        data,
        devices,
        instruments,
        jobs,
    )
    routers = [module.router for module in modules]
    app.router.routes.extend(route for router in routers for route in router.routes)
    problems.note_methods(app, routers)
    document.install(app)
    pages.install(app, site)
    app.add_middleware(Once, engine=lambda: app.state.desk.engine, now=now)
    app.add_middleware(GZipMiddleware, minimum_size=1000, compresslevel=4)
    app.add_middleware(
        Guard,
        hosts=hosts,
        doors=app.state.doors,
        folder=lambda: app.state.desk.identity.text,
    )
    return app
