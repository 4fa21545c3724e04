"""A worker on one database: ``python -m levelcradle.jobs``; its address is in ``LEVELCRADLE_DATABASE``."""

import os
from importlib import import_module

from levelcradle.jobs import run_worker
from levelcradle.store import Store, connect, until_there

SOLVERS = ("ortools.linear_solver.pywraplp", "ortools.sat.python.cp_model")


def main() -> None:
    database = connect(os.environ["LEVELCRADLE_DATABASE"])
    until_there(database)
    for solver in SOLVERS:
        import_module(solver)  # dear, and the first study is not to wait for it
    run_worker(Store(database))


if __name__ == "__main__":
    main()
