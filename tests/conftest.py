"""Shared by all tests: the demo, a database of its own for each test that asks, and small builders."""

import copy
import os
import uuid
from collections.abc import Callable, Iterator
from itertools import groupby
from typing import Any

import pytest
from hypothesis import settings

from levelcradle.core.design import Design, tree_of, validate
from levelcradle.demo import demo_design
from levelcradle.store import Store, connect, migrate

# a slow machine is no failure, and one run tries the same examples as the next, unless new ones are asked for
NEW_EXAMPLES = bool(os.environ.get("NEW_EXAMPLES"))
settings.register_profile(
    "house", deadline=None, derandomize=not NEW_EXAMPLES, max_examples=100 if NEW_EXAMPLES else 40
)
settings.load_profile("house")

DEMO = tree_of(demo_design())


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Files that drive the browser, which mostly wait, are spread among those that compute: so that no core idles while
    the last of them run. Each file stays together, for its window is opened once."""
    files = [list(group) for _, group in groupby(items, key=lambda item: item.path)]
    waiting = [group for group in files if "web" in group[0].path.parts]
    others = [group for group in files if "web" not in group[0].path.parts]
    if not waiting or not others:
        return
    every, whole, done = sum(map(len, others)) / len(waiting), list[pytest.Item](), 0
    for group in others:
        whole += group
        done += len(group)
        while waiting and done >= every * (len(files) - len(others) - len(waiting) + 0.5):
            whole += waiting.pop(0)
    items[:] = [*whole, *(item for group in waiting for item in group)]


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


@pytest.fixture(scope="session")
def kept_database(admin: Callable[[str], None], migrated: str) -> str:
    """The one that test after test uses: emptying it takes a fraction of what making and dropping another does."""
    name = f"test_{uuid.uuid4().hex[:12]}"
    admin(f'CREATE DATABASE "{name}" TEMPLATE "{migrated}"')
    return address_of(name)


@pytest.fixture
def database_url(kept_database: str) -> Iterator[str]:
    """A migrated database with nothing in it."""
    yield kept_database
    database = connect(kept_database)
    with database.connection_context():
        database.execute_sql(EMPTIED)
    database.close_all()


EMPTIED = """DO $$ DECLARE name text; BEGIN
    PERFORM pg_terminate_backend(pid) FROM pg_stat_activity
        WHERE datname = current_database() AND pid <> pg_backend_pid();
    SET LOCAL session_replication_role = replica;
    FOR name IN SELECT quote_ident(tablename) FROM pg_tables
        WHERE schemaname = 'public' AND tablename <> 'schema_migration' LOOP EXECUTE 'DELETE FROM ' || name; END LOOP;
    FOR name IN SELECT quote_ident(sequencename) FROM pg_sequences WHERE schemaname = 'public'
        LOOP EXECUTE 'ALTER SEQUENCE ' || name || ' RESTART'; END LOOP;
END $$"""


@pytest.fixture
def store(database_url: str) -> Iterator[Store]:
    database = connect(database_url)
    yield Store(database)
    database.close_all()
