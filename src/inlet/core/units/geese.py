"""Flying geese, four from one large square and four small ones, no waste."""

from __future__ import annotations

from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Polygon, line_through
from inlet.core.numbers import ROOT2, Exact
from inlet.core.units.kinds import triangle_legs
from inlet.core.units.pieces import rectangle
from inlet.core.units.sheets import ZERO, Sheet, pair_across, square_sheet
from inlet.core.units.units import Unit
from inlet.core.units.way import CUT_APART, Drawn, Move, Way, Work, either_side, in_a_row, shared


def no_waste_geese(unit: Unit, seam: Exact) -> Way | None:
    """One large square for four geese, four small ones for their skies; where both skies match.

    The large square gives four geese by its diagonals as a quarter-square triangle would:
    w + 2s + 2s√2. Each small one is cut once, as for a triangle of leg h: h + 2s + s√2.
    """
    goose, sky, other = _goose_and_skies(unit)
    if sky != other:
        return None
    width, height = max(unit.size), min(unit.size)
    large = width + 2 * seam + 2 * seam * ROOT2
    small = height + 2 * seam + seam * ROOT2
    pieces = (
        rectangle(goose, (large, large), 1, "sewn"),
        rectangle(sky, (small, small), 4, "sewn"),
    )

    def work(cloths: tuple[str | None, ...]) -> Work:
        goose, sky = cloths
        body = square_sheet(large, goose)
        far = large - small
        p, q, r, t = body[0][0]
        pair = square_sheet(small, sky) + square_sheet(small, sky, far, far)
        middle = line_through(p, r)
        hearts = pair_across(body, pair, middle, seam)
        seams = either_side(middle, seam, body[0][0])
        products: list[Sheet] = []
        second: list[tuple[Sheet, Sheet, tuple[Drawn, ...], tuple[Point, Point]]] = []
        centre = Point(large / 2, large / 2)
        for heart, (left, top), corner in zip(
            hearts, ((ZERO, far), (far, ZERO)), (t, q), strict=True
        ):
            third = square_sheet(small, sky, left, top)
            line = line_through(corner, centre)
            made = pair_across(heart, third, line, seam)
            products += made
            reach = third[0][0][1] if corner == t else third[0][0][3]
            second.append((heart, third, either_side(line, seam, third[0][0]), (corner, reach)))
        heart, third, heart_seams, ends = second[1]
        mark = Drawn("mark", p, r)
        lay_two = "Lay two small squares on opposite corners of the large one."
        lay_one = "Lay a small square on the free corner of each."
        draw = " Draw the diagonal; sew {seam} from it on both sides."
        first_cut, second_cut = Drawn("cut", p, r), Drawn("cut", *ends)
        moves = (
            Move("cut", "Cut {all}.", in_a_row([body, square_sheet(small, sky)])),
            Move("sew", lay_two + draw, body, pair, (mark, *seams)),
            Move("cut-apart", CUT_APART, body, pair, (first_cut, *seams)),
            Move("open", "Open, press away from the large triangle: 2 hearts.", in_a_row(hearts)),
            Move("sew", lay_one + draw, heart, third, (Drawn("mark", *ends), *heart_seams)),
            Move("cut-apart", CUT_APART, heart, third, (second_cut, *heart_seams)),
            Move("open", "Open and press: 4 units.", in_a_row(products)),
        )
        return moves, tuple(products)

    table = shared(("no-waste", large, seam), (goose, sky), work)
    return Way("no-waste", 4, pieces, True, table)


def _goose_and_skies(unit: Unit) -> tuple[str | None, str | None, str | None]:
    """The cloths of the large triangle and of the two small ones."""
    by_size = sorted(unit.picture, key=lambda patch: -float(_leg(patch[0])))
    return by_size[0][1], by_size[1][1], by_size[2][1]


def _leg(outline: Polygon) -> Exact:
    legs = triangle_legs(outline)
    assert legs is not None
    step = legs[1].minus(legs[0])
    return step.x * step.x + step.y * step.y
