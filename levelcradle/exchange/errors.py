"""Why a file is not taken."""

from levelcradle.core.errors import CradleError

__all__ = ["FileRefused"]


class FileRefused(CradleError, ValueError):
    """A file cannot be read, or holds what is of no use; says why in a sentence."""

    def __init__(self, message: str) -> None:
        self.message = message
        super().__init__(message)
