"""The application put together."""

from __future__ import annotations

from pathlib import Path

from fastapi import FastAPI
from starlette.middleware.gzip import GZipMiddleware

import lyrandis
from lyrandis.api import compute, listening, pages, problems, reference, rigs, scale
from lyrandis.api.security import LOCAL_HOSTS, Guard
from lyrandis.settings import SITE
from lyrandis.store.database import open_database
from lyrandis.store.rigs import PreferenceStore, RigStore


def create_app(
    data: Path,
    site: Path = SITE,
    hosts: frozenset[str] = LOCAL_HOSTS,
    token: str | None = None,
) -> FastAPI:
    """The whole application on a data folder.

    Parameters
    ----------
    data : folder of the database, made if it is not there
    site : folder of the built pages
    hosts : host names answered
    token : access token asked of every request; None on this machine only
    """
    app = FastAPI(
        title="Lyrandis",
        version=lyrandis.__version__,
        description="Setting up a bow that is shot without a sight. Units stand in the names.",
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
    )
    engine = open_database(data)
    app.state.rigs = RigStore(engine)
    app.state.preferences = PreferenceStore(engine)
    problems.install(app)
    for router in (reference.router, compute.router, rigs.router, scale.router, listening.router):
        app.include_router(router)
    pages.install(app, site)
    app.add_middleware(GZipMiddleware, minimum_size=1000, compresslevel=4)
    app.add_middleware(Guard, hosts=hosts, token=token)
    return app
