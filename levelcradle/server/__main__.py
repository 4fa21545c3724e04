"""Serves one database: ``python -m levelcradle.server PORT [--demo]``; its address is in ``LEVELCRADLE_DATABASE``,
so that no list of processes shows the password."""

import gc
import os
import sys
from pathlib import Path

import uvicorn

from levelcradle.core.errors import UnknownThing
from levelcradle.demo import demo_design
from levelcradle.server.app import create_app
from levelcradle.store import Store, connect, migrate

DEMO = "demo"
FRONT_END = Path(__file__).parents[2] / "web" / "dist"


def main() -> None:
    database = connect(os.environ["LEVELCRADLE_DATABASE"])
    migrate(database)
    store = Store(database)
    if "--demo" in sys.argv:
        _load_demo(store)
    app = create_app(store, FRONT_END)
    gc.freeze()  # what stays for good is not searched for waste again: a search stops everybody for 80 ms
    uvicorn.run(app, host="127.0.0.1", port=int(sys.argv[1]), log_level="warning", timeout_graceful_shutdown=1)


def _load_demo(store: Store) -> None:
    try:
        store.open(DEMO)
    except UnknownThing:
        store.create(demo_design(), "demo", id_=DEMO)


if __name__ == "__main__":
    main()
