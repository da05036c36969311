"""Exact polygons: area, containment, clipping, mirroring, growing by an allowance.

A polygon is a tuple of points, each a corner, in clockwise order on screen (positive area with y
downward). Unless a function says otherwise it may be any simple polygon.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import NamedTuple, TypeVar

from inlet.core.geometry.point import Point, cross, dot, midpoint
from inlet.core.numbers import Exact, Fraction, root_up

Polygon = tuple[Point, ...]
Bounds = tuple[Exact, Exact, Exact, Exact]
"""Left, top, right, bottom."""
Corner = TypeVar("Corner")


class Line(NamedTuple):
    """The line ``a·x + b·y = c``. Its right-hand side, seen along (b, -a), is where the form is
    larger; only the set of points matters to most callers."""

    a: Exact
    b: Exact
    c: Exact

    def side(self, p: Point) -> Exact:
        """0 on the line, above 0 on one side of it, below 0 on the other."""
        return self.a * p.x + self.b * p.y - self.c

    def mirror(self, p: Point) -> Point:
        """``p`` reflected: p - 2 n (n·p - c)/(n·n), no root needed."""
        k = 2 * self.side(p) / (self.a * self.a + self.b * self.b)
        return Point(p.x - k * self.a, p.y - k * self.b)

    def opposite(self) -> Line:
        """The same points, the other side growing."""
        return Line(-self.a, -self.b, -self.c)

    def shifted(self, distance: Exact | int) -> Line:
        """The parallel line ``distance`` away, towards growing ``side``."""
        return Line(self.a, self.b, self.c + distance * root_up(self.a * self.a + self.b * self.b))


def line_through(p: Point, q: Point) -> Line:
    """The line through two points, with growing ``side`` on the right hand going from p to q
    (on screen, y downward)."""
    a, b = p.y - q.y, q.x - p.x
    return Line(a, b, a * p.x + b * p.y)


def meet(m: Line, n: Line) -> Point | None:
    """Where two lines cross; None when parallel."""
    det = m.a * n.b - n.a * m.b
    if det == 0:
        return None
    return Point((m.c * n.b - n.c * m.b) / det, (m.a * n.c - n.a * m.c) / det)


def edges(polygon: Sequence[Corner]) -> Iterable[tuple[Corner, Corner]]:
    """The sides, each from one corner to the next; corners may be places in floats, too."""
    return zip(polygon, (*polygon[1:], polygon[0]), strict=True)


def area(polygon: Sequence[Point]) -> Exact:
    """Signed area (shoelace): above 0 for clockwise on screen."""
    total: Exact = Fraction(0)
    for p, q in edges(polygon):
        total = total + cross(p, q)
    return total / 2


def corners_only(polygon: Sequence[Point]) -> Polygon:
    """Without repeated points and without points in the middle of a straight side."""
    points = [p for i, p in enumerate(polygon) if p != polygon[i - 1]]
    return tuple(
        p
        for i, p in enumerate(points)
        if cross(p.minus(points[i - 1]), points[(i + 1) % len(points)].minus(p)) != 0
    )


def is_convex(polygon: Sequence[Point]) -> bool:
    """Does it turn one way at every corner, or not at all? Floats decide where they are far from a
    tie."""
    places = [p.floats() for p in polygon]
    hair = 1e-9 * (1 + max((max(abs(x), abs(y)) for x, y in places), default=0.0) ** 2)
    for i, p in enumerate(polygon):
        j = (i + 1) % len(polygon)
        (ax, ay), (bx, by), (cx, cy) = places[i - 1], places[i], places[j]
        turn: Exact | float = (bx - ax) * (cy - by) - (by - ay) * (cx - bx)
        if abs(turn) < hair:
            turn = cross(p.minus(polygon[i - 1]), polygon[j].minus(p))
        if turn < 0:
            return False
    return True


def contains(
    polygon: Sequence[Point], p: Point, places: Sequence[tuple[float, float]] | None = None
) -> int:
    """1 inside, 0 on the outline, -1 outside, exactly: a ray to the right, counted. Floats decide
    wherever they are far from a tie; ``places`` are the corners' floats, if known."""
    inside = False
    x, y = p.floats()
    if places is None:
        places = [v.floats() for v in polygon]
    hair = 1e-9 * (1 + max(max(abs(u), abs(v)) for u, v in places) ** 2)
    for i, v in enumerate(polygon):
        u = polygon[i - 1]
        (ux, uy), (vx, vy) = places[i - 1], places[i]
        turn: Exact | float = (vx - ux) * (y - uy) - (vy - uy) * (x - ux)
        if abs(turn) < hair:
            turn = cross(v.minus(u), p.minus(u))
            if turn == 0 and dot(p.minus(u), p.minus(v)) <= 0:
                return 0
            above, below = u.y > p.y, v.y > p.y
        elif min(abs(uy - y), abs(vy - y)) < hair:
            above, below = u.y > p.y, v.y > p.y
        else:
            above, below = uy > y, vy > y
        if above != below and (turn > 0) == below:
            inside = not inside
    return 1 if inside else -1


def inner_point(polygon: Polygon) -> Point:
    """A point strictly inside: the mean of the corners where that is inside, else one on a
    diagonal of an ear (every simple polygon has one)."""
    n = len(polygon)
    zero: Exact = Fraction(0)
    mean = Point(sum((p.x for p in polygon), zero) / n, sum((p.y for p in polygon), zero) / n)
    if is_convex(polygon) or contains(polygon, mean) > 0:
        return mean
    for i in range(n):
        u, v, w = polygon[i - 1], polygon[i], polygon[(i + 1) % n]
        if cross(v.minus(u), w.minus(v)) <= 0:
            continue
        # A corner that bulges: go from it half way to the nearest thing inside its triangle.
        intruders = [p for p in polygon if p not in (u, v, w) and contains((u, v, w), p) >= 0]
        if not intruders:
            return midpoint(v, midpoint(u, w))
        base = line_through(u, w)
        return midpoint(v, max(intruders, key=lambda p: abs(base.side(p))))
    raise ValueError("a polygon without area has no inside")


def clip(polygon: Sequence[Point], line: Line) -> Polygon:
    """The part of a convex polygon where ``line.side`` ≥ 0; empty when nothing of area is left."""
    return _clipped(polygon, [line.side(p) for p in polygon])


def clip_to_box(polygon: Sequence[Point], box: Bounds) -> Polygon:
    """The part of a convex polygon within a box square to the axes; empty when nothing of area is
    left."""
    left, top, right, bottom = box
    part = _clipped(polygon, [p.x - left for p in polygon])
    part = _clipped(part, [right - p.x for p in part])
    part = _clipped(part, [p.y - top for p in part])
    return _clipped(part, [bottom - p.y for p in part])


def _clipped(polygon: Sequence[Point], sides: Sequence[Exact]) -> Polygon:
    """The part of a convex polygon on one side of a line. ``sides`` holds a number for each
    corner, in proportion to its distance from the line; the part where it is ≥ 0 is kept."""
    if all(side >= 0 for side in sides):
        return tuple(polygon)
    points: list[Point] = []
    for i, p in enumerate(polygon):
        j = (i + 1) % len(polygon)
        q, sp, sq = polygon[j], sides[i], sides[j]
        if sp >= 0:
            points.append(p)
        if (sp > 0 and sq < 0) or (sp < 0 and sq > 0):
            k = sp / (sp - sq)
            points.append(Point(p.x + (q.x - p.x) * k, p.y + (q.y - p.y) * k))
    kept = corners_only(points) if len(points) > 2 else ()
    return kept if len(kept) > 2 else ()


def chord(polygon: Sequence[Point], line: Line) -> tuple[Point, Point] | None:
    """Where a line crosses a convex polygon, from end to end; None if it misses it."""
    points: list[Point] = []
    for p, q in edges(polygon):
        sp, sq = line.side(p), line.side(q)
        if sp == 0:
            points.append(p)
        elif (sp > 0 and sq < 0) or (sp < 0 and sq > 0):
            k = sp / (sp - sq)
            points.append(Point(p.x + (q.x - p.x) * k, p.y + (q.y - p.y) * k))
    return (min(points), max(points)) if len(set(points)) > 1 else None


def flip(polygon: Sequence[Point], line: Line) -> Polygon:
    """Turned over along ``line``; the order is reversed so that it stays clockwise."""
    return tuple(line.mirror(p) for p in reversed(polygon))


def moved(polygon: Sequence[Point], by: Point) -> Polygon:
    return tuple(p.plus(by) for p in polygon)


def offset(polygon: Polygon, distance: Exact | int) -> Polygon:
    """Every side moved outward by ``distance`` (inward if negative), corners kept sharp.

    Each corner is where its two moved sides meet; sides need not be in proportion, so this is for
    convex pieces and small distances. Exact wherever the sides' lengths are (45° work included);
    else each root is taken once, see ``root_up``.
    """
    return offset_sides(polygon, [distance] * len(polygon))


def offset_sides(polygon: Polygon, distances: Sequence[Exact | int]) -> Polygon:
    """Like ``offset``, with a distance of its own for the side from each corner to the next."""
    moved_sides = [
        line_through(p, q).shifted(-d) if d else line_through(p, q)
        for (p, q), d in zip(edges(polygon), distances, strict=True)
    ]
    sides = []
    befores = (moved_sides[-1], *moved_sides[:-1])
    for p, before, after in zip(polygon, befores, moved_sides, strict=True):
        corner = meet(before, after)
        if corner is None:  # in mid-side: straight out from where it was
            k = after.side(p) / (after.a * after.a + after.b * after.b)
            corner = Point(p.x - k * after.a, p.y - k * after.b)
        sides.append(corner)
    return tuple(sides)


def bounds(polygon: Sequence[Point]) -> Bounds:
    """Left, top, right, bottom."""
    xs, ys = [p.x for p in polygon], [p.y for p in polygon]
    return min(xs), min(ys), max(xs), max(ys)


def from_first_corner(polygon: Polygon) -> Polygon:
    """The same outline started at its leftmost, then topmost corner, so that equal outlines are
    equal tuples. (Equal exact numbers have equal floats, so floats can choose.) Of a corner met
    twice the time counts that the next corner is farther left."""
    places = [p.floats() for p in polygon]
    first = min(places)
    start = places.index(first)
    if places.count(first) > 1:
        n = len(places)
        start = min((i for i in range(n) if places[i] == first), key=lambda i: places[(i + 1) % n])
    return polygon[start:] + polygon[:start]


def squared_length(p: Point, q: Point) -> Exact:
    step = q.minus(p)
    return dot(step, step)


def on_line(p: Point, q: Point, r: Point, t: Point) -> bool:
    """Do the points p and q lie on the line through r and t?"""
    step = t.minus(r)
    return cross(step, p.minus(r)) == 0 == cross(step, q.minus(r))


def common_stretch(p: Point, q: Point, r: Point, t: Point) -> tuple[Point, Point] | None:
    """What the sides pq and rt have in common, going as p to q; None if it is not longer than a
    point."""
    if not on_line(r, t, p, q):
        return None
    step = q.minus(p)

    def along(v: Point) -> Exact:
        return dot(step, v)

    low = max(p, min(r, t, key=along), key=along)
    high = min(q, max(r, t, key=along), key=along)
    return (low, high) if along(high) > along(low) else None


def narrowest(points: Sequence[tuple[float, float]]) -> float:
    """The least width of a polygon's hull, as a float: over the sides, the farthest corner from
    each. Only compared with a threshold of warning, never cut from."""
    least = float("inf")
    for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
        length = ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5
        width = max(abs((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)) for x, y in points) / length
        least = min(least, width)
    return least
