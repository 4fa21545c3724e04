"""PostgreSQL through peewee: projects and their revisions."""

from levelcradle.store.database import connect, migrate
from levelcradle.store.files import Files
from levelcradle.store.news import listen
from levelcradle.store.projects import Clash, Edited, Opened, Stale, Store, Summary
from levelcradle.store.studies import Asked, Studies

__all__ = ["Asked", "Clash", "Edited", "Files", "Opened", "Stale", "Store", "Studies", "Summary", "connect", "listen", "migrate"]
