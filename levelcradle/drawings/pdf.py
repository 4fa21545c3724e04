"""Sheets as one PDF, a page each, true to size."""

from collections.abc import Sequence

from levelcradle.core.errors import OutOfRange
from levelcradle.drawings.sheet import Sheet
from levelcradle.drawings.svg import sheet_svg

__all__ = ["sheets_pdf"]

_STYLE = "@page { size: 297mm 210mm; margin: 0 } body { margin: 0 } svg { display: block; page-break-after: always }"


def sheets_pdf(sheets: Sequence[Sheet], title: str) -> bytes:
    """One PDF of A4 landscape pages."""
    from html import escape

    from weasyprint import HTML  # slow to import, and only a fabrication pack needs it

    pages = "".join(sheet_svg(sheet) for sheet in sheets)
    page = f"<!doctype html><title>{escape(title)}</title><style>{_STYLE}</style>{pages}"
    return bytes(HTML(string=page, url_fetcher=_nothing).write_pdf())


def _nothing(url: str, *_: object, **__: object) -> dict[str, object]:
    """Sheets refer to nothing outside themselves, whatever a name pretends to be."""
    raise OutOfRange(f"refused: {url[:40]}")
