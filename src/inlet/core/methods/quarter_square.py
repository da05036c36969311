"""Quarter-square triangles and three-triangle units from two squares crossed.

A triangle square and another square are laid right sides together, the seam on one diagonal, and
sewn s each side of the other. Seen from above through the fabric, with X top right and Y bottom
left in the lower one and X', Y' in the upper one, the half that opens at the top left shows,
clockwise from the top, X X' Y' Y; the other half shows its mirror image X' X Y Y'.
"""

from __future__ import annotations

from collections.abc import Sequence
from math import atan2

from inlet.core.geometry import Point, Polygon, area, line_through, midpoint, triangle_legs
from inlet.core.methods.method import (
    BESIDE,
    CUT_AGAIN,
    CUT_APART,
    LAY,
    ByProduct,
    Effort,
    Method,
    MethodWork,
    Sizes,
    beside_diagonal,
    counted,
    no_bias,
    shared,
)
from inlet.core.numbers import ROOT2, Exact, Fraction
from inlet.core.project import FabricId
from inlet.core.table import (
    ZERO,
    DrawnLine,
    Move,
    Piece,
    Sheet,
    either_side,
    fitted,
    in_a_row,
    pair_across,
    rectangle,
    rectangle_sheet,
    size,
    square_sheet,
)
from inlet.core.units import Unit

DRAW = "Draw the diagonal on the back of one of each pair."


def crossed_pairs(unit: Unit, seam: Exact) -> Method:
    """Two squares crossed, as above. A run makes two units, mirror images of one another.

    Each sewing takes s√2 off the side. Squares for triangle squares are sewn twice, S - 2s√2 = u,
    so S = f + 2s + 2s√2; a plain square is sewn once, f + 2s + s√2. Two squares sewn together give
    two triangle squares: where a run needs only one of a sort, they serve two runs.
    """
    if unit.kind == "three-triangle":
        plain, (x, y) = _plain_and_small(unit)
        lower, upper = (x, y), (plain, plain)
        handed = x != y
    else:
        around = _fabrics_around(unit)
        lower, upper = _pairing(around)
        handed = not _own_mirror_image(around)
    twice_sewn = unit.size[0] + 2 * seam + 2 * seam * ROOT2
    once_sewn = twice_sewn - seam * ROOT2
    crossed = unit.kind == "quarter-square-triangle"
    same = crossed and sorted(lower, key=str) == sorted(upper, key=str)
    pairs = (lower,) if same or not crossed else (lower, upper)
    squares = [rectangle(c, (twice_sewn,) * 2, 1, "sewn") for pair in pairs for c in pair]
    pieces: tuple[Piece, ...] = counted([p._replace(runs=1 if same else 2) for p in squares])
    if not crossed:
        pieces += (rectangle(upper[0], (once_sewn, once_sewn), 1, "sewn"),)
    finished = once_sewn - 2 * seam
    spare = ByProduct("half-square-triangle", (finished, finished), 1, lower)

    def work(fabrics: tuple[FabricId, ...], sizes: Sizes) -> MethodWork:
        return _cross(fabrics[:2], fabrics[2:], sizes, seam, crossed, len(pairs))

    table = shared(("crossed-pairs", crossed, same, seam), (*lower, *upper), work)
    return Method(
        "crossed-pairs", 1 if handed else 2, pieces, True, table,
        mirrored=1 if handed else 0, odd_run=() if same else (spare,) * len(pairs),
        known_effort=_effort(twice_sewn, once_sewn, seam, crossed), outer_bias=no_bias,
    )  # fmt: skip


def _effort(first: Exact, second: Exact, seam: Exact, crossed: bool) -> Effort:
    """Two squares ``first`` sewn and cut apart for a run, or for two where only one half of each
    pair is sewn again; then what is ``second`` large."""
    pairs = Fraction(1) if crossed else Fraction(1, 2)
    each = float(pairs) * beside_diagonal(first, seam) + beside_diagonal(second, seam)
    return Effort(2 * pairs + 2, 2 * each, pairs + 1, pairs + 1, 2 * pairs + 2)


def _cross(
    one: tuple[FabricId, ...],
    two: tuple[FabricId, ...],
    sizes: Sizes,
    seam: Exact,
    crossed: bool,
    pairs: int,
) -> MethodWork:
    """``one`` and ``two`` are (X, Y) of the lower and of the upper square."""
    side = sizes[0][0]
    lower = _triangle_square(side, one, seam)
    if crossed:
        upper = _triangle_square(side, two, seam)
    else:
        upper = _centred_on(square_sheet(sizes[-1][0], two[0]), lower)
    left, top, right, bottom = (ZERO, ZERO, *size(lower))
    ends = Point(right, top), Point(left, bottom)
    rising = line_through(*ends)
    first, second = pair_across(lower, upper, rising, seam)
    if rising.side(Point(left, top)) < 0:
        first, second = second, first
    squares = [square_sheet(side, fabric) for fabric in (*one, *(two if crossed else ()))]
    plain = [] if crossed else [square_sheet(sizes[-1][0], two[0])]
    corners = squares[0][0][0]
    start, end = corners[0], corners[2]
    seams = either_side(line_through(start, end), seam, corners)
    across = either_side(rising, seam, rectangle_sheet(right, bottom, None)[0][0])
    cross = "Lay two right sides together, seams crossing, fabrics opposite."
    across_seam = "Draw the other diagonal, across the seam, on the back of one of each pair."
    if not crossed:
        cross = "Lay each on a plain square, right sides together, the line across the seam."
    sewn = Fraction(1) if crossed else Fraction(1, 2)
    mark, again = DrawnLine("mark", start, end), DrawnLine("mark", *ends)
    first_cut, second_cut = DrawnLine("cut", start, end), DrawnLine("cut", *ends)
    moves = (
        Move("cut", "Cut {all}.", in_a_row((squares if pairs == 2 else squares[:2]) + plain)),
        Move("mark", DRAW, (), squares[1], (mark,), sewn),
        Move("sew", LAY + BESIDE, squares[0], squares[1], (mark, *seams), sewn),
        Move("cut-apart", CUT_APART, squares[0], squares[1], (first_cut, *seams), sewn),
        Move("open", "Open and press: 2 triangle squares.", in_a_row([lower, lower]),
             times=2 * sewn),
        Move("mark", across_seam if crossed else DRAW, (), upper, (again,)),
        Move("sew", cross + BESIDE, lower, upper, (again, *across)),
        Move("cut-apart", CUT_AGAIN, lower, upper, (second_cut, *across)),
        Move("open", "Open and press: 2 units.", in_a_row([first, second]), times=2),
    )  # fmt: skip
    return MethodWork(moves, (first, second))


def _triangle_square(side: Exact, fabrics: tuple[FabricId, ...], seam: Exact) -> Sheet:
    """A triangle square of two squares ``side`` sewn two at a time: its seam falls from the top
    left, the first fabric above it; its box begins at the origin."""
    one, two = (square_sheet(side, fabric) for fabric in fabrics)
    falling = line_through(Point(ZERO, ZERO), Point(side, side))
    above = falling if falling.side(Point(side, ZERO)) > 0 else falling.opposite()
    made, _ = pair_across(one, two, above, seam)
    return fitted(made, ZERO, ZERO)


def _centred_on(sheet: Sheet, other: Sheet) -> Sheet:
    half = (size(other)[0] - size(sheet)[0]) / 2
    return fitted(sheet, half, half)


def _pairing(
    around: tuple[FabricId, ...],
) -> tuple[tuple[FabricId, FabricId], tuple[FabricId, FabricId]]:
    """The fabrics of the two triangle squares, (X, Y) and (X', Y'), that give ``around``. Either of
    two pairings does: one where both are alike needs fewest squares, one of a single fabric is
    the last choice."""
    a, b, c, d = around
    choices = (((a, d), (b, c)), ((b, a), (c, d)))
    return min(
        choices,
        key=lambda pairs: (
            sum(x == y for x, y in pairs),
            sorted(pairs[0], key=str) != sorted(pairs[1], key=str),
        ),
    )


def _own_mirror_image(around: tuple[FabricId, ...]) -> bool:
    back = around[::-1]
    return any(around == back[k:] + back[:k] for k in range(4))


def _plain_and_small(unit: Unit) -> tuple[FabricId, tuple[FabricId, FabricId]]:
    """The fabric of a three-triangle unit's plain half, and its small ones as X and Y: clockwise
    round the middle of the long side come the plain half, Y and X."""
    large = max(unit.picture, key=lambda patch: float(area(patch[0])))
    legs = triangle_legs(large[0])
    assert legs is not None
    around = _clockwise(unit, midpoint(legs[1], legs[2]).floats())
    at = around.index(large)
    plain, y, x = (fabric for _, fabric in around[at:] + around[:at])
    return plain, (x, y)


def _fabrics_around(unit: Unit) -> tuple[FabricId, ...]:
    """The four fabrics of an hourglass, clockwise round the middle."""
    middle = _mean([p for outline, _ in unit.picture for p in outline])
    return tuple(fabric for _, fabric in _clockwise(unit, middle))


def _clockwise(unit: Unit, middle: tuple[float, float]) -> list[tuple[Polygon, FabricId]]:
    def angle(patch: tuple[Polygon, FabricId]) -> float:
        x, y = _mean(patch[0])
        return atan2(y - middle[1], x - middle[0])

    return sorted(unit.picture, key=angle)


def _mean(points: Sequence[Point]) -> tuple[float, float]:
    xs, ys = zip(*(p.floats() for p in points), strict=True)
    return sum(xs) / len(xs), sum(ys) / len(ys)
