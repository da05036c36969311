"""Naming a unit by its shape: turn, mirror and colouring make no difference.

Kinds that are one fixed drawing are in ``drawings``; those that come in any number of patches, or
in any proportion, are rules here. A unit is named by its cells: patches, or units that are nested
in it whole.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from inlet.core.geometry import (
    Curve,
    Point,
    Polygon,
    contains,
    cross,
    dot,
    edges,
    is_rectangle,
    is_square,
    line_through,
    sides_equal,
    squared_length,
    triangle_legs,
)
from inlet.core.project import UnitKind
from inlet.core.units.drawings import kind_of_drawing


def name_unit(
    outline: Polygon,
    cells: Sequence[Polygon],
    fabrics: Sequence[str | None],
    band_seams: tuple[bool, bool] = (False, True),
) -> UnitKind | None:
    """The kind of the unit that straight-sided ``cells`` make of ``outline``, or None if they make
    none.

    ``fabrics`` go with ``cells``. ``band_seams`` are (some seam inside lies on a grid line, some
    seam inside does not): a unit of strips lies within the block's bands, so not both.
    """
    if not is_rectangle(outline):
        return None
    if len(cells) == 1:
        return "square" if sides_equal(outline) else "rectangle"
    kind = kind_of_drawing(cells, outline) or _snipped(outline, cells)
    if kind:
        return kind
    # Each half in bands ends in one triangle, at the far end of its diagonal.
    tips = sum(len(cell) == 3 for cell in cells)
    if (
        tips == 2 < len(cells)
        and sides_equal(outline)
        and any(_striped_halves(outline, cells, k) for k in (0, 1))
    ):
        return "half-square-triangle"
    if is_square(cells[0]):
        kind = _squares(outline, cells, fabrics)
    if kind is None and len(cells) == 9 and _is_nine_uneven(outline, cells):
        kind = "nine-patch"
    if kind is None and band_seams != (True, True) and _is_bands(outline, cells):
        kind = "strips"
    return kind


def name_stuck_unit(outline: Polygon, cells: Sequence[Polygon]) -> UnitKind | None:
    """The kind of a unit that no straight seam runs through."""
    if not is_rectangle(outline):
        return None
    if _is_ring(outline, cells):
        return "ring"
    inner = {p for cell in cells for p in cell if contains(outline, p) > 0}
    return "set-in" if len(inner) == 1 and all(inner & set(cell) for cell in cells) else None


def name_curved_unit(outline: Polygon, seams: Iterable[Curve], patches: int) -> UnitKind | None:
    """A rectangle whose only seams are quarter circles about its corners is a quarter circle: one,
    several about one corner, or two that make a petal."""
    seams = list(seams)
    whole = is_rectangle(outline) and patches == len(seams) + 1
    return "quarter-circle" if whole and all(_is_quarter(c, outline) for c in seams) else None


def _is_quarter(seam: Curve, outline: Polygon) -> bool:
    """Does an arc about a corner of the outline end on both sides that meet there?"""
    if seam.centre not in outline:
        return False
    at = outline.index(seam.centre)
    sides = [outline[(at + k) % 4].minus(seam.centre) for k in (1, -1)]
    reach = [end.minus(seam.centre) for end in seam.ends]
    return any(
        all(cross(s, r) == 0 < dot(s, r) for s, r in zip(sides, pair, strict=True))
        for pair in (reach, reach[::-1])
    )


def _squares(
    outline: Polygon, cells: Sequence[Polygon], fabrics: Sequence[str | None]
) -> UnitKind | None:
    """Equal squares that fill a rectangle lie in rows and columns: only their number matters.
    Nine as three by three are a nine-patch, whatever their fabric; more, or oblong, in two fabrics
    are a checkerboard."""
    side = squared_length(*cells[0][:2])
    across, down = squared_length(*outline[:2]), squared_length(*outline[1:3])
    kind: UnitKind
    if len(cells) == 9 and across == down:
        kind = "nine-patch"
    elif side not in (across, down) and len(set(fabrics)) == 2 and None not in fabrics:
        kind = "checkerboard"
    else:
        return None
    equal = all(squared_length(*p[:2]) == side and is_square(p) for p in cells)
    return kind if equal else None


def _is_nine_uneven(outline: Polygon, cells: Sequence[Polygon]) -> bool:
    """Three rows and columns of rectangles in a square, the outer ones of one width: narrow, wide,
    narrow, or the other way."""
    if not sides_equal(outline) or not all(map(is_rectangle, cells)):
        return False
    corners = set(outline)
    at = sorted(len(corners & set(cell)) for cell in cells)
    if at != [0, 0, 0, 0, 0, 1, 1, 1, 1]:
        return False
    outer = [cell for cell in cells if corners & set(cell)]
    first = squared_length(*outer[0][:2])
    if not all(is_square(cell) and squared_length(*cell[:2]) == first for cell in outer):
        return False
    # The corners of the middle one are those of the four outer ones that lie inside.
    inner = {p for cell in outer for p in cell if contains(outline, p) > 0}
    return len(inner) == 4 and any(set(cell) == inner for cell in cells)


def _snipped(outline: Polygon, cells: Sequence[Polygon]) -> UnitKind | None:
    """A rectangle with one to four of its corners cut off at 45° by triangles."""
    if not 2 <= len(cells) <= 5:
        return None
    legs = [points for cell in cells if (points := triangle_legs(cell))]
    if len(legs) != len(cells) - 1 or len({points[0] for points in legs} & set(outline)) < len(
        legs
    ):
        return None
    sides = [q.minus(p) for p, q in edges(outline)]
    along = all(any(cross(s, points[1].minus(points[0])) == 0 for s in sides) for points in legs)
    return "corner-triangle" if along else None


def _striped_halves(outline: Polygon, cells: Sequence[Polygon], k: int) -> bool:
    """Is a square halved by the diagonal from its corner k, each half whole or in bands along one
    of its legs? Between a band's edges on the diagonal and its outer ones all run with that leg."""
    corner, far = outline[k], outline[k + 2]
    middle = line_through(corner, far)
    lines = [middle, *(line_through(p, q) for p, q in edges(outline))]
    inner: tuple[list[Point], list[Point]] = ([], [])
    for cell in cells:
        sides = [middle.side(p) for p in cell]
        if min(sides) < 0 < max(sides):
            return False
        inner[max(sides) > 0].extend(
            q.minus(p)
            for p, q in edges(cell)
            if not any(line.side(p) == 0 == line.side(q) for line in lines)
        )
    legs = [outline[(k + j) % 4].minus(corner) for j in (1, 3)]
    return any(inner) and all(
        any(all(cross(step, leg) == 0 for step in half) for leg in legs) for half in inner
    )


def _is_ring(outline: Polygon, cells: Sequence[Polygon]) -> bool:
    """Four rectangles round a fifth, each at one corner of the whole: they chase one another."""
    if len(cells) != 5 or not all(map(is_rectangle, cells)):
        return False
    corners = set(outline)
    return sorted(len(corners & set(cell)) for cell in cells) == [0, 1, 1, 1, 1]


def _is_bands(outline: Polygon, patches: Sequence[Polygon]) -> bool:
    """Parallel bands, each longer than wide, each reaching from side to side."""
    if not all(map(is_rectangle, patches)):
        return False
    a, _, c, _ = outline
    if a.x == outline[1].x or a.y == outline[1].y:  # square to the block, nearly always
        whole = abs(c.x - a.x), abs(c.y - a.y)
        boxes = [(abs(p[2].x - p[0].x), abs(p[2].y - p[0].y)) for p in patches]
        return any(all(b[k] == whole[k] > b[1 - k] for b in boxes) for k in (0, 1))
    for p, q in (outline[:2], outline[1:3]):
        length = squared_length(p, q)
        along = q.minus(p)
        if all(_spans(patch, along, length) for patch in patches):
            return True
    return False


def _spans(patch: Polygon, along: Point, length: object) -> bool:
    """Does a rectangle run the whole ``length`` (squared) along a direction, longer than wide?"""
    sides = (patch[:2], patch[1:3])
    lengths = [squared_length(*side) for side in sides]
    long = 0 if lengths[0] > lengths[1] else 1
    step = sides[long][1].minus(sides[long][0])
    return lengths[0] != lengths[1] and lengths[long] == length and cross(step, along) == 0
