"""Pictures of faults: only what every browser shows, known by its first bytes."""

from levelcradle.exchange.errors import FileRefused

__all__ = ["picture_kind"]


def picture_kind(data: bytes) -> str:
    """The media type of a picture. Raises FileRefused."""
    if data.startswith(b"\x89PNG\r\n\x1a\n"):
        return "image/png"
    if data.startswith(b"\xff\xd8\xff"):
        return "image/jpeg"
    if data[:4] == b"RIFF" and data[8:12] == b"WEBP":
        return "image/webp"
    raise FileRefused("This is no PNG, JPEG or WebP picture.")
