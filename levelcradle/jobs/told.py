"""A study as the screens read it."""

from collections.abc import Iterable
from typing import Any

from pydantic import BaseModel, ConfigDict, TypeAdapter

from levelcradle.core.finding import Finding, State
from levelcradle.core.fit import Proposal, ProposedBox
from levelcradle.core.modules import StringFigures
from levelcradle.core.outlines import Shape
from levelcradle.store.studies import Asked

__all__ = ["ProposalOut", "StudyOut", "proposals_json", "study_out"]


class Out(BaseModel):
    model_config = ConfigDict(extra="forbid")


class TightGapOut(Out):
    name: str
    has_mm: float
    needs_mm: float
    state: State


class ProposalOut(Out):
    """One arrangement: what it holds, what it weighs, where it is tight, and the patch that makes it."""

    modules: int
    boxes: tuple[ProposedBox, ...]
    string: StringFigures
    parallel: int
    front_kg: float | None
    rear_kg: float | None
    front_percent: float | None
    cg_mm: tuple[float | None, float | None, float | None]
    cable_mm: float
    luggage_l: float | None
    case: str | None
    gaps: tuple[TightGapOut, ...]
    score: float
    patch: list[dict[str, Any]]
    sketch: tuple[Shape, ...]


class StudyOut(Out):
    """A study as it stands."""

    id: str
    revision: int
    state: str
    says: str
    tried: int
    best: int
    wishes: dict[str, Any]
    proposals: list[ProposalOut]


_PROPOSALS = TypeAdapter(list[ProposalOut])


def proposals_json(found: Iterable[Proposal]) -> str:
    return _PROPOSALS.dump_json([_proposal(p) for p in found]).decode()


def study_out(asked: Asked) -> StudyOut:
    wishes = TypeAdapter(dict[str, Any]).validate_json(asked.wishes)
    proposals = _PROPOSALS.validate_json(asked.found) if asked.found else []
    return StudyOut(id=asked.id, revision=asked.revision, state=asked.state, says=asked.says, tried=asked.tried, best=asked.best,
                    wishes=wishes, proposals=proposals)  # fmt: skip


def _proposal(p: Proposal) -> ProposalOut:
    return ProposalOut(
        modules=p.modules, boxes=p.boxes, string=p.string, parallel=p.parallel, front_kg=p.front_kg,
        rear_kg=p.rear_kg, front_percent=p.front_percent, cg_mm=p.cg_mm, cable_mm=p.cable_mm, luggage_l=p.luggage_l, case=p.case,
        gaps=tuple(_gap(f) for f in p.gaps), score=p.score, patch=list(p.patch), sketch=p.sketch,
    )  # fmt: skip


def _gap(f: Finding) -> TightGapOut:
    return TightGapOut(name=f.shows, has_mm=f.value or 0.0, needs_mm=f.limit or 0.0, state=f.state)
