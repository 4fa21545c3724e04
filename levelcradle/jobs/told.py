"""A study as the screens read it."""

from collections.abc import Iterable
from typing import Any

from pydantic import BaseModel, ConfigDict, TypeAdapter

from levelcradle.core.fit import Proposal
from levelcradle.store.studies import Asked

__all__ = ["StudyOut", "proposals_json", "study_out"]


class StudyOut(BaseModel):
    """A study as it stands."""

    model_config = ConfigDict(extra="forbid")

    id: str
    revision: int
    state: str
    message: str
    tried: int
    best: int
    wishes: dict[str, Any]
    proposals: list[Proposal]


_PROPOSALS = TypeAdapter(list[Proposal])


def proposals_json(found: Iterable[Proposal]) -> str:
    return _PROPOSALS.dump_json(list(found)).decode()


def study_out(asked: Asked) -> StudyOut:
    wishes = TypeAdapter(dict[str, Any]).validate_json(asked.wishes)
    proposals = _PROPOSALS.validate_json(asked.found) if asked.found else []
    return StudyOut(
        id=asked.id,
        revision=asked.revision,
        state=asked.state,
        message=asked.message,
        tried=asked.tried,
        best=asked.best,
        wishes=wishes,
        proposals=proposals,
    )
