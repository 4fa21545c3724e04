"""What every kind of mount answers, and what it is told of the box it carries. Reactions, checks, drawings and parts
ask this, never how a mount is made.

A new kind is a model in ``design.mount``, a class of this form, and its line in ``kinds``.
"""

from collections.abc import Hashable, Iterator
from dataclasses import dataclass
from typing import Any, Literal, Protocol

import numpy as np
from numpy.typing import NDArray

from levelcradle.core.axes import Matrix, Placement, Vec, minus, plus, scaled
from levelcradle.core.box import Wall
from levelcradle.core.connection.spot import Spot
from levelcradle.core.design.mount import Mount
from levelcradle.core.design.tables import Tables
from levelcradle.core.finding import Working
from levelcradle.core.part import FlatPart
from levelcradle.core.solids import Solid, block, nearest

__all__ = [
    "Connection",
    "Contact",
    "ForceArray",
    "Governing",
    "Measure",
    "MountPiece",
    "Plain",
    "Road",
    "Seat",
    "Second",
    "Unfit",
    "lies_on",
]

ForceArray = NDArray[np.float64]
Road = bool | NDArray[np.bool_]
TOUCHES_MM = 1.0  # a spot this near to a thing's solid lies on that thing


@dataclass(frozen=True, slots=True)
class Seat:
    """The face of a box that a mount holds, in vehicle axes: a point of it, its outward normal, the wall there (on the
    base the tube that a hard point is beyond, if any), and how the box stands.

    ``over``: its corners with what closes it, in its own frame; ``closed``: the face that it is filled through;
    ``runs``, ``rises``: the axes of the box along which the wall runs, and its heights are."""

    point: Vec
    normal: Vec
    placement: Placement
    wall: Wall | None
    box_name: str
    material: str  # id of what the box is made of
    over: tuple[Vec, Vec]
    closed: str
    runs: int
    rises: int


@dataclass(frozen=True, slots=True)
class Contact:
    """Where forces pass: in all directions (``both``), or only along ``n`` and one way: the box pushes the vehicle
    (``push``) or pulls it (``pull``). ``n``: from the vehicle's metal towards the box; ``stiffness`` beside that of the
    others."""

    at: Vec
    n: Vec
    can: Literal["both", "push", "pull"] = "both"
    stiffness: float = 1.0


@dataclass(frozen=True, slots=True)
class MountPiece:
    """One piece of a mount in vehicle axes, with its mass. ``part``: id of the flat part it is of; ``on_wall``:
    it lies on the box's wall, or on a plate on it; ``inside``: it stands in the box."""

    name: str
    solid: Solid
    mass_kg: float
    part: str = ""
    on_wall: bool = False
    inside: bool = False


@dataclass(frozen=True, slots=True)
class Measure:
    """A length of a mount between two points of its own frame, as it is dimensioned; ``at_wall``: where one looks at
    the face that it holds, else beside it."""

    words: str
    start: Vec
    end: Vec
    at_wall: bool = False


@dataclass(frozen=True, slots=True)
class Second:
    """What only holds a box that has come off its mounts: against which way, what is drawn in each end for every newton
    that way, and what one like it held in a test."""

    against: Vec
    each: float
    tested_n: float | None


@dataclass(frozen=True, slots=True)
class Governing:
    """The load that decides a check: in which case and solve, its three parts [N]."""

    check: str
    utilisation: float
    case: str
    solve: str
    load: tuple[float, float, float]


class Connection(Protocol):
    """A mount in place, in vehicle axes."""

    @property
    def id(self) -> str: ...

    @property
    def mount(self) -> Mount: ...

    @property
    def spot(self) -> Spot: ...

    @property
    def pieces(self) -> tuple[MountPiece, ...]:
        """Its solids; none where it cannot be made."""

    @property
    def unfit(self) -> str:
        """Why it cannot stand where it is; empty where it can."""

    @property
    def contacts(self) -> tuple[Contact, ...]: ...

    @property
    def frame_mm(self) -> Placement | None:
        """From its own frame to vehicle axes, zero at the spot: away from the face that it holds, along it, and n.
        None where it cannot be made."""

    @property
    def outward(self) -> Vec:
        """From where, outside the box, one looks at it."""

    @property
    def measures(self) -> tuple[Measure, ...]:
        """What it is dimensioned by."""

    @property
    def welds(self) -> tuple[Solid, ...]:
        """Where it is welded to the box, as they are drawn."""

    @property
    def reach_mm(self) -> float | None:
        """How far from the box's face it lands on the vehicle, where that is a figure of it."""

    @property
    def unchecked(self) -> str:
        """Why no strength of it is given; empty where its checks hold."""

    @property
    def rough(self) -> tuple[str, ...]:
        """Checks that are never better than tight."""

    @property
    def remarks(self) -> tuple[str, ...]:
        """What lies outside the range of the rules that are used: said, no reason to fail."""

    @property
    def tightening(self) -> tuple[float, float]:
        """(torque [N·m], least preload [N]) of its bolt; zero where it has none."""

    @property
    def alike(self) -> Hashable:
        """All that its uses rest on beside its load: mounts with the same are worked out together."""

    def parts_of(self, forces: Matrix) -> tuple[ForceArray, ForceArray, ForceArray]:
        """(..., 3) forces of the box on it, vehicle axes [N], as the three parts its checks speak of."""

    def utilisations(
        self, load: tuple[ForceArray, ForceArray, ForceArray], *, road: Road, first: str = ""
    ) -> Iterator[tuple[str, ForceArray]]:
        """Every check and its use under given loads, demand / capacity, worked out as it is asked for; ``first``: the
        one to begin with."""

    def fatigue(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> Iterator[tuple[str, ForceArray]]:
        """Of each of its welds the use under a load that comes to either side, time after time: the range of its stress
        against what it bears two million times."""

    def pull_and_shear(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> tuple[ForceArray, ForceArray]:
        """What the vehicle must bear: away from its metal, and along it [N]."""

    def shape_asks(self) -> Iterator[tuple[str, bool]]:
        """What its shape must keep, each with whether it does."""

    def working(self, row: Governing) -> Working:
        """The steps of its weakest check."""

    def parts(self, tables: Tables) -> Iterator[FlatPart]:
        """The flat parts it is cut from."""

    def bought(self) -> Iterator[str]:
        """What is bought for it, one of each."""

    def sits_on(self, solid: Solid) -> bool:
        """Whether it touches a thing by intent."""

    @property
    def bears_face(self) -> bool:
        """Whether the box itself lies on what it sits on."""

    @property
    def slides(self) -> int | None:
        """Of a bolt in a slot, which of the three parts of its load goes along it; of one in a wide hole both that lie
        in the metal, told by 0; None of one in a round hole, or of none."""

    @property
    def on_tube(self) -> Seat | None:
        """Of one that is welded to a tube of its box's frame, where."""

    @property
    def second(self) -> Second | None:
        """Of a second restraint, which counts for nothing in a crash: what it does if the others let go."""


def lies_on(spot: Spot, solid: Solid) -> bool:
    """Whether a spot lies on a thing's solid."""
    at = plus(spot.at, scaled(spot.n, -0.5))
    if not all(solid.low[i] - TOUCHES_MM < at[i] < solid.high[i] + TOUCHES_MM for i in range(3)):
        return False
    probe = block(minus(at, (0.01, 0.01, 0.01)), plus(at, (0.01, 0.01, 0.01)))
    return nearest(probe, solid).gap_mm <= TOUCHES_MM


class Plain:
    """What a kind of mount answers where it has nothing to say."""

    __slots__ = ()

    @staticmethod
    def fitted(made: dict[str, Any], spot: Spot, seat: Seat) -> dict[str, Any]:
        """What was begun, drawn to where it is put."""
        return made

    @property
    def measures(self) -> tuple[Measure, ...]:
        return ()

    @property
    def welds(self) -> tuple[Solid, ...]:
        return ()

    @property
    def reach_mm(self) -> float | None:
        return None

    @property
    def unchecked(self) -> str:
        return ""

    @property
    def rough(self) -> tuple[str, ...]:
        return ()

    @property
    def remarks(self) -> tuple[str, ...]:
        return ()

    @property
    def tightening(self) -> tuple[float, float]:
        return 0.0, 0.0

    @property
    def alike(self) -> Hashable:
        return self

    def parts_of(self, forces: Matrix) -> tuple[ForceArray, ForceArray, ForceArray]:
        return forces[..., 0], forces[..., 1], forces[..., 2]

    def utilisations(
        self, load: tuple[ForceArray, ForceArray, ForceArray], *, road: Road, first: str = ""
    ) -> Iterator[tuple[str, ForceArray]]:
        return iter(())

    def fatigue(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> Iterator[tuple[str, ForceArray]]:
        return iter(())

    def pull_and_shear(self, load: tuple[ForceArray, ForceArray, ForceArray]) -> tuple[ForceArray, ForceArray]:
        return np.zeros_like(load[0]), np.zeros_like(load[0])

    def shape_asks(self) -> Iterator[tuple[str, bool]]:
        return iter(())

    def working(self, row: Governing) -> Working:
        return ()

    def parts(self, tables: Tables) -> Iterator[FlatPart]:
        return iter(())

    def bought(self) -> Iterator[str]:
        return iter(())

    @property
    def bears_face(self) -> bool:
        return False

    @property
    def slides(self) -> int | None:
        return None

    @property
    def on_tube(self) -> Seat | None:
        return None

    @property
    def second(self) -> Second | None:
        return None


@dataclass(frozen=True, eq=False, slots=True)
class Unfit(Plain):
    """A mount that cannot be made where it is: it carries nothing, and says why. ``touches``: it would lie on what its
    spot lies on."""

    id: str
    mount: Mount
    spot: Spot
    unfit: str
    touches: bool = True
    pieces: tuple[MountPiece, ...] = ()
    contacts: tuple[Contact, ...] = ()
    frame_mm: Placement | None = None
    outward: Vec = (1.0, 0.0, 0.0)

    @property
    def unchecked(self) -> str:
        return "it cannot stand where it is"

    def sits_on(self, solid: Solid) -> bool:
        return self.touches and lies_on(self.spot, solid)
