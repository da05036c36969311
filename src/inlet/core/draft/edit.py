"""Edits of a block: each takes a block and gives a new one. Cloth follows the patches it was on."""

from __future__ import annotations

from fractions import Fraction

from inlet.core.draft.patches import Draft, draft
from inlet.core.geometry.point import Point, cross, dot
from inlet.core.geometry.polygon import from_first_corner, inner_point
from inlet.core.numbers import Exact
from inlet.core.project import Block, FabricAt, Pair, Seam, replace, straight, total


def add_seam(block: Block, p: Pair, q: Pair) -> Block:
    """``block`` with a straight seam from p to q (grid units); where it overlaps seams that lie on
    the same line they become one. Unchanged where a seam already lies along all of it."""
    if p == q:
        return block
    new, kept = straight(p, q), []
    for seam in block.seams:
        joined = _joined(seam, new)
        if joined == seam:
            return block
        if joined is None:
            kept.append(seam)
        else:
            new = joined
    return _keep_cloth(block, replace(block, seams=(*kept, new)))


def _joined(seam: Seam, new: Seam) -> Seam | None:
    """One seam for two on a line that overlap by more than a point; None where they do not."""
    a, b = seam.ends
    p, q = new.ends
    along = b.minus(a)
    if cross(along, p.minus(a)) != 0 or cross(along, q.minus(a)) != 0:
        return None
    (a, b), (p, q) = sorted((a, b)), sorted((p, q))
    if q <= a or p >= b:
        return None
    low, high = min(a, p), max(b, q)
    return seam if (low, high) == (a, b) else straight(low, high)


def erase_piece(block: Block, p: Pair, q: Pair) -> Block:
    """``block`` without the stretch from p to q of whatever seams lie along it; what is left of
    them on either side stays."""
    start, end = Point(*p), Point(*q)
    kept: list[Seam] = []
    for seam in block.seams:
        kept += _without(seam, start, end)
    return _keep_cloth(block, replace(block, seams=tuple(kept)))


def _without(seam: Seam, p: Point, q: Point) -> list[Seam]:
    a, b = seam.ends
    along = b.minus(a)
    if cross(along, p.minus(a)) != 0 or cross(along, q.minus(a)) != 0:
        return [seam]
    whole = dot(along, along)
    low, high = sorted((dot(along, p.minus(a)) / whole, dot(along, q.minus(a)) / whole))
    if high <= 0 or low >= 1:
        return [seam]
    out = []
    for start, end in ((Fraction(0), low), (high, Fraction(1))):
        if start < end:
            out.append(straight(_at(a, along, start), _at(a, along, end)))
    return out


def _at(a: Point, along: Point, k: Exact) -> Point:
    return Point(a.x + along.x * k, a.y + along.y * k)


def paint(block: Block, point: Pair, fabric: str | None) -> Block:
    """``block`` with the patch around ``point`` in ``fabric`` (None takes the cloth off);
    unchanged on a seam or outside."""
    now = draft(block)
    here = now.arrangement.locate(Point(*point))
    if here is None:
        return block
    spots = tuple(s for s, home in zip(block.fabric_at, now.homes, strict=True) if home != here)
    if fabric is not None:
        anchor = _anchor(now, here) or (point[0], point[1])
        spots = (*spots, FabricAt(point=anchor, fabric=fabric))
    return replace(block, fabric_at=spots)


def set_bands(block: Block, columns: tuple[Exact, ...], rows: tuple[Exact, ...]) -> Block:
    """``block`` on new bands. A coordinate on an old grid line goes to the same line of the new
    grid where there is one, and in between in proportion; what lay beyond is drawn no more."""

    def moved(p: Pair) -> Pair:
        return _regrid(block.columns, columns, p[0]), _regrid(block.rows, rows, p[1])

    seams: list[Seam] = []
    width, height = total(columns), total(rows)
    for seam in block.seams:
        p, q = (moved(end) for end in seam.ends)
        if p != q and not any(
            (p[i] == side == q[i]) for i, side in ((0, width), (1, height), (0, 0), (1, 0))
        ):
            seams.append(straight(p, q))
    spots = tuple(replace(spot, point=moved(spot.point)) for spot in block.fabric_at)
    new = replace(block, columns=columns, rows=rows, seams=tuple(seams), fabric_at=spots)
    return _keep_cloth(block, new)


def _regrid(old: tuple[Exact, ...], new: tuple[Exact, ...], x: Exact) -> Exact:
    """A coordinate on one set of bands at the same place on another; past the last, the edge."""
    at: Exact = Fraction(0)
    out: Exact = Fraction(0)
    for before, after in zip(old, new, strict=False):
        if x <= at + before:
            return out + (x - at) * after / before
        at, out = at + before, out + after
    return out


def _keep_cloth(before: Block, after: Block) -> Block:
    """``after`` with one fabric point a patch: each patch keeps the cloth that lay under the middle
    of it before the edit, so splitting a patch gives both halves its cloth."""
    old, new = draft(before), draft(after)
    same_grid = before.grid == after.grid
    kept = dict(zip(old.homes, before.fabric_at, strict=True))
    was = {_ring(old, face): face for face in range(len(old.patches))} if same_grid else {}
    spots = []
    for patch in new.patches:
        unchanged = was.get(_ring(new, patch.face))
        if unchanged is not None:
            if unchanged in kept:
                spots.append(kept[unchanged])
            continue
        anchor = _anchor(new, patch.face)
        if anchor is None:
            continue
        under = old.arrangement.locate(Point(*anchor)) if same_grid else None
        fabric = patch.fabric if under is None else old.patches[under].fabric
        if fabric is not None:
            spots.append(FabricAt(point=anchor, fabric=fabric))
    return replace(after, fabric_at=tuple(spots))


def _ring(now: Draft, face: int) -> tuple[object, ...]:
    """A patch's shape in the drawing, to know it by after an edit."""
    found = now.arrangement.faces[face]
    rings = (found.corners, *found.holes)
    return tuple(from_first_corner(tuple(now.arrangement.points[v] for v in r)) for r in rings)


def _anchor(now: Draft, face: int) -> Pair | None:
    """A point inside a patch to remember its cloth by, clear of its islands; None where none is
    found, and the patch is then told to have no cloth."""
    outline = now.arrangement.outline(face)
    middle = inner_point(outline)
    # Where an island lies in the middle, go towards each corner until clear of it.
    near = (
        corner.minus(corner.minus(middle).scaled(Fraction(1, k), Fraction(1, k)))
        for k in (1, 2, 4, 8, 16, 32, 64, 1024)
        for corner in outline
    )
    found = next((p for p in near if now.arrangement.locate(p) == face), None)
    return None if found is None else (found.x, found.y)
