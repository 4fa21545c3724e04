"""The commands."""

import ctypes
import fcntl
import os
import signal
import subprocess
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from launcher import install
from launcher.cluster import Cluster, free_port
from launcher.install import PYTHON, ROOT, VAR
from launcher.say import Trouble, say

__all__ = ["main"]

USUAL_PORT = 8460


def main(arguments: list[str], manual: str) -> int:
    """Runs one command; returns its exit code."""
    commands: dict[str, Callable[[list[str]], int]] = {
        "start": lambda _: serve(demo=False),
        "demo": lambda _: serve(demo=True),
        "test": test,
        "check": lambda rest: headless("check", rest),
        "drawings": lambda rest: headless("drawings", rest),
        "generate": lambda rest: headless("generate", rest),
        "shots": lambda _: shots(),
        "instruments": lambda _: instruments(),
        "worker": worker,
    }
    command = commands.get(arguments[0] if arguments else "")
    if command is None:
        print(manual.strip())
        return 0 if arguments[:1] in ([], ["help"], ["--help"]) else 2
    for number in (signal.SIGTERM, signal.SIGINT):  # also where a shell started us with SIGINT ignored
        signal.signal(number, _interrupt)
    try:
        return command(arguments[1:])
    except Trouble as trouble:
        say(f"Cannot go on. {trouble}")
        return 3
    except KeyboardInterrupt:
        return 130


def _interrupt(*_: object) -> None:
    raise KeyboardInterrupt


@contextmanager
def _only_one() -> Iterator[None]:
    """One running application a checkout; the lock goes with the process, however that ends."""
    VAR.mkdir(exist_ok=True)
    with (VAR / "lock").open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            address = VAR / "address"
            where = f" at {address.read_text()}" if address.exists() else ""
            raise Trouble(f"It is running already{where}. Stop that one first (Ctrl-C in its window).") from None
        yield


def serve(*, demo: bool) -> int:
    """Installs, starts everything on loopback, prints the address, and waits for Ctrl-C."""
    with _only_one():
        _prepare()
        with running(Cluster(), demo=demo) as address:
            (VAR / "address").write_text(address)
            say("ready; Ctrl-C stops everything")
            print(f"Level Cradle is at {address}{'/car/demo' if demo else ''}", flush=True)
            try:
                while True:
                    time.sleep(3600)
            except KeyboardInterrupt:
                say("stopping")
    say("stopped")
    return 0


def _prepare(*, tests: bool = False) -> None:
    install.debian(browser=tests)
    install.python(tests=tests)
    install.front_end()


@contextmanager
def running(cluster: Cluster, *, demo: bool) -> Iterator[str]:
    """The application over a cluster, as an address; stopped with everything it started on the way out."""
    try:
        say("starting the database")
        database = cluster.start()
        port = free_port(USUAL_PORT)
        if port != USUAL_PORT:
            say(f"port {USUAL_PORT} is taken, so {port} serves")
        say("starting the server")
        with serving(database, port, demo=demo) as address, _process(database, "levelcradle.jobs"):
            yield address
    finally:
        cluster.stop()


@contextmanager
def serving(database: str, port: int, *, demo: bool) -> Iterator[str]:
    """The server alone, as an address that answers."""
    address = f"http://127.0.0.1:{port}"
    with _process(database, "levelcradle.server", str(port), *(["--demo"] if demo else [])) as server:
        _wait_for(address, server)
        yield address


@contextmanager
def _process(database: str, module: str, *arguments: str) -> Iterator[subprocess.Popen[bytes]]:
    """One of our processes over a database, ended on the way out."""
    environment = {**_environment(), "LEVELCRADLE_DATABASE": database}
    started = subprocess.Popen([str(PYTHON), "-m", module, *arguments], cwd=ROOT, preexec_fn=_die_with_us, env=environment)
    try:
        yield started
    finally:
        started.terminate()
        try:
            started.wait(10)
        except subprocess.TimeoutExpired:
            started.kill()


def worker(arguments: list[str]) -> int:
    """One more worker for long work: on the running application's database, or on the one whose address is given."""
    install.python()
    database = arguments[0] if arguments else Cluster().address()
    if database is None:
        raise Trouble("Nothing runs here. Start the application first, or give the address of its database.")
    with _process(database, "levelcradle.jobs") as working:
        say("a worker takes studies; Ctrl-C stops it")
        with suppress(KeyboardInterrupt):
            return working.wait()
    return 0


def _environment() -> dict[str, str]:
    kept = {key: value for key, value in os.environ.items() if key != "PYTHONDONTWRITEBYTECODE"}  # or every start compiles anew
    return {**kept, "PYTHONPATH": str(ROOT), "OPENBLAS_NUM_THREADS": "1"}


def _die_with_us() -> None:
    """The server goes when the launcher is killed (Linux: PR_SET_PDEATHSIG), and Ctrl-C is the launcher's alone."""
    os.setpgrp()
    ctypes.CDLL(None).prctl(1, signal.SIGTERM)


def _wait_for(address: str, server: subprocess.Popen[bytes]) -> None:
    for _ in range(300):
        if server.poll() is not None:
            raise Trouble("The server stopped while starting; what it said stands above.")
        try:
            with urllib.request.urlopen(f"{address}/api/health", timeout=2):
                return
        except OSError:
            time.sleep(0.1)
    raise Trouble("The server does not answer.")


def headless(command: str, arguments: list[str]) -> int:
    """Commands on files; they need no database."""
    install.debian(database=False)
    install.python(tests=command == "generate")
    return subprocess.run([str(PYTHON), "-m", "levelcradle.cli", command, *arguments], env=_environment()).returncode


def instruments() -> int:
    """The simulated instruments, until Ctrl-C."""
    install.python()
    return subprocess.run([str(PYTHON), "-m", "levelcradle.instruments"], cwd=ROOT, env=_environment()).returncode


def test(arguments: list[str]) -> int:
    """Every check and test, over a database cluster of its own."""
    _prepare(tests=True)
    environment = _environment()
    if not arguments:
        for name, check in _CHECKS.items():
            say(name)
            done = subprocess.run(check, cwd=ROOT / "web" if check[0] in ("npx", "npm") else ROOT, env=environment)
            if done.returncode != 0:
                say(f"{name}: failed")
                return done.returncode
    home = Path(tempfile.mkdtemp(prefix="level-cradle-test-"))
    cluster = Cluster(home)
    try:
        say("starting a database for the tests")
        environment["LEVELCRADLE_TEST_DATABASE"] = cluster.start()
        say("pytest")
        return subprocess.run([str(PYTHON), "-m", "pytest", *(arguments or _ALL)], cwd=ROOT, env=environment).returncode
    finally:
        cluster.remove()


_ALL = ["-n", "auto", "--dist", "worksteal"]  # one run to a core
_TOOLS = ROOT / ".venv" / "bin"
_CHECKS = {
    "lint": [str(_TOOLS / "ruff"), "check", "."],
    "format": [str(_TOOLS / "ruff"), "format", "--check", "."],
    "types": [str(_TOOLS / "mypy")],
    "import directions": [str(_TOOLS / "lint-imports"), "--no-cache"],
    "front end: types": ["npx", "tsc", "--noEmit"],
    "front end: lint and format": ["npm", "run", "--silent", "lint"],
}


def shots() -> int:
    """docs/screenshots/ afresh from the demo, in a database of its own."""
    _prepare(tests=True)
    with running(Cluster(Path(tempfile.mkdtemp(prefix="level-cradle-shots-"))), demo=True) as address:
        say("taking the pictures")
        command = [str(PYTHON), "-m", "levelcradle.shots", address]
        return subprocess.run(command, cwd=ROOT, env=_environment()).returncode
