"""The application in this process, and a server for it on a free port of loopback."""

import socket
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import uvicorn
from fastapi import FastAPI

from levelcradle.server import attach, create_app
from levelcradle.store import Store

APPS: dict[Path | None, FastAPI] = {}


def app_over(store: Store, front_end: Path | None = None) -> FastAPI:
    """One application serves test after test, each time over another store: to make its routes takes longer than many a
    test."""
    if front_end not in APPS:
        APPS[front_end] = create_app(store, front_end)
    attach(APPS[front_end], store)
    return APPS[front_end]


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
    return port


@contextmanager
def served(app: Any, port: int | None = None) -> Iterator[str]:
    """Its address, for as long as it runs."""
    port = port or free_port()
    server = uvicorn.Server(
        uvicorn.Config(app, host="127.0.0.1", port=port, log_level="error", timeout_graceful_shutdown=1)
    )
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    while not server.started:
        time.sleep(0.02)
    yield f"http://127.0.0.1:{port}"
    server.should_exit = True
    thread.join(10)
