"""The commands."""

import argparse
import ctypes
import fcntl
import os
import signal
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager, suppress
from pathlib import Path

from launcher import install
from launcher.cluster import Cluster, free_port
from launcher.install import PYTHON, ROOT, VAR
from launcher.say import Trouble, say
from launcher.watch import Part, Process, watch

__all__ = ["main"]

USUAL_PORT = 8460


def main(arguments: list[str], manual: str) -> int:
    """Runs one command; returns its exit code. Every command answers --help, and refuses what it does not know."""
    parser, rest = _parser(manual), list[str]()
    if arguments[:1] == ["help"]:
        arguments = ["--help", *arguments[1:]]
    if arguments[:1] == ["test"] and not {"-h", "--help"} & set(arguments):
        arguments, rest = arguments[:1], arguments[1:]  # pytest's own words go to pytest as they are
    try:
        asked = parser.parse_args(arguments)
    except SystemExit as leaving:
        return int(leaving.code or 0)
    if asked.command is None:
        print(manual.strip())
        return 0
    for number in (signal.SIGTERM, signal.SIGINT):  # also where a shell started us with SIGINT ignored
        signal.signal(number, _interrupt)
    try:
        return _COMMANDS[asked.command](asked, rest)
    except Trouble as trouble:
        say(f"Cannot go on. {trouble}")
        return 3
    except KeyboardInterrupt:
        return 130


def _parser(manual: str) -> argparse.ArgumentParser:
    formatter = argparse.RawDescriptionHelpFormatter
    parser = argparse.ArgumentParser(
        prog="cradle",
        usage="./cradle COMMAND",
        description=manual.strip(),
        formatter_class=formatter,
        allow_abbrev=False,
    )
    commands = parser.add_subparsers(dest="command", metavar="COMMAND")
    for name, says in _SAYS.items():
        commands.add_parser(name, help=says, description=says, allow_abbrev=False)
    commands.choices["test"].add_argument(
        "pytest", nargs="*", help="what pytest is to run; everything where nothing is said"
    )
    check, drawings = commands.choices["check"], commands.choices["drawings"]
    check.add_argument("file", metavar="FILE")
    check.add_argument("--json", action="store_true", help="as JSON, with the working of every finding")
    drawings.add_argument("file", metavar="FILE")
    drawings.add_argument("folder", metavar="DIR")
    commands.choices["worker"].add_argument(
        "--database-from",
        metavar="FILE",
        help="a file that holds the address of the database (- reads it from standard input), so that "
        "no list of processes shows it; else LEVELCRADLE_DATABASE, else the application that runs here",
    )
    return parser


_SAYS = {
    "start": "installs what is missing, starts everything on this machine alone, prints the address",
    "demo": "the same with the demo car",
    "test": "every check and test, over a database of its own",
    "check": "findings of a design file; exit 1 on foul, 2 on an unreadable file",
    "drawings": "the fabrication pack of a design file",
    "worker": "one more worker for long work, here or on another machine",
    "instruments": "simulated wheel scales, distance meter and voltmeter, to try with",
    "shots": "docs/screenshots/ afresh from the demo",
    "generate": "what is generated from the code: schemas, typed client, format vectors",
}


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
        with running(Cluster(), demo=demo) as (address, parts):
            (VAR / "address").write_text(address)
            say("ready; Ctrl-C stops everything")
            print(f"Level Cradle is at {address}{'/car/demo' if demo else ''}", flush=True)
            try:
                watch(parts)
            except KeyboardInterrupt:
                say("stopping")
    say("stopped")
    return 0


def _prepare(*, tests: bool = False) -> None:
    install.debian(browser=tests)
    install.python(tests=tests)
    install.front_end()


@contextmanager
def running(cluster: Cluster, *, demo: bool) -> Iterator[tuple[str, list[Part]]]:
    """The application over a cluster: its address, and its parts to be watched; stopped with everything it started on
    the way out."""
    held: list[Process] = []
    try:
        say("starting the database")
        database = cluster.start()
        port = free_port(USUAL_PORT)
        if port != USUAL_PORT:
            say(f"port {USUAL_PORT} is taken, so {port} serves")
        say("starting the server")
        address = f"http://127.0.0.1:{port}"
        server = Process(lambda: _begun(database, "levelcradle.server", str(port), *(["--demo"] if demo else [])))
        held.append(server)
        _wait_for(address, server.running)
        worker_ = Process(lambda: _begun(database, "levelcradle.jobs"))
        held.append(worker_)
        yield (
            address,
            [
                Part("database", lambda: cluster.address() is not None, cluster.restart),
                Part("server", server.lives, server.again),
                Part("worker", worker_.lives, worker_.again),
            ],
        )
    finally:
        for process in reversed(held):
            process.end()
        cluster.stop()


@contextmanager
def serving(database: str, port: int, *, demo: bool) -> Iterator[str]:
    """The server alone, as an address that answers."""
    address = f"http://127.0.0.1:{port}"
    with _process(database, "levelcradle.server", str(port), *(["--demo"] if demo else [])) as server:
        _wait_for(address, server)
        yield address


@contextmanager
def _process(database: str, module: str, *arguments: str) -> Iterator["subprocess.Popen[bytes]"]:
    """One of our processes over a database, ended on the way out."""
    process = Process(lambda: _begun(database, module, *arguments))
    try:
        yield process.running
    finally:
        process.end()


def _begun(database: str, module: str, *arguments: str) -> "subprocess.Popen[bytes]":
    """The address goes by the environment: no list of processes shows the password."""
    environment = {**_environment(), "LEVELCRADLE_DATABASE": database}
    return subprocess.Popen([str(PYTHON), "-m", module, *arguments], cwd=ROOT, preexec_fn=_die_with_us, env=environment)


def worker(source: str | None) -> int:
    """One more worker for long work: on the database whose address a file or the environment holds, or the running
    application's."""
    install.python()
    database = _database(source)
    if database is None:
        raise Trouble(
            "Nothing runs here. Start the application first, or say where the address of its database is: "
            "--database-from FILE."
        )
    with _process(database, "levelcradle.jobs") as working:
        say("a worker takes studies and scans; Ctrl-C stops it")
        with suppress(KeyboardInterrupt):
            return working.wait()
    return 0


def _database(source: str | None) -> str | None:
    if source == "-":
        return sys.stdin.readline().strip()
    if source is not None:
        try:
            return Path(source).read_text().strip()
        except OSError as error:
            raise Trouble(f"{source} cannot be read: {error.strerror}.") from None
    return os.environ.get("LEVELCRADLE_DATABASE") or Cluster().address()


def _environment() -> dict[str, str]:
    kept = {
        key: value for key, value in os.environ.items() if key != "PYTHONDONTWRITEBYTECODE"
    }  # or every start compiles anew
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
        failed = _checked(environment)
        if failed:
            return failed
    home = Path(tempfile.mkdtemp(prefix="level-cradle-test-"))
    cluster = Cluster(home)
    try:
        say("starting a database for the tests")
        environment["LEVELCRADLE_TEST_DATABASE"] = cluster.start()
        say("pytest")
        return subprocess.run([str(PYTHON), "-m", "pytest", *(arguments or _ALL)], cwd=ROOT, env=environment).returncode
    finally:
        cluster.remove()


def _checked(environment: Mapping[str, str]) -> int:
    """All checks beside each other, as many at a time as there are cores; what fails tells what it has to say."""

    def run(check: list[str]) -> subprocess.CompletedProcess[str]:
        where = ROOT / "web" if check[0] in ("npx", "npm") else ROOT
        return subprocess.run(check, cwd=where, env=environment, capture_output=True, text=True)

    with ThreadPoolExecutor(os.cpu_count()) as beside:
        for name, done in zip(_CHECKS, beside.map(run, _CHECKS.values()), strict=True):
            say(name)
            if done.returncode != 0:
                sys.stdout.write(done.stdout + done.stderr)
                say(f"{name}: failed")
                return done.returncode
    return 0


_ALL = [
    "-n",
    str((os.cpu_count() or 1) + 1),
    "--dist",
    "worksteal",
]  # one more than there are cores: in the browser much is waited for
_TOOLS = ROOT / ".venv" / "bin"
_CHECKS = {
    "lint": [str(_TOOLS / "ruff"), "check", "."],
    "format": [str(_TOOLS / "ruff"), "format", "--check", "."],
    "types": [str(_TOOLS / "mypy")],
    "import directions": [str(_TOOLS / "lint-imports"), "--no-cache"],
    "front end: types": ["npx", "tsc", "--noEmit"],
    "front end: lint and format": ["npm", "run", "--silent", "lint"],
    "front end: tests of its parts": ["npm", "run", "--silent", "test"],
}


def shots() -> int:
    """docs/screenshots/ afresh from the demo, in a database of its own."""
    _prepare(tests=True)
    with running(Cluster(Path(tempfile.mkdtemp(prefix="level-cradle-shots-"))), demo=True) as (address, _):
        say("taking the pictures")
        command = [str(PYTHON), "-m", "levelcradle.shots", address]
        return subprocess.run(command, cwd=ROOT, env=_environment()).returncode


_COMMANDS: dict[str, Callable[[argparse.Namespace, list[str]], int]] = {
    "start": lambda asked, rest: serve(demo=False),
    "demo": lambda asked, rest: serve(demo=True),
    "test": lambda asked, rest: test(rest),
    "check": lambda asked, rest: headless("check", [asked.file, *(["--json"] if asked.json else [])]),
    "drawings": lambda asked, rest: headless("drawings", [asked.file, asked.folder]),
    "generate": lambda asked, rest: headless("generate", []),
    "shots": lambda asked, rest: shots(),
    "instruments": lambda asked, rest: instruments(),
    "worker": lambda asked, rest: worker(asked.database_from),
}
