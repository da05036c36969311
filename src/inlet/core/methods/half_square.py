"""Half-square triangles: two, four and eight at a time, and from paired strips.

``s`` is the seam allowance, ``f`` the finished size, ``u = f + 2s`` the unfinished one.
"""

from __future__ import annotations

from inlet.core.geometry import Point, line_through
from inlet.core.methods.method import (
    BESIDE,
    CUT_APART,
    LAY,
    MARK,
    Effort,
    Method,
    MethodWork,
    Sizes,
    beside_diagonal,
    counted,
    sewn_squares,
    shared,
)
from inlet.core.numbers import ROOT2, Exact
from inlet.core.table import (
    ZERO,
    DrawnLine,
    Move,
    Sheet,
    either_side,
    foot_on,
    in_a_row,
    kept,
    opened,
    pair_across,
    rectangle_sheet,
    square_sheet,
    strip,
)
from inlet.core.units import Unit

FabricIds = tuple[str | None, ...]


def _two_fabrics(unit: Unit) -> tuple[str | None, str | None]:
    (_, first), (_, second) = unit.picture
    return first, second


def _from_squares(
    unit: Unit, seam: Exact, name: str, side: Exact, makes: int, effort: Effort, bias: int = 0
) -> Method:
    """The method ``name`` from two squares ``side``; ``effort`` and ``bias`` as its moves show
    them."""
    fabrics = _two_fabrics(unit)

    def work(fabrics: FabricIds, sizes: Sizes) -> MethodWork:
        cut = sizes[0][0]
        return _WORK[name](square_sheet(cut, fabrics[0]), square_sheet(cut, fabrics[1]), cut, seam)

    return Method(
        name, makes, sewn_squares(side, *fabrics), True, shared((name, seam), fabrics, work),
        known_effort=effort, outer_bias=lambda: bias,
    )  # fmt: skip


def two_at_a_time(unit: Unit, seam: Exact) -> Method:
    """Two squares S, sewn s each side of the diagonal, cut on it.

    Each half is a right triangle of leg S whose long side loses s to the seam, so its legs lose
    s√2: u = S - s√2, S = f + 2s + s√2.
    """
    side = unit.size[0] + 2 * seam + seam * ROOT2
    effort = Effort(2, 2 * beside_diagonal(side, seam), 1, 1, 2)
    return _from_squares(unit, seam, "two-at-a-time", side, 2, effort)


def four_at_a_time(unit: Unit, seam: Exact) -> Method:
    """Two squares S, sewn s in from all four sides, cut on both diagonals; outer edges are bias.

    Each quarter's seam is S - 2s long and becomes the unit's diagonal, u√2: S = (f + 2s)√2 + 2s.
    """
    side = (unit.size[0] + 2 * seam) * ROOT2 + 2 * seam
    effort = Effort(4, 4 * float(side), 2, 0, 4)
    return _from_squares(unit, seam, "four-at-a-time", side, 4, effort, 4)


def eight_at_a_time(unit: Unit, seam: Exact) -> Method:
    """Two squares of twice the two-at-a-time side, sewn s each side of both diagonals, cut in four
    and on the diagonals: four times two at a time."""
    side = 2 * (unit.size[0] + 2 * seam + seam * ROOT2)
    effort = Effort(4, 4 * beside_diagonal(side, seam), 4, 2, 8)
    return _from_squares(unit, seam, "eight-at-a-time", side, 8, effort)


def _two(lower: Sheet, upper: Sheet, side: Exact, seam: Exact) -> MethodWork:
    corner, far = lower[0][0][0], lower[0][0][2]
    middle = line_through(corner, far)
    products = pair_across(lower, upper, middle, seam)
    mark = DrawnLine("mark", corner, far)
    seams = either_side(middle, seam, lower[0][0])
    moves = (
        Move("cut", "Cut {all}.", in_a_row([lower, upper])),
        Move("mark", MARK.format("square", "corner to corner"), (), upper, (mark,)),
        Move("sew", LAY + BESIDE, lower, upper, (mark, *seams)),
        Move("cut-apart", CUT_APART, lower, upper, (DrawnLine("cut", corner, far), *seams)),
        Move("open", "Open and press: 2 units.", in_a_row(products), times=2),
    )
    return MethodWork(moves, products)


def _four(lower: Sheet, upper: Sheet, side: Exact, seam: Exact) -> MethodWork:
    corners = lower[0][0]
    p, q, r, t = corners
    falling, rising = line_through(p, r), line_through(t, q)
    products, seams = [], []
    for i in range(4):
        start, end = corners[i], corners[(i + 1) % 4]
        inside = line_through(start, end).shifted(seam)
        quarter = [
            line if line.side(start) + line.side(end) > 0 else line.opposite()
            for line in (falling, rising)
        ]
        products.append(opened(kept(lower, *quarter), kept(upper, *quarter), inside))
        seams.append(DrawnLine("seam", foot_on(inside, start), foot_on(inside, end)))
    cuts = (DrawnLine("cut", p, r), DrawnLine("cut", t, q))
    gently = "Open and press gently, every outer edge is bias: 4 units."
    moves = (
        Move("cut", "Cut {all}.", in_a_row([lower, upper])),
        Move("sew", LAY + " Sew {seam} in from all four edges.", lower, upper, tuple(seams)),
        Move("cut-apart", "Cut on both diagonals.", lower, upper, (*cuts, *seams)),
        Move("open", gently, in_a_row(products), times=4),
    )
    return MethodWork(moves, tuple(products))


def _eight(lower: Sheet, upper: Sheet, side: Exact, seam: Exact) -> MethodWork:
    (_, a), (_, b) = lower[0], upper[0]
    small = side / 2
    p, q, r, t = lower[0][0]
    products: list[Sheet] = []
    for left, top in ((ZERO, ZERO), (small, ZERO), (small, small), (ZERO, small)):
        one, two = square_sheet(small, a, left, top), square_sheet(small, b, left, top)
        c = one[0][0]
        # The drawn diagonals of the large square are, in each small one, the one through its
        # middle and the large square's.
        ends = (c[0], c[2]) if left == top else (c[3], c[1])
        products += pair_across(one, two, line_through(*ends), seam)
    falling, rising = line_through(p, r), line_through(t, q)
    marks = (DrawnLine("mark", p, r), DrawnLine("mark", t, q))
    seams = (*either_side(falling, seam, lower[0][0]), *either_side(rising, seam, lower[0][0]))
    middle = (
        DrawnLine("cut", Point(small, ZERO), Point(small, side)),
        DrawnLine("cut", Point(ZERO, small), Point(side, small)),
    )
    diagonals = (DrawnLine("cut", p, r), DrawnLine("cut", t, q))
    apart = "Cut in half both ways, then on the drawn lines."
    moves = (
        Move("cut", "Cut {all}.", in_a_row([lower, upper])),
        Move("mark", MARK.format("square", "both ways, corner to corner"), (), upper, marks),
        Move("sew", LAY + BESIDE, lower, upper, (*marks, *seams)),
        Move("cut-apart", apart, lower, upper, (*middle, *diagonals, *seams)),
        Move("open", "Open and press: 8 units.", in_a_row(products), times=8),
    )
    return MethodWork(moves, tuple(products))


_WORK = {"two-at-a-time": _two, "four-at-a-time": _four, "eight-at-a-time": _eight}


def strip_triangles(unit: Unit, seam: Exact) -> Method:
    """Paired strips u wide, cut in triangles with a triangle ruler, up and down in turn.

    A whole triangle has legs u + s√2; the strip cuts its tip off at u, s√2 wide there. One up and
    one down lie side by side on u + s√2 + s√2 of the strip: a pitch of f + 2s + 2s√2 for a pair.
    """
    fabrics = _two_fabrics(unit)
    high = unit.size[0] + 2 * seam
    pitch = high + 2 * seam * ROOT2
    pieces = counted([strip(fabric, high, pitch)._replace(slanted=True) for fabric in fabrics])

    def work(fabrics: FabricIds, sizes: Sizes) -> MethodWork:
        high, pitch = sizes[0]
        tip = seam * ROOT2
        base = pitch - tip
        lower = rectangle_sheet(pitch, high, fabrics[0])
        upper = rectangle_sheet(pitch, high, fabrics[1])
        top_cut, foot_cut = Point(tip, ZERO), Point(base, high)
        slope = line_through(foot_cut, top_cut)
        if slope.side(Point(ZERO, high)) < 0:
            slope = slope.opposite()
        # One triangle stands on the foot of the strip, the next hangs from its top; each is sewn
        # along its slope.
        standing = opened(lower, upper, slope.shifted(seam))
        hanging = opened(lower, upper, slope.opposite().shifted(seam))
        first, second = (either_side(slope, seam, lower[0][0])[i] for i in (0, 1))
        cuts = (DrawnLine("cut", top_cut, foot_cut), DrawnLine("cut", Point(pitch, ZERO),
                                                      Point(pitch, high)))  # fmt: skip
        lay = "Lay the strips right sides together; cut triangles, turning the ruler each time."
        moves = (
            Move("cut", "Cut {all}.", in_a_row([lower, upper])),
            Move("crosscut", lay, lower, upper, cuts),
            Move("sew", "Sew {seam} from each long side.", lower, upper, (first, second)),
            Move("open", "Open and press; trim the tips: 2 units.",
                 in_a_row([standing, hanging]), times=2),
        )  # fmt: skip
        return MethodWork(moves, (standing, hanging))

    table = shared(("strip-triangles", seam), fabrics, work)
    return Method("strip-triangles", 2, pieces, False, table, tool="a triangle ruler")
