"""Blocks that makers know by name, drawn here, each in the two or few fabrics that make it one."""

from __future__ import annotations

from collections.abc import Callable
from math import atan2, floor, pi

from inlet.core.draft.compass import quarter_arc
from inlet.core.draft.edit import add_seams
from inlet.core.project.block import seam_along
from inlet.core.project.value import replace
from tests.blocks import block_of, in_fabrics, point
from tests.core.assembly.test_assembly import ALL

LIGHT, DARK = "a", "b"


def painted(drawn: str, columns: int, rows: int, fabric_at: Callable[[float, float], str], side=3):
    """A block of square cells, each patch in the fabric of a point inside it (grid units)."""
    block = block_of(drawn, columns, rows, (side * columns, side * rows), "a")
    spots = (replace(spot, fabric=fabric_at(*map(float, spot.point))) for spot in block.fabric_at)
    return replace(block, fabric_at=tuple(spots))


def grid(columns: int, rows: int) -> str:
    down = [f"{x} 0 {x} {rows}" for x in range(1, columns)]
    return " / ".join(down + [f"0 {y} {columns} {y}" for y in range(1, rows)])


def checker(x: float, y: float) -> str:
    return LIGHT if (int(x) + int(y)) % 2 else DARK


def wheel(x: float, y: float) -> str:
    """Eighths about (1, 1), dark by turns."""
    return DARK if floor(atan2(y - 1, x - 1) / pi * 4) % 2 else LIGHT


def hourglass(x: float, y: float) -> str:
    across = abs(x % 1 - 0.5) > abs(y % 1 - 0.5)
    return DARK if across ^ ((int(x) + int(y)) % 2 == 1) else LIGHT


def goose(x: float, y: float) -> str:
    return DARK if y % 1 > abs(x - 1) else LIGHT


def star(x: float, y: float) -> str:
    """Geese about a square of four, their noses inward: the sky makes the points."""
    u, v = sorted((abs(x - 2), abs(y - 2)))
    if v < 1:
        return DARK
    return DARK if u < 1 and v - 1 < u else LIGHT


def dash(x: float, y: float) -> str:
    u, v = abs(x - 1.5), abs(y - 1.5)
    if u > 0.5 and v > 0.5:
        return DARK if u + v < 2 else LIGHT
    return DARK if 0.5 < max(u, v) < 1 else LIGHT


DIAGONALS = " / ".join(
    f"{x} {y} {x + 1} {y + 1} / {x} {y + 1} {x + 1} {y}" for x in range(3) for y in range(3)
)
GEESE = " / ".join(f"0 {y + 1} 1 {y} / 1 {y} 2 {y + 1}" for y in range(4))
STAR = (
    "1 0 1 4 / 3 0 3 4 / 0 1 4 1 / 0 3 4 3 / 1 0 2 1 / 2 1 3 0 / 0 1 1 2 / 1 2 0 3 / "
    "1 4 2 3 / 2 3 3 4 / 4 1 3 2 / 3 2 4 3"
)
DASH = (
    "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2 / 0 1 1 0 / 2 0 3 1 / 0 2 1 3 / 2 3 3 2 / "
    "1 1/2 2 1/2 / 1 5/2 2 5/2 / 1/2 1 1/2 2 / 5/2 1 5/2 2"
)
BRICKS = (
    "0 1 6 1 / 0 2 6 2 / 0 3 6 3 / 2 0 2 1 / 4 0 4 1 / 1 1 1 2 / 3 1 3 2 / 5 1 5 2 / "
    "2 2 2 3 / 4 2 4 3 / 1 3 1 4 / 3 3 3 4 / 5 3 5 4"
)


def four_quarters():
    """A quarter circle about a corner of each of four cells, turned once round."""
    block = block_of(grid(2, 2), 2, 2, (8, 8), "a")
    arcs = [
        quarter_arc(point(*p), point(*q), True)
        for p, q in (((1, 0), (0, 1)), ((2, 1), (1, 0)), ((1, 2), (2, 1)), ((0, 1), (1, 2)))
    ]
    return in_fabrics(add_seams(block, [seam_along(arc) for arc in arcs]), "ab")


NAMED = {
    "four-patch": painted(grid(2, 2), 2, 2, checker),
    "nine-patch": painted(grid(3, 3), 3, 3, checker),
    "checkerboard": painted(grid(6, 6), 6, 6, checker, 2),
    "bricks": painted(BRICKS, 6, 4, lambda x, y: "abcd"[int(x + 2 * int(y)) % 4], 2),
    "bricks of one fabric": painted(BRICKS, 6, 4, lambda x, y: LIGHT, 2),
    "pinwheel": painted("1 0 1 2 / 0 1 2 1 / 0 0 2 2 / 2 0 0 2", 2, 2, wheel, 4),
    "hourglasses": painted(f"{DIAGONALS} / {grid(3, 3)}", 3, 3, hourglass),
    "geese": painted(f"{GEESE} / 0 1 2 1 / 0 2 2 2 / 0 3 2 3", 2, 4, goose),
    "star of geese": painted(STAR, 4, 4, star),
    "dash": painted(DASH, 3, 3, dash),
    "rounds": ALL["Rounds"],
    "ring": ALL["Ring"],
    "set-in centre": ALL["blades round a square"],
    "four quarter circles": four_quarters(),
}
