"""Cuts along the diagonals: the block is laid on point and cut upright and level like any other.

A square block f wide, turned an eighth, lies in a frame F = f√2 wide with its corners on the
frame's sides; what of the frame lies beyond the block is no fabric. Its slices are set again in
the frame. Each moves toward the middle by its share of what the seams take, so the block's edges
step where they are cut: they are trimmed to the one that lies farthest in.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.draft import Draft, draft
from inlet.core.geometry import EIGHTH_TURN, Line, Motion, Picture, Point, Polygon, clip, is_convex
from inlet.core.memo import Latest
from inlet.core.numbers import HALF_ROOT2, Exact, Fraction
from inlet.core.project import Block, FabricAt, Pair, Seam, straight, total
from inlet.core.remake.set_again import Missed, SetAgain, places_of
from inlet.core.remake.slices import Slice, SliceError

BACK = Motion(HALF_ROOT2, -HALF_ROOT2)
"""An eighth of a turn back."""
SIDES = ((1, 1), (-1, -1), (-1, 1), (1, -1))
"""The block's right, left, lower and upper edge in its frame: which way they face."""

_FRAMED: Latest[Block, Draft] = Latest(50)


def framed(start: Draft) -> Draft:
    """A block on point in its frame. Raises ``SliceError`` where it cannot be cut so."""
    return _FRAMED.of(start.block, lambda _: _framed(start))


def _framed(start: Draft) -> Draft:
    block = start.block
    if block.curves or any(patch.holes or not is_convex(patch.outline) for patch in start.patches):
        raise SliceError(
            "A block is cut along its diagonals where all its patches are straight and convex."
        )
    side = block.finished[0]
    wide = side * 2 * HALF_ROOT2
    middle, to = Point(side / 2, side / 2), Point(wide / 2, wide / 2)
    sx, sy = block.scale

    def turned(x: Exact, y: Exact) -> Pair:
        there = EIGHTH_TURN(Point(x * sx, y * sy).minus(middle)).plus(to)
        return there.x, there.y

    seams = [straight(turned(*seam.ends[0]), turned(*seam.ends[1])) for seam in block.seams]
    corners = [(wide / 2, wide - wide), (wide, wide / 2), (wide / 2, wide), (wide - wide, wide / 2)]
    seams += [straight(p, q) for p, q in zip(corners, (*corners[1:], corners[0]), strict=True)]
    spots = tuple(
        FabricAt(point=turned(*spot.point), fabric=spot.fabric) for spot in block.fabric_at
    )
    lying = Block(
        id=block.id, name=block.name, finished=(wide, wide), columns=(wide,), rows=(wide,),
        seams=tuple(seams), fabric_at=spots,
    )  # fmt: skip
    return draft(lying)


def from_on_point(p: Point, wide: Exact) -> Point:
    """A place in the frame, ``wide``, of a start block as one from the block's top left."""
    half = wide * HALF_ROOT2 / 2
    return BACK(p.minus(Point(wide / 2, wide / 2))).plus(Point(half, half))


class OnPoint(NamedTuple):
    """Where the new block lies in its frame: the frame's ``middle``, and how far the block's right,
    left, lower and upper edge lie from there, along x + y or x - y."""

    middle: Point
    right: Exact
    left: Exact
    lower: Exact
    upper: Exact

    @property
    def finished(self) -> Pair:
        """The new block's size: a step along x + y is √2 times as long as one square to the
        edge."""
        return (self.right + self.left) * HALF_ROOT2, (self.lower + self.upper) * HALF_ROOT2

    @property
    def lines(self) -> tuple[Line, ...]:
        """The edges as lines, the block on their growing side."""
        (x, y), one = self.middle, Fraction(1)
        reach = (self.right, self.left, self.lower, self.upper)
        return tuple(
            Line(one * -a, one * -b, -(a * x + b * y) - far)
            for (a, b), far in zip(SIDES, reach, strict=True)
        )

    def in_block(self, p: Point) -> Point:
        """A place in the frame, from the new block's top left."""
        q = BACK(p.minus(self.middle))
        return Point(q.x + self.left * HALF_ROOT2, q.y + self.upper * HALF_ROOT2)

    def in_frame(self, p: Point) -> Point:
        """A place in the new block, in the frame."""
        q = Point(p.x - self.left * HALF_ROOT2, p.y - self.upper * HALF_ROOT2)
        return EIGHTH_TURN(q).plus(self.middle)

    def picture(self, picture: Picture) -> Picture:
        """What of a picture in the frame lies in the block, from that block's top left."""
        kept = [(self.inside(outline), fabric) for outline, fabric in picture]
        return tuple((tuple(map(self.in_block, o)), fabric) for o, fabric in kept if o)

    def inside(self, polygon: Polygon) -> Polygon:
        """What of a convex outline in the frame lies inside the block; empty for nothing."""
        for line in self.lines:
            polygon = clip(polygon, line) if polygon else polygon
        return polygon


def on_point(slices: Sequence[Slice]) -> OnPoint:
    """Where the block of slices set again lies in its frame.

    Measured from the middle, the edge facing (a, b) is ax + by = F/2 in the frame before. A slice
    that has part of it moves by (dx, dy) against the frame's middle, and its part lies at
    F/2 + a·dx + b·dy then: the edge is trimmed to the least of these.
    """
    places = places_of(slices)
    last = slices[-1]
    size = places[-1][0] + last.size[0], places[-1][1] + last.size[1]
    before = last.kept[2] + slices[0].kept[0]  # the frame's side
    middle, half = Point(size[0] / 2, size[1] / 2), before / 2
    reach: list[Exact] = []
    for a, b in SIDES:
        parts = []
        for each, place in zip(slices, places, strict=True):
            left, top = each.kept[:2]
            at = [Point(left + p.x - half, top + p.y - half) for p in each.shape]
            if max(a * p.x + b * p.y for p in at) < half:
                continue
            moved = (place[0] - left) - (middle.x - half), (place[1] - top) - (middle.y - half)
            parts.append(half + a * moved[0] + b * moved[1])
        reach.append(min(parts))
    return OnPoint(middle, *reach)


def trimmed_square(again: SetAgain, where: OnPoint) -> SetAgain:
    """Slices set again in their frame, trimmed: the block upright again; its picture stays in the
    frame. Raises ``SliceError`` where nothing of it is left."""
    wide, high = where.finished
    if wide <= 0 or high <= 0:
        raise SliceError("Nothing of the block is left between its seams: make fewer cuts.")
    picture = []
    spots = []
    for outline, fabric in again.picture:
        kept = where.inside(outline)
        if not kept:
            continue
        picture.append((kept, fabric))
        if fabric is not None:
            number = len(kept)
            x, y = (total(tuple(p[axis] for p in kept)) / number for axis in (0, 1))
            at = where.in_block(Point(x, y))
            spots.append(FabricAt(point=(at.x, at.y), fabric=fabric))
    block = Block(
        id=again.block.id, name=again.block.name, finished=(wide, high), columns=(wide,),
        rows=(high,), seams=tuple(_seams(again.block.seams, where)), fabric_at=tuple(spots),
    )  # fmt: skip
    return SetAgain(block, tuple(picture), tuple(_inner(again.missed, where)))


def _seams(seams: Sequence[Seam], where: OnPoint) -> list[Seam]:
    """Straight seams as far as they lie inside the block, from its top left."""
    inside = []
    for seam in seams:
        ends: tuple[Point, Point] | None = seam.ends
        for line in where.lines:
            ends = _part(ends, line) if ends is not None else None
        if ends is not None:
            p, q = map(where.in_block, ends)
            inside.append(straight((p.x, p.y), (q.x, q.y)))
    return inside


def _part(ends: tuple[Point, Point], line: Line) -> tuple[Point, Point] | None:
    """What of a line from end to end lies on the growing side; None for nothing, or along it."""
    p, q = ends
    here, there = line.side(p), line.side(q)
    if here <= 0 and there <= 0:
        return None
    if here >= 0 and there >= 0:
        return ends
    k = here / (here - there)
    at = Point(p.x + (q.x - p.x) * k, p.y + (q.y - p.y) * k)
    return (at, q) if here < 0 else (p, at)


def _inner(missed: Sequence[Missed], where: OnPoint) -> list[Missed]:
    """The seams that miss each other inside the block."""
    return [miss for miss in missed if all(line.side(miss.at) > 0 for line in where.lines)]


def outline_in(where: OnPoint, box: tuple[Exact, Exact, Exact, Exact]) -> Polygon:
    """What of a box of the frame lies in the block, from the block's top left."""
    left, top, right, bottom = box
    corners = (Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom))
    return tuple(map(where.in_block, where.inside(corners)))
