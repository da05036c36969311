"""What to cut for a patch: its shape with the allowance on, and how it comes off the fabric."""

from __future__ import annotations

from math import ceil
from typing import Literal, NamedTuple

from inlet.core.geometry import (
    Outline,
    Point,
    Polygon,
    bounds,
    box,
    cut_sides,
    edges,
    is_rectangle,
    is_sharp,
    motion_between,
    offset,
    polygon_of,
    right_corner,
    squared_length,
    triangle_legs,
)
from inlet.core.memo import memo
from inlet.core.numbers import Exact, Fraction, root_up, sqrt_exact

Size = tuple[Exact, Exact]
Shape = Literal["square", "rectangle", "strip", "template"]
Crosscut = Literal["none", "once", "twice", "sewn"]
Lean = Literal["falling", "rising", ""]


class Piece(NamedTuple):
    """A shape to cut from one fabric.

    ``shape`` is ``square``, ``rectangle``, ``strip`` or ``template``. ``exact`` is the size before
    rounding to a ruler mark: larger side last for rectangles; a template's is the box around it; a
    strip's is its width and how much of its length one quantity of it takes. ``crosscut`` says how
    the square comes apart before sewing: ``none``, ``once`` or ``twice`` on its diagonals, or
    ``sewn`` (it is cut apart only after sewing). ``quantity`` is how many pieces a run of its
    method needs, counted after the crosscut: two triangles are one square cut once. ``runs`` is
    how many runs one of them serves. ``outline`` is the finished outline a template is drawn from,
    else empty. ``lean`` is which way a rectangle's diagonal runs, its long side upright:
    ``falling`` to the right or ``rising``; only plain fabric may be turned over instead.
    ``slanted``: it is sewn or cut on a slant, though no crosscut says so.
    """

    fabric: str | None
    shape: Shape
    exact: Size
    crosscut: Crosscut
    quantity: int
    outline: Polygon = ()
    lean: Lean = ""
    runs: int = 1
    slanted: bool = False

    @property
    def sewn_as_cut(self) -> bool:
        """Is it a square, rectangle or strip sewn along the edges it is cut with?"""
        return self.shape != "template" and self.crosscut == "none" and not self.slanted

    def shapes(self, runs: int) -> int:
        """How many of these to cut from the fabric for so many runs, whole shapes only."""
        return -(-runs * self.quantity // (PER_SQUARE[self.crosscut] * self.runs))


DIAGONALS: dict[Crosscut, int] = {"none": 0, "once": 1, "twice": 2, "sewn": 0}
"""Diagonals that each cut shape is cut on before sewing."""

PER_SQUARE: dict[Crosscut, int] = {"none": 1, "once": 2, "twice": 4, "sewn": 1}
"""Pieces one cut shape gives before sewing."""


def rectangle(
    fabric: str | None, size: Size, quantity: int = 1, crosscut: Crosscut = "none"
) -> Piece:
    """A square or rectangle to cut, shorter side first."""
    low, high = sorted(size)
    return Piece(fabric, "square" if low == high else "rectangle", (low, high), crosscut, quantity)


def strip(fabric: str | None, width: Exact, along: Exact, quantity: int = 1) -> Piece:
    """``quantity`` lengths ``along`` of a strip ``width`` wide."""
    return Piece(fabric, "strip", (width, along), "none", quantity)


def piece_for(outline: Polygon, fabric: str | None, seam: Exact, halved: bool = False) -> Piece:
    """The one piece to cut for a patch of finished ``outline`` with allowance ``seam`` all round.

    Every side is moved out by ``seam``; the sizes are those of the moved outline. So a rectangle
    a x b is cut (a + 2s) x (b + 2s). A right isosceles triangle of leg f gets legs
    f + 2s + s√2: s at the right angle, s(1 + √2) at the 45° corner (s/tan 22½°). It is half a
    square of that leg, or a quarter of a square of its long side, √2 times as much: whichever puts
    the straight grain on sides that run with the block's edges; always half a square if ``halved``,
    which puts it on the legs. Any other right triangle is half of
    a rectangle: of legs a, b and long side c it gets a + s + s(a + c)/b, as s is lost at the right
    angle and s·cot of half the angle, (a + c)/b, at the far end.
    A patch with a sharp corner is cut by a template, its tip cut off square.
    """
    first = outline[0]
    piece = _piece_for(tuple(p.minus(first) for p in outline), seam, halved)
    return piece._replace(fabric=fabric, outline=outline if piece.shape == "template" else ())


@memo(2000)
def _piece_for(outline: Polygon, seam: Exact, halved: bool) -> Piece:
    """``piece_for`` of an outline that begins at the origin: blocks repeat their shapes."""
    fabric = None
    raw = offset(outline, seam)
    n = len(outline)
    if any(is_sharp(outline[i - 1], p, outline[(i + 1) % n]) for i, p in enumerate(outline)):
        raw = tuple(p for side in cut_sides(outline, seam) for p in side)
        return _template(raw, outline)
    if is_rectangle(outline):
        return rectangle(fabric, (_length(raw[0], raw[1]), _length(raw[1], raw[2])))
    legs = triangle_legs(raw)
    if legs is not None:
        corner, after, before = legs
        if halved or _straight_grain(corner, after) or not _straight_grain(after, before):
            side = _length(corner, after)
            return rectangle(fabric, (side, side), crosscut="once")
        side = _length(after, before)
        return rectangle(fabric, (side, side), crosscut="twice")
    points = right_corner(raw)
    if points is not None:
        corner, after, before = points
        sides = _length(corner, after), _length(corner, before)
        piece = rectangle(fabric, sides, crosscut="once")
        return piece._replace(lean="falling" if sides[0] > sides[1] else "rising")
    return _template(raw, outline)


def _template(raw: Polygon, outline: Polygon) -> Piece:
    left, top, right, bottom = bounds(raw)
    low, high = sorted((right - left, bottom - top))
    return Piece(None, "template", (low, high), "none", 1, outline)


def curved_piece(shape: Outline, fabric: str | None, seam: Exact) -> Piece:
    """The template of a patch with arcs: r + s on a convex one and r - s on a concave one, which
    reaches ``seam`` beyond the patch."""
    return Piece(fabric, "template", _box_with_seam(shape, seam), "none", 1, polygon_of(shape))


def _box_with_seam(shape: Outline, seam: Exact) -> Size:
    """The box round a curved patch, shorter side first, ``seam`` added on each side. Exact where
    corners reach farthest; an arc that reaches farther is rounded up to a millionth."""
    exact = bounds(shape.corners)
    rough = box(shape)
    sides = [
        side
        if abs(float(side) - found) < 1e-9
        else Fraction(ceil(found * way * 10**6), 10**6) * way
        for side, found, way in zip(exact, rough, (-1, -1, 1, 1), strict=True)
    ]
    low, high = sorted((sides[2] - sides[0] + 2 * seam, sides[3] - sides[1] + 2 * seam))
    return low, high


def _length(p: Point, q: Point) -> Exact:
    return root_up(squared_length(p, q))


def _straight_grain(p: Point, q: Point) -> bool:
    return p.x == q.x or p.y == q.y


def sewing_outline(piece: Piece, seam: Exact) -> Polygon:
    """The finished outline that a cut piece gives, worked out from its cut size alone, in an
    orientation of its own: the other way round from ``piece_for``."""
    if piece.shape == "template":
        return piece.outline
    width, height = piece.exact
    zero: Exact = Fraction(0)
    square = (Point(zero, zero), Point(width, zero), Point(width, height), Point(zero, height))
    if piece.crosscut == "none":
        raw: Polygon = square
    elif piece.lean == "falling":
        raw = (square[0], Point(height, zero), Point(zero, width))
    elif piece.crosscut == "once":
        raw = (square[0], square[1], square[3])
    else:
        raw = (square[0], square[1], Point(width / 2, height / 2))
    return offset(raw, -seam)


def sewn_shape(piece: Piece, seam: Exact, like: Polygon) -> Polygon | None:
    """The finished outline a cut piece gives, turned (not moved) to lie as the patch ``like``;
    None if it does not fit exactly.

    Templates carry their sewing line drawn on them; so must a rectangle whose sides no exact
    number holds (one set at a slope), and those give the patch itself.
    """
    if piece.shape == "template" or not _sides_exact(like):
        return like
    points = sewing_outline(piece, seam)
    motion = motion_between(((points, None),), ((like, None),))
    return motion.turn_only().polygon(points) if motion else None


def _sides_exact(outline: Polygon) -> bool:
    return all(sqrt_exact(squared_length(p, q)) is not None for p, q in edges(outline))
