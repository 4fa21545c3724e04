"""Names of files: what a thing is marked and called, in letters that every system takes."""

import re
import unicodedata

from levelcradle.core.part import FlatPart

__all__ = ["file_stem", "plain_name"]

MOST = 60


def plain_name(text: str) -> str:
    """Small letters, figures and dashes; what has no such letters is left out.

    >>> plain_name("=cmd|' /C …/Träger ⌀10")
    'cmd-c-trager-10'
    """
    letters = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode()
    return re.sub(r"[^a-z0-9]+", "-", letters.lower()).strip("-")[:MOST].strip("-")


def file_stem(part: FlatPart) -> str:
    """Mark, name, material, thickness and how many: ``A1-tank-box-tray-mild-steel-3mm-1off``."""
    words = plain_name(part.each[0].name if part.each else part.name)
    thick = f"{part.thickness_mm:g}".replace(".", "_")
    rows = (part.mark or plain_name(part.id), words, plain_name(part.material_name)[:24], f"{thick}mm")
    return "-".join((*(row.strip("-") for row in rows if row), f"{part.quantity}off"))
