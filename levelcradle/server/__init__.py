"""FastAPI: thin routes, problem details, limits."""

from levelcradle.server.app import create_app

__all__ = ["create_app"]
