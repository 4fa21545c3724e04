"""PostgreSQL through peewee: projects and their revisions."""

from levelcradle.store.database import GONE, StoreAway, connect, migrate, until_there
from levelcradle.store.files import Files
from levelcradle.store.news import listen
from levelcradle.store.projects import Clash, Edited, Opened, Stale, Store, Summary
from levelcradle.store.readings import Reading, Readings, Sent
from levelcradle.store.studies import Asked, Studies

__all__ = [
    "GONE",
    "Asked",
    "Clash",
    "Edited",
    "Files",
    "Opened",
    "Reading",
    "Readings",
    "Sent",
    "Stale",
    "Store",
    "StoreAway",
    "Studies",
    "Summary",
    "connect",
    "listen",
    "migrate",
    "until_there",
]
