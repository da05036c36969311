"""Half-square triangles whose halves are pieced of strips, cut from two strip sets.

Two sets are sewn, cut across into squares S, laid right sides together and sewn s each side of the
diagonal, as two at a time: u = S - s√2. The half that keeps the set's outer edge shows its bands as
they are from the right angle outward, so only the innermost strip is cut wider, by s√2. The other
half of each pair shows the bands from the other end: a stack of its own, to be kept apart.
"""

from __future__ import annotations

from itertools import pairwise
from typing import NamedTuple

from inlet.core.geometry import Motion, Point, Polygon, bounds, line_through
from inlet.core.methods.corner_squares import upright
from inlet.core.methods.method import (
    BESIDE,
    CUT_APART,
    LAY,
    MARK,
    ByProduct,
    Effort,
    Method,
    MethodWork,
    SetOfStrips,
    Sizes,
    no_bias,
)
from inlet.core.methods.strip_set import Bands, sew_set
from inlet.core.numbers import ROOT2, Exact
from inlet.core.project import FabricId
from inlet.core.table import (
    ZERO,
    DrawnLine,
    Move,
    Sheet,
    either_side,
    in_a_row,
    pair_across,
    rectangle_sheet,
)
from inlet.core.units import Unit


class StripedHalf(NamedTuple):
    """One half, its right angle at the top right: its bands from there on, and whether they lie
    along the top edge or down the right one."""

    bands: Bands
    along_top: bool


def strip_pieced(unit: Unit, seam: Exact) -> Method | None:
    """The unit from two strip sets, as above; None where its side has no exact length."""
    frame = upright(unit.outline)
    if frame is None:
        return None
    motion, (side, _) = frame
    cells = [(motion.polygon(outline), fabric) for outline, fabric in unit.picture]
    halves = _halves(cells, side)
    if halves is None:
        return None
    sets: dict[Bands, int] = {}
    for half in halves:
        (*outer, (width, fabric)) = half.bands
        bands = (*outer, (width + seam * ROOT2, fabric))
        sets[bands] = sets.get(bands, 0) + 1
    cut = side + 2 * seam + seam * ROOT2
    strips = tuple(SetOfStrips(bands, cut - 2 * seam, n, True) for bands, n in sets.items())

    def work(sizes: Sizes) -> MethodWork:
        lower, upper = (_square(half, cut, seam) for half in halves)
        corner, far = Point(ZERO, ZERO), Point(cut, cut)
        middle = line_through(corner, far)
        first, second = pair_across(lower, upper, middle, seam)
        if middle.side(Point(cut, ZERO)) < 0:
            first, second = second, first
        whole = rectangle_sheet(cut, cut, None)[0][0]
        seams = either_side(middle, seam, whole)
        mark = DrawnLine("mark", corner, far)
        moves = [Move("cut", "Cut {all}.", in_a_row([lower, upper]))]
        for i, one in enumerate(strips):
            moves += sew_set(one, i, seam)
        apart = "Open and press; keep the two stacks apart, their stripes differ."
        moves += [
            Move("mark", MARK.format("square", "corner to corner"), (), upper, (mark,)),
            Move("sew", LAY + BESIDE, lower, upper, (mark, *seams)),
            Move("cut-apart", CUT_APART, lower, upper, (DrawnLine("cut", corner, far), *seams)),
            Move("open", apart, in_a_row([first, second]), times=2),
        ]
        return MethodWork(tuple(moves), (first,))

    other_by_product = ByProduct(unit.kind, (side, side), 1, unit.fabrics, mirrored=True)
    effort = Effort(2, 2 * float(cut) * 2**0.5, sum(s.number for s in strips) + 1, 1, 2)
    return Method(
        "strip-set", 1, (), False, work,
        outer_bias=no_bias, left_over=(other_by_product,), sets=strips, known_effort=effort,
    )  # fmt: skip


def _halves(
    cells: list[tuple[Polygon, FabricId]], side: Exact
) -> tuple[StripedHalf, StripedHalf] | None:
    """The two halves of a unit whose box lies at the origin, each turned so that its right angle
    is at the top right; the second as it lies when it is laid face down on the first."""
    for motion in (
        Motion(ZERO + 1, ZERO),
        Motion(ZERO, ZERO + 1, Point(side, ZERO)),
    ):
        falling = line_through(Point(ZERO, ZERO), Point(side, side))
        placed = [(motion.polygon(outline), fabric) for outline, fabric in cells]
        signs = [[falling.side(p) for p in outline] for outline, _ in placed]
        if any(min(s) < 0 < max(s) for s in signs):
            continue
        corner = falling.side(Point(side, ZERO))
        upper = [c for c, s in zip(placed, signs, strict=True) if max(s, key=abs) * corner > 0]
        lower = [c for c, s in zip(placed, signs, strict=True) if max(s, key=abs) * corner < 0]
        # Opening turns the half over along the diagonal: x and y change places.
        lower = [(tuple(Point(p.y, p.x) for p in outline), fabric) for outline, fabric in lower]
        halves = _half(upper, side), _half(lower, side)
        if halves[0] is not None and halves[1] is not None:
            return halves[0], halves[1]
    return None


def _half(cells: list[tuple[Polygon, FabricId]], side: Exact) -> StripedHalf | None:
    """Bands of a half with its right angle at (side, 0), if it is in bands along a leg."""
    for along_top in (True, False):
        spans = sorted(
            (((top, bottom) if along_top else (side - right, side - left)), fabric)
            for (left, top, right, bottom), fabric in ((bounds(o), c) for o, c in cells)
        )
        ends = [span for span, _ in spans]
        chained = all(a[1] == b[0] for a, b in pairwise(ends))
        if chained and ends[0][0] == 0 and ends[-1][1] == side:
            return StripedHalf(tuple((hi - lo, fabric) for (lo, hi), fabric in spans), along_top)
    return None


def _square(half: StripedHalf, cut: Exact, seam: Exact) -> Sheet:
    """A square cut from the set of a half, its outer band at the top or at the right."""
    out: list[tuple[Polygon, FabricId]] = []
    at: Exact = ZERO
    for i, (width, fabric) in enumerate(half.bands):
        last = i == len(half.bands) - 1
        deep = cut - at if last else width + (seam if i == 0 else ZERO)
        if half.along_top:
            out += rectangle_sheet(cut, deep, fabric, ZERO, at)
        else:
            out += rectangle_sheet(deep, cut, fabric, cut - at - deep, ZERO)
        at = at + deep
    return tuple(out)
