"""Shared by all tests: the demo, a database of its own for each test that asks, and small builders."""

import copy
import os
import uuid
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from hypothesis import settings

from levelcradle.core.design import Design, tree_of, validate
from levelcradle.demo import demo_design
from levelcradle.store import Store, connect, migrate

# a slow machine is no failure, and one run tries the same examples as the next, unless new ones are asked for
settings.register_profile("house", deadline=None, derandomize=not os.environ.get("NEW_EXAMPLES"))
settings.load_profile("house")

DEMO = tree_of(demo_design())


@pytest.fixture
def tree() -> dict[str, Any]:
    """The demo as a document tree, free to be changed."""
    return copy.deepcopy(DEMO)


def one_box(tree: dict[str, Any]) -> dict[str, Any]:
    """The demo without its bonnet box: for what takes long and asks no more of a car than one box."""
    mounts = {key: mount for key, mount in tree["mounts"].items() if "boxes/tank" in mount["carries"]}
    items = {key: item for key, item in tree["items"].items() if item["fixed_to"] != "bonnet"}
    return tree | {"boxes": {"tank": tree["boxes"]["tank"]}, "mounts": mounts, "items": items}


@pytest.fixture(scope="session")
def demo() -> Design:
    return validate(copy.deepcopy(DEMO))


@pytest.fixture(scope="session")
def admin() -> Iterator[Callable[[str], None]]:
    """Says something to the cluster that the launcher started for the tests."""
    server = os.environ.get("LEVELCRADLE_TEST_DATABASE")
    if not server:
        pytest.fail("Run the tests with ./cradle test: it starts a database for them.")
    pool = connect(server)

    def said(sql: str) -> None:
        with pool.connection_context():
            pool.connection().autocommit = True
            pool.execute_sql(sql)

    yield said
    pool.close_all()


def address_of(name: str) -> str:
    return os.environ["LEVELCRADLE_TEST_DATABASE"].rsplit("/", 1)[0] + f"/{name}"


@pytest.fixture(scope="session")
def migrated(admin: Callable[[str], None]) -> str:
    """A database with nothing in it but its tables, made once to be copied: a copy is there in a tenth of the time."""
    name = f"made_{uuid.uuid4().hex[:12]}"
    admin(f'CREATE DATABASE "{name}"')
    database = connect(address_of(name))
    migrate(database)
    database.close_all()
    return name


@pytest.fixture
def database_url(admin: Callable[[str], None], migrated: str) -> Iterator[str]:
    """A fresh, migrated database."""
    name = f"test_{uuid.uuid4().hex[:12]}"
    admin(f'CREATE DATABASE "{name}" TEMPLATE "{migrated}"')
    yield address_of(name)
    admin(f'DROP DATABASE "{name}" WITH (FORCE)')


@pytest.fixture
def store(database_url: str) -> Iterator[Store]:
    database = connect(database_url)
    yield Store(database)
    database.close_all()
