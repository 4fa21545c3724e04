"""What is said of how modules are held: what nobody has said, what cannot be, then each of the six ways."""

from collections.abc import Iterator

from levelcradle.core.assembly import Assembly, PlacedBox
from levelcradle.core.box import outward
from levelcradle.core.design.base import FACE_PAIRS
from levelcradle.core.finding import Figure, Finding, State, plain
from levelcradle.core.held.result import WAYS, BlockHeld, Loose, WayHeld, held_result

__all__ = ["NOT_CHECKED", "held_findings"]

DOWNWARD = -0.5  # of the way out of a box: 30° below level, common practice, no source
NOT_CHECKED = (
    "Rigid stack, static, no friction; crash cases of the design. Not checked: the modules' own frames and holes, "
    "fatigue. Have it checked."
)


def held_findings(assembly: Assembly) -> list[Finding]:
    rows: dict[str, list[BlockHeld]] = {}
    for row in held_result(assembly):
        rows.setdefault(row.box, []).append(row)
    found: list[Finding] = []
    for box in assembly.boxes.values():
        if box.shell.modules:
            found += _unsaid(box, rows.get(box.id, []))
            found += (finding for row in rows.get(box.id, []) for finding in _block(assembly, box, row))
            found += _in_one_another(box)
            found += _opened_downward(box)
    return found


def _named(box: PlacedBox, row: BlockHeld) -> str:
    name = plain(box.box.name)
    return f"{name}, block {row.block}" if len(box.box.blocks) > 1 else name


def _unsaid(box: PlacedBox, rows: list[BlockHeld]) -> Iterator[Finding]:
    """A box, or a block of it, of which nobody has said what holds it."""
    name = plain(box.box.name)
    without = [row.block for row in rows if not row.holders] if rows else [""]
    for block in without:
        yield Finding(
            id=f"hold:{box.path}" + (f":{block}" if block else ""),
            code="inside.hold_down",
            station="box",
            state="unknown",
            subjects=(box.path, *((f"{box.path}/blocks/{block}",) if block else ())),
            label="hold-down",
            message=f"{name}{f', block {block}' if block else ''}: nobody has said what holds the modules",
            rationale="modules are held in every direction; a box stops as hard as the car does",
        )


def _block(assembly: Assembly, box: PlacedBox, row: BlockHeld) -> Iterator[Finding]:
    yield from _of_holders(box, row)
    if row.unpressed:
        words = f"{_named(box, row)}: its modules must be held under compression, and nothing presses them that way"
        yield _told(box, f"{row.block}:unpressed", "unknown", words, "compression", row.block)
    for axis, mm in row.gaps:
        ways = " and ".join(WAYS[face] for face in FACE_PAIRS[axis])
        yield _told(
            box,
            f"gap:{row.block}:{axis}",
            "foul",
            f"{_named(box, row)}: neighbours have {{0}} between them and nothing in it: each may go {ways}",
            "gap",
            row.block,
            mm,
        )
    for loose in row.loose:
        yield _loose(box, row, loose)
    if row.turns:
        words = f"{_named(box, row)}: free to turn: what holds it lies in one line"
        yield _told(box, f"{row.block}:turns", "foul", words, "turns", row.block)
    for case in row.lifts:
        words = f"{_named(box, row)}: torn off in {plain(case)}: what it presses on cannot balance it"
        yield _told(box, f"{row.block}:lifts:{case}", "foul", words, case, row.block)
    guess = assembly.guess_in(box)
    unsure = assembly.words_of(guess) if guess else ""
    for way in row.ways:
        yield _way(box, row, way, unsure)


def _of_holders(box: PlacedBox, row: BlockHeld) -> Iterator[Finding]:
    for holder, words in row.missing:
        text = f"{_named(box, row)}: {plain(words)}"
        yield _told(box, f"holder:{holder}", "unknown", text, "holder", row.block, holder=holder)
    for holder, number, words in row.broken:
        text = f"{_named(box, row)}: {plain(words)}"
        yield _told(box, f"holder:{holder}:{number}", "foul", text, "holder", row.block, holder=holder)


def _in_one_another(box: PlacedBox) -> Iterator[Finding]:
    held = box.shell.held
    for one, other in held.clashes:
        words = " and ".join(plain(held.by_holder[key].words) for key in (one, other))
        text = f"{plain(box.box.name)}: {words} stand in one another"
        block = box.box.holders[one].block
        yield _told(box, f"clash:{one}:{other}", "foul", text, "holder", block, holder=one)
    for key, other in held.in_modules:
        text = f"{plain(box.box.name)}: {plain(held.by_holder[key].words)} stand in modules of block {other}"
        yield _told(box, f"in:{key}:{other}", "foul", text, "holder", box.box.holders[key].block, holder=key)


def _loose(box: PlacedBox, row: BlockHeld, loose: Loose) -> Finding:
    if loose.why:
        words = f"{_named(box, row)}: nothing holds it {WAYS[loose.face]}: {plain(loose.why)}"
        return _told(box, f"{row.block}:{loose.face}", "foul", words, WAYS[loose.face], row.block)
    words = f"{_named(box, row)}: nothing holds it {WAYS[loose.face]}, {{0}} free there"
    return _told(box, f"{row.block}:{loose.face}", "foul", words, WAYS[loose.face], row.block, loose.free_mm)


def _told(
    box: PlacedBox,
    key: str,
    state: State,
    message: str,
    label: str,
    block: str,
    mm: float | None = None,
    holder: str = "",
) -> Finding:
    subjects = (box.path, f"{box.path}/blocks/{block}", *((f"{box.path}/holders/{holder}",) if holder else ()))
    return Finding(
        id=f"held:{box.path}:{key}",
        code="inside.held",
        station="box",
        state=state,
        subjects=subjects,
        message=message,
        figures=(Figure(mm, "mm", "up"),) if mm is not None else (),
        value=mm,
        unit="mm" if mm is not None else "",
        label=label,
        rationale=f"modules are held in every direction. {NOT_CHECKED}",
    )


def _way(box: PlacedBox, row: BlockHeld, way: WayHeld, unsure: str) -> Finding:
    by = " and ".join(way.by)
    used = way.utilisation
    message = f"{_named(box, row)}, {WAYS[way.face]}: {plain(by)}"
    if used is not None:
        message += f"; weakest {plain(way.check)}, use {{0}}, {plain(way.case)}"
    state: State = "unknown" if unsure else way.state
    return Finding(
        id=f"held:{box.path}:{row.block}:{way.face}",
        code="inside.held",
        station="box",
        state=state,
        subjects=(box.path, f"{box.path}/blocks/{row.block}"),
        message=message,
        figures=(Figure(used, "use", "up"),) if used is not None else (),
        value=used,
        limit=1.0 if used is not None else None,
        margin=1.0 - used if used is not None else None,
        unit="use",
        label=f"{WAYS[way.face]}: {by}",
        rationale=f"not measured: {plain(unsure)}. {NOT_CHECKED}" if unsure else NOT_CHECKED,
        working=(lambda: way.steps) if way.steps else None,
    )


def _opened_downward(box: PlacedBox) -> Iterator[Finding]:
    """Where a box opens below, something else than what comes off has to hold its modules meanwhile."""
    face, holders = box.shell.made.closed_face, box.box.holders
    if box.placement.direction(outward(face))[2] > DOWNWARD:
        return
    kinds = {holder.type for holder in holders.values()}
    state, words = "unknown", "nobody has said what holds its modules meanwhile"
    if kinds:
        words = " and ".join(sorted({h.words for h in box.shell.held.by_holder.values()}))
        state, words = "note", f"{plain(words)} hold its modules meanwhile"
    if kinds == {"fit"}:
        state, words = "foul", "pure fit lets its modules fall out"
    said: State = state  # type: ignore[assignment]
    yield Finding(
        id=f"hold:{box.path}:opened",
        code="inside.opened",
        station="box",
        state=said,
        subjects=(box.path,),
        label="held while open",
        message=f"{plain(box.box.name)} opens below: {words}",
        rationale=f"its {face} panel comes off with modules in it, and carries nothing then",
    )
