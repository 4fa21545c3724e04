"""Sheets as one PDF, a page each, true to size."""

from collections.abc import Sequence
from html import escape

from levelcradle.core.errors import OutOfRange
from levelcradle.drawings.sheet import Sheet, Words
from levelcradle.drawings.svg import FONTS, lines_svg

__all__ = ["sheets_pdf"]

# letters stand as HTML over the lines: as SVG each letter would be set by itself, ten times slower
_STYLE = """@page {{ margin: 0 }} {papers} body {{ margin: 0; font-family: {fonts} }} svg {{ display: block }}
section {{ position: relative; break-after: page; overflow: hidden }}
i {{ position: absolute; width: 400mm; white-space: pre; line-height: 1; font-style: normal; transform-origin: 0 100% }}
i.m {{ text-align: center; transform-origin: 50% 100% }} i.e {{ text-align: right; transform-origin: 100% 100% }}
i.b {{ font-weight: 700 }} i.t {{ transform: rotate(-90deg) }} {letters}"""
KINDS = {"start": "", "middle": "m", "end": "e"}
BOX_MM = 400.0  # wide enough for any text that is centred or ends at its place
BELOW = 0.154  # so far a line box of one em ends below the baseline, of the sheets' fonts


def sheets_pdf(sheets: Sequence[Sheet], title: str) -> bytes:
    """One PDF, each page of its own sheet's paper."""
    from weasyprint import HTML  # slow to import, and only a fabrication pack needs it

    papers = {sheet.paper for sheet in sheets}
    sizes = "".join(
        f"@page {p.name} {{ size: {p.wide_mm}mm {p.tall_mm}mm }} "
        f".{p.name} {{ page: {p.name}; width: {p.wide_mm}mm; height: {p.tall_mm}mm }}"
        for p in sorted(papers, key=str)
    )
    pages = "".join(map(_page, sheets))
    letters = {mark.size_mm for sheet in sheets for mark in sheet.marks if isinstance(mark, Words)}
    rules = "".join(f"i.{_size(size)} {{ font-size: {size:.2f}mm }}" for size in sorted(letters))
    style = _STYLE.format(papers=sizes, fonts=FONTS, letters=rules)
    page = f"<!doctype html><title>{escape(title)}</title><style>{style}</style>{pages}"
    return bytes(HTML(string=page, url_fetcher=_nothing).write_pdf())


def _page(sheet: Sheet) -> str:
    words = "".join(_words(mark) for mark in sheet.marks if isinstance(mark, Words))
    return f'<section class="{sheet.paper.name}">{lines_svg(sheet)}{words}</section>'


def _size(size_mm: float) -> str:
    return f"s{round(size_mm * 100)}"


def _words(mark: Words) -> str:
    """Its line box ends a little below the baseline; turned, it turns about where it stands."""
    kind = " ".join((KINDS[mark.anchor], *(["b"] if mark.bold else []), *(["t"] if mark.turned else [])))
    left = mark.at[0] - {"start": 0.0, "middle": BOX_MM / 2, "end": BOX_MM}[mark.anchor]
    below = BELOW * mark.size_mm
    left, low = (left + below, mark.at[1]) if mark.turned else (left, mark.at[1] - below)
    style = f"left:{left:.2f}mm;bottom:{low:.2f}mm"
    return f'<i class="{_size(mark.size_mm)} {kind.strip()}" style="{style}">{escape(mark.text)}</i>'


def _nothing(url: str, *_: object, **__: object) -> dict[str, object]:
    """Sheets refer to nothing outside themselves, whatever a name pretends to be."""
    raise OutOfRange(f"refused: {url[:40]}")
