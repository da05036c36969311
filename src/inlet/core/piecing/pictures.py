"""What a step looks like on the table: parts laid out, right sides together, and sewn."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.assembly import Faces, Join, faces_of
from inlet.core.draft import Draft, points_of
from inlet.core.geometry import Point, Polygon, flip, line_through
from inlet.core.numbers import Exact, Fraction, root_up
from inlet.core.piecing.step import Step
from inlet.core.table import (
    DrawnLine,
    Move,
    Sheet,
    box,
    finish_lines,
    pin_points,
    raw_outline,
    seam_lines,
)
from inlet.core.units import Part

APART = 4
"""Allowances between parts laid out."""


def step_moves(draft: Draft, step: Step, seam: Exact) -> tuple[Move, ...]:
    """The step's pictures: a unit's moves, or the parts laid out, how one is turned over onto the
    other, and what they make, with the points that lie at its edges."""
    if step.moves:
        return step.moves
    if step.unit is not None:
        return step.unit.in_use.moves
    points = points_of(draft)
    marks = tuple(DrawnLine("point", points[v], points[v]) for v in step.points)
    sewn = Move("open", "Sewn", raw_sheet(draft, step.part.faces, seam), (), marks)
    if step.join is not None:
        return (*_join_moves(draft, step.join, seam), sewn)
    parts = step.part.parts
    sheets = [raw_sheet(draft, p.faces, seam) for p in parts]
    laid = Move("lay", "Lay out", _spread_out(sheets, step.part, seam))
    return (laid, turned_over(draft, step.part.joins[0], seam), sewn)


def _join_moves(draft: Draft, join: Join, seam: Exact) -> list[Move]:
    one, other = (raw_sheet(draft, faces_of(side), seam) for side in join.larger_first)
    moves = [Move("lay", "Lay out", one + _beside(one, other, seam))]
    whole = raw_sheet(draft, join.faces, seam)
    if len(join.legs) > 1 or any(curve.centre for curve in join.curves):
        lines = _seam_with_pins(join, seam)
        moves.append(Move("sew", "Sew: the dashed line on the back", whole, (), lines))
    else:
        moves.append(turned_over(draft, join, seam))
    if join.finishes:
        rest = finish_lines(join)
        moves.append(Move("sew", "Then finish the seam left open", whole, (), rest))
    return moves


def _seam_with_pins(join: Join, seam: Exact) -> tuple[DrawnLine, ...]:
    """A seam with its dots and pins."""
    return (*seam_lines(join), *(DrawnLine("pin", p, p) for p in pin_points(join, seam)))


def turned_over(
    draft: Draft, join: Join, seam: Exact, on_top: Faces = frozenset(), text: str = ""
) -> Move:
    """One part turned over onto the other, right sides together, the seam to sew: the smaller one,
    or the one that is to lie ``on_top``."""
    line = line_through(join.points[0], join.points[-1])
    below, above = map(faces_of, join.larger_first)
    if below == on_top:
        below, above = above, below
    lower, upper = (raw_sheet(draft, faces, seam) for faces in (below, above))
    turned = tuple((flip(outline, line), fabric) for outline, fabric in upper)
    if text:
        return Move("press", text, lower, turned)
    return Move("flip", "Right sides together", lower, turned, _seam_with_pins(join, seam))


def raw_sheet(draft: Draft, faces: Faces, seam: Exact) -> Sheet:
    """Patches sewn together, as they lie in the block, raw edges included; arcs in chords. Where
    several seams end at one point of the edge, patches may overlap beyond it, as their allowances
    do."""
    out = []
    for f in sorted(faces):
        patch = draft.patches[f]
        sides = [0 if joined else seam for joined in _joined_sides(draft, f, faces)]
        out.append((raw_outline(patch.shape, sides), patch.fabric))
    return tuple(out)


def _joined_sides(draft: Draft, f: int, faces: Faces) -> list[bool]:
    """Which sides of a patch are sewn, somewhere along them, to another of ``faces``."""
    arrangement = draft.arrangement
    beyond: dict[tuple[int, int], int] = {}
    for k in arrangement.edges_of[f]:
        edge = arrangement.edges[k]
        beyond[edge.start, edge.end] = edge.left if edge.right == f else edge.right
    face = arrangement.faces[f]
    ring, corners = face.ring, set(face.loop.corners)
    begin = ring.index(face.loop.corners[0])
    turned = ring[begin:] + ring[:begin]
    sides: list[bool] = []
    for v, w in zip(turned, (*turned[1:], turned[0]), strict=True):
        if v in corners:
            sides.append(False)
        sides[-1] |= beyond.get((v, w), beyond.get((w, v), -1)) in faces
    return sides


def _beside(one: Sheet, other: Sheet, seam: Exact) -> Sheet:
    """The second of two sheets moved a little away from the first."""
    (x0, y0), (x1, y1) = _middle(one), _middle(other)
    far = max(abs(x1 - x0), abs(y1 - y0)) or 1.0
    step = float(APART * seam) / far
    by = Point(
        Fraction(round((x1 - x0) * step * 100), 100), Fraction(round((y1 - y0) * step * 100), 100)
    )
    return tuple((tuple(p.plus(by) for p in outline), fabric) for outline, fabric in other)


def _middle(sheet: Sheet) -> tuple[float, float]:
    left, top, right, bottom = (float(x) for x in box(sheet))
    return (left + right) / 2, (top + bottom) / 2


def _spread_out(sheets: Sequence[Sheet], part: Part, seam: Exact) -> Sheet:
    """Parts in their order with a gap between them, along ``part.across``."""
    assert part.across is not None
    length = root_up(part.across.x * part.across.x + part.across.y * part.across.y)
    gap = APART * seam
    step = Point(part.across.x / length * gap, part.across.y / length * gap)
    out: list[tuple[Polygon, str | None]] = []
    for i, sheet in enumerate(sheets):
        by = step.scaled(Fraction(i), Fraction(i))
        out += [(tuple(p.plus(by) for p in outline), fabric) for outline, fabric in sheet]
    return tuple(out)
