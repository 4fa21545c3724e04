"""The shelf as a table: CSV as spreadsheets write it, read with a preview, and written again."""

import csv
import io
import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from levelcradle.core.design import Design
from levelcradle.core.errors import ReadingError
from levelcradle.core.quantity import QuantityKind, read
from levelcradle.exchange.errors import FileRefused

__all__ = ["FIELDS", "ShelfPreview", "ShelfRowPreview", "read_shelf", "write_shelf"]

MOST_ROWS = 2000
LARGEST_BYTES = 5_000_000
FIELDS: dict[str, tuple[str, ...]] = {
    "name": ("name", "module", "label", "no", "nr", "number"),
    "serial": ("serial", "serial number", "s/n", "sn"),
    "kind": ("kind", "type", "model", "module kind"),
    "on": ("date", "on", "day", "tested"),
    "open_circuit_v": ("voltage", "v", "volts", "open circuit", "ocv", "open-circuit voltage", "reading"),
    "resistance_mohm": ("resistance", "internal resistance", "ir", "mohm", "mω", "milliohm"),
    "temperature_c": ("temperature", "temp", "°c", "c"),
    "mass_kg": ("mass", "weight", "kg"),
    "verdict": ("verdict", "state", "result"),
    "damage": ("damage", "note", "notes", "remark", "remarks"),
}
"""What a column can become, and the headings it goes by."""
_NUMBERS: dict[str, QuantityKind] = {
    "open_circuit_v": "voltage",
    "resistance_mohm": "number",
    "temperature_c": "number",
    "mass_kg": "mass",
}


@dataclass(frozen=True, slots=True)
class ShelfRowPreview:
    """One line of the file: what it becomes (a module's fields and its test's), or why it is refused."""

    line: int
    name: str
    becomes: Mapping[str, Any]
    refused: str


@dataclass(frozen=True, slots=True)
class ShelfPreview:
    """How a file was understood: its encoding and divider, its columns and what each becomes ("" for nothing), its
    rows."""

    encoding: str
    divider: str
    columns: tuple[tuple[str, str], ...]
    rows: tuple[ShelfRowPreview, ...]


def read_shelf(data: bytes, design: Design, mapping: Mapping[str, str] | None, kind: str | None) -> ShelfPreview:
    """A CSV of modules. Raises FileRefused.

    Args:
        mapping: column heading → field, "" to leave it out; None to go by the headings.
        kind: the module kind of rows that name none.
    """
    text, encoding = _text(data)
    divider = _divider(text)
    rows = [row for row in csv.reader(io.StringIO(text), delimiter=divider) if any(cell.strip() for cell in row)]
    if len(rows) < 2:
        raise FileRefused("The table needs a line of headings and at least one line below it.")
    if len(rows) > MOST_ROWS + 1:
        raise FileRefused(f"The table has more than {MOST_ROWS:,} lines.")
    heads = _headings(rows[0])
    columns = tuple((head, mapping.get(head, "") if mapping is not None else _guess(head)) for head in heads)
    taken: set[str] = {m.serial for m in design.modules.values() if m.serial}
    found = []
    for number, row in enumerate(rows[1:], start=2):
        found.append(_row(number, dict(zip(heads, row, strict=False)), dict(columns), design, kind, taken))
    return ShelfPreview(encoding, {"\t": "tab"}.get(divider, divider), columns, tuple(found))


def _text(data: bytes) -> tuple[str, str]:
    if not data.strip():
        raise FileRefused("The file is empty.")
    if len(data) > LARGEST_BYTES:
        raise FileRefused("The table is larger than 5 MB.")
    if data[:2] in (b"PK", b"\xd0\xcf"):
        raise FileRefused("This is a spreadsheet file. Save it as CSV and bring that.")
    if data[:2] in (b"\xff\xfe", b"\xfe\xff"):
        encodings = ["utf-16"]
    else:
        encodings = ["utf-8-sig", "cp1252"]
    for encoding in encodings:
        try:
            text = data.decode(encoding)
        except UnicodeDecodeError:
            continue
        if "\0" not in text:
            return text, encoding
    raise FileRefused("This is no text.")


def _divider(text: str) -> str:
    """The one that splits the first lines most evenly: semicolon, tab or comma."""
    lines = [line for line in text.splitlines() if line.strip()][:20]

    def score(divider: str) -> tuple[int, int]:
        counts = [len(row) for row in csv.reader(lines, delimiter=divider)]
        return (min(counts, default=1) if len(set(counts)) == 1 else 1, counts[0] if counts else 1)

    return max((";", "\t", ","), key=score)


def _headings(row: list[str]) -> list[str]:
    out: list[str] = []
    for number, cell in enumerate(row, start=1):
        head = cell.strip()[:80] or f"column {number}"
        out.append(head if head not in out else f"{head} ({number})")
    return out


def _guess(head: str) -> str:
    plain = re.sub(r"[\[(].*?[\])]|[_:]", " ", head.lower()).strip()
    return next((field for field, words in FIELDS.items() if plain in words or plain.replace(" ", "") in words), "")


def _row(
    line: int, cells: Mapping[str, str], columns: Mapping[str, str], design: Design, kind: str | None, taken: set[str]
) -> ShelfRowPreview:
    becomes: dict[str, Any] = {}
    for head, field in columns.items():
        text = cells.get(head, "").strip()
        if not field or not text:
            continue
        try:
            becomes[field] = _value(field, text, design)
        except (ReadingError, FileRefused) as error:
            return ShelfRowPreview(line, "", becomes, f"{head}: {error}")
    if "kind" not in becomes and kind:
        becomes["kind"] = kind
    name = str(becomes.get("name") or becomes.get("serial") or f"line {line}")[:120]
    if "kind" not in becomes:
        return ShelfRowPreview(line, name, becomes, "Say which module kind it is.")
    if becomes.get("serial") in taken:
        return ShelfRowPreview(line, name, becomes, f"Serial {becomes['serial']} stands on the shelf already.")
    if "serial" in becomes:
        taken.add(becomes["serial"])
    return ShelfRowPreview(line, name, becomes, "")


def _value(field: str, text: str, design: Design) -> Any:
    if any(ord(c) < 32 or 0xD800 <= ord(c) <= 0xDFFF for c in text):
        raise FileRefused("holds characters that cannot be printed")
    text = re.sub(r"^'(?=[=+\-@'])", "", text)
    if field in _NUMBERS:
        value = read(text.replace("\u00a0", " "), _NUMBERS[field])
        if value < 0 and field != "temperature_c":
            raise FileRefused(f"“{text}” is less than nothing.")
        return value
    if field == "kind":
        plain = text.lower()
        found = [k for k, row in design.module_kinds.items() if plain in (k, row.name.lower())]
        if not found:
            raise FileRefused(f"There is no module kind “{text[:60]}”.")
        return found[0]
    if field == "on":
        return _date(text)
    if field == "verdict":
        if text.lower() not in ("good", "spare", "reject"):
            raise FileRefused(f"“{text[:40]}” is neither good, spare nor reject.")
        return text.lower()
    return text[: 60 if field == "serial" else 120 if field == "name" else 2000]


def _date(text: str) -> str:
    """2026-11-25 or 25.11.2026; a date with slashes can mean two days and is refused where it does."""
    if found := re.fullmatch(r"(\d{4})-(\d{1,2})-(\d{1,2})", text):
        year, month, day = (int(v) for v in found.groups())
    elif found := re.fullmatch(r"(\d{1,2})\.(\d{1,2})\.(\d{4})", text):
        day, month, year = (int(v) for v in found.groups())
    else:
        raise FileRefused(f"“{text[:40]}” is no date such as 2026-11-25 or 25.11.2026.")
    if not (1 <= month <= 12 and 1 <= day <= 31):
        raise FileRefused(f"“{text[:40]}” is no date.")
    return f"{year:04d}-{month:02d}-{day:02d}"


def write_shelf(design: Design) -> str:
    """The shelf as CSV, a line for each test and one for a module without; reads back as it was written."""
    out = io.StringIO()
    sheet = csv.writer(out, lineterminator="\r\n")
    sheet.writerow(
        ["name", "serial", "kind", "date", "voltage", "resistance", "temperature", "mass", "verdict", "damage"]
    )
    for module in sorted(design.modules.values(), key=lambda m: (m.order, m.name)):
        common = (module.name, module.serial, design.module_kinds[module.kind].name)
        tests = sorted(module.tests.values(), key=lambda t: t.on)
        rows = [(t.on, t.open_circuit_v, t.resistance_mohm, t.temperature_c, t.mass_kg) for t in tests]
        for row in rows or [("", module.reading_v, None, None, None)]:
            figures = ["" if v is None else v for v in row]
            sheet.writerow([_plain(v) for v in (*common, *figures, module.verdict or "", module.damage)])
    return out.getvalue()


def _plain(value: Any) -> Any:
    """A text that a spreadsheet would take for a formula is kept a text."""
    return f"'{value}" if isinstance(value, str) and value[:1] in ("=", "+", "-", "@", "'") else value
