"""Flying geese: four from five squares, no waste; and folded, with one seam.

``w`` and ``h`` are the finished width and height, w = 2h.
"""

from __future__ import annotations

from inlet.core.geometry import Point, Polygon, area, line_through, triangle_legs
from inlet.core.methods.method import (
    CUT_AGAIN,
    CUT_APART,
    Method,
    MethodWork,
    Sizes,
    counted,
    shared,
)
from inlet.core.numbers import ROOT2, Exact
from inlet.core.project import FabricId
from inlet.core.table import (
    ZERO,
    DrawnLine,
    Move,
    Sheet,
    either_side,
    in_a_row,
    kept,
    pair_across,
    rectangle,
    rectangle_sheet,
    square_sheet,
)
from inlet.core.units import Unit


def no_waste_geese(unit: Unit, seam: Exact) -> Method:
    """One large square for four geese, four small ones for their skies; of two skies, two squares
    each, and two geese come out each way round.

    The large square gives four geese by its diagonals as a quarter-square triangle would:
    w + 2s + 2s√2. Each small one is cut once, as for a triangle of leg h: h + 2s + s√2.
    """
    goose, left, right = goose_and_skies(unit)
    width, height = unit.size
    large = width + 2 * seam + 2 * seam * ROOT2
    small = height + 2 * seam + seam * ROOT2
    skies = counted([rectangle(sky, (small, small), 2, "sewn") for sky in (left, right)])
    pieces = (rectangle(goose, (large, large), 1, "sewn"), *skies)
    handed = left != right

    def work(fabrics: tuple[FabricId, ...], sizes: Sizes) -> MethodWork:
        return _four_geese(fabrics, sizes[0][0], sizes[1][0], seam)

    table = shared(("no-waste", seam), (goose, left, right), work)
    return Method("no-waste", 2 if handed else 4, pieces, True, table, mirrored=2 if handed else 0)


def _four_geese(
    fabrics: tuple[FabricId, ...], large: Exact, small: Exact, seam: Exact
) -> MethodWork:
    goose, one_sky, other_sky = fabrics
    body = square_sheet(large, goose)
    far = large - small
    p, q, r, t = body[0][0]
    across = line_through(q, t)
    if across.side(p) < 0:
        across = across.opposite()
    # Where the two overlap in the middle each counts as far as the second cut, made there later.
    pair = kept(square_sheet(small, one_sky), across)
    pair += kept(square_sheet(small, one_sky, far, far), across.opposite())
    middle = line_through(p, r)
    hearts = pair_across(body, pair, middle, seam)
    seams = either_side(middle, seam, body[0][0])
    products: list[Sheet] = []
    second: list[tuple[Sheet, Sheet, tuple[DrawnLine, ...], tuple[Point, Point]]] = []
    centre = Point(large / 2, large / 2)
    for heart, (left, top), corner in zip(hearts, ((ZERO, far), (far, ZERO)), (t, q), strict=True):
        third = square_sheet(small, other_sky, left, top)
        line = line_through(corner, centre)
        products += pair_across(heart, third, line, seam)
        reach = third[0][0][1] if corner == t else third[0][0][3]
        second.append((heart, third, either_side(line, seam, third[0][0]), (corner, reach)))
    heart, third, heart_seams, ends = second[1]
    mark = DrawnLine("mark", p, r)
    lay_two = "Lay two small squares on opposite corners of the large one."
    lay_one = "Lay a small square on the free corner of each."
    draw = "Draw the diagonal on the back of each small square."
    beside = " Sew {seam} from the drawn line, on both sides of it."
    first_cut, second_cut = DrawnLine("cut", p, r), DrawnLine("cut", *ends)
    again = (DrawnLine("mark", *ends), *heart_seams)
    away = "Open and press: 2 hearts."
    moves = (
        Move("cut", "Cut {all}.", in_a_row([body, square_sheet(small, one_sky)])),
        Move("mark", draw, (), third, (DrawnLine("mark", *ends),), 4),
        Move("sew", lay_two + beside, body, pair, (mark, *seams)),
        Move("cut-apart", CUT_APART, body, pair, (first_cut, *seams)),
        Move("open", away, in_a_row(hearts), times=4),
        Move("sew", lay_one + beside, heart, third, again, 2),
        Move("cut-apart", CUT_AGAIN, heart, third, (second_cut, *heart_seams), 2),
        Move("open", "Open and press: 4 units.", in_a_row(products), times=4),
    )
    # Those with the skies as the unit has them come first: a run makes as many of each hand.
    return MethodWork(moves, (products[1], products[3], products[0], products[2]))


def folded_geese(unit: Unit, seam: Exact) -> Method:
    """A rectangle (w + 2s) x (h + 2s) folded to half its length and caught in the one seam between
    two squares h + 2s, the fold on top; opened, the fold spreads into the goose and stands proud.

    Folded it is h + s high and h + 2s wide, as wide as the squares; raw edges level below, its
    fold lies s below their top: where the nose is to be. From there to the lower raw corners of
    the seam's two sides it is h + s down and h + s across, 45°.
    """
    goose, left, right = goose_and_skies(unit)
    width, height = unit.size
    raw = height + 2 * seam
    squares = counted([rectangle(sky, (raw, raw)) for sky in (left, right)])
    pieces = (*squares, rectangle(goose, (width + 2 * seam, raw)))

    def work(fabrics: tuple[FabricId, ...], sizes: Sizes) -> MethodWork:
        goose, left, right = fabrics
        side, wide = sizes[0][0], sizes[-1][1]
        reach = side - seam
        sky_left = rectangle_sheet(reach, side, left)
        sky_right = rectangle_sheet(reach, side, right, reach)
        fold = Point(reach, side - wide / 2)
        foot_left, foot_right = Point(ZERO, side), Point(2 * reach, side)
        falling, rising = line_through(fold, foot_right), line_through(foot_left, fold)
        unit_sheet = (
            ((fold, foot_right, foot_left), goose),
            *kept(sky_left, rising if rising.side(Point(ZERO, ZERO)) > 0 else rising.opposite()),
            *kept(
                sky_right,
                falling if falling.side(Point(2 * reach, ZERO)) > 0 else falling.opposite(),
            ),
        )
        lower = square_sheet(side, left)
        middle = rectangle_sheet(side, wide / 2, goose, ZERO, side - wide / 2)
        upper = square_sheet(side, right)
        seam_line = DrawnLine("seam", Point(reach, ZERO), Point(reach, side))
        strip = rectangle_sheet(wide, side, goose)
        crease = DrawnLine("mark", Point(wide / 2, ZERO), Point(wide / 2, side))
        lay = "Lay it on a square, fold {seam} below the top edge, raw edges level below."
        top = "Lay the other square on top, right side down; sew {seam} from the side."
        moves = (
            Move("cut", "Cut {all}.", in_a_row([lower, upper, strip])),
            Move(
                "fold", "Fold the rectangle in half, right side out; press.", strip, (), (crease,)
            ),
            Move("lay", lay, lower + middle),
            Move("sew", top, lower + middle, upper, (seam_line,)),
            Move("open", "Open the squares, spread the fold, press it flat.", unit_sheet),
        )
        return MethodWork(moves, (unit_sheet,))

    table = shared(("folded", seam), (goose, left, right), work)
    return Method("folded", 1, pieces, False, table, stands_proud=True)


def goose_and_skies(unit: Unit) -> tuple[FabricId, FabricId, FabricId]:
    """The fabrics of the large triangle and of the skies left and right of it, its nose up."""
    large, *skies = sorted(unit.picture, key=lambda patch: -float(area(patch[0])))
    legs = triangle_legs(large[0])
    assert legs is not None
    nose, base = legs[0], legs[2].minus(legs[1])

    def along(patch: tuple[Polygon, FabricId]) -> float:
        """How far along the base, from right to left, a sky's middle lies from the nose."""
        xs = [p.minus(nose) for p in patch[0]]
        return sum(float(base.x * p.x + base.y * p.y) for p in xs)

    first, second = sorted(skies, key=along)
    return large[1], second[1], first[1]
