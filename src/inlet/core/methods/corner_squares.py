"""Corners sewn on as squares: across their diagonal, flipped, trimmed.

A corner of finished leg k on a rectangle: a square k + 2s is laid on the raw corner and sewn from
corner to corner. That line cuts k + 2s off both raw sides; s in from each raw edge it cuts k off
the finished ones, as wanted.
"""

from __future__ import annotations

from collections.abc import Sequence
from math import sqrt
from typing import NamedTuple

from inlet.core.geometry import (
    Motion,
    Point,
    Polygon,
    area,
    bounds,
    chord,
    line_through,
    squared_length,
    triangle_legs,
)
from inlet.core.methods.method import (
    ByProduct,
    Effort,
    Method,
    MethodWork,
    Sizes,
    counted,
    no_bias,
    shared,
)
from inlet.core.numbers import ROOT2, Exact, root_up, sqrt_exact
from inlet.core.project import FabricId
from inlet.core.table import (
    ZERO,
    DrawnLine,
    Move,
    Sheet,
    Size,
    cut_sheet,
    in_a_row,
    opened,
    rectangle,
    rectangle_sheet,
    square_sheet,
)
from inlet.core.units import Unit


class SnippedCorner(NamedTuple):
    """A corner triangle: at which corner of the body's box (right?, down?), its leg, its fabric."""

    right: bool
    down: bool
    leg: Exact
    fabric: FabricId
    side: Exact
    """The square it is sewn on as, as it is cut."""


def corner_squares(unit: Unit, seam: Exact) -> Method | None:
    """A square on each corner of a plain body, as above. The two triangles cut off each time are
    k + 2s - s√2 along their legs; sewn together they give a bonus half-square triangle, finished
    k - 2s√2. None where the unit's sides have no exact length, or it has a unit nested in it."""
    found = _body_and_corners(unit, seam)
    if found is None:
        return None
    size, body, corners = found
    base = rectangle(body, (size[0] + 2 * seam, size[1] + 2 * seam))
    snips = [rectangle(c.fabric, (c.side,) * 2) for c in corners]
    # A square as high as its body is cut with it, or it would reach beyond the other edge.
    squares = counted([s._replace(slanted=s.exact[0] not in base.exact) for s in snips])
    pieces = counted([base, *squares])
    bonus: dict[tuple[Exact, FabricId], int] = {}
    for c in corners:
        finished = c.leg - 2 * seam * ROOT2
        if finished > 2 * seam:
            bonus[finished, c.fabric] = bonus.get((finished, c.fabric), 0) + 1
    left_over = tuple(
        ByProduct("half-square-triangle", (f, f), n, (body, fabric))
        for (f, fabric), n in bonus.items()
    )

    def work(fabrics: tuple[FabricId, ...], sizes: Sizes) -> MethodWork:
        low, high = sizes[0]
        body_cut = (low, high) if size[0] <= size[1] else (high, low)
        square_cut = {p.exact[0]: s[0] for p, s in zip(pieces, sizes, strict=True)}
        dyed = [
            c._replace(fabric=fabric, side=square_cut[c.side])
            for c, fabric in zip(corners, fabrics[1:], strict=True)
        ]
        return _sew_on(body_cut, fabrics[0], dyed, seam)

    key = ("corner-squares", seam, size, tuple(c[:3] for c in corners))
    table = shared(key, (body, *(c.fabric for c in corners)), work)
    number, diagonals = len(corners), sum(float(c.side) for c in corners) * sqrt(2)
    return Method(
        "corner-squares", 1, pieces, False, table, left_over=left_over,
        known_effort=Effort(number, diagonals, number, number, number), outer_bias=no_bias,
        lying=lambda: ((unit.outline,), *((),) * (len(pieces) - 1)),
    )  # fmt: skip


_TEXTS = (
    (
        "Lay a square on the corner, right sides together; sew on the drawn line.",
        "Trim {seam} beyond the seam.",
        "Flip the corner out and press.",
    ),
    (
        "Lay a square on each of {} corners, right sides together; sew on the drawn lines.",
        "Trim {seam} beyond each seam.",
        "Flip the corners out and press.",
    ),
)
"""How one corner is sewn on, and how several are before any is flipped."""


def _at_once(
    corners: Sequence[SnippedCorner], wide: Exact, high: Exact
) -> list[list[SnippedCorner]]:
    """Corners that can be sewn on before any of them is flipped, together: those whose squares do
    not lie on one another, or that lie across from one another and reach no farther than the
    other's seam. In its own corner a square reaches to x + y = 2 side, and the other's seam runs
    along x + y = wide + high - side."""

    def apart(corner: SnippedCorner, other_corner: SnippedCorner) -> bool:
        beside = corner.right != other_corner.right and corner.side + other_corner.side <= wide
        above = corner.down != other_corner.down and corner.side + other_corner.side <= high
        across = corner.right != other_corner.right and corner.down != other_corner.down
        clear = all(
            2 * a.side <= wide + high - b.side
            for a, b in ((corner, other_corner), (other_corner, corner))
        )
        return beside or above or (across and clear)

    groups: list[list[SnippedCorner]] = []
    for c in corners:
        group = next((g for g in groups if all(apart(c, other_corner) for other_corner in g)), None)
        if group is None:
            groups.append([c])
        else:
            group.append(c)
    return groups


def _sew_on(cut: Size, body: FabricId, corners: list[SnippedCorner], seam: Exact) -> MethodWork:
    wide, high = cut
    sheet = rectangle_sheet(wide, high, body)
    whole = sheet[0][0]
    first = [cut_sheet(rectangle(body, (wide, high)))]
    first += [square_sheet(c.side, c.fabric) for c in corners[:3]]
    moves = [Move("cut", "Cut {all}.", in_a_row(first))]
    marked = square_sheet(corners[0].side, corners[0].fabric)
    p, _, r, _ = marked[0][0]
    draw = "Draw a diagonal on the back of each small square."
    alike = len(corners) == 1 and corners[0].side == wide == high
    if alike:
        draw = "Draw a diagonal on the back of one square."
    elif wide != high:
        draw = "Draw a diagonal on the back of each square."
    diagonal = DrawnLine("mark", p, r)
    moves.append(Move("mark", draw, (), marked, (diagonal,), len(corners)))
    for group in _at_once(corners, wide, high):
        squares: Sheet = ()
        seams, cuts, lines = [], [], []
        for c in group:
            left = wide - c.side if c.right else ZERO
            top = high - c.side if c.down else ZERO
            square = square_sheet(c.side, c.fabric, left, top)
            p, q, r, t = square[0][0]
            ends = (t, q) if c.right == c.down else (p, r)
            line = line_through(*ends)
            corner = Point(wide if c.right else ZERO, high if c.down else ZERO)
            if line.side(corner) > 0:
                line = line.opposite()  # the corner's side is allowance
            beyond = chord(whole, line.shifted(-seam))
            squares += square
            seams.append(DrawnLine("seam", *ends))
            cuts += [] if beyond is None else [DrawnLine("cut", *beyond)]
            lines.append((square, line))
        lay, trim, flip = _TEXTS[len(group) > 1]
        if alike:
            lay = "Lay the two right sides together; sew on the drawn line."
            flip = "Open and press."
        drawn = tuple(seams)
        moves.append(Move("sew", lay.format(len(group)), sheet, squares, drawn))
        moves.append(Move("cut-apart", trim, sheet, squares, (*drawn, *cuts)))
        for square, line in lines:
            sheet = opened(sheet, square, line)
        moves.append(Move("open", flip, sheet, seams=len(group)))
    return MethodWork(tuple(moves), (sheet,))


def _body_and_corners(unit: Unit, seam: Exact) -> tuple[Size, FabricId, list[SnippedCorner]] | None:
    """The unit's box, the fabric of its body and its corners, in the box's own frame."""
    if unit.part.nested:
        return None
    (_, body), *rest = sorted(
        unit.picture,
        key=lambda patch: (triangle_legs(patch[0]) is not None, -float(area(patch[0]))),
    )
    frame = upright(unit.outline)
    if frame is None:
        return None
    motion, size = frame
    corners = []
    for outline, fabric in rest:
        legs = triangle_legs(motion.polygon(outline))
        if legs is None:
            return None
        at = legs[0]
        leg = root_up(squared_length(legs[0], legs[1]))
        corners.append(SnippedCorner(at.x != 0, at.y != 0, leg, fabric, leg + 2 * seam))
    return size, body, sorted(corners, key=lambda c: (c.down, c.right))


def upright(outline: Polygon) -> tuple[Motion, Size] | None:
    """The motion that brings a unit's rectangle to lie with its box at the origin, its first side
    along x, and its size there; None where that side has no exact length."""
    p, q = outline[:2]
    length = sqrt_exact(squared_length(p, q))
    if length is None:
        return None
    e = q.minus(p)
    turn = Motion(e.x / length, -e.y / length)
    by = turn(p)
    motion = Motion(turn.cos, turn.sin, Point(-by.x, -by.y))
    _, _, right, bottom = bounds(motion.polygon(outline))
    return motion, (right, bottom)
