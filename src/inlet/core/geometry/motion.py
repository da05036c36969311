"""Exact rigid motions, and finding the one that carries a picture onto another.

Between two equal outlines the turn is exact without any root: with e and e' the same edge in both,
cos = e·e'/|e|² and sin = e×e'/|e|².
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.geometry.point import ORIGIN, Point, cross, dot
from inlet.core.geometry.polygon import Polygon, edges, from_first_corner, moved, squared_length
from inlet.core.numbers import HALF_ROOT2, Exact, Fraction, Root2

Picture = tuple[tuple[Polygon, str | None], ...]
"""Outlines with a tag each, as a rule the fabric."""


class Motion(NamedTuple):
    """Turn by (cos, sin), clockwise on screen, then move by ``by``. Keeps sizes and hands."""

    cos: Exact
    sin: Exact
    by: Point = ORIGIN

    def __call__(self, p: Point) -> Point:
        return Point(
            self.cos * p.x - self.sin * p.y + self.by.x,
            self.sin * p.x + self.cos * p.y + self.by.y,
        )

    def polygon(self, polygon: Sequence[Point]) -> Polygon:
        if self.sin == 0 and self.cos == 1:
            return moved(polygon, self.by)
        if self.sin == 0 and self.cos == -1:
            return tuple(Point(self.by.x - p.x, self.by.y - p.y) for p in polygon)
        if self.cos == 0:  # a quarter turn one way or the other: no products
            if self.sin == 1:
                return tuple(Point(self.by.x - p.y, self.by.y + p.x) for p in polygon)
            return tuple(Point(self.by.x + p.y, self.by.y - p.x) for p in polygon)
        return tuple(self(p) for p in polygon)

    def picture(self, picture: Picture) -> Picture:
        return tuple((self.polygon(outline), tag) for outline, tag in picture)

    def then_move(self, by: Point) -> Motion:
        return Motion(self.cos, self.sin, self.by.plus(by))

    def turn_only(self) -> Motion:
        return Motion(self.cos, self.sin)


STILL = Motion(Fraction(1), Fraction(0))
EIGHTH_TURN = Motion(HALF_ROOT2, HALF_ROOT2)


def mirrored(picture: Picture) -> Picture:
    """The picture in a mirror (left-right), outlines still clockwise."""
    return tuple(
        (tuple(Point(-p.x, p.y) for p in reversed(outline)), tag) for outline, tag in picture
    )


Key = tuple[int, ...]


def _key(x: Exact) -> Key:
    """An exact number as integers: quicker to compare and hash than the number."""
    return (x.p, x.q, x.d) if isinstance(x, Root2) else (x.numerator, x.denominator)


def canonical(picture: Picture) -> frozenset[tuple[object, ...]]:
    """The picture as a set that does not depend on where outlines start: equal sets, equal
    pictures."""
    return frozenset(
        (tag, *((_key(p.x), _key(p.y)) for p in from_first_corner(outline)))
        for outline, tag in picture
    )


def corner_of(picture: Picture) -> Point:
    """The left and the top of the box round a picture."""
    points = [p for outline, _ in picture for p in outline]
    return Point(
        min(points, key=lambda p: float(p.x)).x,
        min(points, key=lambda p: float(p.y)).y,
    )


def at_origin(picture: Picture) -> Picture:
    """The picture moved so that its box begins at (0, 0)."""
    corner = corner_of(picture)
    check()
    return tuple((tuple(p.minus(corner) for p in outline), tag) for outline, tag in picture)


def likeness(picture: Picture) -> tuple[object, ...]:
    """A quick key, equal for pictures that some motion or mirror may carry onto one another: tags,
    corner counts and rounded areas. Unequal keys mean no motion; equal keys mean try one."""
    return tuple(sorted((tag or "", len(p), _rounded_area(p)) for p, tag in picture))


def _rounded_area(polygon: Polygon) -> int:
    points = [p.floats() for p in polygon]
    twice = 0.0
    for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
        twice += x0 * y1 - x1 * y0
    return round(twice * 5000)


def motion_between(source: Picture, target: Picture) -> Motion | None:
    """A motion that carries ``source`` exactly onto ``target``, tags included; None if there is
    none. The smallest turn is found first."""
    if len(source) != len(target):
        return None
    outline, tag = source[0]
    start, step = outline[0], outline[1].minus(outline[0])
    length = dot(step, step)
    sides = [
        (p, q.minus(p), other_points[k:] + other_points[:k])
        for other_points, other_tag in target
        if other_tag == tag and len(other_points) == len(outline)
        for k, (p, q) in enumerate(edges(other_points))
        if squared_length(p, q) == length
    ]
    sides.sort(key=lambda side: -float(dot(step, side[1])))
    wanted = canonical(target) if len(source) > 1 else None
    for corner, e, other_points in sides:
        turn = Motion(dot(step, e) / length, cross(step, e) / length)
        motion = Motion(turn.cos, turn.sin, corner.minus(turn(start)))
        if motion.polygon(outline) != other_points:
            continue
        if wanted is None or canonical(motion.picture(source)) == wanted:
            return motion
    return None


class SameShapes:
    """Outlines told apart by shape: of those that some turn carries onto one another, the first
    stands for all."""

    def __init__(self) -> None:
        self._known: dict[object, list[Polygon]] = {}

    def first_like(self, outline: Polygon, group: object = None) -> Polygon:
        """The first outline of its group of the shape of this one, maybe itself."""
        check()
        picture = ((outline, None),)
        points = self._known.setdefault((group, likeness(picture)), [])
        for known_points in points:
            if motion_between(((known_points, None),), picture):
                return known_points
        points.append(outline)
        return outline


class Alike:
    """Pictures sorted into groups of which one is carried onto another by a motion.

    The first of a group stands for it. A picture that lies exactly as one seen before, elsewhere,
    is found by a look-up; only a new way of lying needs a motion to be sought.
    """

    def __init__(self) -> None:
        self.first: list[Picture] = []
        self._seen: dict[frozenset[tuple[object, ...]], tuple[int, Motion, Point]] = {}
        self._by_likeness: dict[tuple[object, ...], list[int]] = {}

    def add(self, picture: Picture) -> tuple[int, Motion]:
        """The number of the picture's group, and the motion from the group's first onto it."""
        check()
        corner = corner_of(picture)
        key = canonical(at_origin(picture))
        seen = self._seen.get(key)
        if seen:
            group, motion, before = seen
            return group, motion.then_move(corner.minus(before))
        own_points = self._by_likeness.setdefault(likeness(picture), [])
        for group in own_points:
            same_motion = motion_between(self.first[group], picture)
            if same_motion:
                break
        else:
            group, same_motion = len(self.first), STILL
            own_points.append(group)
            self.first.append(picture)
        self._seen[key] = (group, same_motion, corner)
        return group, same_motion

    def mirror_of(self, group: int) -> int | None:
        """An earlier group whose pictures are the mirror image of this one's, if there is one."""
        check()
        picture = self.first[group]
        reflection = mirrored(picture)
        for other in self._by_likeness[likeness(picture)]:
            if other < group and motion_between(self.first[other], reflection):
                return other
        return None
