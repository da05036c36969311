"""Slices sewn together again: the block that really comes of it, and the seams that no longer meet.

The pieces shrink by an allowance at each cut, so the new block is smaller by two allowances a cut,
and what was drawn to meet across a cut meets only where it runs square to it, or where both pieces
have lost as much.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from itertools import accumulate, count, pairwise
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import Draft, arrangement_of, image, turner
from inlet.core.geometry import (
    HAIR,
    Curve,
    Line,
    Outline,
    Picture,
    Point,
    Polygon,
    circle_of,
    clip,
    flattened,
    inside_point,
    is_convex,
    line_meets_circle,
    polygon_of,
    sweep,
)
from inlet.core.memo import KeyedTable, Latest
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Block, FabricAt, Pair, Seam, seam_along, straight, total
from inlet.core.remake.reaches import Box, near, reaches_of, within
from inlet.core.remake.slices import Slice, SliceError

TURNED = ("", "turned right", "upside down", "turned left")
"""How a slice lies, by its quarter turns clockwise."""


class Laid(NamedTuple):
    """A slice laid in a place: which one, turned by so many quarters clockwise, of which of the
    blocks that are cut."""

    piece: int
    quarters: int = 0
    copy: int = 0


class Missed(NamedTuple):
    """Two seams that met at a cut as it was drawn and now miss each other by so much; ``at`` is the
    middle between their ends, in finished length from the new block's top left."""

    at: Point
    off: Exact


class SetAgain(NamedTuple):
    """What comes of slices set again: the new block, its picture, and where its seams miss each
    other."""

    block: Block
    picture: Picture
    missed: tuple[Missed, ...]


class Drawn(NamedTuple):
    """What shows of a slice once it is sewn in, from its own top left: its seams, and its patches
    with their fabric, each with a point in it (``spots``) and as its outline (``patches``)."""

    size: Pair
    seams: tuple[Curve, ...]
    spots: tuple[tuple[Point, str | None], ...]
    patches: tuple[tuple[Outline, str | None], ...]

    def picture(self, move: Callable[[Point], Point]) -> Picture:
        """The slice where ``move``, a rigid motion, puts it."""
        return tuple((polygon_of(_moved(outline, move)), f) for outline, f in self.patches)


def _moved(outline: Outline, move: Callable[[Point], Point]) -> Outline:
    return Outline(
        tuple(map(move, outline.corners)), tuple((k, move(centre)) for k, centre in outline.arcs)
    )


def as_they_were(slices: Sequence[Slice]) -> tuple[Laid, ...]:
    """Every slice in its own place."""
    return tuple(Laid(i) for i in range(len(slices)))


def drawn(start: Draft, piece: Slice) -> Drawn:
    """A slice of a block as it shows once it is sewn in."""
    left, top, _, _ = piece.kept
    size = piece.size
    corner = Point(-left, -top)
    seams = tuple(image(curve, lambda p: p.plus(corner)) for curve in _inside(start, piece.kept))
    clipped_patches = _clipped_patches(start, piece.kept)
    if clipped_patches is not None:
        moved = tuple((_moved(o, lambda p: p.plus(corner)), f) for o, f in clipped_patches)
        return Drawn(size, seams, tuple((_middle_of(o.corners), f) for o, f in moved), moved)
    alone = Block(
        id="slice", finished=size, columns=size[:1], rows=size[1:],
        seams=tuple(map(seam_along, seams)),
    )  # fmt: skip
    sx, sy = start.block.scale
    spots, patches = [], []
    for outline in arrangement_of(alone).outlines:
        p = inside_point(outline)
        patch = start.patch_at(Point((p.x + left) / sx, (p.y + top) / sy))
        fabric = patch.fabric if patch is not None else None
        spots.append((p, fabric))
        patches.append((outline, fabric))
    return Drawn(size, seams, tuple(spots), tuple(patches))


def _clipped_patches(start: Draft, box: Box) -> list[tuple[Outline, str | None]] | None:
    """The patches of a block as far as they lie inside a box; None where one of them there is
    curved or not convex, as what is inside may be in several parts then."""
    left, top, right, bottom = box
    sides = _sides(box)
    pieces = []
    for i in near(reaches_of(start).patches, box):
        patch = start.patches[i]
        outline = patch.outline
        xs, ys = zip(*outline, strict=True)
        if max(xs) <= left or min(xs) >= right or max(ys) <= top or min(ys) >= bottom:
            continue
        if patch.arcs or patch.holes or not is_convex(outline):
            return None
        for side in sides:
            outline = clip(outline, side)
        if len(outline) > 2:
            pieces.append((Outline(outline), patch.fabric))
    return pieces


def _middle_of(outline: Polygon) -> Point:
    """The mean of the corners of a convex outline, which lies inside it."""
    number = len(outline)
    xs, ys = zip(*outline, strict=True)
    return Point(total(xs) / number, total(ys) / number)


def set_again(
    starts: Sequence[Draft], slices: Sequence[Slice], laid: Sequence[Laid], name: str = ""
) -> SetAgain:
    """The block of slices ``laid`` in the places of slices, in reading order. ``starts`` are the
    blocks that were cut, all of one size and cut alike. Raises ``SliceError`` where a piece does
    not fit its place, or curves are no arcs at finished size."""
    if any(start.block.curves and start.block.scale[0] != start.block.scale[1] for start in starts):
        raise SliceError("Curves of a block whose bands are no squares are not sliced.")
    places = places_of(slices)
    seams = list(_between(slices, places))
    spots: list[FabricAt] = []
    picture: list[tuple[Polygon, str | None]] = []
    for number, (piece, place) in enumerate(zip(laid, places, strict=True), 1):
        check()
        if not fills(piece, slices[number - 1], slices):
            label = slices[piece.piece].label
            raise SliceError(f"Piece {label} does not fit place {number}, turned so.")
        in_place = _in_place(starts[piece.copy], slices[piece.piece], piece.quarters, place)
        seams += in_place.seams
        picture += in_place.picture
        spots += in_place.spots
    widths = tuple(s.size[0] for s in slices if s.row == 0)
    heights = tuple(s.size[1] for s in slices if s.column == 0)
    start = starts[0].block
    block = Block(
        id=start.id, name=name or start.name, finished=(total(widths), total(heights)),
        columns=widths, rows=heights, seams=tuple(seams), fabric_at=tuple(spots),
    )  # fmt: skip
    return SetAgain(block, tuple(picture), tuple(_missed(starts, slices, laid, places)))


class InPlace(NamedTuple):
    """What a slice gives to the new block, where and as it is turned."""

    seams: tuple[Seam, ...]
    picture: Picture
    spots: tuple[FabricAt, ...]


_NUMBERS = count(1)
_NUMBER: Latest[Draft, int] = Latest(40)
"""A number for each block that is cut, as what is kept of it is found by."""
_IN_PLACE: KeyedTable[tuple[object, ...], InPlace] = KeyedTable(20_000)
"""Slices in their places: after an edit most lie as before."""


def _in_place(start: Draft, piece: Slice, quarters: int, place: Pair) -> InPlace:
    """A slice of a block in its place; known, where it lay there so before."""
    number = _NUMBER.of(start, lambda _: next(_NUMBERS))
    key = number, piece.kept, piece.size, quarters, place
    return _IN_PLACE.of(key, lambda: _laid_there(start, piece, quarters, place))


def _laid_there(start: Draft, piece: Slice, quarters: int, place: Pair) -> InPlace:
    shown = drawn(start, piece)
    move = mover(shown.size, quarters, place)
    spots = []
    for p, fabric in shown.spots:
        if fabric is not None:
            there = move(p)
            spots.append(FabricAt(point=(there.x, there.y), fabric=fabric))
    return InPlace(
        tuple(seam_along(image(curve, move)) for curve in shown.seams),
        shown.picture(move),
        tuple(spots),
    )


def fills(piece: Laid, place: Slice, slices: Sequence[Slice]) -> bool:
    """Does a slice, as it is turned, fill a place?"""
    laid = slices[piece.piece]
    size = laid.size if piece.quarters % 2 == 0 else laid.size[::-1]
    if size != place.size or not laid.shape:
        return size == place.size
    move = mover(laid.size, piece.quarters, (Fraction(0), Fraction(0)))
    return frozenset(map(move, laid.shape)) == frozenset(place.shape)


def slice_picture(start: Draft, piece: Slice, quarters: int) -> Picture:
    """A slice of a block as it shows once it is sewn in, turned, its top left at the origin."""
    shown = drawn(start, piece)
    move = mover(shown.size, quarters, (Fraction(0), Fraction(0)))
    return shown.picture(move)


def mover(size: Pair, quarters: int, place: Pair) -> Callable[[Point], Point]:
    """Where a point of a piece goes, by its top left, when it is turned and laid in a place."""
    turn, corner = turner((quarters % 4, False), *size), Point(*place)
    return lambda p: turn(p).plus(corner)


def places_of(slices: Sequence[Slice]) -> tuple[Pair, ...]:
    """Where the top left of each place lies in the new block."""
    zero: Exact = Fraction(0)
    lefts = list(accumulate((s.size[0] for s in slices if s.row == 0), initial=zero))
    tops = list(accumulate((s.size[1] for s in slices if s.column == 0), initial=zero))
    return tuple((lefts[each.column], tops[each.row]) for each in slices)


def _between(slices: Sequence[Slice], places: Sequence[Pair]) -> Iterator[Seam]:
    """The new seams, from place to place."""
    last = slices[-1]
    width, height = places[-1][0] + last.size[0], places[-1][1] + last.size[1]
    for left in dict.fromkeys(x for x, _ in places if x > 0):
        yield straight((left, Fraction(0)), (left, height))
    for top in dict.fromkeys(y for _, y in places if y > 0):
        yield straight((Fraction(0), top), (width, top))


def _inside(start: Draft, box: Box) -> Iterator[Curve]:
    """The seams of a block as far as they lie inside a box, in finished length."""
    reaches = reaches_of(start)
    for i in near(reaches.seams, box):
        if (part := clipped(*reaches.lines[i], box)) is not None:
            yield Curve(*part)
    if start.block.curves:
        yield from _arcs_inside(start, box)


def clipped(p: Point, q: Point, box: Box) -> tuple[Point, Point] | None:
    """The part of a straight line inside a box, exactly; None where there is none, or where it
    runs along a side."""
    if max(p.x, q.x) < box[0] or min(p.x, q.x) > box[2]:
        return None
    if max(p.y, q.y) < box[1] or min(p.y, q.y) > box[3]:
        return None
    low: Exact = Fraction(0)
    high: Exact = Fraction(1)
    step = q.minus(p)
    sides = ((p.x, step.x, box[0], box[2]), (p.y, step.y, box[1], box[3]))
    for begin, by, least, most in sides:
        if by == 0:
            if not least < begin < most:
                return None
            continue
        ends = sorted(((least - begin) / by, (most - begin) / by))
        low, high = max(low, ends[0]), min(high, ends[1])
    if low >= high:
        return None
    first, last = (Point(p.x + step.x * k, p.y + step.y * k) for k in (low, high))
    return first, last


def _arcs_inside(start: Draft, box: Box) -> Iterator[Curve]:
    """The arcs of a block as far as they lie inside a box, in finished length."""
    reaches = reaches_of(start)
    left, top, right, bottom = map(float, box)
    for i in near(reaches.bows, box):
        arc = reaches.arcs[i]
        for part in (arc,) if within(reaches.bows[i], box) else _cut(arc, box):
            on_it = list(flattened(part, 1e-4))
            x, y = on_it[len(on_it) // 2] if len(on_it) > 1 else _middle(part)
            if left < x < right and top < y < bottom:
                yield part


def _cut(arc: Curve, box: Box) -> list[Curve]:
    """The parts of an arc between the sides of a box: cut at every point of its circle on one of
    them that lies between its ends by more than a hair, in their order along it."""
    assert arc.centre is not None
    whole = sweep(arc)
    on_it: dict[float, Point] = {}
    for side in _sides(box):
        for point in line_meets_circle(side, circle_of(arc)):
            here = sweep(arc._replace(end=point))
            if here * whole > 0 and HAIR < abs(here) < abs(whole) - HAIR:
                on_it[round(abs(here), 9)] = point
    points = (arc.start, *(on_it[angle] for angle in sorted(on_it)), arc.end)
    return [Curve(p, q, arc.centre) for p, q in pairwise(points)]


def _sides(box: Box) -> tuple[Line, Line, Line, Line]:
    """The lines of a box's left, right, top and bottom; of each, the box is where
    a·x + b·y is at least c."""
    left, top, right, bottom = box
    one, zero = Fraction(1), Fraction(0)
    return (
        Line(one, zero, left), Line(-one, zero, -right), Line(zero, one, top),
        Line(zero, -one, -bottom),
    )  # fmt: skip


def _middle(curve: Curve) -> tuple[float, float]:
    (x, y), (u, v) = curve.start.floats(), curve.end.floats()
    return (x + u) / 2, (y + v) / 2


# --- seams that no longer meet --------------------------------------------------------------------


class _End(NamedTuple):
    """A seam that ends at a side of a piece: how far from the middle of the side as the piece is
    cut, and once it is sewn in."""

    cut: Exact
    sewn: Exact


def _missed(
    starts: Sequence[Draft], slices: Sequence[Slice], laid: Sequence[Laid], places: Sequence[Pair]
) -> Iterator[Missed]:
    number = {(s.column, s.row): i for i, s in enumerate(slices)}
    known: dict[tuple[int, int], tuple[tuple[_End, ...], ...]] = {}

    def ends(i: int, side: int) -> Iterator[_End]:
        """The straight seams that end at a side of a piece as it is turned: above, right, below and
        left, counted from 0."""
        piece = laid[i]
        key = piece.copy, piece.piece
        if key not in known:
            known[key] = _ends(starts[piece.copy], slices[piece.piece])
        here = (side - piece.quarters) % 4  # the side before it was turned
        # Clockwise round the box the top runs right and the right side down, the others back.
        same = (here in (0, 1)) == (side % 4 in (0, 1))
        for end in known[key][here]:
            yield end if same else _End(-end.cut, -end.sewn)

    for i, place in enumerate(slices):
        (left, top), (wide, high) = places[i], place.size
        for side, right, below in ((1, 1, 0), (2, 0, 1)):
            beside = number.get((place.column + right, place.row + below))
            if beside is None:
                continue
            for end in ends(i, side):
                for met in ends(beside, side + 2):
                    if end.cut == met.cut and end.sewn != met.sewn:
                        along = (end.sewn + met.sewn) / 2
                        at = (
                            Point(left + wide, top + high / 2 + along)
                            if right
                            else Point(left + wide / 2 + along, top + high)
                        )
                        yield Missed(at, abs(end.sewn - met.sewn))


def _ends(start: Draft, piece: Slice) -> tuple[tuple[_End, ...], ...]:
    """The straight seams that end at each side of a piece as it is cut, from the top clockwise."""
    reaches = reaches_of(start)
    ends: tuple[dict[_End, None], ...] = ({}, {}, {}, {})
    for i in near(reaches.seams, piece.cut):
        cuts, kept = (at_sides(*reaches.lines[i], box) for box in (piece.cut, piece.kept))
        for side, cut in cuts.items():
            if side in kept:
                ends[side][_End(cut, kept[side])] = None
    return tuple(tuple(each) for each in ends)


def at_sides(p: Point, q: Point, box: Box) -> dict[int, Exact]:
    """At which sides of a box a seam ends, and how far to the right of the middle of the side, or
    below it."""
    part = clipped(p, q, box)
    if part is None:
        return {}
    left, top, right, bottom = box
    ends = {}
    for end in part:
        across, down = end.x - (left + right) / 2, end.y - (top + bottom) / 2
        if end.y == top:
            ends[0] = across
        if end.x == right:
            ends[1] = down
        if end.y == bottom:
            ends[2] = across
        if end.x == left:
            ends[3] = down
    return ends
