"""Axle loads against ratings and target; what the weighing cannot tell."""

import math
from collections.abc import Iterator

from levelcradle.core.assembly import Assembly
from levelcradle.core.design.design import AS_FOUND
from levelcradle.core.design.vehicle import Corners
from levelcradle.core.finding import Figure, Finding, State, Step, Working, plain
from levelcradle.core.level.balance import WheelLoads, total_kg_of
from levelcradle.core.level.lift import cg_height
from levelcradle.core.level.result import LevelResult
from levelcradle.core.level.weighings import weighed_rows, weighing_findings

__all__ = ["level_findings", "loads_working"]

STATICS = "moments about the front axle line (statics)"
UNCERTAINTY = (
    "each cause with its sign through all it does, then the root of the squares; half a step d/2 as 2 (d/2) / √3"
)


def level_findings(assembly: Assembly, figures: LevelResult) -> list[Finding]:
    """Everything the Level station has to say."""
    if figures.found is not None and figures.ready is None:
        return [_note("balance", "foul", "More comes out than the car weighed as found", AS_FOUND)]
    found = [_missing(*row) for row in figures.missing] + list(_not_measured(assembly, figures))
    if figures.found is None or figures.ready is None:
        return [
            _note("weigh", "unknown", "Weigh the car first: nobody can say what the axles will read", AS_FOUND),
            *found,
        ]
    rows = [("ready", "ready", figures.ready), *((r.id, r.name, r.loads) for r in figures.states)]
    found.append(_loads(assembly, figures, figures.ready))
    for key, name, loads in rows:
        found += _ratings(assembly, figures, key, name, loads)
    found += _target(assembly, figures.ready)
    found += _height(assembly)
    found += _axles_agree(assembly)
    found += weighing_findings(weighed_rows(assembly, figures))
    return found


def _note(code: str, state: State, message: str, subject: str, rationale: str = "") -> Finding:
    return Finding(
        id=f"level:{code}",
        code=f"level.{code}",
        station="level",
        state=state,
        subjects=(subject,),
        message=message,
        rationale=rationale,
    )


def _missing(path: str, name: str, what: str) -> Finding:
    return Finding(
        id=f"level:missing:{path}",
        code="level.missing",
        station="level",
        state="unknown",
        subjects=(path,),
        message=f"{plain(name)}: its {what} is missing, so the axle loads leave it out",
        rationale="a missing figure never passes",
    )


def _loads(assembly: Assembly, figures: LevelResult, ready: WheelLoads) -> Finding:
    """What the axles will read, with its working, whether or not anybody gave a rating."""
    return Finding(
        id="level:ready",
        code="level.ready",
        station="level",
        state="note",
        subjects=(AS_FOUND,),
        message="Ready: front {0} ± {1}, rear {2} ± {3}",
        figures=(
            Figure(ready.front_kg, "kg"),
            Figure(ready.off.front_kg, "kg", "up"),
            Figure(ready.rear_kg, "kg"),
            Figure(ready.off.rear_kg, "kg", "up"),
        ),
        value=ready.rear_kg,
        unit="kg",
        tolerance=ready.off.rear_kg,
        rationale="as found, and every change times its lever",
        label="axle loads",
        working=lambda: loads_working(assembly, figures, ready),
    )


def _ratings(assembly: Assembly, figures: LevelResult, key: str, name: str, loads: WheelLoads) -> Iterator[Finding]:
    rating = assembly.vehicle.ratings
    for axle, load, tol, most in (
        ("front axle", loads.front_kg, loads.off.front_kg, rating.front_kg),
        ("rear axle", loads.rear_kg, loads.off.rear_kg, rating.rear_kg),
        ("gross mass", loads.total_kg, loads.off.total_kg, rating.gross_kg),
    ):
        if most is None:
            continue
        margin = most - load
        state: State = "foul" if margin < 0 or load < 0 else "tight" if margin < rounded_up(tol) else "clear"
        unsure = ready_is_unsure(assembly, figures, loads)
        if unsure and state != "foul":
            state = "unknown"
        words = "{0} over its rating" if margin < 0 else "{0} under its rating"
        yield Finding(
            id=f"level:rating:{key}:{axle}",
            code="level.rating",
            station="level",
            state=state,
            subjects=("vehicle/ratings",) if key == "ready" else (f"load_states/{key}", "vehicle/ratings"),
            message=f"{axle.capitalize()}, {plain(name)}: {words}, ± {{1}}",
            figures=(Figure(abs(margin), "kg", "up" if margin < 0 else "down"), Figure(tol, "kg", "up")),
            value=load,
            limit=most,
            margin=margin,
            unit="kg",
            tolerance=tol,
            label=axle,
            rationale=unsure or "rating as given for the vehicle",
            working=lambda: loads_working(assembly, figures, loads),
        )


def rounded_up(tol_kg: float) -> float:
    """A ± as it is shown: to a tenth, never less than it is."""
    return math.ceil(round(tol_kg * 10, 6)) / 10


def ready_is_unsure(assembly: Assembly, figures: LevelResult, loads: WheelLoads) -> str:
    """Why a verdict on the loads cannot be given: a figure is missing, or only assumed or guessed."""
    if figures.missing:
        _, name, what = figures.missing[0]
        return f"the {what} of {name} is missing"
    if loads.assumed:
        return loads.assumed
    first = next((weight for weight in assembly.weights.values() if weight.guessed), None)
    if unsure := next((g for box in assembly.boxes.values() if (g := assembly.guess_in(box))), None):
        return f"not taken yet is {assembly.words_of(unsure)}"
    return f"the mass of {first.name} is a guess until it is weighed, or until somebody answers for it" if first else ""


def loads_working(assembly: Assembly, figures: LevelResult, loads: WheelLoads) -> Working:
    """How an axle's load came about: as found, and each change times its lever."""
    assert figures.found is not None
    wheelbase = assembly.vehicle.wheelbase_mm
    steps = [Step("rear axle as found", "rear readings added", figures.found.rear_kg, "kg", "scales")]
    for row in figures.masses:
        rule = f"{row.mass_kg:+.2f} kg × {row.at[0]:.1f} / {wheelbase:g}"
        steps.append(Step(row.name, rule, row.mass_kg * row.at[0] / wheelbase, "kg", STATICS))
    payload = loads.rear_kg - figures.found.rear_kg - math.fsum(s.value for s in steps[1:])
    if abs(payload) > 1e-6:
        steps.append(Step("people and load aboard", "each mass × its lever", payload, "kg", STATICS))
    steps.append(Step("rear axle", "all added", loads.rear_kg, "kg", STATICS))
    steps.append(Step("front axle", f"total {loads.total_kg:.1f} − rear", loads.front_kg, "kg", STATICS))
    for name, off in (
        ("front axle", loads.off.front_kg),
        ("rear axle", loads.off.rear_kg),
        ("gross mass", loads.off.total_kg),
    ):
        steps.append(Step(f"± of the {name}", UNCERTAINTY, off, "kg", "JCGM 100, from memory; k = 2, about 95 %"))
    return (*steps, *_cg_steps(loads, wheelbase))


def _cg_steps(loads: WheelLoads, wheelbase_mm: float) -> Iterator[Step]:
    """Where the CG is, and the corners with the rule that splits them."""
    yield Step("CG aft", f"rear / total × {wheelbase_mm:g}", loads.aft_mm, "mm", STATICS)
    if loads.across_mm is not None:
        yield Step(
            "CG right", "(found total × found right + Σ m × right) / total", loads.across_mm, "mm", "moments (statics)"
        )
    if loads.up_mm is not None:
        yield Step("CG up", "(found total × found up + Σ m × up) / total", loads.up_mm, "mm", "moments (statics)")
    if c := loads.corners:
        rule = f"half the axle's change to each side; {loads.rule}"
        for name, load in (
            ("left front", c.lf_kg),
            ("right front", c.rf_kg),
            ("left rear", c.lr_kg),
            ("right rear", c.rr_kg),
        ):
            yield Step(name, rule, load, "kg", "common practice, no source; axle sums are exact")


def _target(assembly: Assembly, ready: WheelLoads) -> Iterator[Finding]:
    target = assembly.vehicle.target
    if target is None:
        return
    off = ready.front_percent - target.front_percent
    yield Finding(
        id="level:target",
        code="level.target",
        station="level",
        state="note",
        subjects=("vehicle/target",),
        message="Front share {0} of the mass, {1} aimed at",
        figures=(Figure(ready.front_percent, "%"), Figure(target.front_percent, "%")),
        value=ready.front_percent,
        limit=target.front_percent,
        margin=-abs(off),
        unit="%",
        rationale="your own aim",
        label="front share",
    )


def _not_measured(assembly: Assembly, figures: LevelResult) -> Iterator[Finding]:
    vehicle, found = assembly.vehicle, figures.found
    if found and found.corners is None:
        yield _note("across", "unknown", "Left and right were not weighed", AS_FOUND, "only axle readings were taken")
    if vehicle.track_mm is None:
        yield _note(
            "tracks",
            "unknown",
            "The tracks are not known",
            "vehicle/track_mm",
            "how far to a side the CG lies follows from them",
        )
    if vehicle.cg_height is None:
        yield _note(
            "height",
            "unknown",
            "The height of the CG is not known",
            "vehicle/cg_height",
            "nobody measured or assumed it",
        )
    elif assembly.guess_of("vehicle/cg_height/up_mm"):
        yield _note(
            "height",
            "unknown",
            "The height of the CG is assumed, and nobody answers for it",
            "vehicle/cg_height",
            "measure it by the axle lift, or say who answers for the guess and within what ±",
        )


def _height(assembly: Assembly) -> Iterator[Finding]:
    """A height by the lift: with its ±; wider than half a hand it only counts as assumed."""
    weighing = assembly.weighing
    height = cg_height(assembly.vehicle, total_kg_of(weighing)) if weighing else None
    if height is None or not height.working:
        return
    low = height.up_mm <= 0
    state: State = "foul" if low else "unknown" if height.assumed else "note"
    message = "CG {0} up by the axle lift, ± {1}" + (": it only counts as assumed" if height.assumed else "")
    yield Finding(
        id="level:lift",
        code="level.lift",
        station="survey",
        state=state,
        subjects=("vehicle/cg_height",),
        message="By the axle lift the CG would lie below the ground: check the readings" if low else message,
        figures=(Figure(height.up_mm, "mm"), Figure(height.tol_mm, "mm", "up")),
        value=height.up_mm,
        unit="mm",
        tolerance=height.tol_mm,
        rationale="a step of the scale moves it by centimetres; lift higher, or read finer",
        label="CG height",
        working=lambda: height.working,
    )


def _axles_agree(assembly: Assembly) -> Iterator[Finding]:
    """The sums of the corners against an axle scale: each is sure to half a step a reading."""
    weighing = assembly.weighing
    if not isinstance(weighing, Corners) or weighing.check is None:
        return
    check = weighing.check
    rows = (
        ("front", weighing.lf_kg + weighing.rf_kg, check.front_kg),
        ("rear", weighing.lr_kg + weighing.rr_kg, check.rear_kg),
    )
    for name, corners, axle in rows:
        allowed = weighing.step_kg + check.step_kg / 2
        off = corners - axle
        yield Finding(
            id=f"survey:axles:{name}",
            code="survey.axles",
            station="survey",
            state="clear" if abs(off) <= allowed else "unknown",
            subjects=(AS_FOUND,),
            message=f"{name.capitalize()} wheels add up to {{0}}, the axle scale reads {{1}}",
            figures=(Figure(corners, "kg"), Figure(axle, "kg")),
            value=corners,
            limit=axle,
            margin=allowed - abs(off),
            unit="kg",
            tolerance=allowed,
            rationale="half a step at each reading; more than that, one of the scales is wrong",
            label=f"{name} axle",
        )
