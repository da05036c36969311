"""Where a seam may begin and end: the grid, divided as asked, and the ends and crossings drawn."""

from __future__ import annotations

from fractions import Fraction

from inlet.core.draft.patches import Draft
from inlet.core.geometry.point import Point
from inlet.core.numbers import Exact
from inlet.core.project import Block

DIVISIONS = (1, 2, 3, 4)
"""Into how many equal parts each band may be divided for snapping."""


def grid_lines(bands: tuple[Exact, ...], divide: int = 1) -> tuple[Exact, ...]:
    """Coordinates of a block's grid lines along one side, both edges included, in grid units."""
    at: Exact = Fraction(0)
    out: list[Exact] = [at]
    for band in bands:
        out += [at + band * Fraction(k, divide) for k in range(1, divide + 1)]
        at = at + band
    return tuple(out)


def snap_lattice(block: Block, divide: int) -> tuple[tuple[Exact, ...], tuple[Exact, ...]]:
    """The columns' and rows' lines to snap to."""
    return grid_lines(block.columns, divide), grid_lines(block.rows, divide)


def nearest_snap(draft: Draft, x: float, y: float, divide: int) -> Point:
    """The snap point nearest to (x, y) in grid units as seen: distances count at finished size.
    Ends and crossings of seams win a tie with the grid."""
    sx, sy = (float(s) for s in draft.block.scale)

    def far(p: Point) -> float:
        px, py = p.floats()
        return ((px - x) * sx) ** 2 + ((py - y) * sy) ** 2

    xs, ys = snap_lattice(draft.block, divide)
    grid = Point(
        min(xs, key=lambda c: abs(float(c) - x)),
        min(ys, key=lambda c: abs(float(c) - y)),
    )
    drawn = min(draft.arrangement.points, key=far)
    return drawn if far(drawn) <= far(grid) + 1e-12 else grid


def seam_near(draft: Draft, x: float, y: float) -> tuple[Point, Point, float] | None:
    """The piece of seam nearest to (x, y) in grid units: its ends, and how far it is at finished
    size. The block's own edge does not count; None where nothing is drawn. Pieces of drawn seams
    that border no patch (a seam that stops inside one) are found too."""
    sx, sy = (float(s) for s in draft.block.scale)
    arrangement = draft.arrangement
    pieces = [
        (arrangement.points[e.start], arrangement.points[e.end])
        for e in arrangement.edges
        if e.right >= 0 and e.left >= 0
    ]
    ends = {fault.point for fault in arrangement.faults if fault.kind in ("stops", "outside")}
    pieces += [seam.ends for seam in draft.block.seams if ends & set(seam.ends)]
    best: tuple[Point, Point, float] | None = None
    for p, q in pieces:
        far = _distance((x * sx, y * sy), _seen(p, sx, sy), _seen(q, sx, sy))
        if best is None or far < best[2] - 1e-9:
            best = (p, q, far)
    return best


def _seen(p: Point, sx: float, sy: float) -> tuple[float, float]:
    x, y = p.floats()
    return x * sx, y * sy


def _distance(at: tuple[float, float], p: tuple[float, float], q: tuple[float, float]) -> float:
    dx, dy = q[0] - p[0], q[1] - p[1]
    k = ((at[0] - p[0]) * dx + (at[1] - p[1]) * dy) / (dx * dx + dy * dy)
    k = min(1.0, max(0.0, k))
    return float(((p[0] + k * dx - at[0]) ** 2 + (p[1] + k * dy - at[1]) ** 2) ** 0.5)
