"""Studies in the database: one row a question, what is told of it, stopping and taking up again."""

import pytest

from levelcradle.core.errors import UnknownThing
from levelcradle.demo import demo_design
from levelcradle.store import Store

WISHES = '{"kinds":["flagstone"],"bays":["tank"]}'


@pytest.fixture
def car(store: Store) -> str:
    return store.create(demo_design(), "start", id_="ouzel")


def test_the_same_question_is_one_study_another_revision_another(store: Store, car: str) -> None:
    one, run = store.studies.ask(car, 1, WISHES)
    two, again = store.studies.ask(car, 1, WISHES)
    three, _ = store.studies.ask(car, 2, WISHES)
    four, _ = store.studies.ask(car, 1, WISHES.replace("tank", "bonnet"))
    assert (one.id, run, again) == (two.id, True, True)
    assert len({one.id, three.id, four.id}) == 3
    assert {s.id for s in store.studies.of(car)} == {one.id, three.id, four.id}
    assert set(store.studies.waiting()) == {one.id, three.id, four.id}


def test_one_that_runs_or_is_done_is_not_run_again(store: Store, car: str) -> None:
    key = store.studies.ask(car, 1, WISHES)[0].id
    for state in ("running", "done", "refused"):
        store.studies.told(key, state, "words", 4, 2, "[]")  # type: ignore[arg-type]
        asked, run = store.studies.ask(car, 1, WISHES)
        assert (asked.state, run, asked.tried, asked.best) == (state, False, 4, 2)


def test_what_is_told_without_proposals_keeps_those_there_are(store: Store, car: str) -> None:
    key = store.studies.ask(car, 1, WISHES)[0].id
    store.studies.told(key, "running", "trying", 1, 1, "[1]")
    store.studies.told(key, "running", "trying", 2, 1)
    assert store.studies.get(key).found == "[1]"


def test_stopped_before_it_begins_or_while_it_runs(store: Store, car: str) -> None:
    key = store.studies.ask(car, 1, WISHES)[0].id
    assert store.studies.stop(key).state == "stopped"
    again, run = store.studies.ask(car, 1, WISHES)
    assert (again.state, again.stop, run) == ("waiting", False, True)
    assert store.studies.told(key, "running", "trying", 1, 0) is False
    assert store.studies.stop(key).state == "running"
    assert store.studies.told(key, "running", "trying", 2, 0) is True
    store.studies.told(key, "done", "done", 2, 0)
    assert store.studies.stop(key).state == "done"


def test_of_one_that_is_not_there(store: Store) -> None:
    with pytest.raises(UnknownThing):
        store.studies.get("0" * 24)
    with pytest.raises(UnknownThing):
        store.studies.stop("0" * 24)
    assert store.studies.told("0" * 24, "running", "trying", 1, 0) is True  # its car was removed: stop
