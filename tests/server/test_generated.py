"""What is generated has not drifted from the code it comes from."""

import json
import shutil
import subprocess
from pathlib import Path

import pytest

from levelcradle.generate import ROOT, generated

WEB = ROOT / "web"


@pytest.mark.parametrize("path", sorted(generated()), ids=lambda p: p.name)
def test_generated_files_are_up_to_date(path: Path) -> None:
    assert path.read_text(encoding="utf-8") == generated()[path], "run ./cradle generate"


def test_the_typed_client_is_up_to_date(tmp_path: Path) -> None:
    out = tmp_path / "schema.d.ts"
    tool = WEB / "node_modules" / ".bin" / "openapi-typescript"
    subprocess.run([tool, ROOT / "docs" / "openapi.json", "-o", out], check=True, capture_output=True, cwd=WEB)
    assert out.read_text() == (WEB / "src" / "design" / "schema.d.ts").read_text(), "run ./cradle generate"


def test_the_front_end_writes_figures_as_the_core_does(tmp_path: Path) -> None:
    """format.ts, compiled alone, gives every text of the vectors that the core wrote."""
    tsc = WEB / "node_modules" / ".bin" / "tsc"
    options = [
        "--ignoreConfig",
        "--outDir",
        tmp_path,
        "--module",
        "esnext",
        "--target",
        "es2022",
        "--moduleResolution",
        "bundler",
        "--skipLibCheck",
    ]
    subprocess.run([tsc, WEB / "src" / "ui" / "format.ts", *options], check=True, capture_output=True, cwd=WEB)
    module = next(tmp_path.rglob("format.js"))
    shutil.copy(module, tmp_path / "format.mjs")
    script = tmp_path / "run.mjs"
    script.write_text(
        "import {length, mass} from './format.mjs'; import {readFileSync} from 'fs';"
        "const v = JSON.parse(readFileSync(process.argv[2]));"
        "const wrong = v.lengths.filter(r => length(r.value, r.unit, r.round) !== r.text)"
        ".concat(v.masses.filter(r => mass(r.value, r.unit) !== r.text));"
        "console.log(JSON.stringify(wrong))"
    )
    vectors = WEB / "src" / "ui" / "format.vectors.json"
    done = subprocess.run(["node", script, vectors], check=True, capture_output=True, text=True)
    assert json.loads(done.stdout) == []
