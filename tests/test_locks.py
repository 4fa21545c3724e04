"""Lock files hold versions and hashes, and name no host."""

import json
import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
LOCKS = ("requirements.txt", "requirements-dev.txt", "requirements-uv.txt", "web/package-lock.json")


@pytest.mark.parametrize("name", LOCKS)
def test_no_lock_names_a_host(name: str) -> None:
    assert not re.search(r"https?://", (ROOT / name).read_text())


@pytest.mark.parametrize("name", LOCKS[:3])
def test_every_python_package_is_pinned_with_its_hashes(name: str) -> None:
    text = (ROOT / name).read_text()
    pins = re.findall(r"^[a-z0-9].*==\S+ \\$", text, re.MULTILINE)
    packages = [line for line in text.splitlines() if re.match(r"[a-zA-Z0-9]", line)]
    assert len(pins) == len(packages) > 0
    assert text.count("--hash=sha256:") >= len(pins)


def test_every_front_end_package_is_pinned_with_its_hash() -> None:
    lock = json.loads((ROOT / "web/package-lock.json").read_text())
    packages = {name: p for name, p in lock["packages"].items() if name and not p.get("link")}
    assert all("version" in p for p in packages.values())
    assert [name for name, p in packages.items() if "integrity" not in p and not p.get("inBundle")] == []
    wanted = json.loads((ROOT / "web/package.json").read_text())
    versions = [*wanted["dependencies"].values(), *wanted["devDependencies"].values()]
    assert all(re.fullmatch(r"\d+\.\d+\.\d+", v) for v in versions)
