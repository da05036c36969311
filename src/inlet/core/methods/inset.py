"""Sewing parts together where seams stop short, turn corners or are curved: what is done at the
table, with its pictures."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import pairwise
from math import hypot
from typing import NamedTuple

from inlet.core.assembly.net import Faces
from inlet.core.assembly.sewing import Sewing
from inlet.core.geometry.curve import Curve, exact_chain
from inlet.core.geometry.motion import Picture, canonical, motion_between
from inlet.core.geometry.outline import Outline
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import (
    Polygon,
    common_stretch,
    edges,
)
from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact
from inlet.core.table.moves import Drawn, Move
from inlet.core.table.pins import pin_points
from inlet.core.table.raw import raw_outline
from inlet.core.table.seams import finish_drawn, seam_drawn
from inlet.core.table.sheets import Sheet
from inlet.core.units.parts import Part, merges
from inlet.core.units.units import Unit

Cloth = str | None

EDGE = "Right sides together, sew {seam} from the edge."
DOT = (
    "Mark a dot {seam} from both edges at the corner. Sew from the edge to the dot and take a "
    "backstitch."
)
DOTS = "Mark dots {seam} from both edges at each corner. Sew from dot to dot, a backstitch at both."
PARTIAL = (
    "Sew {seam} from the edge, only half way: stop well short of the open end, take a backstitch."
)
FINISH = "Go back to the seam left open and sew the rest of it, on over the new piece."
SET_IN = "Set in: sew one side from the dot outward, swing the piece round, sew the other."
CURVE = (
    "Mark the centre of both curves. Pin centre and ends, the convex piece on top, and sew {seam} "
    "from the edge, easing; do not stretch."
)


class Cell(NamedTuple):
    """One patch, or a unit sewn before: its outline, and what it shows. ``beside`` are, for each
    side of each of its patches, the cells it touches; None for a side inside."""

    faces: Faces
    outline: Outline
    patches: tuple[tuple[Polygon, Cloth], ...]
    beside: tuple[tuple[frozenset[Faces] | None, ...], ...] = ()


def inset_moves(unit: Unit, seam: Exact) -> list[Move]:
    """The moves that sew a unit's cells together in the order of its tree, each seam drawn where
    it lies; equal ones are said once, with how many there are."""
    cells = {cell.faces: cell for cell in _touching(_cells(unit))}
    moves: list[Move] = []

    def sew(part: Part) -> list[Cell]:
        if part.faces in cells:
            return [cells[part.faces]]
        made = [sew(inner) for inner in part.parts]
        pairs = merges(part)
        k = 0
        while k < len(pairs):
            same = alike_from([_picture(m) for m in made], pairs, part.sewings, k)
            one, other = pairs[k]
            how = part.sewings[k] if part.sewings else None
            moves.extend(
                m._replace(times=same) for m in _sewn(made[one], made[other], part, how, seam)
            )
            for i, j in pairs[k : k + same]:
                made.append(made[i] + made[j])
            k += same
        return made[-1]

    sew(unit.part)
    return moves


def alike_from(
    made: list[Picture], pairs: Sequence[tuple[int, int]], sewings: Sequence[Sewing], k: int
) -> int:
    """How many seams from the k-th on are the same seam, cloth for cloth: between other pieces
    ready by then, or setting one more like piece into what grows. ``made`` shows what there is."""
    first = [made[i] for i in pairs[k]]
    ready, same = len(made), 1
    small = min(first, key=len)
    while k + same < len(pairs):
        one, other = pairs[k + same]
        if max(one, other) < ready:
            motion = motion_between(first[0] + first[1], made[one] + made[other])
            moved = canonical(motion.picture(first[0])) if motion else frozenset()
            if moved not in [canonical(made[i]) for i in (one, other)]:
                break
        elif sewings and sewings[k].kind == sewings[k + same].kind == "set-in":
            alike = len(sewings[k].legs) == len(sewings[k + same].legs)
            grown = max(one, other) == ready + same - 1 and min(one, other) < ready
            if not alike or not grown or sewings[k + same].finishes:
                break
            if not motion_between(small, made[min(one, other)]):
                break
        else:
            break
        same += 1
    return same


def _picture(cells: list[Cell]) -> Picture:
    return tuple(patch for cell in cells for patch in cell.patches)


def _cells(unit: Unit) -> list[Cell]:
    patches = dict(zip(sorted(unit.part.faces), unit.picture, strict=True))
    shapes = dict(zip(sorted(unit.part.faces), unit.shapes, strict=True))
    out: list[Cell] = []
    taken: set[int] = set()
    for part in unit.part.nested:
        inside = tuple(patches[f] for f in sorted(part.faces))
        out.append(Cell(part.faces, Outline(part.outline), inside))
        taken |= part.faces
    single = [f for f in patches if f not in taken]
    return [Cell(frozenset([f]), shapes[f], (patches[f],)) for f in single] + out


def sewing_text(how: Sewing | None) -> str:
    """What to do for a seam, as a sentence for a move; a through seam for None."""
    if how is None:
        return EDGE
    if how.kind in _TEXTS:
        return _TEXTS[how.kind]
    return (EDGE, DOT, DOTS)[len(how.dots)]


_TEXTS = {"partial": PARTIAL, "set-in": SET_IN, "curve": CURVE}


def _sewn(
    done: list[Cell], new: list[Cell], part: Part, how: Sewing | None, seam: Exact
) -> list[Move]:
    """The moves that sew new cells to those sewn before, laid beside them, and what comes of it."""
    if len(new) > len(done):
        done, new = new, done
    if how is None:
        lines = tuple(line for stretch in _stretches(done, new) for line in stretch)
    else:
        pins = tuple(Drawn("pin", p, p) for p in pin_points(how, seam))
        lines = seam_drawn(how) + pins
    whole = _sheet(done + new, seam)
    apart = _sheet(done, seam) + _apart(done, new, seam)
    moves = [Move("sew", sewing_text(how), apart, (), lines, seams=len(how.legs) if how else 1)]
    if how and how.finishes:
        rest = finish_drawn(how, part.sewings)
        moves.append(Move("sew", FINISH, whole, (), rest, seams=0))
    return [*moves, Move("open", "Open and press.", whole)]


def _apart(done: list[Cell], new: list[Cell], seam: Exact) -> Sheet:
    """New cells moved a little away from the middle of those sewn before."""
    x, y = _middle(done)
    out: list[tuple[Polygon, Cloth]] = []
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


def _middle(cells: list[Cell]) -> tuple[float, float]:
    points = [p.floats() for c in cells for p in c.outline.corners]
    return sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points)


def _touching(cells: list[Cell]) -> list[Cell]:
    """The cells, each told what its sides touch. Floats do: it is for pictures."""
    sides = {cell.faces: [_spots(side) for side in cell.outline.sides()] for cell in cells}
    out = []
    for cell in cells:
        found: list[tuple[frozenset[Faces] | None, ...]] = []
        for outline, _ in cell.patches:
            single = len(cell.patches) == 1
            row: list[frozenset[Faces] | None] = []
            for side in map(_spots, (cell.outline if single else Outline(outline)).sides()):
                own = single or any(_overlap(side, s) for s in sides[cell.faces])
                others = (f for f in sides if f != cell.faces)
                meets = frozenset(f for f in others if any(_overlap(side, s) for s in sides[f]))
                row.append(meets if own else None)
            found.append(tuple(row))
        out.append(cell._replace(beside=tuple(found)))
    return out


def _spots(curve: Curve) -> Side:
    return curve.start.floats(), curve.end.floats(), curve.centre and curve.centre.floats()


def _overlap(one: Side, other: Side) -> bool:
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


HAIR = 1e-9
Spot = tuple[float, float]
Side = tuple[Spot, Spot, Spot | None]


def _sheet(cells: list[Cell], seam: Exact) -> Sheet:
    """Cells where they lie: to their seams where they are sewn together, with their allowance
    elsewhere."""
    here = {cell.faces for cell in cells}
    out: list[tuple[Polygon, Cloth]] = []
    for cell in cells:
        for (outline, fabric), beside in zip(cell.patches, cell.beside, strict=True):
            shape = cell.outline if len(cell.patches) == 1 else Outline(outline)
            sides = [0 if near is None or near & here else seam for near in beside]
            out.append((raw_outline(shape, sides), fabric))
    return tuple(out)


def _stretches(done: Iterable[Cell], new: Iterable[Cell]) -> Iterator[list[Drawn]]:
    """Where cells meet: each stretch of straight sides, each arc in chords."""
    others = list(new)
    for cell in done:
        for other in others:
            mine, theirs = dict(cell.outline.arcs), dict(other.outline.arcs)
            for i, (p, q) in enumerate(edges(cell.outline.corners)):
                for j, (r, t) in enumerate(edges(other.outline.corners)):
                    if i in mine and j in theirs and mine[i] == theirs[j] and {p, q} == {r, t}:
                        chain = (*exact_chain(Curve(p, q, mine[i])), q)
                        yield [Drawn("seam", a, b) for a, b in pairwise(chain)]
                    elif (
                        i not in mine and j not in theirs and (found := common_stretch(p, q, r, t))
                    ):
                        yield [Drawn("seam", *found)]
