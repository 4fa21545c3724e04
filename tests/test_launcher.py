"""The launcher: a private cluster that survives a killed run, ports, and an application killed in the middle of
edits."""

import os
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest

from launcher.cluster import Cluster, free_port
from launcher.install import ROOT
from launcher.main import main
from levelcradle.core.design import dump
from levelcradle.demo import demo_design
from levelcradle.store import Store, StoreAway, connect


@pytest.fixture
def cluster() -> Iterator[Cluster]:
    found = Cluster(Path(tempfile.mkdtemp(prefix="level-cradle-launch-")))
    yield found
    found.remove()


def test_a_cluster_is_made_once_keeps_its_data_and_stops(cluster: Cluster) -> None:
    first = cluster.start()
    assert cluster.start() == first, "found running"
    database = connect(first)
    with database.connection_context():
        database.execute_sql("CREATE TABLE kept (n INTEGER)")
    database.close_all()
    cluster.stop()
    cluster.stop()
    again = connect(cluster.start())
    with again.connection_context():
        assert again.execute_sql("SELECT count(*) FROM kept").fetchone() == (0,)
    again.close_all()


def test_a_killed_cluster_starts_again_over_its_stale_pid_file(cluster: Cluster) -> None:
    cluster.start()
    pid_file = cluster.home / "data" / "postmaster.pid"
    os.kill(int(pid_file.read_text().splitlines()[0]), signal.SIGKILL)
    time.sleep(0.5)
    assert pid_file.exists()
    database = connect(cluster.start())
    with database.connection_context():
        assert database.execute_sql("SELECT 1").fetchone() == (1,)
    database.close_all()


def test_a_pid_file_that_is_just_being_written_is_no_server_yet_and_one_left_empty_is_taken_away(
    cluster: Cluster,
) -> None:
    cluster.start()
    cluster.stop()
    pid_file = cluster.home / "data" / "postmaster.pid"
    pid_file.write_text("")
    assert cluster.address() is None
    assert pid_file.exists()
    os.utime(pid_file, (time.time() - 60,) * 2)
    assert cluster.address() is None
    assert not pid_file.exists()


def test_a_first_run_that_was_killed_half_way_is_made_anew(cluster: Cluster) -> None:
    half = cluster.home / "data"
    half.mkdir(parents=True)
    (half / "leftover").write_text("x")
    assert cluster.start().startswith("postgresql://cradle:")
    assert not (half / "leftover").exists()


def test_the_cluster_listens_on_loopback_only_and_asks_for_its_password(cluster: Cluster) -> None:
    url = cluster.start()
    wrong = url.replace(url.split(":")[2].split("@")[0], "wrong")
    with pytest.raises(StoreAway) as refused, connect(wrong).connection_context():
        pass
    assert "authentication failed" in str(refused.value.__cause__)
    assert oct((cluster.home / "password").stat().st_mode)[-3:] == "600"
    database = connect(url)
    with database.connection_context():
        assert database.execute_sql("SHOW listen_addresses").fetchone() == ("127.0.0.1",)
    database.close_all()


def test_a_taken_port_is_passed_over() -> None:
    with socket.socket() as holder:
        holder.bind(("127.0.0.1", 0))
        holder.listen()
        taken = holder.getsockname()[1]
        assert free_port(taken) != taken
    assert free_port(taken) == taken


@pytest.mark.parametrize("words", [[], ["help"], ["--help"]])
def test_the_manual_is_printed(words: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    assert main(words, "the manual") == 0
    assert "the manual" in capsys.readouterr().out


COMMANDS = ("start", "demo", "test", "check", "drawings", "worker", "instruments", "shots", "generate")


@pytest.mark.parametrize("command", COMMANDS)
def test_every_command_answers_help_and_starts_nothing(command: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main([command, "--help"], "the manual") == 0
    assert f"COMMAND {command}" in capsys.readouterr().out


@pytest.mark.parametrize(
    "words", [["fly"], ["demo", "--hepl"], ["worker", "postgresql://a:b@c/d"], ["check"], ["check", "x", "--jso"]]
)
def test_what_is_not_known_is_refused(words: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    """Among it a database's address among the words, where every list of processes would show its password."""
    assert main(words, "the manual") == 2
    assert "usage" in capsys.readouterr().err


def serve(url: str, port: int) -> subprocess.Popen[bytes]:
    environment = {**os.environ, "LEVELCRADLE_DATABASE": url, "PYTHONPATH": str(ROOT)}
    server = subprocess.Popen([sys.executable, "-m", "levelcradle.server", str(port)], env=environment, cwd=ROOT)
    for _ in range(300):
        try:
            httpx.get(f"http://127.0.0.1:{port}/api/health", timeout=1)
            return server
        except httpx.HTTPError:
            time.sleep(0.1)
    server.kill()
    raise AssertionError("the server does not answer")


def test_a_server_killed_in_the_middle_of_edits_loses_none_that_it_acknowledged(database_url: str) -> None:
    store = Store(connect(database_url))
    car = store.create(demo_design(), "start")
    port = free_port()
    server = serve(database_url, port)
    acknowledged: list[str] = []

    def edit(name: str) -> None:
        with httpx.Client(base_url=f"http://127.0.0.1:{port}", headers={"X-Session": name}) as client:
            for n in range(400):
                key = f"{name}-{n}"
                patch = [{"op": "add", "path": f"/references/{key}", "value": {"name": key, "at_mm": [n, 0, 0]}}]
                try:
                    answer = client.patch(f"/api/projects/{car}", json={"patch": patch}, headers={"If-Match": "1"})
                except httpx.HTTPError:
                    return
                if answer.status_code == 200:
                    acknowledged.append(key)

    threads = [threading.Thread(target=edit, args=(name,)) for name in ("ann", "ben", "cas")]
    for thread in threads:
        thread.start()
    while len(acknowledged) < 12:
        time.sleep(0.01)
    server.send_signal(signal.SIGKILL)
    for thread in threads:
        thread.join()
    server.wait()
    again = serve(database_url, port)
    opened = httpx.get(f"http://127.0.0.1:{port}/api/projects/{car}", headers={"X-Session": "ann"}).json()
    again.terminate()
    again.wait()
    assert set(acknowledged) <= set(opened["document"]["references"])
    assert opened["revision"] >= 1 + len(acknowledged)
    assert dump(store.open(car).design)
