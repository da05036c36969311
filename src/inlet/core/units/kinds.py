"""Naming a unit by its shape: turn, mirror and colouring make no difference.

A unit lies in a rectangle. Its patches are compared in that rectangle's own frame, where the
rectangle is the unit square: exact ratios, no roots, any turn. Fixed drawings are in a table; kinds
that come in any number of patches are rules.
"""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from functools import cache

from inlet.core.geometry.point import Point, dot
from inlet.core.geometry.polygon import Polygon, squared_length

Shape = frozenset[tuple[Fraction, Fraction]]
Drawing = frozenset[Shape]

# Each drawing in the unit square, corners of its patches; the width-to-height ratio; the kind.
_DRAWINGS: tuple[tuple[str, int, str], ...] = (
    ("half-square-triangle", 1, "00 10 01 / 10 11 01"),
    ("quarter-square-triangle", 1, "00 10 hh / 10 11 hh / 11 01 hh / 01 00 hh"),
    ("flying-geese", 2, "01 h0 11 / 00 h0 01 / h0 10 11"),
    ("four-patch", 1, "00 h0 hh 0h / h0 10 1h hh / 0h hh h1 01 / hh 1h 11 h1"),
)
_DIGIT = {"0": Fraction(0), "1": Fraction(1), "h": Fraction(1, 2)}


def _drawing(text: str) -> Drawing:
    return frozenset(
        frozenset((_DIGIT[corner[0]], _DIGIT[corner[1]]) for corner in patch.split())
        for patch in text.split("/")
    )


def _transposed(drawing: Drawing) -> Drawing:
    return frozenset(frozenset((v, u) for u, v in shape) for shape in drawing)


def _upside_down(drawing: Drawing) -> Drawing:
    return frozenset(frozenset((u, 1 - v) for u, v in shape) for shape in drawing)


def _left_right(drawing: Drawing) -> Drawing:
    return frozenset(frozenset((1 - u, v) for u, v in shape) for shape in drawing)


@cache
def _table() -> dict[tuple[Drawing, Fraction], str]:
    """Every drawing in all its turns and mirrors, with the squared ratio of its sides."""
    table = {}
    for kind, ratio, text in _DRAWINGS:
        drawing, square = _drawing(text), Fraction(ratio * ratio)
        for up in (drawing, _upside_down(drawing)):
            for side in (up, _left_right(up)):
                table[side, square] = kind
                table[_transposed(side), 1 / square] = kind
    return table


_CORNERS = {tuple(sorted(map(len, _drawing(text)))) for _, _, text in _DRAWINGS}
"""How many corners the patches of each drawing have: a quick look before the exact one."""


def is_rectangle(outline: Polygon) -> bool:
    """Four square corners, whatever the turn."""
    if len(outline) != 4:
        return False
    a, b, c, d = outline
    if a.x == b.x or a.y == b.y:  # square to the block, nearly always
        return (a.x, b.y, c.x, d.y) == (b.x, c.y, d.x, a.y) or (
            (a.y, b.x, c.y, d.x) == (b.y, c.x, d.y, a.x)
        )
    sides = [outline[(i + 1) % 4].minus(outline[i]) for i in range(4)]
    return all(dot(sides[i], sides[(i + 1) % 4]) == 0 for i in range(3))


def is_square(outline: Polygon) -> bool:
    return is_rectangle(outline) and squared_length(*outline[:2]) == squared_length(*outline[1:3])


def triangle_legs(outline: Polygon) -> Polygon | None:
    """A right isosceles triangle as (right-angled corner, next, last), else None."""
    if len(outline) != 3:
        return None
    for i in range(3):
        corner, after, before = outline[i], outline[(i + 1) % 3], outline[i - 1]
        u, v = after.minus(corner), before.minus(corner)
        if dot(u, v) == 0:
            return (corner, after, before) if dot(u, u) == dot(v, v) else None
    return None


def name_unit(
    outline: Polygon,
    patches: Sequence[Polygon],
    cloths: Sequence[str | None],
    band_seams: tuple[bool, bool] = (False, True),
) -> str | None:
    """The kind of the unit that ``patches`` make of ``outline``, or None if they make none.

    ``cloths`` go with ``patches``. ``band_seams`` are (some seam inside lies on a grid line, some
    seam inside does not): a unit of strips lies within the block's bands, so not both.
    """
    if len(patches) == 1:
        if not is_rectangle(outline):
            return None
        return "square" if is_square(outline) else "rectangle"
    if not is_rectangle(outline):
        return None
    origin, right, _, down = outline
    e, f = right.minus(origin), down.minus(origin)
    ee, ff = dot(e, e), dot(f, f)
    square = ee / ff
    if tuple(sorted(map(len, patches))) in _CORNERS and isinstance(square, Fraction):
        drawing = frozenset(_shape(p, origin, e, f) for p in patches)
        kind = _table().get((drawing, square))
        if kind:
            return kind
    if is_square(patches[0]):
        return _squares(patches, cloths, ee, ff)
    if band_seams != (True, True) and _is_bands(outline, patches):
        return "strips"
    return None


def _shape(patch: Polygon, origin: Point, e: Point, f: Point) -> Shape:
    ee, ff = dot(e, e), dot(f, f)
    steps = [p.minus(origin) for p in patch]
    # Irrational ratios name no drawing; they stay as they are and match none.
    return frozenset((dot(e, s) / ee, dot(f, s) / ff) for s in steps)  # type: ignore[misc]


def _squares(
    patches: Sequence[Polygon], cloths: Sequence[str | None], ee: object, ff: object
) -> str | None:
    """Equal squares that fill a rectangle lie in rows and columns: only their number matters.
    Nine as three by three are a nine-patch, whatever their cloth; more, or oblong, in two cloths
    are a checkerboard."""
    side = squared_length(*patches[0][:2])
    one_row = ee == side or ff == side
    if len(patches) == 9 and ee == ff:
        kind = "nine-patch"
    elif not one_row and len(set(cloths)) == 2 and None not in cloths:
        kind = "checkerboard"
    else:
        return None
    equal = all(squared_length(*p[:2]) == side and is_square(p) for p in patches)
    return kind if equal else None


def _is_bands(outline: Polygon, patches: Sequence[Polygon]) -> bool:
    """Parallel bands, each longer than wide, each reaching from side to side."""
    for p, q in (outline[:2], outline[1:3]):
        length = squared_length(p, q)
        along = q.minus(p)
        if all(_spans(patch, along, length) for patch in patches):
            return True
    return False


def _spans(patch: Polygon, along: Point, length: object) -> bool:
    """Is a patch a rectangle that runs the whole ``length`` (squared) along a direction, longer
    than wide?"""
    if not is_rectangle(patch):
        return False
    sides = (patch[:2], patch[1:3])
    lengths = [squared_length(*side) for side in sides]
    long = 0 if lengths[0] > lengths[1] else 1
    step = sides[long][1].minus(sides[long][0])
    return (
        lengths[0] != lengths[1]
        and lengths[long] == length
        and step.x * along.y - step.y * along.x == 0
    )
