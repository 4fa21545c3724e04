"""Pure fit: the stack presses through hard layers on what stands round it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from levelcradle.core.axes import scaled
from levelcradle.core.box.holding.stack import Check, Forces, Grip, InFace, Placed, Stack
from levelcradle.core.box.openings import outward
from levelcradle.core.box.piece import Piece
from levelcradle.core.design.base import FACE_AT, FACES, Face
from levelcradle.core.design.holders import Fit
from levelcradle.core.part import FlatPart

__all__ = ["PLAY_MM", "FaceHeld", "FitHeld", "settles"]

PLAY_MM = 0.5  # what stands nearer lies against it: common practice, no source
SETTLES = "settles in time"


def settles(placed: Placed, face: Face) -> tuple[str, float | None]:
    """(why a face does not carry through its layers, the play that is left by what settles): nothing where it does."""
    rows = placed.stack.tables.liners
    left = 0.0
    for _, layer in placed.box.lining(face):
        row = rows.get(layer.material or "")
        if row is None:
            return "nobody has said what its liner is", None
        if row.creeps == "yes":
            if row.settles_percent is None:
                return f"{row.name} {SETTLES}, nobody has said how much", None
            left += layer.thickness_mm * row.settles_percent / 100
    return (f"its liner {SETTLES}", left) if left else ("", None)


class _NothingDrawn:
    """What is made of nothing of its own."""

    missing = ""
    ties = False
    presses = None

    def pieces(self) -> Iterator[Piece]:
        return iter(())

    def bolted(self) -> Iterator[InFace]:
        return iter(())

    def parts(self, box_id: str, name: str) -> Iterator[FlatPart]:
        return iter(())

    def bought(self) -> Iterator[tuple[str, int]]:
        return iter(())


@dataclass(frozen=True)
class FaceHeld(_NothingDrawn):
    """One face that the stack presses on."""

    placed: Placed
    face: Face
    words: str = ""

    def asks(self) -> Iterator[tuple[str, bool]]:
        return iter(())

    def grips(self) -> tuple[Grip, ...]:
        """In the corners of what lies against it."""
        axis, far = FACE_AT[self.face]
        one, other = (i for i in range(3) if i != axis)
        low, high = self.placed.low, self.placed.high
        n = scaled(outward(self.face), -1.0)
        found = []
        for a in (low[one], high[one]):
            for b in (low[other], high[other]):
                at = [0.0, 0.0, 0.0]
                at[axis], at[one], at[other] = (high if far else low)[axis], a, b
                found.append(Grip((at[0], at[1], at[2]), n, "push", self.face))
        return tuple(found)

    def checks(self, forces: Forces) -> Iterator[Check]:
        """None of its own: a face is asked as a whole, with all that presses on it."""
        return iter(())


@dataclass(frozen=True)
class FitHeld(_NothingDrawn):
    """A stack between its walls. It grips nothing itself: the faces that lie against it do, each by itself."""

    key: str
    spec: Fit
    placed: Placed

    words = "pure fit"

    @staticmethod
    def room(spec: Fit, stack: Stack) -> Mapping[Face, float]:
        return {}

    def why_not(self, face: Face) -> str:
        """Why a face holds nothing; empty where it does."""
        if self.placed.made.bearing_at(face) is None:
            return "what closes the box is held by rivet nuts, which count for nothing in a crash"
        gap = self.placed.gap_mm(face)
        if gap > PLAY_MM:
            return f"{gap:.1f} free before it"
        why, left = settles(self.placed, face)
        return f"{why} and leaves {left:.1f}" if left else why

    def faces(self) -> Iterator[FaceHeld]:
        """Those that hold it."""
        for face in FACES:
            if not self.why_not(face):
                yield FaceHeld(self.placed, face, f"fit against the {face}")

    def asks(self) -> Iterator[tuple[str, bool]]:
        row = self.placed.stack.tables.liners.get(self.spec.between or "")
        if row is None:
            return
        yield f"{row.name} between neighbours settles in time", row.creeps == "no"
        for gap in self.placed.stack.laid.rows:
            fills = -1e-9 <= gap.has_mm - row.thickness_mm <= PLAY_MM
            yield f"{row.name}, {row.thickness_mm:g} thick, in gaps of {gap.has_mm:.1f} {gap.direction}", fills

    def grips(self) -> tuple[Grip, ...]:
        return ()

    def checks(self, forces: Forces) -> Iterator[Check]:
        return iter(())
