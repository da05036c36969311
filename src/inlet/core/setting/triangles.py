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
from inlet.core.project import Measure, Project, Quilt
from inlet.core.setting.on_point import floats_by
from inlet.core.setting.pieces import TopPiece
from inlet.core.setting.straight import strips_of
from inlet.core.setting.top import Top
from inlet.core.table import Lean

TRIANGLES = ("side", "corner", "edge-corner")
Facing = tuple[int, int]
"""The side of the quilt that a triangle lies at: left (-1, 0), right (1, 0), above (0, -1) or below
(0, 1)."""


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
            directed = fabric is not None and bool(fabric.direction)
            triangles.append(
                SettingTriangles(
                    kind,
                    exact,
                    next_mark(exact, _mark(quilt, measure)),
                    kind != "corner",
                    faces.total(),
                    fabric_id,
                    _squares(kind, faces, directed),
                )
            )
    return tuple(sorted(triangles, key=lambda t: TRIANGLES.index(t.kind)))


def _facing(piece: TopPiece) -> Facing:
    """A triangle's area lies toward its broad side; where blocks float it is a little lopsided."""
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
    if abs(across) > abs(down):
        return (1 if across > 0 else -1), 0
    return 0, (1 if down > 0 else -1)


def _squares(kind: str, faces: Counter[Facing], directed: bool) -> tuple[tuple[Lean, int], ...]:
    """The squares to cut. Triangles of a print that lies any way are turned as they are needed. Of
    one with a direction a square cut twice gives one triangle for each side of the quilt, and one
    cut once those for two opposite corners. Opposite sides have equally many, so a print that may
    lie upside down needs no fewer."""
    number = faces.total()
    if not directed:
        return (("", -(-number // (2 if kind == "corner" else 4))),)
    if kind == "corner":
        half = -(-number // 4)
        return (("rising", half), ("falling", half))
    return (("", max(faces.values())),)


def triangle_square(kind: str, quilt: Quilt, top: Top, measure: Measure) -> Exact | None:
    """The square that triangles of a kind are cut from, exactly; None for other pieces."""
    s, d = measure.seam, floats_by(quilt)
    strips = strips_of(quilt.sashing, measure)
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
    return measure.finest if exact else measure.mark
