"""Sewing parts together where seams stop short, turn corners or are curved: what is done at the
table, with its pictures."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import hypot
from typing import NamedTuple

from inlet.core.assembly import Faces, Join, Side, faces_of
from inlet.core.geometry import (
    HAIR,
    Curve,
    Outline,
    Picture,
    Point,
    Polygon,
    canonical,
    motion_between,
)
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import FabricId
from inlet.core.table import (
    FINISH,
    DrawnLine,
    Move,
    Sheet,
    finish_lines,
    pin_points,
    raw_outline,
    seam_lines,
    sewing_text,
)
from inlet.core.units import Unit, walk


class InsetCell(NamedTuple):
    """One patch, or a unit sewn before: its outline, and what it shows. ``beside`` are, for each
    side of each of its patches, the cells it touches; None for a side inside."""

    faces: Faces
    outline: Outline
    patches: tuple[tuple[Polygon, FabricId], ...]
    beside: tuple[tuple[frozenset[Faces] | None, ...], ...] = ()


def inset_moves(unit: Unit, seam: Exact) -> list[Move]:
    """The moves that sew a unit's cells together in the order of its tree, each seam drawn where
    it lies; equal ones are said once, with how many there are."""
    cells = {cell.faces: cell for cell in _touching(_cells(unit))}
    moves: list[Move] = []

    def cells_in(side: Side) -> list[InsetCell]:
        return [cell for faces, cell in cells.items() if faces <= faces_of(side)]

    def picture(side: Side) -> Picture:
        return tuple(patch for cell in cells_in(side) for patch in cell.patches)

    for part in walk(unit.part):
        if any(part.faces <= faces for faces in cells):
            continue
        k = 0
        while k < len(part.joins):
            same = alike_from(part.joins, k, picture)
            inset_cells, other_inset_cells = map(cells_in, part.joins[k].sides)
            moves += [
                m._replace(times=same)
                for m in _sewn(inset_cells, other_inset_cells, part.joins[k], seam)
            ]
            k += same
    return moves


def alike_from(joins: Sequence[Join], k: int, picture: Callable[[Side], Picture]) -> int:
    """How many of a part's seams from the k-th on are the same seam, fabric for fabric: between
    other pieces ready by then, or setting one more like piece into what grows. ``picture`` shows
    what lies in a side of them."""
    first = joins[k]
    one, other = map(picture, first.sides)
    small = min((one, other), key=len)
    same = 1
    for join in joins[k + 1 :]:
        new = [side for side in join.sides if side not in joins[k : k + same]]
        if len(new) == 2:
            motion = motion_between(one + other, picture(new[0]) + picture(new[1]))
            moved = canonical(motion.picture(one)) if motion else frozenset()
            if moved not in [canonical(picture(side)) for side in new]:
                break
        elif first.kind == join.kind == "set-in":
            grows = len(new) == 1 and joins[k + same - 1] in join.sides
            if not grows or len(first.legs) != len(join.legs) or join.finishes:
                break
            if not motion_between(small, picture(new[0])):
                break
        else:
            break
        same += 1
    return same


def _cells(unit: Unit) -> list[InsetCell]:
    patches = dict(zip(sorted(unit.part.faces), unit.picture, strict=True))
    shapes = dict(zip(sorted(unit.part.faces), unit.shapes, strict=True))
    cells: list[InsetCell] = []
    taken: set[int] = set()
    for part in unit.part.nested:
        inside = tuple(patches[f] for f in sorted(part.faces))
        cells.append(InsetCell(part.faces, Outline(part.outline), inside))
        taken |= part.faces
    single = [f for f in patches if f not in taken]
    return [InsetCell(frozenset([f]), shapes[f], (patches[f],)) for f in single] + cells


def _sewn(done: list[InsetCell], new: list[InsetCell], join: Join, seam: Exact) -> list[Move]:
    """The moves that sew new cells to those sewn before, laid beside them, and what comes of it."""
    if len(new) > len(done):
        done, new = new, done
    pins = tuple(DrawnLine("pin", p, p) for p in pin_points(join, seam))
    lines = seam_lines(join) + pins
    whole = _sheet(done + new, seam)
    apart = _sheet(done, seam) + _apart(done, new, seam)
    moves = [Move("sew", sewing_text(join, seam), apart, (), lines, seams=len(join.legs))]
    if join.finishes:
        rest = finish_lines(join)
        moves.append(Move("sew", FINISH, whole, (), rest, seams=0))
    return [*moves, Move("open", "Open and press.", whole)]


def _apart(done: list[InsetCell], new: list[InsetCell], seam: Exact) -> Sheet:
    """New cells moved a little away from the middle of those sewn before."""
    x, y = _middle(done)
    out: list[tuple[Polygon, FabricId]] = []
    for cell in new:
        u, v = _middle([cell])
        far = max(abs(u - x), abs(v - y)) or 1.0
        step = 3 * float(seam) / far
        by = Point(_hundredth((u - x) * step), _hundredth((v - y) * step))
        out += [
            (tuple(p.plus(by) for p in outline), fabric) for outline, fabric in _sheet([cell], seam)
        ]
    return tuple(out)


def _hundredth(x: float) -> Fraction:
    return Fraction(round(x * 100), 100)


def _middle(cells: list[InsetCell]) -> tuple[float, float]:
    points = [p.floats() for c in cells for p in c.outline.corners]
    return sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points)


def _touching(cells: list[InsetCell]) -> list[InsetCell]:
    """The cells, each told what its sides touch. Floats do: it is for pictures."""
    sides = {cell.faces: [_rough(side) for side in cell.outline.sides()] for cell in cells}
    inset_cells = []
    for cell in cells:
        found: list[tuple[frozenset[Faces] | None, ...]] = []
        for outline, _ in cell.patches:
            single = len(cell.patches) == 1
            row: list[frozenset[Faces] | None] = []
            for side in map(_rough, (cell.outline if single else Outline(outline)).sides()):
                own = single or any(_overlap(side, s) for s in sides[cell.faces])
                others = (f for f in sides if f != cell.faces)
                meets = frozenset(f for f in others if any(_overlap(side, s) for s in sides[f]))
                row.append(meets if own else None)
            found.append(tuple(row))
        inset_cells.append(cell._replace(beside=tuple(found)))
    return inset_cells


def _rough(curve: Curve) -> _Rough:
    return curve.start.floats(), curve.end.floats(), curve.centre and curve.centre.floats()


def _overlap(one: _Rough, other: _Rough) -> bool:
    """Have two sides more than a point in common? Arcs have if they are about one centre."""
    (p, q, c), (r, t, d) = one, other
    if c is not None or d is not None:
        return c == d
    x, y = q[0] - p[0], q[1] - p[1]
    length = hypot(x, y)
    along = []
    for u, v in (r, t):
        if abs(x * (v - p[1]) - y * (u - p[0])) > HAIR * length:
            return False
        along.append((x * (u - p[0]) + y * (v - p[1])) / length)
    return min(length, max(along)) - max(0.0, min(along)) > HAIR


_Place = tuple[float, float]
_Rough = tuple[_Place, _Place, _Place | None]
"""A side of a cell in floats: its ends, and its centre if it is an arc."""


def _sheet(cells: list[InsetCell], seam: Exact) -> Sheet:
    """Cells where they lie: to their seams where they are sewn together, with their allowance
    elsewhere."""
    here = {cell.faces for cell in cells}
    out: list[tuple[Polygon, FabricId]] = []
    for cell in cells:
        for (outline, fabric), beside in zip(cell.patches, cell.beside, strict=True):
            shape = cell.outline if len(cell.patches) == 1 else Outline(outline)
            sides = [0 if near is None or near & here else seam for near in beside]
            out.append((raw_outline(shape, sides), fabric))
    return tuple(out)
