"""Half-square triangles: two, four and eight at a time.

``s`` is the seam allowance, ``f`` the finished size, ``u = f + 2s`` the unfinished one.
"""

from __future__ import annotations

from inlet.core.geometry.motion import EIGHTH_TURN
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import line_through
from inlet.core.numbers import ROOT2, Exact
from inlet.core.units.sheets import ZERO, Sheet, kept, opened, pair_across, square_sheet
from inlet.core.units.units import Unit
from inlet.core.units.way import (
    BESIDE,
    LAY,
    MARK,
    Drawn,
    Move,
    Way,
    Work,
    either_side,
    foot_on,
    in_a_row,
    sewn_squares,
    shared,
)


def _two_cloths(unit: Unit) -> tuple[str | None, str | None]:
    (_, first), (_, second) = unit.picture
    return first, second


def two_at_a_time(unit: Unit, seam: Exact) -> Way:
    """Two squares S, sewn s each side of the diagonal, cut on it.

    Each half is a right triangle of leg S whose long side loses s to the seam, so its legs lose
    s√2: u = S - s√2, S = f + 2s + s√2.
    """
    a, b = _two_cloths(unit)
    side = unit.size[0] + 2 * seam + seam * ROOT2

    def work(cloths: tuple[str | None, ...]) -> Work:
        a, b = cloths
        lower, upper = square_sheet(side, a), square_sheet(side, b)
        corner, far = lower[0][0][0], lower[0][0][2]
        middle = line_through(corner, far)
        products = pair_across(lower, upper, middle, seam)
        mark = Drawn("mark", corner, far)
        seams = either_side(middle, seam, lower[0][0])
        moves = (
            Move("cut", "Cut {all}.", in_a_row([lower, upper])),
            Move("mark", MARK.format("square", "corner to corner"), (), upper, (mark,)),
            Move(
                "sew",
                LAY + BESIDE,
                lower,
                upper,
                (mark, *seams),
            ),
            Move(
                "cut-apart",
                "Cut on the drawn line.",
                lower,
                upper,
                (Drawn("cut", corner, far), *seams),
            ),
            Move("open", "Open and press: 2 units.", in_a_row(products)),
        )
        return moves, products

    table = shared(("two-at-a-time", side, seam), (a, b), work)
    return Way("two-at-a-time", 2, sewn_squares(side, a, b), True, table)


def four_at_a_time(unit: Unit, seam: Exact) -> Way:
    """Two squares S, sewn s in from all four sides, cut on both diagonals; outer edges are bias.

    Each quarter's seam is S - 2s long and becomes the unit's diagonal, u√2: S = (f + 2s)√2 + 2s.
    """
    a, b = _two_cloths(unit)
    side = (unit.size[0] + 2 * seam) * ROOT2 + 2 * seam

    def work(cloths: tuple[str | None, ...]) -> Work:
        a, b = cloths
        lower, upper = square_sheet(side, a), square_sheet(side, b)
        corners = lower[0][0]
        p, q, r, t = corners
        falling, rising = line_through(p, r), line_through(t, q)
        products, seams = [], []
        for i in range(4):
            start, end = corners[i], corners[(i + 1) % 4]
            inside = line_through(start, end).shifted(seam)
            third = corners[(i + 2) % 4]
            quarter = [
                line if line.side(start) + line.side(end) > 0 else line.opposite()
                for line in (falling, rising)
            ]
            assert inside.side(third) > 0
            sheet = opened(kept(lower, *quarter), kept(upper, *quarter), inside)
            products.append(EIGHTH_TURN.picture(sheet))
            seams.append(Drawn("seam", foot_on(inside, start), foot_on(inside, end)))
        cuts = (Drawn("cut", p, r), Drawn("cut", t, q))
        moves = (
            Move("cut", "Cut {all}.", in_a_row([lower, upper])),
            Move("sew", LAY + " Sew {seam} in from all four edges.", lower, upper, tuple(seams)),
            Move("cut-apart", "Cut on both diagonals.", lower, upper, (*cuts, *seams)),
            Move(
                "open",
                "Open and press gently, every outer edge is bias: 4 units.",
                in_a_row(products),
            ),
        )
        return moves, tuple(products)

    table = shared(("four-at-a-time", side, seam), (a, b), work)
    return Way("four-at-a-time", 4, sewn_squares(side, a, b), True, table)


def eight_at_a_time(unit: Unit, seam: Exact) -> Way:
    """Two squares of twice the two-at-a-time side, sewn s each side of both diagonals, cut in four
    and on the diagonals: four times two at a time."""
    a, b = _two_cloths(unit)
    small = unit.size[0] + 2 * seam + seam * ROOT2
    side = 2 * small

    def work(cloths: tuple[str | None, ...]) -> Work:
        a, b = cloths
        lower, upper = square_sheet(side, a), square_sheet(side, b)
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
        marks = (Drawn("mark", p, r), Drawn("mark", t, q))
        seams = (*either_side(falling, seam, lower[0][0]), *either_side(rising, seam, lower[0][0]))
        middle = (
            Drawn("cut", Point(small, ZERO), Point(small, side)),
            Drawn("cut", Point(ZERO, small), Point(side, small)),
        )
        diagonals = (Drawn("cut", p, r), Drawn("cut", t, q))
        moves = (
            Move("cut", "Cut {all}.", in_a_row([lower, upper])),
            Move("mark", MARK.format("square", "both ways, corner to corner"), (), upper, marks),
            Move(
                "sew",
                LAY + BESIDE,
                lower,
                upper,
                (*marks, *seams),
            ),
            Move(
                "cut-apart",
                "Cut in half both ways, then on the drawn lines.",
                lower,
                upper,
                (*middle, *diagonals, *seams),
            ),
            Move("open", "Open and press: 8 units.", in_a_row(products)),
        )
        return moves, tuple(products)

    table = shared(("eight-at-a-time", side, seam), (a, b), work)
    return Way("eight-at-a-time", 8, sewn_squares(side, a, b), True, table)
