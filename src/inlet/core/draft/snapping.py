"""Where a seam may begin and end: the grid, divided as asked, and the ends and crossings drawn."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import pairwise, product

import numpy as np
from numpy.typing import NDArray

from inlet.core.draft.patches import Draft
from inlet.core.geometry import (
    Arrangement,
    Circle,
    Curve,
    Line,
    Point,
    circle_of,
    flattened,
    line_meets_circle,
    line_through,
    meet,
    within_arc,
)
from inlet.core.memo import memo
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Block

DIVISIONS = (1, 2, 3, 4)
"""Into how many equal parts each band may be divided for snapping."""


def grid_lines(bands: tuple[Exact, ...], divide: int = 1) -> tuple[Exact, ...]:
    """Coordinates of a block's grid lines along one side, both edges included, in grid units."""
    at: Exact = Fraction(0)
    lines: list[Exact] = [at]
    for band in bands:
        lines += [at + band * Fraction(k, divide) for k in range(1, divide + 1)]
        at = at + band
    return tuple(lines)


def snap_lattice(block: Block, divide: int) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
    """The columns' and rows' lines to snap to."""
    return grid_lines(block.columns, divide), grid_lines(block.rows, divide)


def guides(block: Block, divide: int) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
    """The columns' and rows' lines to draw by: those to snap to, and those squared off from the
    compass's marks."""
    xs, ys = snap_lattice(block, divide)
    return (*xs, *(x for x, _ in block.marks)), (*ys, *(y for _, y in block.marks))


def nearest_snap(draft: Draft, x: float, y: float, divide: int) -> Point:
    """The snap point nearest to (x, y) in grid units as seen: distances count at finished size.
    Ends and crossings of seams, where seams meet the divided grid, and the compass's marks win a
    tie with the grid, to which lines squared off from the marks belong."""
    column, row = (
        min(lines, key=lambda c: abs(float(c) - at))
        for lines, at in zip(guides(draft.block, divide), (x, y), strict=True)
    )
    sx, sy = (float(u) for u in draft.block.scale)
    places = draft.arrangement.places
    near = min(
        range(len(places)),
        key=lambda i: ((places[i][0] - x) * sx) ** 2 + ((places[i][1] - y) * sy) ** 2,
    )
    others = [*_marks(draft.block), *_on_grid(draft, column, row, x, y)]
    # The grid comes last: of equally near points the first is taken.
    return nearest_of(
        [draft.arrangement.points[near], *others, Point(column, row)], draft.block, x, y
    )


def _on_grid(draft: Draft, column: Exact, row: Exact, x: float, y: float) -> Iterator[Point]:
    """Where the seam piece nearest to (x, y) meets a column's or a row's line."""
    found = seam_near(draft, x, y)
    if found is None:
        return
    piece, one, zero = found[0], Fraction(1), Fraction(0)
    for line in (Line(one, zero, column), Line(zero, one, row)):
        if piece.centre is None:
            p = meet(line_through(*piece.ends), line)
            places = [p] if p is not None else []
        else:
            places = line_meets_circle(line, circle_of(piece))
        yield from (p for p in places if _between(piece, p))


def _between(piece: Curve, p: Point) -> bool:
    """Is a point of a piece's line or circle between its ends?"""
    if piece.centre is not None:
        low, high = piece.ends if piece.clockwise else (piece.end, piece.start)
        return within_arc(p, low, high, piece.centre)
    low, high = sorted(piece.ends)
    return low <= p <= high


def nearest_of(points: Sequence[Point], block: Block, x: float, y: float) -> Point:
    """Of some points the one nearest to (x, y), at finished size; the first of equals."""
    sx, sy = (float(s) for s in block.scale)

    def far(p: Point) -> float:
        px, py = p.floats()
        return round(((px - x) * sx) ** 2 + ((py - y) * sy) ** 2, 12)

    return min(points, key=far)


def _marks(block: Block) -> Iterator[Point]:
    return (Point(*mark) for mark in block.marks)


def locked_snap(draft: Draft, start: Point, x: float, y: float, divide: int) -> Point:
    """The snap nearest to (x, y) straight or at 45° from ``start`` at finished size: where such a
    line meets the divided grid, the block's edge or a seam."""
    block = draft.block
    width, height = block.grid
    sx, sy = block.scale
    px, py = start.floats()
    right, down = (x - px) * float(sx), (y - py) * float(sy)
    # Of the four ways, the one the place is least far off, |d × way| / |way|.
    dx, dy = min(
        ((1, 0), (0, 1), (1, 1), (1, -1)),
        key=lambda way: abs(right * way[1] - down * way[0]) / (way[0] ** 2 + way[1] ** 2) ** 0.5,
    )
    ray = line_through(start, start.plus(Point(dx / sx, dy / sy)))
    inside = (p for p in meetings(draft, ray, divide) if 0 <= p.x <= width and 0 <= p.y <= height)
    return nearest_of([start, *inside], block, x, y)


def meetings(draft: Draft, along: Line | Circle, divide: int) -> Iterator[Point]:
    """Where a line or circle (grid units) meets the divided grid, lines squared off from marks, the
    edge and the drawn seams."""
    xs, ys = guides(draft.block, divide)
    one: Exact = Fraction(1)
    zero: Exact = Fraction(0)
    lines: list[Line | Circle] = [Line(one, zero, x) for x in xs]
    lines += [Line(zero, one, y) for y in ys]
    for other in dict.fromkeys((*lines, *draft.arrangement.lines)):
        if isinstance(along, Circle):
            if isinstance(other, Line):
                yield from line_meets_circle(other, along)
        elif isinstance(other, Circle):
            yield from line_meets_circle(along, other)
        else:
            point = meet(along, other)
            if point is not None:
                yield point


def arc_end_snap(
    draft: Draft, centre: Point, start: Point, x: float, y: float, divide: int
) -> Point | None:
    """The point of the circle about ``centre`` through ``start`` nearest to (x, y), among its
    crossings with the grid, the edge and seams; None where there is none but the start. Grid cells
    must be square."""
    circle = circle_of(Curve(start, start, centre))
    width, height = draft.block.grid
    spots = [Point(cx, cy) for cx, cy in product(*snap_lattice(draft.block, divide))]
    spots += [*draft.arrangement.points, *_marks(draft.block)]
    points = [p for p in spots if circle.side(p) == 0]
    points += meetings(draft, circle, divide)
    points = [p for p in points if 0 <= p.x <= width and 0 <= p.y <= height and p != start]
    return nearest_of(points, draft.block, x, y) if points else None


def seam_near(draft: Draft, x: float, y: float) -> tuple[Curve, float] | None:
    """The piece of seam nearest to (x, y) in grid units, and how far it is at finished size. The
    block's own edge does not count; None where nothing is drawn. Pieces of drawn seams that border
    no patch (a seam that stops inside one) are found too."""
    arrangement, scale = draft.arrangement, _scale(draft)
    inner = [k for k, e in enumerate(arrangement.edges) if e.right >= 0 and e.left >= 0]
    found = []
    if inner:
        k, far = nearest_edge(draft, inner, (x, y))
        found.append((arrangement.curve(arrangement.edges[k]), far))
    ends = {fault.point for fault in arrangement.faults if fault.kind in ("stops", "outside")}
    loose = [seam.curve for seam in draft.block.seams if ends & set(seam.ends)]
    found += [(curve, curve_distance(curve, (x, y), scale)) for curve in loose]
    return min(found, key=lambda each: round(each[1], 9), default=None)


def _scale(draft: Draft) -> tuple[float, float]:
    sx, sy = draft.block.scale
    return float(sx), float(sy)


def nearest_edge(draft: Draft, edges: Sequence[int], at: tuple[float, float]) -> tuple[int, float]:
    """Which of some edges is nearest to a place in grid units (the first of those as near), and how
    far it is at finished size. From an arc that is the way to its circle where the place lies
    between the rays from its centre through its ends, else to the nearer end."""
    scale = _scale(draft)
    table = _edge_table(draft.arrangement, scale)[edges]
    start, end, centre = table[:, 0:2], table[:, 2:4], table[:, 4:6]
    place = np.array(at) * scale
    to, step = place - start, end - start
    k = np.clip((to * step).sum(axis=1) / (step * step).sum(axis=1), 0.0, 1.0)
    far = np.hypot(*(k[:, None] * step - to).T)
    curved = np.flatnonzero(np.isfinite(centre[:, 0]))
    if scale[0] == scale[1]:
        about = centre[curved]
        u, v, w = start[curved] - about, end[curved] - about, place - about
        r, away = np.hypot(*u.T), np.hypot(*w.T)
        before, after = _crosses(u, w), _crosses(w, v)
        beside = np.minimum(np.hypot(*(w - u).T), np.hypot(*(w - v).T))
        far[curved] = np.where((before >= 0) & (after >= 0), np.abs(away - r), beside)
    else:  # not round at all
        for n in curved.tolist():
            curve = draft.arrangement.curve(draft.arrangement.edges[edges[n]])
            far[n] = curve_distance(curve, at, scale)
    n = int(np.flatnonzero(far <= far.min() + 1e-9)[0])
    return int(edges[n]), float(far[n])


def _crosses(u: NDArray[np.float64], v: NDArray[np.float64]) -> NDArray[np.float64]:
    return u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]


@memo(8)
def _edge_table(arrangement: Arrangement, scale: tuple[float, float]) -> NDArray[np.float64]:
    """(edges, 6): the ends of each edge at finished size, and its centre (not a number where it is
    straight); arcs run clockwise on screen."""
    places = np.array(arrangement.places) * scale
    none = (float("nan"), float("nan"))
    centres = [on.centre.floats() if isinstance(on, Circle) else none for on in arrangement.lines]
    start, end, line = np.array(arrangement.edges)[:, :3].T
    return np.column_stack([places[start], places[end], (np.array(centres) * scale)[line]])


def curve_distance(
    curve: Curve, at: tuple[float, float], scale: tuple[float, float] = (1.0, 1.0)
) -> float:
    """How far a place is from a curve, both in grid units, at finished size."""
    sx, sy = scale
    chain = [*flattened(curve, 0.002), curve.end.floats()]
    seen = [(x * sx, y * sy) for x, y in chain]
    point = (at[0] * sx, at[1] * sy)
    return min(_distance(point, p, q) for p, q in pairwise(seen))


def _distance(at: tuple[float, float], p: tuple[float, float], q: tuple[float, float]) -> float:
    dx, dy = q[0] - p[0], q[1] - p[1]
    k = ((at[0] - p[0]) * dx + (at[1] - p[1]) * dy) / (dx * dx + dy * dy)
    k = min(1.0, max(0.0, k))
    return float(((p[0] + k * dx - at[0]) ** 2 + (p[1] + k * dy - at[1]) ** 2) ** 0.5)
