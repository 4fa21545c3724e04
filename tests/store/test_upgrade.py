"""Cars stored by an earlier version: brought to this format at start, nothing of them lost, undo stops there."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from levelcradle.core.design import dump, load
from levelcradle.core.design.upgrade import FORMAT
from levelcradle.demo import demo_design
from levelcradle.store import Stale, Store, connect, migrate
from levelcradle.store.tables import Project

OLD = (Path(__file__).parents[1] / "formats" / "format-1.cradle.json").read_text()
AFT = "/items/motor/mass_kg"


def move(store: Store, car: str, kg: float, base: int | None = None) -> None:
    store.edit(car, [{"op": "replace", "path": AFT, "value": kg}], base=base or store.open(car).revision, session="ann")


@pytest.fixture
def database(database_url: str) -> Iterator[Any]:
    database = connect(database_url)
    yield database
    database.close_all()


@pytest.fixture
def car(database: Any) -> str:
    """A car as an earlier version stored it, with one step of Ann's."""
    store = Store(database)
    car = store.create(demo_design(), "ann")
    move(store, car, 80.0)
    with database.connection_context():
        Project.update(document=OLD).where(Project.id == car).execute()
    return car


def test_start_brings_a_car_to_this_format_and_keeps_what_it_was(database: Any, car: str) -> None:
    migrate(database)
    migrate(database)  # the second start finds nothing to do
    store = Store(database)
    opened = store.open(car)
    assert (opened.revision, opened.tree["format"]) == (3, FORMAT)
    assert dump(opened.design) == dump(load(OLD))
    assert store.at(car, 2)["boxes"]["tank"]["construction"]["type"] == "folded"
    assert [(row.number, row.kind) for row in store.history(car)][:2] == [(3, "upgrade"), (2, "edit")]


def test_undo_stops_there_and_a_page_from_before_is_sent_to_load_anew(database: Any, car: str) -> None:
    migrate(database)
    store = Store(database)
    assert store.steps(car, session="ann") == (None, None)
    assert store.step_back(car, "undo", session="ann") is None
    with pytest.raises(Stale, match="Load the page anew"):
        move(store, car, 81.0, base=2)
    move(store, car, 81.0)
    assert store.steps(car, session="ann")[0] is not None


def test_a_car_that_would_not_hold_is_left_as_it_is(database: Any, car: str) -> None:
    broken = json.dumps({**json.loads(OLD), "boxes": 3})
    with database.connection_context():
        Project.update(document=broken).where(Project.id == car).execute()
    migrate(database)
    with database.connection_context():
        assert Project.get_by_id(car).document == broken
