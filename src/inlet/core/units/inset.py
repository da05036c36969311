"""Units that no straight seam runs through, sewn cell by cell: rings by a partial seam, set-in
corners, stars of diamonds, curves."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from fractions import Fraction
from itertools import pairwise
from typing import NamedTuple

from inlet.core.geometry.curve import Curve, exact_chain
from inlet.core.geometry.outline import Outline, drawn
from inlet.core.geometry.point import Point, cross, dot
from inlet.core.geometry.polygon import (
    Polygon,
    common_stretch,
    edges,
    inner_point,
    offset_sides,
    on_line,
)
from inlet.core.geometry.shapes import is_rectangle
from inlet.core.numbers import Exact, root_up
from inlet.core.units.sheets import Sheet
from inlet.core.units.units import Unit
from inlet.core.units.way import Drawn, Move

Cloth = str | None

PARTIAL = (
    "Sew {seam} from the edge, only half way: stop well short of the open end, take a backstitch."
)
EDGE = "Right sides together, sew {seam} from the edge."
FINISH = "Go back to the first seam and sew the rest of it."
DOTS = "Mark dots {seam} in from the corner. Sew from the dot to the outer edge."
SET_IN = "Set in: sew one side from the dot outward, swing the piece round, sew the other."
CURVE = (
    "Mark the centre of both curves. Pin centre and ends, the convex piece on top, and sew {seam} "
    "from the edge, easing; do not stretch."
)
STAR_PAIRS = "Sew the diamonds in pairs, from the dot to the centre: four pairs."
STAR_HALVES = "Sew the pairs in halves."
STAR_WHOLE = "Sew the halves together through the centre, dot to dot."
STAR_TRIANGLES = "Set in the side triangles, from the outer edge to the dot, then the other side."
STAR_SQUARES = "Set in the corner squares in the same way."


class Cell(NamedTuple):
    """One patch, or a unit sewn before: its outline, and what it shows."""

    outline: Outline
    patches: tuple[tuple[Polygon, Cloth], ...]


def inset_moves(unit: Unit, seam: Exact) -> list[Move]:
    """The moves that sew a unit's cells together, each seam drawn where it lies."""
    cells = _cells(unit)
    if any(cell.outline.arcs for cell in cells):
        return _in_order(cells, seam, [CURVE] * (len(cells) - 1))
    if unit.kind == "ring":
        return _ring(cells, seam)
    if unit.kind == "eight-point-star":
        return _star(cells, seam)
    return _in_order(cells, seam, [DOTS] * (len(cells) - 2) + [SET_IN])


def _cells(unit: Unit) -> list[Cell]:
    patches = dict(zip(sorted(unit.part.faces), unit.picture, strict=True))
    shapes = dict(zip(sorted(unit.part.faces), unit.shapes, strict=True))
    out: list[Cell] = []
    taken: set[int] = set()
    for part in unit.part.nested:
        out.append(Cell(Outline(part.outline), tuple(patches[f] for f in sorted(part.faces))))
        taken |= part.faces
    return [Cell(shapes[f], (patches[f],)) for f in patches if f not in taken] + out


def _in_order(cells: list[Cell], seam: Exact, texts: list[str]) -> list[Move]:
    """Cells added one after the other, each beside one that is there."""
    waiting = list(cells)
    done = [waiting.pop(0)]
    moves = []
    for text in texts:
        new = next(c for c in waiting if any(_borders(c, d) for d in done))
        waiting.remove(new)
        moves += _sewn(done, [new], seam, text)
        done.append(new)
    return moves


def _ring(cells: list[Cell], seam: Exact) -> list[Move]:
    """The centre and one rectangle part of the way; the others in turn, each along the one before
    and the centre; then the first seam to its end."""
    middle = max(cells, key=lambda c: sum(_borders(c, d) for d in cells if d is not c))
    arms = [c for c in cells if c is not middle]
    # Clockwise, each arm's end meets the side of the next: the order in which they are added is
    # the one in which each new seam runs along a whole side of what is there.
    first = arms[0]
    order = [first]
    while len(order) < 4:
        last = order[-1]
        order.append(next(a for a in arms if a not in order and _lies_along(last, middle, a)))
    moves = _sewn([middle], [order[0]], seam, PARTIAL)
    done = [middle, order[0]]
    for arm in order[1:]:
        moves += _sewn(done, [arm], seam, EDGE)
        done.append(arm)
    lines = tuple(_seams([first], [c for c in done if c is not first]))
    whole = _sheet(done, seam)
    return [*moves, Move("sew", FINISH, whole, (), lines), Move("open", "Press.", whole)]


def _lies_along(one: Cell, middle: Cell, new: Cell) -> bool:
    """Does the side of ``new`` run along the whole end of ``one`` and the centre together?"""
    beside = _seams([one], [new])
    if not beside:
        return False
    (p, q), (r, t) = ((line.start, line.end) for line in (*beside, *_seams([middle], [new]))[:2])
    return cross(q.minus(p), t.minus(r)) == 0 == cross(q.minus(p), r.minus(p))


def _star(cells: list[Cell], seam: Exact) -> list[Move]:
    squares = [c for c in cells if is_rectangle(c.outline.corners)]
    triangles = [c for c in cells if len(c.outline.corners) == 3]
    diamonds = [c for c in cells if c not in squares and c not in triangles]
    ring = [diamonds[0]]
    while len(ring) < 8:
        ring.append(next(d for d in diamonds if d not in ring and _borders(d, ring[-1])))
    pair, other, half = ring[:2], ring[2:4], ring[:4]
    moves = [m._replace(times=4) for m in _sewn(ring[:1], ring[1:2], seam, STAR_PAIRS)]
    moves += [m._replace(times=2) for m in _sewn(pair, other, seam, STAR_HALVES)]
    moves += _sewn(half, ring[4:], seam, STAR_WHOLE)
    moves += _sewn(ring, triangles, seam, STAR_TRIANGLES)
    moves += _sewn(ring + triangles, squares, seam, STAR_SQUARES)
    return moves


def _sewn(done: list[Cell], new: list[Cell], seam: Exact, text: str) -> list[Move]:
    """The move that sews new cells to those sewn before, laid beside them, and what comes of it."""
    apart = _apart(done, new, seam)
    stretches = list(_stretches(done, new))
    lines = tuple(line for stretch in stretches for line in stretch)
    return [
        Move("sew", text, _sheet(done, seam) + apart, (), lines, seams=len(stretches)),
        Move("open", "Open and press.", _sheet(done + new, seam)),
    ]


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


def _sheet(cells: list[Cell], seam: Exact) -> Sheet:
    """Cells where they lie: to their seams where they are sewn together, with their allowance
    elsewhere."""
    out: list[tuple[Polygon, Cloth]] = []
    for cell in cells:
        others = [c for c in cells if c is not cell]
        for outline, fabric in cell.patches:
            shape = cell.outline if len(cell.patches) == 1 else Outline(outline)
            out.append((_raw(shape, cell.outline.corners, others, seam), fabric))
    return tuple(out)


def _raw(shape: Outline, cell: Polygon, others: list[Cell], seam: Exact) -> Polygon:
    if shape.arcs:
        return _raw_curve(shape, others, seam)
    sides = []
    for p, q in edges(shape.corners):
        outside = any(on_line(p, q, *side) for side in edges(cell))
        joined = any(
            common_stretch(p, q, r, t) for o in others for r, t in edges(o.outline.corners)
        )
        sides.append(seam if outside and not joined else 0)
    return offset_sides(shape.corners, sides)


def _raw_curve(shape: Outline, others: list[Cell], seam: Exact) -> Polygon:
    """A curved patch as a polygon: r + s on a convex arc, r - s on a concave one, none where it is
    sewn; s beyond straight sides."""
    inside = inner_point(drawn(shape))
    corners = shape.corners
    centre = dict(shape.arcs)
    straight = [i for i in range(len(corners)) if i not in centre]
    joined = {c for o in others for _, c in o.outline.arcs}
    out = []
    for i, curve in enumerate(shape.sides()):
        before = (i - 1) % len(corners)
        chain = tuple(exact_chain(curve)) if curve.centre is not None else (curve.start,)
        for k, p in enumerate(chain):
            at = p
            c = curve.centre if curve.centre is not None else centre.get(before)
            if c is not None and c not in joined and (k or curve.centre or before in centre):
                r = root_up(dot(p.minus(c), p.minus(c)))
                reach = dot(inside.minus(c), inside.minus(c))
                grown = (r + seam if reach < r * r else r - seam) / r
                at = Point(c.x + (p.x - c.x) * grown, c.y + (p.y - c.y) * grown)
            if k == 0:
                for j in (before, i):
                    if j in straight:
                        at = at.plus(_outward(corners[j], corners[(j + 1) % len(corners)], seam))
            out.append(at)
    return tuple(out)


def _outward(p: Point, q: Point, seam: Exact) -> Point:
    """A step ``seam`` long out of a clockwise outline across the side from p to q."""
    step = q.minus(p)
    length = root_up(dot(step, step))
    return Point(step.y * seam / length, -step.x * seam / length)


def _seams(done: Iterable[Cell], new: Iterable[Cell]) -> list[Drawn]:
    return [line for stretch in _stretches(done, new) for line in stretch]


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


def _borders(one: Cell, two: Cell) -> bool:
    return bool(_seams([one], [two]))
