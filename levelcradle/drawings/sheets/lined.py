"""What boxes are lined with: the pieces, and how much of a roll they take."""

from collections.abc import Iterator

from levelcradle.core.box import LinerPiece, board_pieces, liner_pieces
from levelcradle.core.nesting import off_a_roll
from levelcradle.drawings.subject import Subject
from levelcradle.drawings.table import Cell, Column, Table

__all__ = ["liner_list", "liners_bought"]


def liner_list(subject: Subject) -> Table:
    """One row a kind of piece."""
    columns = (
        *(Column("box", 0.5), Column("where", 1.2), Column("off", 0.5, 0), Column("liner", 2.2)),
        *(Column("thick", 0.8, 1, "fine"), Column("long", 0.9, 1, "taped"), Column("wide", 0.9, 1, "taped")),
        Column("m²", 0.7, 3),
    )
    kits = subject.assembly.design.sheets.kits
    rows = tuple(_row(subject, letter, piece, kits) for letter, piece in _pieces(subject))
    note = "Squares: at edges that are cut off they are trimmed when they are fitted. Glue by the area"
    return Table("liner-list", f"Liner list{subject.for_cars}", columns, rows, note)


def _pieces(subject: Subject) -> Iterator[tuple[str, LinerPiece]]:
    for letter, box in subject.boxes:
        for piece in (*liner_pieces(box.box, box.shell.inner_mm), *board_pieces(box.box, box.shell.plates)):
            yield letter, piece


def _row(subject: Subject, letter: str, piece: LinerPiece, kits: int) -> tuple[Cell, ...]:
    (long, wide), off = piece.size_mm, piece.quantity * kits
    return (
        *(letter, piece.where, off, _called(subject, piece), piece.thickness_mm, long, wide),
        off * long * wide * 1e-6,
    )


def _called(subject: Subject, piece: LinerPiece) -> str:
    """Its row of the table; where nobody has said, the first that is as thick."""
    rows = subject.assembly.tables.liners
    if piece.material in rows:
        return rows[piece.material].name
    return next((row.name for row in rows.values() if row.thickness_mm == piece.thickness_mm), "liner")


def liners_bought(subject: Subject) -> Iterator[tuple[str, str, float | None]]:
    """(what, how much of it and how wide the roll is, what it costs) of each liner."""
    prices = {row.name: row.price_per_m2 for row in subject.assembly.tables.liners.values()}
    chosen, write = subject.assembly.design.sheets, subject.job.length
    alike: dict[tuple[float, str], list[tuple[float, float]]] = {}
    glued: dict[tuple[float, str], float] = {}
    for _, piece in _pieces(subject):
        liner, (wide, tall) = (piece.thickness_mm, _called(subject, piece)), piece.size_mm
        number = piece.quantity * chosen.kits
        alike.setdefault(liner, []).extend([piece.size_mm] * number)
        glued[liner] = glued.get(liner, 0.0) + (number * wide * tall * 1e-6 if piece.glued else 0.0)
    for (thickness, name), sizes in sorted(alike.items()):
        long, left = off_a_roll(sizes, chosen.roll_mm)
        metres = f"{long / 1000:.2f} m of a roll {write(chosen.roll_mm)} wide"
        joined = f"; {len(left)} larger than the roll is wide, joined" if left else ""
        area = glued[thickness, name]
        price = prices.get(name)
        cost = price and price * long * chosen.roll_mm * 1e-6
        yield f"{name}, {thickness:g} mm", f"{metres}{joined}{f'; {area:.2f} m² to glue' if area else ''}", cost
