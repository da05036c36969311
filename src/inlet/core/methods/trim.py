"""Trimming a unit cut and sewn large to its unfinished size, the ruler laid on its seams."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.geometry import (
    EIGHTH_TURN,
    Bounds,
    Line,
    Motion,
    Point,
    canonical,
    common_stretch,
    edges,
    line_through,
    meet,
    on_line,
)
from inlet.core.memo import memo
from inlet.core.methods.method import bias_edges, in_fabrics, numbered
from inlet.core.project import UnitKind
from inlet.core.table import DrawnLine, Move, Sheet, box, kept_in_box

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
    box: Bounds
    ruler: tuple[DrawnLine, ...]


def trim_of(large: Sheet, exact: Sheet) -> Trim | None:
    """How to trim a product to what it would be from exact pieces; None where the unit does not
    lie inside it with its seams in place. Worked out once for all fabrics told apart in the same
    way."""
    names = tuple(dict.fromkeys(fabric for _, fabric in (*large, *exact)))
    trim = _trim_of(numbered(large, names), numbered(exact, names))
    return trim and trim._replace(sheet=in_fabrics(trim.sheet, names))


@memo(500)
def _trim_of(large: Sheet, exact: Sheet) -> Trim | None:
    """``trim_of`` a product of such fabrics.

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
    inside = kept_in_box(large, kept_box)
    one, zero = left * 0 + 1, left * 0
    if canonical(Motion(one, zero, by).picture(inside)) != canonical(exact):
        return None
    return Trim(large, kept_box, tuple(_slanted_seams(inside)))


def trim_move(trim: Trim, kind: UnitKind) -> Move:
    """The trim as a move: its cuts, and the ruler's lines on the seams."""
    left, top, right, bottom = trim.box
    corners = (Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom))
    cuts = tuple(DrawnLine("cut", p, q) for p, q in edges(corners))
    return Move("trim", TEXTS.get(kind, _OTHERWISE), trim.sheet, (), (*trim.ruler, *cuts))


def sewn_large_move(sheet: Sheet, kind: UnitKind) -> Move:
    """The trim of a unit sewn patch by patch, which is drawn as large as it should be: the cuts a
    fortieth of a side inside its edges, so that they can be seen."""
    left, top, right, bottom = box(sheet)
    by = min(right - left, bottom - top) / 40
    inside = (left + by, top + by, right - by, bottom - by)
    return trim_move(Trim(sheet, inside, tuple(_slanted_seams(sheet))), kind)


def _anchor(sheet: Sheet) -> Point:
    """Where the sheet's two seam lines cross, or, where it has one or more than two, its middle."""
    lines = _seam_lines(sheet)
    crossing = meet(*lines) if len(lines) == 2 else None
    return crossing if crossing is not None else _middle(sheet)


def _seam_lines(sheet: Sheet) -> list[Line]:
    """The lines along which patches of a sheet are sewn to one another."""
    lines: list[Line] = []
    for i, (points, _) in enumerate(sheet):
        for two, _ in sheet[:i]:
            for p, q in edges(points):
                if any(common_stretch(p, q, r, t) for r, t in edges(two)) and not any(
                    line.side(p) == 0 == line.side(q) for line in lines
                ):
                    lines.append(line_through(p, q))
    return lines


def _middle(sheet: Sheet) -> Point:
    left, top, right, bottom = box(sheet)
    return Point((left + right) / 2, (top + bottom) / 2)


def _slanted_seams(sheet: Sheet) -> list[DrawnLine]:
    """The seams of a sheet that do not run with its edges, each line of them once."""
    seams: list[DrawnLine] = []
    for outline, _ in sheet:
        for p, q in edges(outline):
            if (
                p.x == q.x
                or p.y == q.y
                or any(on_line(p, q, line.start, line.end) for line in seams)
            ):
                continue
            seams.append(DrawnLine("ruler", p, q))
    return seams
