"""The commands on files: check and drawings. Neither needs the database."""

import json
import re
import signal
import socket
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from levelcradle.cli import main
from levelcradle.core.design import dump, validate
from levelcradle.demo import demo_design
from levelcradle.instruments import read_line


@pytest.fixture
def file(tmp_path: Path) -> Path:
    path = tmp_path / "ouzel.cradle.json"
    path.write_text(dump(demo_design()), encoding="utf-8")
    return path


def test_check_prints_the_findings_worst_first_and_exits_1_on_foul(
    file: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["check", str(file)]) == 1
    first = capsys.readouterr().out.splitlines()[0]
    assert first.split(maxsplit=2) == ["foul", "place", "Tank box to axle at full bump: 10.5 mm, needs 25.0 mm"]


def test_check_of_a_design_without_foul_exits_0(tree: dict[str, Any], tmp_path: Path) -> None:
    tree["boxes"]["tank"]["pose"]["at_mm"][0] = 2685.0
    path = tmp_path / "cured.cradle.json"
    path.write_text(dump(validate(tree)))
    assert main(["check", str(path)]) == 0


def test_check_as_json(file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["check", str(file), "--json"]) == 1
    told = json.loads(capsys.readouterr().out)
    assert told["released"] is False
    assert told["findings"][0]["margin"] == pytest.approx(-14.5)
    assert [step["what"] for step in told["findings"][0]["working"]][-3:] == ["needed", "margin", "may be off by"]


@pytest.mark.parametrize("text", ["", "{", '{"format": 1, "name": "x", "boxes": 3}'])
def test_an_unreadable_file_exits_2_and_says_where(
    text: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "broken.json"
    path.write_text(text)
    assert main(["check", str(path)]) == 2
    assert str(path) in capsys.readouterr().err
    assert main(["check", str(tmp_path / "none.json")]) == 2
    assert main(["drawings", str(path), str(tmp_path)]) == 2


def test_drawings_writes_the_pack(file: Path, tmp_path: Path) -> None:
    out = tmp_path / "pack"
    assert main(["drawings", str(file), str(out)]) == 0
    assert {p.name for p in out.iterdir()} >= {"cut", "drawings.pdf", "solids", "tables", "templates.pdf"}
    assert len(list(out.glob("cut/[AB]*.dxf"))) == 10


@pytest.mark.parametrize("words", [["fly"], ["check"], ["check", "a", "--jsn"], ["drawings", "a"], ["generate", "now"]])
def test_what_is_not_known_is_refused(words: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    assert main(words) == 2
    assert "usage: cradle" in capsys.readouterr().err


@pytest.mark.parametrize("command", ["check", "drawings", "generate"])
def test_every_command_tells_of_itself(command: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main([command, "--help"]) == 0
    assert command in capsys.readouterr().out


def test_the_simulated_instruments_print_where_they_listen_and_send_lines() -> None:
    command = [sys.executable, "-u", "-m", "levelcradle.instruments"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as running:
        assert running.stdout
        told = [running.stdout.readline() for _ in range(3)]
        ports = [int(re.search(r"127\.0\.0\.1:(\d+)", line)[1]) for line in told]  # type: ignore[index]
        lines = []
        for port in ports:
            with socket.create_connection(("127.0.0.1", port), timeout=5) as line:
                lines.append(line.makefile().readline())
        running.send_signal(signal.SIGINT)
        assert running.wait(10) == 0
    assert [line.split(" at ")[0] for line in told] == ["wheel scales", "distance meter", "voltmeter"]
    assert [read_line(line.strip())[1:] for line in lines] == [("kg", "lf"), ("mm", "distance"), ("V", "volts")]  # type: ignore[index]
