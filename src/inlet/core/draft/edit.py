"""Edits of a block: each takes a block and gives a new one. Fabric follows the patches it was
on."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import numpy as np

from inlet.core.cancellation import check
from inlet.core.draft.patches import arrangement_of, draft, in_fabric
from inlet.core.geometry import (
    Arrangement,
    Curve,
    Point,
    arc_fault,
    circle_of,
    cross,
    dot,
    inside_point,
    line_through,
    short_point,
    side,
    within_arc,
)
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Block, FabricAt, Pair, Seam, replace, seam_along


def add_seams(block: Block, seams: Iterable[Seam]) -> Block:
    """``block`` with more seams; where one overlaps seams that lie along the same line or circle
    they become one. Unchanged where seams already lie along all of them."""
    after = merged(seams, block.seams)
    return block if after == block.seams else keep_fabric(block, replace(block, seams=after))


def merged(seams: Iterable[Seam], drawn: Sequence[Seam] = ()) -> tuple[Seam, ...]:
    """``drawn`` and more seams, those that overlap along one line or circle made one. Only seams
    on the same line or circle are compared."""
    kept: dict[int, Seam] = dict(enumerate(drawn))
    on: dict[object, list[int]] = {}
    for number, seam in kept.items():
        on.setdefault(_carrier(seam.curve), []).append(number)
    following = len(kept)
    for seam in seams:
        check()
        if not is_drawn(seam):
            continue
        beside = on.setdefault(_carrier(seam.curve), [])
        joined, new = [], seam
        for number in beside:
            whole = _joined(kept[number].curve, new.curve)
            if whole == kept[number].curve:
                break
            if whole is not None:
                joined.append(number)
                new = seam_along(whole)
        else:
            for number in joined:
                del kept[number]
            beside[:] = [n for n in beside if n not in joined]
            kept[following] = new
            beside.append(following)
            following += 1
    return tuple(kept.values())


def is_drawn(seam: Seam) -> bool:
    """Is there a line or an arc at all, once its numbers are kept short?"""
    start, end, centre = seam.curve
    return start != end and (centre is None or arc_fault(start, end, centre) is None)


def _carrier(curve: Curve) -> object:
    """What tells the line or circle that a seam lies along from every other."""
    if curve.centre is not None:
        return circle_of(curve)
    line = line_through(*curve.ends)
    lead = line.b if line.b != 0 else line.a
    return (line.a / lead, line.b / lead, line.c / lead)


def _joined(seam: Curve, new: Curve) -> Curve | None:
    """One seam for two on one line or circle that overlap by more than a point; None where they do
    not, or where together they go half round or more."""
    if seam.centre is not None or new.centre is not None:
        return _joined_arcs(seam, new)
    if not _on_line(seam, new.start) or not _on_line(seam, new.end) or seam.start == seam.end:
        return None
    (a, b), (p, q) = sorted(seam.ends), sorted(new.ends)
    if q <= a or p >= b:
        return None
    low, high = min(a, p), max(b, q)
    return seam if (low, high) == (a, b) else Curve(low, high)


def _on_line(seam: Curve, p: Point) -> bool:
    return cross(seam.end.minus(seam.start), p.minus(seam.start)) == 0


def _joined_arcs(seam: Curve, new: Curve) -> Curve | None:
    if seam.centre is None or new.centre is None or circle_of(seam) != circle_of(new):
        return None
    (a, b), (p, q) = _clockwise(seam), _clockwise(new)
    centre = seam.centre
    inside = [within_arc(x, a, b, centre) for x in (p, q)]
    around = [within_arc(x, p, q, centre) for x in (a, b)]
    if all(inside):
        return seam
    if all(around):
        return new
    # They overlap by more than a point where an end of each lies strictly inside the other.
    if inside[0] and around[1] and p != b:
        low, high = a, q
    elif inside[1] and around[0] and q != a:
        low, high = p, b
    else:
        return None
    if cross(low.minus(centre), high.minus(centre)) <= 0:
        return None
    return Curve(low, high, centre)


def _clockwise(arc: Curve) -> tuple[Point, Point]:
    return arc.ends if arc.clockwise else (arc.end, arc.start)


def erase_pieces(block: Block, pieces: Sequence[Curve]) -> Block:
    """``block`` without the stretches ``pieces`` of whatever seams lie along them; what is left of
    those on either side stays."""
    return keep_fabric(block, replace(block, seams=without(block.seams, pieces)))


def without(seams: Sequence[Seam], pieces: Sequence[Curve]) -> tuple[Seam, ...]:
    """What is left of seams when some stretches of them are taken out."""
    straight = _Straight([p for p in pieces if p.centre is None])
    arcs = [p for p in pieces if p.centre is not None]
    kept = []
    for seam in seams:
        check()
        near = straight.beside(seam.curve) if seam.curve.centre is None else arcs
        left = [seam.curve]
        for piece in near:
            left = [rest for curve in left for rest in _without(curve, piece)]
        kept += [seam] if left == [seam.curve] else [seam_along(curve) for curve in left]
    return tuple(seam for seam in kept if is_drawn(seam))


class _Straight:
    """Straight pieces in a table of floats, to tell which may lie along a seam."""

    def __init__(self, pieces: Sequence[Curve]) -> None:
        self.pieces = pieces
        self.ends = np.array([[p.floats() for p in piece.ends] for piece in pieces])

    def beside(self, seam: Curve) -> list[Curve]:
        """Those whose ends both lie near the line of the seam."""
        if not self.pieces:
            return []
        (ax, ay), (bx, by) = seam.start.floats(), seam.end.floats()
        x, y = self.ends[..., 0], self.ends[..., 1]
        off = np.abs((bx - ax) * (y - ay) - (by - ay) * (x - ax))
        room = _CLEARLY * (1 + np.abs(x) + np.abs(y)) * (abs(bx - ax) + abs(by - ay))
        return [self.pieces[k] for k in np.flatnonzero((off <= room).all(axis=1)).tolist()]


def _without(seam: Curve, piece: Curve) -> list[Curve]:
    """What is left of a seam without a piece of its own kind."""
    if seam.centre is not None:
        return _without_arc(seam, piece)
    a, b = seam.ends
    p, q = piece.ends
    if not _nearly_along(seam, p) or not _nearly_along(seam, q):
        return [seam]
    along = b.minus(a)
    whole = dot(along, along)
    low, high = sorted((dot(along, p.minus(a)) / whole, dot(along, q.minus(a)) / whole))
    if high <= 0 or low >= 1:
        return [seam]
    curves = []
    for start, end in ((Fraction(0), low), (high, Fraction(1))):
        if start < end:
            curves.append(Curve(_at(a, along, start), _at(a, along, end)))
    return curves


def _nearly_along(seam: Curve, p: Point) -> bool:
    """Does a point lie on the line of a straight seam, or as near as a located crossing does?"""
    along, step = seam.end.minus(seam.start), p.minus(seam.start)
    off = cross(along, step)
    return off == 0 or abs(float(off)) <= _LOCATED * float(dot(along, along)) ** 0.5


_LOCATED = 1e-10
_CLEARLY = 1e-6
"""Farther off than this, floats are sure of it."""


def _without_arc(seam: Curve, piece: Curve) -> list[Curve]:
    if piece.centre != seam.centre or piece.centre is None:
        return [seam]
    apart = float(circle_of(seam).squared - circle_of(piece).squared)
    if abs(apart) > _LOCATED * float(circle_of(seam).squared):
        return [seam]
    (a, b), (p, q), centre = _clockwise(seam), _clockwise(piece), piece.centre
    if not (within_arc(p, a, b, centre) or within_arc(q, a, b, centre)):
        return [] if within_arc(a, p, q, centre) and within_arc(b, p, q, centre) else [seam]
    curves = []
    if p != a and within_arc(p, a, b, centre):
        curves.append(Curve(a, p, centre))
    if q != b and within_arc(q, a, b, centre):
        curves.append(Curve(q, b, centre))
    return curves


def _at(a: Point, along: Point, k: Exact) -> Point:
    return Point(a.x + along.x * k, a.y + along.y * k)


def paint(block: Block, point: Pair, fabric: str | None) -> Block:
    """``block`` with the patch around ``point`` in ``fabric`` (None takes the fabric off);
    unchanged on a seam or outside."""
    return paint_all(block, [point], fabric)


def paint_all(block: Block, points: Iterable[Pair], fabric: str | None) -> Block:
    """``paint`` of the patches round several points."""
    now = draft(block)
    found = (now.arrangement.locate(Point(*p)) for p in points)
    here = list(dict.fromkeys(face for face in found if face is not None))
    if not here:
        return block
    spots, homes = [], []
    for spot, home in zip(block.fabric_at, now.homes, strict=True):
        if home not in here:
            spots.append(spot)
            homes.append(home)
    for face in here if fabric is not None else ():
        anchor = anchor_in(now.arrangement, face)
        if anchor is not None:
            spots.append(FabricAt(point=anchor, fabric=fabric or ""))
            homes.append(face)
    return in_fabric(replace(block, fabric_at=tuple(spots)), tuple(homes)).block


def keep_fabric(before: Block, after: Block) -> Block:
    """``after`` with one fabric point a patch: each patch keeps the fabric that lay under the
    middle of it before the edit, so splitting a patch gives both halves its fabric."""
    same_grid = before.grid == after.grid
    old = draft(before) if same_grid else draft(after)
    new = arrangement_of(after)
    kept = dict(zip(old.homes, old.block.fabric_at, strict=True))
    was = {shape: face for face, shape in enumerate(old.arrangement.shapes)} if same_grid else {}
    anchors = {
        face: anchor
        for face, shape in enumerate(new.shapes)
        if shape not in was and (anchor := anchor_in(new, face)) is not None
    }
    middles = [Point(*anchor) for anchor in anchors.values()]
    under_them = old.arrangement.locate_all(middles) if same_grid else tuple(anchors)
    lying_in = dict(zip(anchors, under_them, strict=True))
    spots, homes = [], []
    for face, shape in enumerate(new.shapes):
        unchanged = was.get(shape)
        if unchanged is not None:
            if unchanged in kept:
                spots.append(kept[unchanged])
                homes.append(face)
            continue
        if face not in anchors:
            continue
        anchor, under = anchors[face], lying_in[face]
        # Where the middle lay on a seam that is gone: as one of the points that it holds now.
        below = draft(after) if under is None else old
        fabric = below.patches[face if under is None else under].fabric
        if fabric is not None:
            spots.append(FabricAt(point=anchor, fabric=fabric))
            homes.append(face)
    block = replace(after, fabric_at=tuple(spots))
    return in_fabric(block, tuple(homes)).block


def one_fabric_a_patch(block: Block) -> Block:
    """``block`` without the fabric points that lie in a patch which has one already, or in none."""
    homes = draft(block).homes
    first = {home: i for i, home in reversed(list(enumerate(homes))) if home is not None}
    if len(first) == len(homes):
        return block
    kept = sorted(first.values())
    spots = tuple(block.fabric_at[i] for i in kept)
    return in_fabric(replace(block, fabric_at=spots), tuple(homes[i] for i in kept)).block


def anchor_in(now: Arrangement, face: int) -> Pair | None:
    """A point inside a patch to remember its fabric by, clear of its islands, its numbers as short
    as a file holds them; None where none is found, as in a patch thinner than such numbers tell,
    and the patch is then told to have no fabric."""
    outline = now.outlines[face]
    middle = inside_point(outline)
    # Where an island lies in the middle, go towards each corner until clear of it.
    near = (
        corner.minus(corner.minus(middle).scaled(Fraction(1, k), Fraction(1, k)))
        for k in (1, 2, 4, 8, 16, 32, 64, 1024)
        for corner in outline.corners
    )
    whole = not now.faces[face].holes
    for p in map(short_point, near):
        if side(outline, p) > 0 if whole else now.locate(p) == face:
            return p.x, p.y
    return None
