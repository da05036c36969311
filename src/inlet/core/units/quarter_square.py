"""Quarter-square triangles from two triangle squares crossed."""

from __future__ import annotations

from fractions import Fraction
from math import atan2

from inlet.core.geometry.motion import Motion
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Polygon, from_first_corner, line_through
from inlet.core.numbers import ROOT2, Exact
from inlet.core.units.pieces import rectangle
from inlet.core.units.proof import makes_unit
from inlet.core.units.sheets import ZERO, Sheet, box, face_down, pair_across, square_sheet
from inlet.core.units.units import Unit
from inlet.core.units.way import (
    CUT_APART,
    LAY,
    Drawn,
    Move,
    Way,
    Work,
    either_side,
    fitted,
    in_a_row,
    shared,
)


def crossed_pairs(unit: Unit, seam: Exact) -> Way | None:
    """Two half-square triangles laid with their seams crossing cloths, sewn s each side of the
    other diagonal, cut on it.

    Each of the two sewings takes s√2 off the side: S - 2s√2 = u, S = f + 2s + 2s√2. The two units
    of a run are mirror images, so this is offered where the unit is its own mirror image.
    """
    around = _cloths_around(unit)
    if not _own_mirror_image(around):
        return None
    side = unit.size[0] + 2 * seam + 2 * seam * ROOT2
    for shift in range(2):
        a, b, c, d = around[shift:] + around[:shift]
        way = _crossed_way(side, ((a, b), (c, d)), seam)
        # Of (a, a, b, b) only one of the two pairings can be crossed; of (a, b, a, b) both can.
        if (a, b) == (c, d) or makes_unit(way, unit, seam):
            return way
    return None


def _own_mirror_image(around: tuple[str | None, ...]) -> bool:
    back = around[::-1]
    return any(around == back[k:] + back[:k] for k in range(4))


def _cloths_around(unit: Unit) -> tuple[str | None, ...]:
    """The four cloths in order round the middle."""

    def corner_angle(patch: tuple[Polygon, str | None]) -> float:
        xs = [p.floats() for p in patch[0]]
        x, y = sum(p[0] for p in xs) / 3, sum(p[1] for p in xs) / 3
        return atan2(y - middle[1], x - middle[0])

    points = [p.floats() for outline, _ in unit.picture for p in outline]
    middle = (sum(p[0] for p in points) / len(points), sum(p[1] for p in points) / len(points))
    return tuple(fabric for _, fabric in sorted(unit.picture, key=corner_angle))


Pairs = tuple[tuple[str | None, str | None], tuple[str | None, str | None]]


def _crossed(
    side: Exact, one: tuple[str | None, str | None], two: tuple[str | None, str | None], seam: Exact
) -> tuple[Sheet, Sheet, Sheet, Sheet] | None:
    """(lower, upper as it lies face down, two products) of two triangle squares crossed."""
    half_one = _triangle_square(side, *one, seam)
    half_two = face_down(_triangle_square(side, *two, seam))
    left, top, _, _ = box(half_one)
    below = _by_outline(half_one)
    for quarters in range(4):
        upper = fitted(_quarter_turned(half_two, quarters), left, top)
        facing = _by_outline(upper)
        if facing.keys() != below.keys():
            continue
        # Different cloths face each other wherever they can: that is what makes it an hourglass.
        if one == two and one[0] != one[1] and any(facing[o] == c for o, c in below.items()):
            continue
        along = line_through(*_other_diagonal(half_one))
        first, second = pair_across(half_one, upper, along, seam)
        return half_one, upper, first, second
    return None


def _triangle_square(side: Exact, a: str | None, b: str | None, seam: Exact) -> Sheet:
    """The first unit of two squares ``side`` sewn two at a time, its box at the origin."""
    lower, upper = square_sheet(side, a), square_sheet(side, b)
    corners = lower[0][0]
    made, _ = pair_across(lower, upper, line_through(corners[0], corners[2]), seam)
    return fitted(made, ZERO, ZERO)


def _seam_ends(sheet: Sheet) -> set[Point]:
    """The corners that both patches of a triangle square share."""
    return set(sheet[0][0]) & set(sheet[1][0])


def _crossed_way(side: Exact, pairs: Pairs, seam: Exact) -> Way:
    counted: dict[str | None, int] = {}
    for pair in pairs:
        for cloth in pair:
            counted[cloth] = counted.get(cloth, 0) + 1
    # Two pairs of the same cloths come from one pair of squares: a run needs half of them.
    same = sorted(pairs[0], key=str) == sorted(pairs[1], key=str)
    pieces = tuple(
        rectangle(cloth, (side, side), n // 2 if same else n, "sewn")
        for cloth, n in counted.items()
    )

    def work(cloths: tuple[str | None, ...]) -> Work:
        a, b, c, d = cloths
        pairs = ((a, b), (c, d))
        made = _crossed(side, *pairs, seam)
        if made is None:
            return (), ((),)
        lower, upper, first, second = made
        squares = [square_sheet(side, cloth) for pair in pairs for cloth in pair]
        corners = squares[0][0][0]
        start, end = corners[0], corners[2]
        seams = either_side(line_through(start, end), seam, corners)
        along = _other_diagonal(lower)
        across = either_side(line_through(*along), seam, _box_outline(lower))
        draw = " Draw the diagonal; sew {seam} from it on both sides."
        cross = "Lay two right sides together, seams crossing, cloths opposite."
        mark, again = Drawn("mark", start, end), Drawn("mark", *along)
        first_cut, second_cut = Drawn("cut", start, end), Drawn("cut", *along)
        moves = (
            Move("cut", "Cut {all}.", in_a_row(squares[:2] if same else squares)),
            Move("sew", LAY + draw, squares[0], squares[1], (mark, *seams)),
            Move("cut-apart", CUT_APART, squares[0], squares[1], (first_cut, *seams)),
            Move("open", "Open and press: 2 triangle squares.", in_a_row([lower, lower])),
            Move("sew", cross + draw, lower, upper, (again, *across)),
            Move("cut-apart", CUT_APART, lower, upper, (second_cut, *across)),
            Move("open", "Open and press: 2 units.", in_a_row([first, second])),
        )
        return moves, (first, second)

    table = shared(("crossed-pairs", side, seam), (*pairs[0], *pairs[1]), work)
    return Way("crossed-pairs", 2, pieces, True, table)


def _other_diagonal(sheet: Sheet) -> tuple[Point, Point]:
    """The diagonal of a triangle square's box that its seam does not run along."""
    left, top, right, bottom = box(sheet)
    falling = Point(left, top), Point(right, bottom)
    return (Point(left, bottom), Point(right, top)) if falling[0] in _seam_ends(sheet) else falling


def _quarter_turned(sheet: Sheet, quarters: int) -> Sheet:
    cos, sin = ((1, 0), (0, 1), (-1, 0), (0, -1))[quarters % 4]
    return Motion(Fraction(cos), Fraction(sin)).picture(sheet)


def _by_outline(sheet: Sheet) -> dict[Polygon, str | None]:
    return {from_first_corner(outline): fabric for outline, fabric in sheet}


def _box_outline(sheet: Sheet) -> Polygon:
    left, top, right, bottom = box(sheet)
    return (Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom))
