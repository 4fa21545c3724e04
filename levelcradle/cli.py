"""Commands on design files: ``check``, ``drawings`` and ``generate``. None needs the database."""

import argparse
import json
import sys
from dataclasses import asdict
from pathlib import Path

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.design import Design, load
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import message_text
from levelcradle.core.meshes import Mesh

__all__ = ["main"]

UNREADABLE = 2
WORDS = {"unknown": "not known"}
NO_SCANS: dict[str, Mesh] = {}  # a file brings none along; the findings say so, and nothing is released over it


def main(arguments: list[str]) -> int:
    """Runs one command; returns its exit code. ``--help`` tells of each; what it does not know it refuses."""
    try:
        asked = _parser().parse_args(arguments)
    except SystemExit as leaving:
        return int(leaving.code or 0)
    if asked.command == "check":
        return check(asked.file, as_json=asked.json)
    if asked.command == "drawings":
        return drawings(asked.file, asked.folder)
    from levelcradle.generate import generate

    return generate()


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="cradle", description="Commands on design files; none needs the database.", allow_abbrev=False
    )
    commands = parser.add_subparsers(dest="command", required=True)
    checks = commands.add_parser(
        "check", help="findings of a design file; exit 1 on foul, 2 on an unreadable file", allow_abbrev=False
    )
    checks.add_argument("file", type=Path, metavar="FILE")
    checks.add_argument("--json", action="store_true", help="as JSON, with the working of every finding")
    draws = commands.add_parser("drawings", help="the fabrication pack of a design file", allow_abbrev=False)
    draws.add_argument("file", type=Path, metavar="FILE")
    draws.add_argument("folder", type=Path, metavar="DIR")
    commands.add_parser(
        "generate", help="what is generated from the code: schemas, typed client, format vectors", allow_abbrev=False
    )
    return parser


def _read(path: Path) -> Design | None:
    try:
        return load(path.read_bytes())
    except OSError as error:
        print(f"{path}: {error.strerror}", file=sys.stderr)
    except DesignError as error:
        for problem in error.problems:
            print(f"{path}: {problem.path or '/'}: {problem.message}", file=sys.stderr)
    return None


def check(path: Path, *, as_json: bool) -> int:
    """Prints the findings, worst first; 1 when any is foul, 2 when the file cannot be read."""
    design = _read(path)
    if design is None:
        return UNREADABLE
    analysis = analyse(design, NO_SCANS)
    print(_as_json(analysis) if as_json else "\n".join(_lines(analysis)))
    return 1 if any(f.state == "foul" for f in analysis.findings) else 0


def _lines(analysis: Analysis) -> list[str]:
    return [f"{WORDS.get(f.state, f.state):9} {f.station:9} {message_text(f)}" for f in analysis.findings]


def _as_json(analysis: Analysis) -> str:
    rows = [
        {
            "id": f.id,
            "code": f.code,
            "station": f.station,
            "state": f.state,
            "subjects": f.subjects,
            "message": message_text(f),
            "value": f.value,
            "limit": f.limit,
            "margin": f.margin,
            "unit": f.unit,
            "tolerance": f.tolerance,
            "rationale": f.rationale,
            "points_mm": f.points_mm,
            "working": [asdict(step) for step in f.working()] if f.working else [],
        }
        for f in analysis.findings
    ]
    return json.dumps({"released": analysis.released, "findings": rows}, ensure_ascii=False, indent=1)


def drawings(path: Path, folder: Path) -> int:
    """Writes the fabrication pack of a design."""
    from levelcradle.drawings import make_pack

    design = _read(path)
    if design is None:
        return UNREADABLE
    folder.mkdir(parents=True, exist_ok=True)
    files = make_pack(design, NO_SCANS).files
    for name, data in files.items():
        (folder / name).parent.mkdir(parents=True, exist_ok=True)
        (folder / name).write_bytes(data)
        print(folder / name)
    if not files:
        print("Nothing to cut yet: the design has no box.")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
