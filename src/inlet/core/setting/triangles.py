"""Setting triangles of a quilt on point: the squares they are cut from.

A side triangle has its long side h on the quilt's edge: from a square h + 2s + 2s√2 cut twice, so
that straight grain lies there. A corner triangle has legs l on the edge: from a square l + 2s + s√2
cut once. Without sashing h = f√2 and l = f/√2; blocks that float d inside the edge make both 2d
longer.
"""

from __future__ import annotations

from collections import Counter
from itertools import pairwise
from typing import NamedTuple

from inlet.core.numbers import HALF_ROOT2, ROOT2, Exact, Fraction, next_mark
from inlet.core.project import Direction, Measure, Project, Quilt
from inlet.core.setting.on_point import floats_by
from inlet.core.setting.pieces import TopPiece
from inlet.core.setting.straight import strips_of
from inlet.core.setting.top import Top
from inlet.core.table import Lean

TRIANGLES = ("side", "corner", "edge-corner")
Facing = tuple[int, int]
"""Where the broad side of a triangle is: left (-1, 0), right (1, 0), above (0, -1) or below (0, 1);
of a corner triangle where its right angle is: upper left (-1, -1) to lower right (1, 1)."""


class SettingTriangles(NamedTuple):
    """Setting triangles of one kind: the square they are cut from, ``exact`` and at the mark;
    cut ``twice`` or once; how many ``triangles``, from so many ``squares``: of a print that stands
    upright, cut once, those on each diagonal."""

    kind: str
    exact: Exact
    cut: Fraction
    twice: bool
    triangles: int
    fabric: str
    squares_by_lean: tuple[tuple[Lean, int], ...]

    @property
    def squares(self) -> int:
        return sum(number for _, number in self.squares_by_lean)

    @property
    def over(self) -> int:
        """Triangles that are cut and not needed."""
        return self.squares * (4 if self.twice else 2) - self.triangles


def setting_triangles(top: Top, project: Project) -> tuple[SettingTriangles, ...]:
    """Side and corner triangles, and those that sashing leaves at the edge, as far as there are
    any."""
    quilt, measure = project.quilt or Quilt(), project.measure
    if not quilt.on_point:
        return ()
    facing: dict[tuple[str, str], Counter[Facing]] = {}
    for piece in (piece for row in top.rows for piece in row.pieces):
        if piece.kind in TRIANGLES:
            facing.setdefault((piece.kind, piece.fabric), Counter())[_facing(piece)] += 1
    triangles = []
    for (kind, fabric_id), faces in facing.items():
        exact = triangle_square(kind, quilt, top, measure)
        if exact is not None:
            fabric = project.fabric(fabric_id)
            squares = _squares(kind, faces, fabric.direction if fabric is not None else "")
            triangles.append(
                SettingTriangles(
                    kind,
                    exact,
                    next_mark(exact, _mark(quilt, measure)),
                    kind != "corner",
                    faces.total(),
                    fabric_id,
                    squares,
                )
            )
    return tuple(sorted(triangles, key=lambda t: TRIANGLES.index(t.kind)))


def _facing(piece: TopPiece) -> Facing:
    """A triangle's area lies toward its broad side, or toward its right angle; where blocks float
    it is a little lopsided."""
    outline = [p.floats() for p in piece.outline]
    moments = [0.0, 0.0]
    whole = 0.0
    for (x, y), (to_x, to_y) in pairwise((*outline, outline[0])):
        turn = x * to_y - to_x * y
        whole += turn / 2
        moments[0] += (x + to_x) * turn / 6
        moments[1] += (y + to_y) * turn / 6

    def off(axis: int) -> float:
        places = [place[axis] for place in outline]
        low, high = min(places), max(places)
        return (moments[axis] / whole - (low + high) / 2) / (high - low)

    across, down = off(0), off(1)
    left_or_right, above_or_below = (1 if by > 0 else -1 for by in (across, down))
    if piece.kind == "corner":
        return left_or_right, above_or_below
    return (left_or_right, 0) if abs(across) > abs(down) else (0, above_or_below)


def _squares(
    kind: str, faces: Counter[Facing], direction: Direction
) -> tuple[tuple[Lean, int], ...]:
    """The squares to cut. A square cut twice gives one triangle for each side of the quilt, one cut
    once those for two opposite corners. A print that lies any way is turned as it is needed, one
    with two ways half a turn; one with a top not at all."""
    if not direction:
        return (("", -(-faces.total() // (2 if kind == "corner" else 4))),)

    def pairs(a: Facing, b: Facing) -> int:
        if direction == "one-way":
            return max(faces[a], faces[b])
        return -(-(faces[a] + faces[b]) // 2)

    if kind == "corner":
        rising, falling = pairs((-1, -1), (1, 1)), pairs((1, -1), (-1, 1))
        leans: tuple[tuple[Lean, int], ...] = (("rising", rising), ("falling", falling))
        return tuple((lean, number) for lean, number in leans if number)
    return (("", max(pairs((0, -1), (0, 1)), pairs((-1, 0), (1, 0)))),)


def triangle_square(kind: str, quilt: Quilt, top: Top, measure: Measure) -> Exact | None:
    """The square that triangles of a kind are cut from, exactly; None for other pieces."""
    s, d = measure.seam, floats_by(quilt)
    strips = strips_of(quilt.sashing)
    columns = quilt.columns or 1
    size = (top.middle[0] - 2 * d) / columns * HALF_ROOT2 - strips.beside
    if kind == "side":
        return size * ROOT2 + 2 * d + 2 * s + 2 * s * ROOT2
    if kind == "corner":
        return size * HALF_ROOT2 + 2 * d + 2 * s + s * ROOT2
    if kind == "edge-corner":
        return strips.beside * ROOT2 + 2 * d + 2 * s + 2 * s * ROOT2
    return None


def _mark(quilt: Quilt, measure: Measure) -> Fraction:
    """Setting triangles are cut at the ruler's mark, or, where the maker wants them exact, at the
    finest one."""
    exact = quilt.triangles is not None and quilt.triangles.fit == "exact"
    return min(measure.system.finer[-1], measure.mark) if exact else measure.mark
