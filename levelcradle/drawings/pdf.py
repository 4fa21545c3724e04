"""Sheets as one PDF, a page each, true to size."""

from collections.abc import Sequence

from levelcradle.core.errors import OutOfRange
from levelcradle.drawings.sheet import Sheet
from levelcradle.drawings.svg import sheet_svg

__all__ = ["sheets_pdf"]

_STYLE = "@page {{ margin: 0 }} {papers} body {{ margin: 0 }} svg {{ display: block; break-after: page }}"


def sheets_pdf(sheets: Sequence[Sheet], title: str) -> bytes:
    """One PDF, each page of its own sheet's paper."""
    from html import escape

    from weasyprint import HTML  # slow to import, and only a fabrication pack needs it

    papers = {sheet.paper for sheet in sheets}
    sizes = "".join(
        f"@page {p.name} {{ size: {p.wide_mm}mm {p.tall_mm}mm }} .{p.name} {{ page: {p.name} }}"
        for p in sorted(papers, key=str)
    )
    pages = "".join(f'<div class="{sheet.paper.name}">{sheet_svg(sheet)}</div>' for sheet in sheets)
    page = f"<!doctype html><title>{escape(title)}</title><style>{_STYLE.format(papers=sizes)}</style>{pages}"
    return bytes(HTML(string=page, url_fetcher=_nothing).write_pdf())


def _nothing(url: str, *_: object, **__: object) -> dict[str, object]:
    """Sheets refer to nothing outside themselves, whatever a name pretends to be."""
    raise OutOfRange(f"refused: {url[:40]}")
