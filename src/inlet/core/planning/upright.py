"""Prints with a direction: which triangles of a square stand upright where, and how many squares
give them all.

A square is cut with its print upright, and what comes off it is moved into its place, not turned.
Cut twice, it gives one triangle for each side; cut once, those for two opposite corners. So of n
patches that face one way a one-way print takes n squares, and others only fill what these leave. A
two-way print may lie upside down: what faces opposite ways is alike.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from types import MappingProxyType
from typing import NamedTuple

from inlet.core.geometry import Motion, Polygon, bounds, edges, right_corner
from inlet.core.methods import Method
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Direction
from inlet.core.table import Crosscut, Lean, Piece

Directions = Mapping[str | None, Direction]
"""The fabrics whose prints have a direction."""
Turns = tuple[int, int, int, int]
"""How many of a unit lie as in its picture, and a quarter, a half, three quarters of a turn
clockwise."""
_QUARTERS = tuple(Motion(Fraction(x), Fraction(y)) for x, y in ((1, 0), (0, 1), (-1, 0), (0, -1)))


class Facing(NamedTuple):
    """How a patch lies: the ``lean`` of the diagonal its square is cut on once, empty where it is
    cut on both, and of a rectangle's halves; a rectangle's long side ``upright``; and to which
    ``corner`` or side of its square, or rectangle, its right angle points, (0, 0) where it is not
    cut apart."""

    lean: Lean
    upright: bool
    corner: tuple[int, int]


NONE_SPARE: Mapping[Facing, int] = MappingProxyType({})


class Upright(NamedTuple):
    """The patches that are cut as a piece, by the way they face: how many are ``needed``, and how
    many of those are ``spare`` triangles of squares cut for other units."""

    crosscut: Crosscut
    two_way: bool
    needed: Mapping[Facing, int]
    spare: Mapping[Facing, int] = NONE_SPARE

    @property
    def squares(self) -> dict[tuple[Lean, bool], int]:
        """How many to cut on which diagonal, the long side upright or not."""
        each = 2 if self.two_way and self.crosscut != "none" else 1
        most: dict[tuple[Lean, bool], int] = {}
        for facing, number in self.needed.items():
            kind = facing.lean, facing.upright
            cut = -(-(number - self.spare.get(facing, 0)) // each)
            most[kind] = max(most.get(kind, 0), cut)
        return {kind: number for kind, number in most.items() if number}

    @property
    def by_lean(self) -> Counter[Lean]:
        """The same by the diagonal alone."""
        counts: Counter[Lean] = Counter()
        for (lean, _), number in self.squares.items():
            counts[lean] += number
        return counts

    @property
    def number(self) -> int:
        """How many to cut in all."""
        return sum(self.squares.values())

    @property
    def given(self) -> Counter[Facing]:
        """The triangles those give."""
        given: Counter[Facing] = Counter()
        for (lean, upright), number in self.squares.items():
            for corner in _corners(self.crosscut, lean):
                given[_told(Facing(lean, upright, corner), self.two_way)] += number
        return given

    @property
    def over(self) -> Counter[Facing]:
        """The triangles they give and this unit does not need, below 0 where it takes those of
        others."""
        over = self.given
        over.subtract(self.needed)
        return over


def _corners(crosscut: Crosscut, lean: Lean) -> tuple[tuple[int, int], ...]:
    if crosscut == "none":
        return ((0, 0),)
    if crosscut == "twice":
        return (0, -1), (1, 0), (0, 1), (-1, 0)
    return ((-1, -1), (1, 1)) if lean == "rising" else ((1, -1), (-1, 1))


def _told(facing: Facing, two_way: bool) -> Facing:
    """Of a print that may lie upside down, the same for opposite corners."""
    x, y = facing.corner
    return facing._replace(corner=max((x, y), (-x, -y))) if two_way else facing


def upright_pieces(
    method: Method, turns: Turns | None, directions: Directions
) -> dict[int, Upright] | None:
    """How the pieces of a method lie, by their number, where they are of a print with a direction
    and not squares; None where a method does not keep such a print upright."""
    bands = {fabric for strips in method.sets for _, fabric in strips.bands}
    if not any(fabric in directions for fabric in (*bands, *(p.fabric for p in method.pieces))):
        return {}
    if method.lying is None or turns is None or method.sets:
        return None
    upright: dict[int, Upright] = {}
    for i, (piece, outlines) in enumerate(zip(method.pieces, method.lying(), strict=True)):
        if piece.fabric not in directions:
            continue
        lie = _lie(piece, outlines, turns, directions[piece.fabric])
        if lie is None:
            return None
        if outlines and not (piece.shape == "square" and piece.crosscut == "none"):
            upright[i] = lie
    return upright


def _lie(
    piece: Piece, outlines: Iterable[Polygon], turns: Turns, direction: Direction
) -> Upright | None:
    """How the patches of these ``outlines`` lie in the block, their unit lying in these ``turns``;
    None where one does not run with the block's edges, so that its print cannot be upright."""
    if piece.shape == "template":
        return None
    needed: Counter[Facing] = Counter()
    for outline in outlines:
        for motion, number in zip(_QUARTERS, turns, strict=True):
            facing = _facing(motion.polygon(outline), piece)
            if facing is None:
                return None
            if number:
                needed[_told(facing, direction == "two-way")] += number
    return Upright(piece.crosscut, direction == "two-way", needed)


def _facing(outline: Polygon, piece: Piece) -> Facing | None:
    left, top, right, bottom = bounds(outline)
    upright = piece.shape == "rectangle" and bottom - top > right - left
    if piece.crosscut == "none":
        level = all(p.x == q.x or p.y == q.y for p, q in edges(outline))
        return Facing("", upright, (0, 0)) if level else None
    points = right_corner(outline)
    if points is None:
        return None
    corner, after, before = points
    if piece.crosscut == "twice":
        towards = (2 * c - a - b for c, a, b in zip(corner, after, before, strict=True))
        x, y = map(_sign, towards)
        return Facing("", False, (x, y))
    if corner.x not in (after.x, before.x) or corner.y not in (after.y, before.y):
        return None
    x, y = (1 if corner.x == right else -1), (1 if corner.y == bottom else -1)
    return Facing("rising" if x == y else "falling", upright, (x, y))


def _sign(x: Exact) -> int:
    return (x > 0) - (x < 0)


def turns_of(motions: Iterable[Motion], copies: int) -> Turns | None:
    """How many lie in each quarter turn, in so many copies; None where some lie between two."""
    counts: Counter[int | None] = Counter(quarters_in(motion) for motion in motions)
    if None in counts:
        return None
    return counts[0] * copies, counts[1] * copies, counts[2] * copies, counts[3] * copies


def quarters_in(motion: Motion) -> int | None:
    """The quarter turns clockwise in a motion; None where it turns by something else."""
    turn = motion.turn_only()
    return _QUARTERS.index(turn) if turn in _QUARTERS else None


def turned_on(turns: Turns, quarters: int) -> Turns:
    """The same against a picture that lies so many quarter turns before."""
    first = -quarters % 4
    by_turn = turns + turns
    return by_turn[first], by_turn[first + 1], by_turn[first + 2], by_turn[first + 3]
