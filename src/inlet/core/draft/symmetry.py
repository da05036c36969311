"""Repeating by symmetry, and turning a whole block: the eight ways a square lies on itself.

Each is kept as the pair (quarter turns clockwise, mirrored left-right first), like a ``Turn``.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import NamedTuple

from inlet.core.geometry import Curve, Point, Turn, short_point
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Block, Pair, pins_moved, replace, seam_along


class Symmetry(NamedTuple):
    """``key`` names it in code and settings; ``words`` say it; ``turn`` makes its images."""

    key: str
    words: str
    turn: Turn


SYMMETRIES = (
    Symmetry("half", "Half turn", (2, False)),
    Symmetry("quarter", "Quarter turns", (1, False)),
    Symmetry("left-right", "Mirror left and right", (0, True)),
    Symmetry("up-down", "Mirror up and down", (2, True)),
    Symmetry("falling", "Mirror in the falling diagonal", (3, True)),
    Symmetry("rising", "Mirror in the rising diagonal", (1, True)),
)
"""What can be switched on; several together repeat by everything they make between them."""

STAY: Turn = (0, False)


def then(first: Turn, second: Turn) -> Turn:
    """One turn after another. M the mirror, R a quarter turn: M·Rᵏ = R⁻ᵏ·M."""
    (a, m), (b, n) = first, second
    return ((b - a) % 4 if n else (b + a) % 4), m != n


def group_of(keys: Iterable[str]) -> tuple[Turn, ...]:
    """Every way the symmetries named lay the block on itself, staying put first."""
    steps = [s.turn for s in SYMMETRIES if s.key in set(keys)]
    found = [STAY]
    for turn in found:  # grows while it is walked: the closure
        found += [t for s in steps if (t := then(turn, s)) not in found]
    return tuple(found)


def fits(turn: Turn, block: Block) -> bool:
    """Does a turn carry the block's rectangle onto itself? Odd quarter turns need a square, in the
    grid and finished."""
    square = block.grid[0] == block.grid[1] and block.finished[0] == block.finished[1]
    return turn[0] % 2 == 0 or square


def turner(turn: Turn, width: Exact, height: Exact) -> Callable[[Point], Point]:
    """Where the points of a rectangle go when it is mirrored, turned and laid down at the same
    corner; ``width`` and ``height`` are those before."""
    quarters, mirror = turn

    def moved(p: Point) -> Point:
        x, y = (width - p.x if mirror else p.x), p.y
        for k in range(quarters % 4):
            x, y = (height if k % 2 == 0 else width) - y, x
        return Point(x, y)

    return moved


def image(curve: Curve, move: Callable[[Point], Point]) -> Curve:
    """A curve with its points moved; rigid motions keep arcs arcs."""
    centre = move(curve.centre) if curve.centre is not None else None
    return Curve(move(curve.start), move(curve.end), centre)


def repeated(block: Block, group: Iterable[Turn], curves: Iterable[Curve]) -> list[Curve]:
    """Every image of ``curves`` (grid units), each once, as far as the block's shape allows."""
    moves = [turner(turn, *block.grid) for turn in group if fits(turn, block)]
    found: dict[tuple[object, ...], Curve] = {}
    for curve in curves:
        for move in moves:
            new_curve = image(curve, move)
            found.setdefault((*sorted(new_curve.ends), new_curve.centre), new_curve)
    return list(found.values())


def repeated_points(block: Block, group: Iterable[Turn], point: Point) -> list[Point]:
    """Every image of a point, each once."""
    moves = [turner(turn, *block.grid) for turn in group if fits(turn, block)]
    return list(dict.fromkeys(move(point) for move in moves))


def turned(block: Block, turn: Turn) -> Block:
    """The whole block mirrored and turned: bands, size, seams, marks and fabric with it."""
    quarters, mirror = turn
    move = turner(turn, *block.grid)

    def pair(p: Pair) -> Pair:
        q = short_point(move(Point(*p)))
        return q.x, q.y

    columns = block.columns[::-1] if mirror else block.columns
    rows, finished = block.rows, block.finished
    for _ in range(quarters % 4):
        columns, rows, finished = rows[::-1], columns, (finished[1], finished[0])
    return replace(
        block,
        columns=columns,
        rows=rows,
        finished=finished,
        seams=tuple(seam_along(image(seam.curve, move)) for seam in block.seams),
        marks=tuple(pair(p) for p in block.marks),
        units=tuple(replace(choice, point=pair(choice.point)) for choice in block.units),
        pressing=pins_moved(block.pressing, pair),
        fabric_at=tuple(replace(spot, point=pair(spot.point)) for spot in block.fabric_at),
    )


def centre_of(block: Block) -> Point:
    """The middle of the block in grid units, about which everything turns."""
    width, height = block.grid
    return Point(width / Fraction(2), height / Fraction(2))
