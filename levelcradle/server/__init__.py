"""FastAPI: thin routes, problem details, limits."""

from levelcradle.server.app import attach, create_app

__all__ = ["attach", "create_app"]
