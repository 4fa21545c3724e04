"""One tier of identical pieces beside a general-purpose packing package from the registry: never fewer. Prints both."""

import rectpack

from levelcradle.core.fit import pack_tier
from tests.outside.test_packing import HARD, PINWHEELS


def by_package(case: tuple[int, int, int, int]) -> int:
    """The best of its three families of algorithms, turning allowed."""
    length, width, a, b = case
    best = 0
    for algorithm in (rectpack.MaxRectsBssf, rectpack.GuillotineBssfSas, rectpack.SkylineMwfl):
        packer = rectpack.newPacker(rotation=True, pack_algo=algorithm)
        packer.add_bin(length, width)
        for _ in range(length * width // (a * b)):
            packer.add_rect(a, b)
        packer.pack()
        best = max(best, len(packer.rect_list()))
    return best


def test_never_fewer_than_a_general_package() -> None:
    print(f"\n{'case':>20} {'ours':>5} {'package':>8} {'optimum':>8}")
    for case, best in (HARD | PINWHEELS).items():
        ours, theirs = len(pack_tier(*case)), by_package(case)
        print(f"{case!s:>20} {ours:>5} {theirs:>8} {best:>8}")
        assert ours >= theirs
