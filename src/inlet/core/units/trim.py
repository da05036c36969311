"""Trimming a unit cut and sewn large to its unfinished size, the ruler laid on its seams."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.geometry.motion import EIGHTH_TURN, Motion, canonical
from inlet.core.geometry.point import Point, cross
from inlet.core.geometry.polygon import Line, edges
from inlet.core.numbers import Exact
from inlet.core.units.sheets import Sheet, box, kept
from inlet.core.units.way import Drawn, Move, bias_edges

TEXTS = {
    "half-square-triangle": "Lay the ruler's 45° line on the seam; trim two sides, turn the unit, "
    "lay the {trim} marks on the cut edges and trim the other two.",
    "quarter-square-triangle": "Lay the 45° line on one seam and the middle of {trim} where the "
    "seams cross; trim two sides, turn, trim the other two.",
    "three-triangle": "Lay the 45° line on the long seam and the middle of {trim} where the seams "
    "meet; trim two sides, turn, trim the other two.",
    "flying-geese": "Lay the ruler's {seam} line on the nose and 45° lines on both seams; trim the "
    "top, then to {trim}.",
}
_OTHERWISE = "Lay the ruler so that every point is {seam} from its edge, and trim to {trim}."


class Trim(NamedTuple):
    """Where the ruler goes on a unit sewn large: ``sheet`` is the unit, ``box`` what is kept of it
    (left, top, right, bottom), ``ruler`` the seams its lines are laid on."""

    sheet: Sheet
    box: tuple[Exact, Exact, Exact, Exact]
    ruler: tuple[Drawn, ...]


def trim_of(large: Sheet, exact: Sheet) -> Trim | None:
    """How to trim a product to what it would be from exact pieces; None where the unit does not
    lie inside it with its seams in place.

    Seams tell where: the points inside at which patches meet come to lie where they are in the
    exact one, or its middle where there are none.
    """
    if not large or not exact:
        return None
    if bias_edges(large):
        large, exact = EIGHTH_TURN.picture(large), EIGHTH_TURN.picture(exact)
    here, there = _anchor(large), _anchor(exact)
    by = there.minus(here)
    left, top, right, bottom = box(exact)
    kept_box = (left - by.x, top - by.y, right - by.x, bottom - by.y)
    one, zero = left * 0 + 1, left * 0
    lines = (
        Line(one, zero, kept_box[0]),
        Line(-one, zero, -kept_box[2]),
        Line(zero, one, kept_box[1]),
        Line(zero, -one, -kept_box[3]),
    )
    inside = Motion(one, zero, by).picture(kept(large, *lines))
    if canonical(inside) != canonical(exact):
        return None
    return Trim(large, kept_box, tuple(_slanted_seams(kept(large, *lines))))


def trim_move(found: Trim, kind: str) -> Move:
    """The trim as a move: its cuts, and the ruler's lines on the seams."""
    left, top, right, bottom = found.box
    corners = (Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom))
    cuts = tuple(Drawn("cut", p, q) for p, q in edges(corners))
    return Move("trim", TEXTS.get(kind, _OTHERWISE), found.sheet, (), (*found.ruler, *cuts))


def _anchor(sheet: Sheet) -> Point:
    """The mean of the corners inside the sheet's box, or else its middle."""
    left, top, right, bottom = box(sheet)
    inner = {
        p
        for outline, _ in sheet
        for p in outline
        if left < p.x < right and top < p.y < bottom
    }  # fmt: skip
    if not inner:
        return Point((left + right) / 2, (top + bottom) / 2)
    n = len(inner)
    zero = left * 0
    return Point(sum((p.x for p in inner), zero) / n, sum((p.y for p in inner), zero) / n)


def _slanted_seams(sheet: Sheet) -> list[Drawn]:
    """The seams of a sheet that do not run with its edges, each line of them once."""
    out: list[Drawn] = []
    for outline, _ in sheet:
        for p, q in edges(outline):
            if p.x == q.x or p.y == q.y or any(_along(line, p, q) for line in out):
                continue
            out.append(Drawn("ruler", p, q))
    return out


def _along(line: Drawn, p: Point, q: Point) -> bool:
    step = line.end.minus(line.start)
    return cross(step, p.minus(line.start)) == 0 == cross(step, q.minus(line.start))
