"""The compass of hand drafting: arcs drawn with it, and distances carried with it."""

from __future__ import annotations

from inlet.core.draft.patches import Draft
from inlet.core.draft.symmetry import repeated_points
from inlet.core.geometry import Curve, Line, Point, Turn, dot, short_point
from inlet.core.numbers import Fraction, root_up, sqrt_exact
from inlet.core.project import Block, replace


def quarter_arc(start: Point, end: Point, clockwise: bool = True) -> Curve:
    """The quarter circle from ``start`` to ``end``: its centre is the corner that stands on the
    chord as on a long side. Between opposite corners of a square cell that is another corner of
    it; so one arc each way round makes a petal.

    For a chord d turned a quarter, d', the centre is the chord's middle plus or minus d'/2.
    """
    d = end.minus(start)
    side = 1 if clockwise else -1
    half = Fraction(1, 2)
    centre = Point(
        (start.x + end.x - side * d.y) * half,
        (start.y + end.y + side * d.x) * half,
    )
    return Curve(start, end, centre)


def swing(draft: Draft, p: Point, q: Point, about: Point) -> list[Point]:
    """The points as far from ``about`` as p is from q, at finished size, along the block's edges
    and the seams that pass through ``about``. All in grid units.

    Along a step u of a line the point is about ± u·√(d²/u²): exact where that root is in
    a + b√2, else to 12 decimals.
    """
    block = draft.block
    sx, sy = block.scale
    gap = q.minus(p).scaled(sx, sy)
    squared = dot(gap, gap)
    points: list[Point] = []
    for number, line in enumerate(draft.arrangement.lines):
        if not isinstance(line, Line) or line.side(about) != 0:
            continue
        u = Point(line.b, -line.a)
        seen = u.scaled(sx, sy)
        ratio = squared / dot(seen, seen)
        k = sqrt_exact(ratio) or root_up(ratio)
        for sign in (1, -1):
            at = short_point(Point(about.x + sign * k * u.x, about.y + sign * k * u.y))
            if at not in points and _on_seam(draft, number, at):
                points.append(at)
    return points


def _on_seam(draft: Draft, number: int, at: Point) -> bool:
    """Does an edge of the numbered line reach as far as a point of it?"""
    arrangement = draft.arrangement
    for edge in arrangement.edges:
        if edge.line == number:
            low, high = sorted((arrangement.points[edge.start], arrangement.points[edge.end]))
            if low <= at <= high:
                return True
    return False


def with_marks(block: Block, group: tuple[Turn, ...], points: list[Point]) -> Block:
    """``block`` with marks at ``points`` and their images, each place once."""
    marks = dict.fromkeys(block.marks)
    for point in points:
        for seen in repeated_points(block, group, point):
            marks[seen.x, seen.y] = None
    return replace(block, marks=tuple(marks))


def without_marks(block: Block) -> Block:
    return replace(block, marks=())
