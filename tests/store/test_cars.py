"""The list of cars: variants know their first, what is deleted comes back for a while, and a car becomes what it
was."""

import pytest
from peewee import SQL

from levelcradle.core.errors import DesignError, PatchError, UnknownThing
from levelcradle.demo import demo_design, pell_design
from levelcradle.store import Store
from levelcradle.store.tables import Project

AFT = "/boxes/tank/pose/at_mm/0"


@pytest.fixture
def car(store: Store) -> str:
    return store.create(demo_design(), "ann")


def moved(store: Store, car: str, aft: float) -> None:
    store.edit(car, [{"op": "replace", "path": AFT, "value": aft}], base=store.open(car).revision, session="ann")


def test_a_variant_knows_its_first_and_goes_its_own_way(store: Store, car: str) -> None:
    one = store.copy(car, "ann")
    two = store.copy(one, "ann")  # of a variant: still the first's
    assert [row.id for row in store.family(two)] == [car, one, two]
    assert {row.variant_of for row in store.family(car)} == {None, car}
    moved(store, one, 2700.0)
    assert store.open(car).tree["boxes"]["tank"]["pose"]["at_mm"][0] != 2700.0
    assert store.open(one).tree["boxes"] != store.open(two).tree["boxes"]
    assert len({row.name for row in store.family(car)}) == 3


def test_what_is_deleted_is_off_the_bench_and_comes_back_as_it_was(store: Store, car: str) -> None:
    moved(store, car, 2700.0)
    store.delete(car)
    assert store.all() == []
    for ask in (store.open, store.delete, store.history, store.family):
        with pytest.raises(UnknownThing):
            ask(car)
    with pytest.raises(UnknownThing):
        moved(store, car, 2710.0)
    assert [row.id for row in store.deleted()] == [car]
    store.bring_back(car)
    assert store.open(car).tree["boxes"]["tank"]["pose"]["at_mm"][0] == 2700.0
    with pytest.raises(UnknownThing):
        store.bring_back(car)


@pytest.mark.parametrize(("days", "kept"), [(29, 1), (31, 0)])
def test_it_is_kept_for_thirty_days(store: Store, car: str, days: int, kept: int) -> None:
    store.delete(car)
    with store._db.connection_context():
        Project.update(deleted_at=SQL(f"now() - interval '{days} days'")).where(Project.id == car).execute()
    store.create(pell_design(), "ann")
    assert len(store.deleted()) == kept


def test_a_variant_outlives_its_first(store: Store, car: str) -> None:
    variant = store.copy(car, "ann")
    store.delete(car)
    assert [row.id for row in store.family(variant)] == [variant]


def test_an_older_revision_is_taken_back_whole_and_undo_takes_that_back(store: Store, car: str) -> None:
    first = store.open(car).tree
    moved(store, car, 2700.0)
    store.edit(car, [{"op": "remove", "path": "/items/charger"}], base=2, session="ann")
    before = store.open(car).tree
    store.become(car, store.at(car, 1), "as in revision 1", session="ann")
    assert store.open(car).tree == first
    assert store.history(car)[0].sentence == "as in revision 1"
    store.step_back(car, "undo", session="ann")
    assert store.open(car).tree == before
    with pytest.raises(PatchError, match="already"):
        store.become(car, before, "again", session="ann")


def test_what_is_pinned_stays_where_it_is(store: Store, car: str) -> None:
    moved(store, car, 2700.0)
    pin = {"what": "boxes/tank", "by": "ann", "why": "built"}
    store.edit(car, [{"op": "add", "path": "/pins/p", "value": pin}], base=2, session="ann")
    with pytest.raises(DesignError):
        store.become(car, store.at(car, 1), "as in revision 1", session="ann")
    assert store.open(car).tree["boxes"]["tank"]["pose"]["at_mm"][0] == 2700.0
