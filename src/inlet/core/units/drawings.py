"""Units that are one fixed drawing, looked up by shape in any turn and mirror.

A unit's patches are compared in the frame of the rectangle it lies in, where that rectangle is the
unit square: exact ratios, no roots, any turn.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.geometry import Point, Polygon, dot
from inlet.core.memo import memo
from inlet.core.numbers import ROOT2, Exact, Fraction
from inlet.core.project import UnitKind

Shape = frozenset[tuple[Exact, Exact]]
Drawing = frozenset[Shape]

# The kind; the width-to-height ratio, 0 for any but 1; the corners of each patch in the unit
# square, after "8: " repeated in all eight ways the square can lie.
_DRAWINGS: tuple[tuple[UnitKind, int, str], ...] = (
    ("half-square-triangle", 1, "00 10 01 / 10 11 01"),
    ("half-rectangle-triangle", 0, "00 10 01 / 10 11 01"),
    ("quarter-square-triangle", 1, "8: 00 10 hh"),
    ("three-triangle", 1, "00 10 01 / 10 11 hh / 11 01 hh"),
    ("flying-geese", 2, "01 h0 11 / 00 h0 01 / h0 10 11"),
    ("square-in-square", 1, "8: h0 1h h1 0h / 00 h0 0h"),
    ("four-patch", 1, "8: 00 h0 hh 0h"),
    ("eight-point-star", 1, "8: 00 k0 kk 0k / k0 n0 ha / k0 ha hh kk"),
)
_K = 1 - ROOT2 / 2
_COORDINATE: dict[str, Exact] = {
    "0": Fraction(0), "1": Fraction(1), "h": Fraction(1, 2),
    # Where a star of eight equal diamonds meets the sides of its square, and where they meet.
    "k": _K, "n": 1 - _K, "a": ROOT2 / 2 - Fraction(1, 2),
}  # fmt: skip


def kind_of_drawing(patches: Sequence[Polygon], frame: Polygon) -> UnitKind | None:
    """The kind whose drawing ``patches`` make of the rectangle ``frame`` (its corners in order),
    or None."""
    ratios = _corner_counts().get(tuple(sorted(map(len, patches))))
    if ratios is None:
        return None
    origin, right, _, down = frame
    e, f = right.minus(origin), down.minus(origin)
    ee, ff = dot(e, e), dot(f, f)
    ratio = ee / ff
    if ratio not in ratios and (ratio == 1 or 0 not in ratios):
        return None
    places: dict[int, tuple[Exact, Exact]] = {}  # neighbours share their corners' very points
    for p in (p for patch in patches for p in patch):
        if id(p) not in places:
            places[id(p)] = _placed(p, origin, e, f, ee, ff)
    drawing = frozenset(frozenset(places[id(p)] for p in patch) for patch in patches)
    kinds = _table().get(drawing, {})
    return kinds.get(ratio) or (kinds.get(Fraction(0)) if ratio != 1 else None)


def _placed(
    p: Point, origin: Point, e: Point, f: Point, ee: Exact, ff: Exact
) -> tuple[Exact, Exact]:
    """A corner in the frame of the rectangle with sides e and f."""
    if e.y == 0:  # square to the block, nearly always
        return (p.x - origin.x) / e.x, (p.y - origin.y) / f.y
    if e.x == 0:
        return (p.y - origin.y) / e.y, (p.x - origin.x) / f.x
    step = p.minus(origin)
    return dot(e, step) / ee, dot(f, step) / ff


def _eight_ways(drawing: Drawing) -> Iterator[tuple[Drawing, bool]]:
    """A drawing in every turn and mirror, and whether it lies across."""
    for across in (False, True):
        for left_right in (False, True):
            for upside_down in (False, True):
                yield (
                    frozenset(
                        frozenset(
                            (
                                (1 - u if left_right else u, 1 - v if upside_down else v)
                                for u, v in (((y, x) if across else (x, y)) for x, y in shape)
                            )
                        )
                        for shape in drawing
                    ),
                    across,
                )


def _drawing(text: str) -> Drawing:
    shapes = frozenset(
        frozenset((_COORDINATE[corner[0]], _COORDINATE[corner[1]]) for corner in patch.split())
        for patch in text.removeprefix("8: ").split("/")
    )
    if not text.startswith("8: "):
        return shapes
    return frozenset(shape for way, _ in _eight_ways(shapes) for shape in way)


@memo(None)
def _table() -> dict[Drawing, dict[Exact, UnitKind]]:
    """Every drawing as it may lie: the kind by the squared ratio of its sides."""
    table: dict[Drawing, dict[Exact, UnitKind]] = {}
    for kind, ratio, text in _DRAWINGS:
        square = Fraction(ratio * ratio)
        for way, across in _eight_ways(_drawing(text)):
            table.setdefault(way, {})[1 / square if across and square else square] = kind
    return table


@memo(None)
def _corner_counts() -> dict[tuple[int, ...], set[Exact]]:
    """How many corners the patches of each drawing have, and the squared ratios it comes in: a
    quick look before the exact one."""
    counts: dict[tuple[int, ...], set[Exact]] = {}
    for drawing, ratios in _table().items():
        counts.setdefault(tuple(sorted(map(len, drawing))), set()).update(ratios)
    return counts
