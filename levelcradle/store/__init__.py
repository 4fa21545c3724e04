"""PostgreSQL through peewee: projects and their revisions."""

from levelcradle.store.archive import Archive, read_archive, write_archive
from levelcradle.store.database import GONE, StoreAway, connect, migrate, until_there
from levelcradle.store.files import Files
from levelcradle.store.news import listen
from levelcradle.store.packs import Change, KeptPack, Packs
from levelcradle.store.projects import Clash, Edited, Opened, Stale, Store, Summary
from levelcradle.store.scan_imports import ScanImport, ScanImports, Sent
from levelcradle.store.studies import Asked, Studies

__all__ = [
    "GONE",
    "Archive",
    "Asked",
    "Change",
    "Clash",
    "Edited",
    "Files",
    "KeptPack",
    "Opened",
    "Packs",
    "ScanImport",
    "ScanImports",
    "Sent",
    "Stale",
    "Store",
    "StoreAway",
    "Studies",
    "Summary",
    "connect",
    "listen",
    "migrate",
    "read_archive",
    "until_there",
    "write_archive",
]
