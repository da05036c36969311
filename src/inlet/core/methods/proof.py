"""Re-sewing: do a method's moves, and a tree's joins, give exactly what was drawn?"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from math import dist, hypot

from inlet.core.assembly import Side
from inlet.core.cancellation import check
from inlet.core.geometry import (
    EIGHTH_TURN,
    NEAR,
    Picture,
    Point,
    Polygon,
    at_origin,
    canonical,
    from_corner,
    in_line,
    is_convex,
    mirrored,
    motion_between,
    moved,
    offset,
    same_outline,
    same_place,
)
from inlet.core.memo import KeyedTable
from inlet.core.methods.method import Method, bias_edges
from inlet.core.numbers import Exact
from inlet.core.table import ZERO, Sheet, box, piece_for, sewn_shape, size, trimmed
from inlet.core.trampoline import Steps, run
from inlet.core.units import Part, Unit

Sewn = tuple[Polygon, Picture]
"""A part as sewn, turned as in the block but lying anywhere: finished outline and patches."""


def makes_unit(method: Method, unit: Unit, seam: Exact) -> bool:
    """Do the method's moves, run on its exact pieces, give the unit exactly every time?

    Every product, less the allowance all round, must be the unit's picture up to a turn, and no
    larger or smaller; those past ``method.makes``, its mirror image. Where the unit is sewn patch
    by patch, so must the patches sewn up.
    """
    if not method.products:
        return made_unit(method, unit, seam) is not None
    whole = method.products[: method.makes]
    other_unit = unit._replace(picture=mirrored(unit.picture))
    return all(_from_product(sheet, unit, seam) is not None for sheet in whole) and all(
        _from_product(sheet, other_unit, seam) is not None
        for sheet in method.products[method.makes :]
    )


_SEWN: KeyedTable[object, Sewn | None] = KeyedTable(2000)


def made_unit(method: Method, unit: Unit, seam: Exact) -> Sewn | None:
    """The unit as the method's moves make it, turned as ``unit.picture`` lies; None if they do not.

    Fabrics that are told apart, not which ones they are, decide the outcome: units alike but for
    their fabric, or made before at this size, are looked up.
    """
    number = {fabric: str(i) for i, fabric in enumerate(unit.fabrics)}
    anonymous = at_origin(tuple((outline, number[fabric]) for outline, fabric in unit.picture))
    key = (method.name, seam, canonical(anonymous))

    def make() -> Sewn | None:
        sewn = _make(method, unit, seam)
        return sewn and (sewn[0], tuple((outline, number[fabric]) for outline, fabric in sewn[1]))

    found = _SEWN.of(key, make)
    if found is None:
        return None
    fabric_of = {i: fabric for fabric, i in number.items()}
    return found[0], tuple((outline, fabric_of[i or ""]) for outline, i in found[1])


def _make(method: Method, unit: Unit, seam: Exact) -> Sewn | None:
    if method.products:
        return _from_product(method.products[0], unit, seam)
    made = sew_up(unit.part, patch_leaves(unit, seam, method.halved))
    return made if made and motion_between(made[1], unit.picture) else None


def _from_product(sheet: Sheet, unit: Unit, seam: Exact) -> Sewn | None:
    finished = (max(unit.size) + 2 * seam, min(unit.size) + 2 * seam)
    if sheet and bias_edges(sheet):
        sheet = EIGHTH_TURN.picture(sheet)
    if not sheet or (max(size(sheet)), min(size(sheet))) != finished:
        return None
    left, top, right, bottom = box(sheet)
    shown = trimmed(sheet, seam)
    motion = motion_between(shown, unit.picture)
    if motion is None:
        return None
    corners = [Point(x, y) for x, y in ((left, top), (right, top), (right, bottom), (left, bottom))]
    outline = motion.polygon(offset(tuple(corners), -seam))
    return outline, motion.picture(shown)


def patch_leaves(unit: Unit, seam: Exact, halved: bool = False) -> Callable[[Part], Sewn | None]:
    """How ``sew_up`` gets a single patch of this unit: cut with its allowance and turned; see
    ``piece_for``."""
    patches = dict(zip(sorted(unit.part.faces), unit.picture, strict=True))

    def leaf(part: Part) -> Sewn | None:
        if part.parts:
            return None
        outline, fabric = patches[part.face]
        if part.arcs:  # its template carries the sewing line
            return part.outline, ((outline, fabric),)
        shape = sewn_shape(piece_for(outline, fabric, seam, halved), seam, outline)
        return None if shape is None else (shape, ((shape, fabric),))

    return leaf


def sew_up(part: Part, leaf: Callable[[Part], Sewn | None]) -> Sewn | None:
    """Sew a part together from what ``leaf`` gives for its smallest parts, in the order of its
    seams; None if edges that meet are not equal. Rows are sewn by size alone: each new part is
    moved until its sewing line lies on the one before it. Where seams turn corners, or are curved,
    each part must have exactly the shape that is drawn, and goes where that lies."""
    sewn = run(_sew(part, leaf))
    return None if sewn is None else (sewn[0], tuple(_patches_in(sewn[1], Point(ZERO, ZERO))))


@dataclass(frozen=True)
class _Pile:
    """What a part was sewn from, each with how far it was moved: positions are added up once."""

    pieces: tuple[tuple[Point, _Pile | Picture], ...]


def _sew(
    part: Part, leaf: Callable[[Part], Sewn | None]
) -> Steps[tuple[Polygon, _Pile | Picture] | None]:
    check()
    ready = leaf(part)
    if ready is not None:
        return ready
    if not part.parts or part.stuck:
        return None
    made: dict[Side, tuple[Polygon, _Pile | Picture]] = {}
    for inner in part.parts:
        sewn = yield _sew(inner, leaf)
        if sewn is None:
            return None
        made[inner.side] = sewn
    if part.across is None or any(p.arcs or not is_convex(p.outline) for p in (part, *part.parts)):
        return _fitted(part, made)
    for join in part.joins:
        (outline, pile), (added, more) = (made[side] for side in join.sides)
        joined = _joined(outline, added, part.across)
        if joined is None:
            return None
        here = Point(ZERO, ZERO)
        made[join] = joined[0], _Pile(((here, pile), (joined[1], more)))
    return made[part.side]


def _fitted(
    part: Part, made: Mapping[Side, tuple[Polygon, _Pile | Picture]]
) -> tuple[Polygon, _Pile] | None:
    """Parts laid where they are drawn; None unless each has exactly that shape."""
    pieces = []
    for inner in part.parts:
        outline, pile = made[inner.side]
        sewn, should = outline, inner.outline
        if not inner.arcs:
            sewn, should = _corners(outline), _corners(inner.outline)
        by = should[0].minus(from_corner(sewn, should)[0])
        if not same_outline(moved(sewn, by), should):
            return None
        pieces.append((by, pile))
    return part.outline, _Pile(tuple(pieces))


def _corners(outline: Polygon) -> Polygon:
    """An outline without what stands in line, or off the line by a hair: where a side is that
    short, one way round may take it as straight, the other as a corner."""
    kept = [outline[0]]
    for k, at in enumerate(outline[1:], 1):
        if not in_line(kept[-1], at, outline[(k + 1) % len(outline)]):
            kept.append(at)
    first = 1 if len(kept) > 3 and in_line(kept[-1], kept[0], kept[1]) else 0
    return tuple(kept[first:])


def _patches_in(pile: _Pile | Picture, by: Point) -> Iterator[tuple[Polygon, str | None]]:
    """The patches of a pile where they came to lie."""
    left = [(pile, by)]
    while left:
        each, at = left.pop()
        if isinstance(each, _Pile):
            left += ((inner, at.plus(step)) for step, inner in reversed(each.pieces))
        else:
            for outline, fabric in each:
                yield moved(outline, at), fabric


def _joined(points: Polygon, two: Polygon, across: Point) -> tuple[Polygon, Point] | None:
    """The outline of ``two`` moved against the far side of ``points``, and the move; None where the
    two sides are not equal. Floats find the sides, exact points are compared."""
    ax, ay = across.floats()
    i, j = _far_side(points, ax, ay), _far_side(two, -ax, -ay)
    if i is None or j is None:
        return None
    n, m = len(points), len(two)
    by = points[i].minus(two[(j + 1) % m])
    if not same_place(points[(i + 1) % n], two[j].plus(by)):
        return None
    ring = [points[(i + 1 + k) % n] for k in range(n)]
    ring += [two[(j + 2 + k) % m].plus(by) for k in range(m - 2)]
    # Only where the seam ends can two sides have become one.
    for k in (n - 1, 0):
        before, at, after = ring[k - 1], ring[k], ring[(k + 1) % len(ring)]
        if in_line(before, at, after):
            del ring[k]
    return tuple(ring), by


def _far_side(outline: Polygon, ax: float, ay: float) -> int | None:
    """Which side of a convex outline lies square to (ax, ay) at its far end; None if a corner
    does."""
    reach = [ax * x + ay * y for x, y in (p.floats() for p in outline)]
    # Located corners lie off the line they are on by a hair.
    edge = max(reach) - max(1e-9 * (1 + max(map(abs, reach))), NEAR * hypot(ax, ay))
    n = len(outline)
    found = [i for i in range(n) if reach[i] > edge and reach[(i + 1) % n] > edge]
    if len(found) < 2:
        return found[0] if found else None
    places = [p.floats() for p in outline]  # a side of a hair's length may lie there, too
    return max(found, key=lambda i: dist(places[i], places[(i + 1) % n]))
