"""Projects and revisions in a real PostgreSQL: edits, late edits, undo and redo."""

import json
from typing import Any

import pytest

from levelcradle.core.design import tree_of, validate
from levelcradle.core.errors import DesignError, PatchError, UnknownThing
from levelcradle.demo import demo_design
from levelcradle.store import Edited, Stale, Store, connect, migrate

AFT = "/boxes/tank/pose/at_mm/0"
UP = "/boxes/tank/pose/at_mm/2"


def move(value: float, path: str = AFT) -> list[dict[str, Any]]:
    return [{"op": "replace", "path": path, "value": value}]


@pytest.fixture
def car(store: Store) -> str:
    return store.create(demo_design(), "ann")


def edit(store: Store, car: str, value: float, session: str = "ann", path: str = AFT) -> Edited:
    return store.edit(car, move(value, path), base=store.open(car).revision, session=session)


def figure(store: Store, car: str, axis: int = 0) -> float:
    value: float = store.open(car).tree["boxes"]["tank"]["pose"]["at_mm"][axis]
    return value


def test_a_project_opens_as_it_was_stored(store: Store, car: str) -> None:
    opened = store.open(car)
    assert opened.revision == 1
    assert opened.tree == tree_of(demo_design())
    assert [p.name for p in store.all()] == ["Calder Ouzel 1500"]


def test_an_edit_is_a_revision_with_a_sentence(store: Store, car: str) -> None:
    done = edit(store, car, 2685.0)
    assert (done.opened.revision, done.sentence) == (2, "Tank box 14.5 mm aft")
    assert figure(store, car) == 2685.0
    assert [h.sentence for h in store.history(car)] == ["Tank box 14.5 mm aft", "started"]


def test_what_would_not_hold_is_refused_and_nothing_is_stored(store: Store, car: str) -> None:
    with pytest.raises(DesignError):
        store.edit(
            car,
            [{"op": "replace", "path": "/boxes/tank/construction/thickness_mm", "value": -3}],
            base=1,
            session="ann",
        )
    with pytest.raises(PatchError):
        store.edit(car, move(1.0), base=99, session="ann")
    assert store.open(car).revision == 1
    with pytest.raises(UnknownThing):
        store.open("nobody")


def test_defaults_come_back_in_the_patch_as_the_document_holds_them(store: Store, car: str) -> None:
    item = {"name": "horn", "state": "in", "mass_kg": 1}
    done = store.edit(car, [{"op": "add", "path": "/items/horn", "value": item}], base=1, session="ann")
    assert done.patch[0]["value"]["gap_class"] == "other"
    assert done.patch[0]["value"] == store.open(car).tree["items"]["horn"]


def test_undo_and_redo_are_revisions(store: Store, car: str) -> None:
    edit(store, car, 2685.0)
    edit(store, car, 360.0, path=UP)
    assert store.steps(car, session="ann") == ("Tank box 8 mm up", None)
    assert store.step_back(car, "undo", session="ann")
    assert (figure(store, car), figure(store, car, 2)) == (2685.0, 352.0)
    assert store.step_back(car, "undo", session="ann")
    assert figure(store, car) == 2670.5
    assert store.step_back(car, "undo", session="ann") is None
    assert store.steps(car, session="ann")[1] == "Tank box 14.5 mm aft"
    assert store.step_back(car, "redo", session="ann")
    assert store.step_back(car, "redo", session="ann")
    assert (figure(store, car), figure(store, car, 2)) == (2685.0, 360.0)
    assert store.open(car).revision == 7
    assert store.step_back(car, "redo", session="ann") is None


def test_undo_after_redo_goes_the_same_way_again(store: Store, car: str) -> None:
    edit(store, car, 2685.0)
    for _ in range(3):
        assert store.step_back(car, "undo", session="ann")
        assert figure(store, car) == 2670.5
        assert store.step_back(car, "redo", session="ann")
        assert figure(store, car) == 2685.0


def test_a_new_edit_clears_redo(store: Store, car: str) -> None:
    edit(store, car, 2685.0)
    store.step_back(car, "undo", session="ann")
    edit(store, car, 360.0, path=UP)
    assert store.step_back(car, "redo", session="ann") is None


def test_undo_belongs_to_the_session(store: Store, car: str) -> None:
    edit(store, car, 2685.0, session="ann")
    edit(store, car, 360.0, session="ben", path=UP)
    assert store.step_back(car, "undo", session="ann")
    assert (figure(store, car), figure(store, car, 2)) == (2670.5, 360.0)


def test_undo_of_what_somebody_changed_since_is_a_late_edit(store: Store, car: str) -> None:
    edit(store, car, 2685.0, session="ann")
    edit(store, car, 2700.0, session="ben")
    with pytest.raises(Stale):
        store.step_back(car, "undo", session="ann")
    assert figure(store, car) == 2700.0


def test_a_late_edit_elsewhere_is_taken_and_tells_what_changed(store: Store, car: str) -> None:
    edit(store, car, 2685.0, session="ann")
    late = store.edit(car, move(360.0, UP), base=1, session="ben")
    assert [op["path"] for op in late.since] == [AFT]
    assert (figure(store, car), figure(store, car, 2)) == (2685.0, 360.0)


def test_a_late_edit_of_the_same_thing_is_refused_with_both_values(store: Store, car: str) -> None:
    edit(store, car, 2685.0, session="ann")
    with pytest.raises(Stale) as caught:
        store.edit(car, move(2700.0), base=1, session="ben")
    clash = caught.value.clashes[0]
    assert (clash.path, clash.theirs, clash.yours) == (AFT, 2685.0, 2700.0)


def test_what_one_has_seen_decides_what_clashes(store: Store, car: str) -> None:
    """An edit made long ago and sent now: what others did since clashes, one's own steps went before it."""
    edit(store, car, 2685.0, session="ann")
    edit(store, car, 360.0, session="ben", path=UP)
    own = store.edit(car, move(2690.0), base=3, seen=1, session="ann")
    assert (own.since, figure(store, car)) == ((), 2690.0)
    with pytest.raises(Stale):
        store.edit(car, move(365.0, UP), base=4, seen=1, session="ann")
    assert store.edit(car, move(365.0, UP), base=4, seen=3, session="ann").opened.revision == 5


def test_a_clash_names_who_was_last_at_the_very_figure(store: Store, car: str) -> None:
    store.edit(car, move(2685.0), base=1, session="a", who="Ann")
    store.edit(car, move(360.0, UP), base=2, session="b", who="Ben")
    with pytest.raises(Stale) as caught:
        store.edit(car, move(2700.0), base=1, session="c", who="Cas")
    assert [c.who for c in caught.value.clashes] == ["Ann"]


def test_an_edit_sent_again_under_its_key_changes_nothing(store: Store, car: str) -> None:
    store.edit(car, move(2685.0), base=1, session="ann", once="k" * 8)
    edit(store, car, 2700.0, session="ben")
    again = store.edit(car, move(2685.0), base=1, session="ann", once="k" * 8)
    assert (again.opened.revision, again.patch, figure(store, car)) == (3, (), 2700.0)
    assert [op["value"] for op in again.since] == [2685.0, 2700.0]
    assert [row.who for row in store.history(car)] == ["", "", ""]


def test_undo_brings_back_a_removed_thing_with_its_readings(store: Store, car: str) -> None:
    key = "/readings/" + AFT.replace("/", "~1")
    reading = {"text": "2670.5", "unit": "mm", "basis": "measured"}
    store.edit(car, [{"op": "add", "path": key, "value": reading}], base=1, session="ann")
    before = store.open(car).tree
    mounts = [{"op": "remove", "path": f"/mounts/{m}"} for m in before["mounts"] if m.startswith("tank")]
    store.edit(car, [*mounts, {"op": "remove", "path": "/boxes/tank"}], base=2, session="ann")
    assert AFT not in store.open(car).tree["readings"]
    store.step_back(car, "undo", session="ann")
    assert store.open(car).tree == before


def test_migrating_twice_changes_nothing(database_url: str) -> None:
    database = connect(database_url)
    migrate(database)
    migrate(database)
    database.close_all()


def test_what_the_document_got_since_a_car_was_kept_stands_in_it_and_is_edited_like_the_rest(
    store: Store, car: str, database_url: str
) -> None:
    full = tree_of(demo_design())
    kept = {name: part for name, part in tree_of(demo_design()).items() if name not in ("sheets", "strings")}
    del kept["boxes"]["tank"]["finish"]  # nor what is deeper in it
    database = connect(database_url)
    with database.connection_context():
        database.execute_sql("UPDATE project SET document = %s WHERE id = %s", (json.dumps(kept), car))
    later = Store(database)  # that has not seen the car before
    assert later.open(car).tree == full
    patch: list[Any] = [
        {"op": "replace", "path": "/sheets/paper", "value": "A3"},
        {"op": "replace", "path": "/boxes/tank/finish/coats", "value": 2},
    ]
    edited = later.edit(car, patch, base=1, session="ann").opened.tree
    assert (edited["sheets"]["paper"], edited["boxes"]["tank"]["finish"]["coats"]) == ("A3", 2)
    later.step_back(car, "undo", session="ann")
    assert later.open(car).tree == full
    database.close_all()


def test_what_an_edit_may_not_bring_in_comes_back_by_undo_and_in_how_it_was(store: Store) -> None:
    """A car that was stored with two cut edges which meet: one is made whole, and that is taken back."""
    tree = tree_of(demo_design())
    edges = {"a": {"edge": ["right", "base"], "mm": [20.0, 20.0]}, "b": {"edge": ["front", "base"], "mm": [20.0, 20.0]}}
    tree["boxes"]["tank"]["chamfers"] = edges
    car = store.create(validate(tree), "ann")
    store.edit(car, [{"op": "remove", "path": "/boxes/tank/chamfers/b"}], base=1, session="ann")
    assert set(store.at(car, 1)["boxes"]["tank"]["chamfers"]) == {"a", "b"}
    store.step_back(car, "undo", session="ann")
    assert set(store.open(car).tree["boxes"]["tank"]["chamfers"]) == {"a", "b"}
    store.step_back(car, "redo", session="ann")
    with pytest.raises(DesignError, match="in a corner"):
        store.edit(car, [{"op": "add", "path": "/boxes/tank/chamfers/b", "value": edges["b"]}], base=4, session="ann")
