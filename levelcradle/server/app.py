"""The application: the API under /api, the built front end beside it."""

import asyncio
from collections.abc import AsyncIterator, Awaitable, Callable, Collection, Iterable
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any, Literal
from urllib.parse import urlsplit

from fastapi import FastAPI, Request, Response
from fastapi.openapi.utils import get_openapi
from fastapi.staticfiles import StaticFiles
from pydantic import BaseModel
from starlette.exceptions import HTTPException
from starlette.types import Scope

from levelcradle import __version__
from levelcradle.core.design import Design
from levelcradle.instruments import Instruments
from levelcradle.jobs import Queue
from levelcradle.server.bodies import BODIES
from levelcradle.server.cars_routes import router as cars_router
from levelcradle.server.instrument_routes import router as instrument_router
from levelcradle.server.news import News
from levelcradle.server.news import router as news_router
from levelcradle.server.notices import router as notices_router
from levelcradle.server.pack_routes import router as pack_router
from levelcradle.server.place_routes import router as place_router
from levelcradle.server.problems import install, problem
from levelcradle.server.routes import router
from levelcradle.server.scans import Scans
from levelcradle.server.study_routes import router as study_router
from levelcradle.server.survey_routes import router as survey_router
from levelcradle.store import Store

__all__ = ["attach", "create_app"]


class _FrontEnd(StaticFiles):
    """The built front end; an unknown page is the start page, which reads the address itself. A file that is not there
    is told so."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        try:
            return await super().get_response(path, scope)
        except HTTPException as error:
            if error.status_code != 404 or path.startswith(("api/", "assets/")) or Path(path).suffix:
                raise
            return await super().get_response("index.html", scope)


def create_app(store: Store, front_end: Path | None = None, own_ports: Collection[int] = ()) -> FastAPI:
    """The application over one store. ``front_end`` is the folder of the built front end, if there is one;
    ``own_ports``: where it and its database listen, which are no instruments."""
    app = FastAPI(
        title="Level Cradle",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=_running,
    )
    attach(app, store, own_ports)
    app.include_router(router, prefix="/api")
    app.include_router(cars_router, prefix="/api")
    app.include_router(survey_router, prefix="/api")
    app.include_router(instrument_router, prefix="/api")
    app.include_router(study_router, prefix="/api")
    app.include_router(place_router, prefix="/api")
    app.include_router(pack_router, prefix="/api")
    app.include_router(news_router, prefix="/api")
    app.include_router(notices_router, prefix="/api")
    app.middleware("http")(_same_origin)
    install(app)
    app.openapi = lambda: _openapi(app)  # type: ignore[method-assign]
    if front_end and (front_end / "index.html").exists():
        app.mount("/", _FrontEnd(directory=front_end, html=True))
    return app


def attach(app: FastAPI, store: Store, own_ports: Collection[int] = ()) -> None:
    """Gives an application what its routes work on. One that has stopped may be given another store: its routes stay
    made."""
    app.state.store = store
    app.state.queue = Queue(store)
    app.state.news = News(store)
    app.state.scans = Scans(store.files)
    app.state.instruments = Instruments(own_ports)


@asynccontextmanager
async def _running(app: FastAPI) -> AsyncIterator[None]:
    listening = asyncio.create_task(app.state.news.run())
    yield
    listening.cancel()
    app.state.queue.close()


HERE = frozenset({"127.0.0.1", "localhost", "::1"})


async def _same_origin(request: Request, go_on: Callable[[Request], Awaitable[Response]]) -> Response:
    """A page from elsewhere must not read or edit a design on this machine: neither under its own name (a name that was
    made to lead here is refused by its Host) nor across."""
    host = urlsplit(f"//{request.headers.get('host', '')}").hostname
    if host not in HERE:
        return problem(421, "Refused", "This application answers to this machine's own address only.")
    origin = request.headers.get("origin")
    if origin and request.method not in ("GET", "HEAD") and urlsplit(origin).netloc != request.headers.get("host"):
        return problem(403, "Refused", "This request comes from another site.")
    answer = await go_on(request)
    answer.headers["X-Content-Type-Options"] = "nosniff"
    answer.headers["Content-Security-Policy"] = (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:"
    )
    return answer


def _openapi(app: FastAPI) -> dict[str, Any]:
    """The routes with the schemas of the bodies they read by themselves."""
    if app.openapi_schema is None:
        schema = get_openapi(title=app.title, version=app.version, routes=app.routes)
        parts = schema.setdefault("components", {}).setdefault("schemas", {})
        for model in BODIES:
            parts[model.__name__] = _with_parts(model, "In", parts)
        parts["Document"] = _with_parts(Design, "Doc", parts)
        parts["OpenedOut"]["properties"]["document"] = {"$ref": "#/components/schemas/Document"}
        app.openapi_schema = schema
    return app.openapi_schema


def _with_parts(model: type[BaseModel], prefix: str, parts: dict[str, Any]) -> dict[str, Any]:
    """A model's schema, its parts put beside it under names of their own."""
    mode: Literal["validation", "serialization"] = "serialization" if prefix == "Doc" else "validation"
    body = model.model_json_schema(ref_template=f"#/components/schemas/{prefix}{{model}}", mode=mode, by_alias=True)
    inner = {f"{prefix}{name}": part for name, part in body.pop("$defs", {}).items()}
    if prefix == "In":
        _may_be_left_out([body, *inner.values()])
    parts.update(inner)
    return body


def _may_be_left_out(models: Iterable[dict[str, Any]]) -> None:
    """What a body may leave out: the typed client takes every field with a default for one that is always there."""
    for model in models:
        for field in model.get("properties", {}).values():
            field.pop("default", None)
