"""Installs what is missing: Debian packages, the Python environment, the front end. Each step is skipped when a stamp
says that it was done for the same inputs."""

import glob
import hashlib
import os
import shutil
import subprocess
import sys
from collections.abc import Iterable
from ctypes.util import find_library
from pathlib import Path

from launcher.say import Trouble, say

__all__ = ["PYTHON", "ROOT", "VAR", "debian", "front_end", "postgres_bin", "python"]

ROOT = Path(__file__).resolve().parents[1]
VAR = ROOT / "var"
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
WEB = ROOT / "web"
FONT = Path("/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf")


def postgres_bin() -> Path | None:
    """Folder of PostgreSQL's programs: Debian does not put them on PATH."""
    found = sorted(glob.glob("/usr/lib/postgresql/*/bin/initdb"), key=lambda p: int(p.split("/")[4]))
    return Path(found[-1]).parent if found else None


def _has_venv() -> bool:
    return (
        PYTHON.exists()
        or subprocess.run([sys.executable, "-c", "import ensurepip, venv"], capture_output=True).returncode == 0
    )


def debian(*, database: bool = True, browser: bool = False) -> None:
    """Installs the Debian packages that are missing. Raises Trouble."""
    wanted = {
        "python3-venv": _has_venv(),
        "fonts-dejavu-core": FONT.exists(),
        "libgl1": bool(find_library("GL")),  # the kernel of solid files is linked to it
        "libx11-6": bool(find_library("X11")),
    }
    if database:
        wanted["postgresql"] = postgres_bin() is not None
    if browser:
        wanted["chromium"] = Path("/usr/bin/chromium").exists()
        wanted["libatomic1"] = bool(find_library("atomic"))  # the browser tests' driver needs it
    missing = [name for name, there in wanted.items() if not there]
    if not missing:
        return
    say(f"installing {', '.join(missing)} from Debian (a minute or two)")
    _apt(missing)


def _apt(packages: list[str]) -> None:
    words = f"apt-get install {' '.join(packages)}"
    if shutil.which("apt-get") is None:
        raise Trouble(f"This machine has no apt-get. Please install yourself: {', '.join(packages)}.")
    front: list[str] = []
    if os.geteuid() != 0:
        if shutil.which("sudo") is None or subprocess.run(["sudo", "-n", "true"], capture_output=True).returncode != 0:
            raise Trouble(f"Some packages are missing and need an administrator. Please run: sudo {words}")
        front = ["sudo", "-n"]
    quiet = [*front, "env", "DEBIAN_FRONTEND=noninteractive", "apt-get", "-qq", "-o", "Dpkg::Use-Pty=0"]
    for command in ([*quiet, "update"], [*quiet, "install", "-y", "--no-install-recommends", *packages]):
        done = subprocess.run(command, capture_output=True, text=True)
        if done.returncode != 0:
            raise Trouble(f"Debian's package manager failed on “{words}”:\n{(done.stderr or done.stdout)[-800:]}")


def python(*, tests: bool = False) -> None:
    """The virtual environment with everything from the lock file. Raises Trouble."""
    lock = ROOT / ("requirements-dev.txt" if tests else "requirements.txt")
    stamp = VENV / f".{lock.stem}"
    need = _digest([lock])
    if PYTHON.exists() and stamp.exists() and stamp.read_text() == need:
        return
    if not PYTHON.exists():
        say("making the Python environment")
        _run([sys.executable, "-m", "venv", str(VENV)])
    say(f"installing Python packages from {lock.name} (about a minute)")
    if not (VENV / "bin" / "uv").exists():
        _run([str(PYTHON), "-m", "pip", "install", "-q", "--require-hashes", "-r", str(ROOT / "requirements-uv.txt")])
    environment = {**os.environ, "VIRTUAL_ENV": str(VENV), "UV_LINK_MODE": "copy"}
    _run(
        [str(VENV / "bin" / "uv"), "pip", "install", "-q", "--compile-bytecode", "--require-hashes", "-r", str(lock)],
        env=environment,
    )
    stamp.write_text(need)


def front_end() -> None:
    """node_modules and the build. Raises Trouble."""
    if shutil.which("npm") is None:
        raise Trouble("Node 20 with npm is needed to build the front end, and there is none on this machine.")
    lock = WEB / "package-lock.json"
    modules, need = WEB / "node_modules" / ".stamp", _digest([lock])
    if not (modules.exists() and modules.read_text() == need):
        say("installing the front end's packages (about half a minute)")
        _run(["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error"], cwd=WEB)
        modules.write_text(need)
    sources = [p for p in (*WEB.glob("*.*"), *(WEB / "src").rglob("*")) if p.is_file()]
    built, need = WEB / "dist" / ".stamp", _digest(sorted(sources))
    if not (built.exists() and built.read_text() == need):
        say("building the front end")
        _run(["npm", "run", "--silent", "build"], cwd=WEB)
        built.write_text(need)


def _digest(files: Iterable[Path]) -> str:
    total = hashlib.sha256()
    for file in files:
        total.update(str(file.relative_to(ROOT)).encode())
        total.update(file.read_bytes())
    return total.hexdigest()


def _run(command: list[str], **more: object) -> None:
    done = subprocess.run(command, capture_output=True, text=True, **more)  # type: ignore[call-overload]
    if done.returncode != 0:
        raise Trouble(f"This failed: {' '.join(command)}\n{(done.stderr or done.stdout)[-1500:]}")
