"""A check asks what stands there, or is given what was written down: none reads the document off the assembly."""

import ast
from pathlib import Path

import levelcradle.core

ROOMS = ("clearance", "held", "level", "mount", "stock", "survey", "cut_findings.py")


def test_no_check_reads_the_document_off_the_assembly() -> None:
    core = Path(levelcradle.core.__file__).parent
    files = [
        file for room in ROOMS for file in ([core / room] if room.endswith(".py") else (core / room).rglob("*.py"))
    ]
    assert len(files) > 40
    reads = [
        f"{file.relative_to(core)}:{node.lineno}"
        for file in files
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8")))
        if isinstance(node, ast.Attribute) and node.attr == "design" and ast.unparse(node.value).endswith("assembly")
    ]
    assert reads == []
