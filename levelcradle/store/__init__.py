"""PostgreSQL through peewee: projects and their revisions."""

from levelcradle.store.database import connect, migrate
from levelcradle.store.files import Files
from levelcradle.store.projects import Clash, Edited, Opened, Stale, Store, Summary

__all__ = ["Clash", "Edited", "Files", "Opened", "Stale", "Store", "Summary", "connect", "migrate"]
