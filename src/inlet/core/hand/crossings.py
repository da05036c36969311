"""Which seams lie between one side of a unit and the other, and how much each takes off its size.

A seam that takes ``s`` of each side brings the pieces ``2s`` closer, square to itself. Of the width
it takes the part of that step that goes across: ``2s |n|``, where ``n`` is how far the seam's
normal goes across. Along a path from the left side to the right these add up: of a half-square
triangle ``2s/√2``, as in f + 2s + s√2 for what is cut.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from itertools import pairwise
from math import hypot
from types import MappingProxyType
from typing import Literal, NamedTuple

from inlet.core.draft import Draft
from inlet.core.units import Part

SeamType = Literal["straight", "long", "bias", "curve"]
TYPES: tuple[SeamType, ...] = ("straight", "long", "bias", "curve")
LONG = 10.0
"""Inches from which a straight seam is long: a hand wanders in it."""
PATHS = (0.4142, 0.6180, 0.2929)
"""Where across a unit is looked, as shares of its height: at no corner of a usual drawing."""
NEARLY = 0.02
"""Of a normal's length: a seam is square to the path, or on the bias."""
Corner = tuple[float, float]


class Crossings(NamedTuple):
    """What lies between two sides: how much of each seam's allowance comes off the size, by type;
    the squares of that for each seam, added up; how many pieces."""

    takes: dict[str, float]
    squares: float
    pieces: int

    @property
    def all(self) -> float:
        return sum(self.takes.values())


class _Shape(NamedTuple):
    corners: list[Corner]
    curved: bool
    unit: int | None  # the trimmed unit it is a part of


class _Piece(NamedTuple):
    low: float
    normal: float  # of its far side, how much goes along the path
    long: float  # how long the line is that its far side lies on
    curved: bool
    unit: int | None


Lines = dict[tuple[float, float, float], tuple[float, float]]
"""By a line's direction and place: from where to where sides lie on it."""


def crossings(
    draft: Draft,
    part: Part,
    trimmed: Mapping[int, int] = MappingProxyType({}),
    long: float = LONG,
) -> tuple[Crossings, Crossings]:
    """Across a part of a block, and down it. Faces of a ``trimmed`` unit, all with its number, are
    one piece; ``long`` is how long a straight seam is, in finished lengths, to be a long one."""
    shapes = [
        _Shape([p.floats() for p in draft.patches[face].polygon],
               bool(draft.patches[face].arcs), trimmed.get(face))
        for face in part.faces
    ]  # fmt: skip
    turned = [shape._replace(corners=[(y, x) for x, y in shape.corners]) for shape in shapes]
    return _along(shapes, long), _along(turned, long)


def _along(shapes: list[_Shape], long: float = LONG) -> Crossings:
    """Along the path, of some, that is in the middle of what the seams take on all of them."""
    ys = [y for shape in shapes for _, y in shape.corners]
    low, high = min(ys), max(ys)
    lines = _lines(shapes)
    on_paths = [_on_path(shapes, low + share * (high - low), lines, long) for share in PATHS]
    return sorted(on_paths, key=lambda crossed: crossed.all)[len(on_paths) // 2]


def _lines(shapes: list[_Shape]) -> Lines:
    """How far the sides reach that lie on one line: a seam runs through them all."""
    lines: Lines = {}
    for shape in shapes:
        for a, b in pairwise([*shape.corners, shape.corners[0]]):
            key, low, high = _on_line(a, b)
            known = lines.get(key, (low, high))
            lines[key] = min(low, known[0]), max(high, known[1])
    return lines


def _on_line(a: Corner, b: Corner) -> tuple[tuple[float, float, float], float, float]:
    """The line through two corners, and where they lie along it."""
    (x, y), (u, v) = sorted((a, b))
    length = hypot(u - x, v - y) or 1.0
    dx, dy = (u - x) / length, (v - y) / length
    key = round(dx, 4), round(dy, 4), round(x * dy - y * dx, 4)
    return key, x * dx + y * dy, u * dx + v * dy


def _on_path(shapes: list[_Shape], y: float, lines: Lines, long: float) -> Crossings:
    pieces = sorted((p for s in shapes for p in _cut(s, y, lines)), key=lambda piece: piece.low)
    takes: dict[str, float] = {}
    squares, number = 0.0, len(pieces)
    for piece, beside in pairwise(pieces):
        if piece.unit is not None and piece.unit == beside.unit:
            number -= 1
            continue
        seam = 2 * piece.normal
        kind: SeamType = "bias"
        if piece.normal > 1 - NEARLY:
            kind = "long" if piece.long >= long else "straight"
        if piece.curved and beside.curved:
            kind = "curve"
        takes[kind] = takes.get(kind, 0.0) + seam
        squares += seam * seam
    return Crossings(takes, squares, number)


def _cut(shape: _Shape, y: float, lines: Lines) -> Iterator[_Piece]:
    """The stretches of a path inside an outline."""
    hits, corners = [], shape.corners
    for (x0, y0), (x1, y1) in zip(corners, [*corners[1:], corners[0]], strict=True):
        if (y0 < y) != (y1 < y):
            x = x0 + (y - y0) / (y1 - y0) * (x1 - x0)
            low, high = lines[_on_line((x0, y0), (x1, y1))[0]]
            hits.append((x, abs(y1 - y0) / hypot(x1 - x0, y1 - y0), high - low))
    hits.sort()
    for (low, _, _), (_, normal, reach) in zip(hits[::2], hits[1::2], strict=True):
        yield _Piece(low, normal, reach, shape.curved, shape.unit)
