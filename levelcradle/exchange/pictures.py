"""Pictures of faults: only what every browser shows, known by its first bytes; and files that come in archives."""

from levelcradle.exchange.errors import FileRefused
from levelcradle.exchange.scans import mesh_from_bytes

__all__ = ["may_be_kept", "picture_kind"]


def picture_kind(data: bytes) -> str:
    """The media type of a picture. Raises FileRefused."""
    if data.startswith(b"\x89PNG\r\n\x1a\n"):
        return "image/png"
    if data.startswith(b"\xff\xd8\xff"):
        return "image/jpeg"
    if data[:4] == b"RIFF" and data[8:12] == b"WEBP":
        return "image/webp"
    raise FileRefused("This is no PNG, JPEG or WebP picture.")


def may_be_kept(kind: str, data: bytes) -> bool:
    """Whether what comes from elsewhere is what it is said to be: a scan as it is kept here, or a picture."""
    if kind == "scan":
        try:
            mesh = mesh_from_bytes(data)
        except Exception:  # whatever a damaged or hostile file makes of the reader
            return False
        count = len(mesh.vertices)
        return mesh.vertices.shape[1:] == (3,) and bool(((mesh.triangles >= 0) & (mesh.triangles < count)).all())
    try:
        return picture_kind(data) == kind
    except FileRefused:
        return False
