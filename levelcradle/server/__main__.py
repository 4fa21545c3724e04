"""Serves one database: ``python -m levelcradle.server PORT [--demo]``; its address is in ``LEVELCRADLE_DATABASE``,
so that no list of processes shows the password."""

import gc
import os
import sys
from pathlib import Path
from urllib.parse import urlsplit

import uvicorn

from levelcradle.demo import demo_design, pell_design
from levelcradle.server.app import create_app
from levelcradle.store import Store, connect, until_there

DEMOS = {"pell": pell_design, "demo": demo_design}  # the last one stands first in the list
KEEP_ALIVE_S = 900  # longer than a person thinks: an edit sent on a connection just dropped would be lost to a reset
FRONT_END = Path(__file__).parents[2] / "web" / "dist"


def main() -> None:
    database = connect(os.environ["LEVELCRADLE_DATABASE"])
    until_there(database)
    store = Store(database)
    if "--demo" in sys.argv:
        _load_demo(store)
    port = int(sys.argv[1])
    database_port = urlsplit(os.environ["LEVELCRADLE_DATABASE"]).port
    app = create_app(store, FRONT_END, own_ports={port, *([database_port] if database_port else [])})
    gc.freeze()  # what stays for good is not searched for waste again: a search stops everybody for 80 ms
    uvicorn.run(
        app,
        host="127.0.0.1",
        port=port,
        log_level="warning",
        timeout_graceful_shutdown=1,
        timeout_keep_alive=KEEP_ALIVE_S,
    )


def _load_demo(store: Store) -> None:
    """On the first start: one that was deleted is not put there again."""
    there = {car.id for car in (*store.all(), *store.deleted())}
    for key, design in DEMOS.items():
        if key not in there:
            store.create(design(), "demo", id_=key)


if __name__ == "__main__":
    main()
