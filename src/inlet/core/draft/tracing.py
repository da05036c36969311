"""From strokes someone drew elsewhere to exact seams on a block's grid."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import cache
from typing import NamedTuple

from inlet.core.cancellation import check, tell
from inlet.core.draft.edit import merged
from inlet.core.geometry import Curve, Point, arc_fault
from inlet.core.numbers import ROOT2, Exact, Fraction
from inlet.core.project import MOST_SEAMS, Block, Pair, replace, seam_along

Place = tuple[float, float]
Bounds = tuple[float, float, float, float]
"""Left, top, right, bottom."""


class TracedStroke(NamedTuple):
    """A line, or an arc of less than half a circle about ``centre``, in the drawing's own units.
    ``exact`` is the same on our grid, where the drawing says it; ``parts`` are what it is drawn in,
    for where that is not to be believed."""

    start: Place
    end: Place
    centre: Place | None = None
    exact: Curve | None = None
    parts: tuple[TracedStroke, ...] = ()


class Traced(NamedTuple):
    """``seams`` of strokes laid on the grid; how many ends lay off it and were kept where they
    are; and how many strokes were too short, or too many, to be seams."""

    block: Block
    off_grid: int
    left_out: int


TOLERANCE = Fraction(1, 50)
"""Of a band: an end this near to a snap point is moved onto it."""
PARTS = (1, 2, 3, 4)
"""Parts of a band that ends are moved to."""
MOST_GUESSED = 16
FINEST = 10**6


def guess_bands(strokes: Sequence[TracedStroke], box: Bounds, axis: int) -> int:
    """The fewest equal bands on whose lines nearly every end lies, 1 to 16; 1 where none fit."""
    low, high = box[axis], box[axis + 2]
    ends = [(p[axis] - low) / (high - low) for s in strokes for p in (s.start, s.end)]
    for count in range(1, MOST_GUESSED + 1):
        off = sum(abs(x * count - round(x * count)) > TOLERANCE for x in ends)
        if off * 12 <= len(ends):
            return count
    return 1


def trace(block: Block, strokes: Sequence[TracedStroke], box: Bounds) -> Traced:
    """``block`` with the strokes as its seams, ``box`` (left, top, right, bottom) of the drawing
    laid on the whole of it.

    An end within ``TOLERANCE`` of a band from the grid, or a half, third or quarter of a band, or
    from a place where √2 work puts points, is moved onto it; others stay where they are, as
    decimals. An arc keeps its bulge: its centre is put on the middle line of its chord.
    """
    width, height = block.grid
    left, top, right, bottom = box
    kx, ky = float(width) / (right - left), float(height) / (bottom - top)
    snap_x, snap_y = _snapper(block.columns), _snapper(block.rows)
    off = out = 0
    seams: list[Curve] = []
    todo = list(strokes[:MOST_SEAMS])
    for stroke in _growing(todo):
        if stroke.exact is not None:
            if _agrees(stroke, stroke.exact, box, (kx, ky)):
                seams.append(stroke.exact)
            else:
                todo += stroke.parts
            continue
        ends = []
        for x, y in (stroke.start, stroke.end):
            (px, on_x), (py, on_y) = snap_x((x - left) * kx), snap_y((y - top) * ky)
            off += not (on_x and on_y)
            ends.append(Point(px, py))
        start, end = ends
        centre = None
        if start != end and stroke.centre is not None:
            cx, cy = (stroke.centre[0] - left) * kx, (stroke.centre[1] - top) * ky
            centre = _centre(start, end, cx, cy)
            if arc_fault(start, end, centre):
                out += 1
                continue
        if start == end:
            out += 1
        elif not (centre is None and _on_edge(start, end, block.grid)):
            seams.append(Curve(start, end, centre))
    drawn = merged(seam_along(c) for c in seams)
    return Traced(replace(block, seams=drawn), off, out + max(0, len(strokes) - MOST_SEAMS))


def _growing(todo: list[TracedStroke]) -> Iterator[TracedStroke]:
    """The strokes of a list that may grow meanwhile, stopped where asked."""
    for n, stroke in enumerate(todo):
        check()
        if n % 64 == 0:
            tell(0.5 + 0.25 * n / len(todo))
        yield stroke


def _agrees(stroke: TracedStroke, exact: Curve, box: Bounds, k: tuple[float, float]) -> bool:
    """Does the drawing still show a stroke where its exact seam says it is?"""
    if (exact.centre is None) != (stroke.centre is None) or exact.start == exact.end:
        return False
    if exact.centre is not None and arc_fault(exact.start, exact.end, exact.centre):
        return False

    def near(shown: Place | None, said: Point | None) -> bool:
        if shown is None or said is None:
            return shown is None and said is None
        x, y = said.floats()
        return abs((shown[0] - box[0]) * k[0] - x) + abs((shown[1] - box[1]) * k[1] - y) < 1e-3

    there = near(stroke.start, exact.start) and near(stroke.end, exact.end)
    back = near(stroke.start, exact.end) and near(stroke.end, exact.start)
    return (there or back) and near(stroke.centre, exact.centre)


def _on_edge(p: Point, q: Point, grid: Pair) -> bool:
    return any(p[i] == q[i] and p[i] in (0, grid[i]) for i in (0, 1))


def _centre(start: Point, end: Point, cx: float, cy: float) -> Point:
    """A centre as far from both ends, exactly: the chord's middle and t times the chord turned a
    quarter, t a short fraction where one is near (1/2 for a quarter circle)."""
    d = end.minus(start)
    turned = Point(-d.y, d.x)
    mx, my = ((a + b) / 2 for a, b in zip(start.floats(), end.floats(), strict=True))
    tx, ty = turned.floats()
    t = ((cx - mx) * tx + (cy - my) * ty) / (tx * tx + ty * ty)
    short = Fraction(t).limit_denominator(24)
    if abs(float(short) - t) > 0.01:
        short = Fraction(t).limit_denominator(FINEST)
    half = Fraction(1, 2)
    return Point(
        (start.x + end.x) * half + turned.x * short, (start.y + end.y) * half + turned.y * short
    )


def _snapper(bands: tuple[Exact, ...]) -> Callable[[float], tuple[Exact, bool]]:
    """Where a coordinate of a drawing goes on a grid line, a part of a band, or a place of √2
    work; and whether it went to one."""
    places = sorted({*_parts(bands), *_root_places(sum(bands, Fraction(0)))}, key=float)
    floats = [float(p) for p in places]
    reach = float(min(bands, key=float) * TOLERANCE)

    @cache
    def snap(x: float) -> tuple[Exact, bool]:
        near = min(range(len(floats)), key=lambda i: abs(floats[i] - x))
        if abs(floats[near] - x) <= reach:
            return places[near], True
        return Fraction(round(x * FINEST), FINEST), False

    return snap


def _parts(bands: tuple[Exact, ...]) -> Iterator[Exact]:
    at: Exact = Fraction(0)
    yield at
    for band in bands:
        for part in PARTS:
            for k in range(1, part + 1):
                yield at + band * Fraction(k, part)
        at = at + band


def _root_places(side: Exact) -> Iterator[Exact]:
    """Where a half diagonal carried along a side from either end or its middle comes to: corners
    of an octagon, points of a star."""
    for halves in range(-1, 4):
        for k in (-2, -1, 1, 2):
            x = side * Fraction(halves, 2) + side * ROOT2 * Fraction(k, 4)
            if 0 < x < side:
                yield x
