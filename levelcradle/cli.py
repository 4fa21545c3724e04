"""Commands on design files: ``check``, ``drawings`` and ``generate``. None needs the database."""

import json
import sys
from pathlib import Path

from levelcradle.core.analysis import Analysis, analyse
from levelcradle.core.design import Design, load
from levelcradle.core.errors import DesignError
from levelcradle.core.finding import says
from levelcradle.core.meshes import Mesh

__all__ = ["main"]

UNREADABLE = 2
WORDS = {"unknown": "not known"}
NO_SCANS: dict[str, Mesh] = {}  # a file brings none along; the findings say so, and nothing is released over it


def main(arguments: list[str]) -> int:
    """Runs one command; returns its exit code."""
    if arguments[:1] == ["check"] and len(arguments) in (2, 3):
        return check(Path(arguments[1]), as_json="--json" in arguments)
    if arguments[:1] == ["drawings"] and len(arguments) == 3:
        return drawings(Path(arguments[1]), Path(arguments[2]))
    if arguments == ["generate"]:
        from levelcradle.generate import generate

        return generate()
    print("cradle check FILE [--json] · cradle drawings FILE DIR", file=sys.stderr)
    return UNREADABLE


def _read(path: Path) -> Design | None:
    try:
        return load(path.read_bytes())
    except OSError as error:
        print(f"{path}: {error.strerror}", file=sys.stderr)
    except DesignError as error:
        for problem in error.problems:
            print(f"{path}: {problem.path or '/'}: {problem.says}", file=sys.stderr)
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
    return [f"{WORDS.get(f.state, f.state):9} {f.station:9} {says(f)}" for f in analysis.findings]


def _as_json(analysis: Analysis) -> str:
    rows = [
        {"id": f.id, "code": f.code, "station": f.station, "state": f.state, "subjects": f.subjects, "says": says(f),
         "value": f.value, "limit": f.limit, "margin": f.margin, "unit": f.unit, "tolerance": f.tolerance,
         "because": f.because, "points_mm": f.points_mm}
        for f in analysis.findings
    ]  # fmt: skip
    return json.dumps({"released": analysis.released, "findings": rows}, ensure_ascii=False, indent=1)


def drawings(path: Path, folder: Path) -> int:
    """Writes the fabrication pack of a design."""
    from levelcradle.drawings import pack_files

    design = _read(path)
    if design is None:
        return UNREADABLE
    folder.mkdir(parents=True, exist_ok=True)
    files = pack_files(design, NO_SCANS)
    for name, data in files.items():
        (folder / name).write_bytes(data)
        print(folder / name)
    if not files:
        print("Nothing to cut yet: the design has no box.")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
