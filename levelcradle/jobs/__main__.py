"""A worker on one database: ``python -m levelcradle.jobs``; its address is in ``LEVELCRADLE_DATABASE``."""

import os

from levelcradle.jobs import run_worker
from levelcradle.store import Store, connect, until_there


def main() -> None:
    database = connect(os.environ["LEVELCRADLE_DATABASE"])
    until_there(database)
    run_worker(Store(database))


if __name__ == "__main__":
    main()
