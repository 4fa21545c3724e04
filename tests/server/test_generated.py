"""What is generated has not drifted from the code it comes from."""

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
