"""Borders round a top: where each strip lies, and the spacer that makes a pieced one fit.

A pieced border of units b long fits a side of length L where b goes into L. A plain spacer t wide
inside it makes L + 2t the next multiple of b, across and down each for itself. Units that miss the
side by no more than can be eased need none.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.fitting import EASED
from inlet.core.geometry import Point
from inlet.core.numbers import Exact, Fraction, ceil_exact
from inlet.core.planning import cut_to_meet
from inlet.core.project import Border, Measure, Pair
from inlet.core.setting.block_sizes import Sizes
from inlet.core.setting.pieces import Cell, Lying, Round, Row, TopPiece, rectangle
from inlet.core.setting.places import Placed
from inlet.core.setting.straight import width_as_cut

ZERO = Fraction(0)
NAMES = ("Left side", "Right side", "Top", "Bottom")


MOST_UNITS = 4_000
"""Of a pieced border."""
LEAST_SPACER = Fraction(1, 2)
"""Inches: a narrower strip is hardly sewn straight."""


class Spacer(NamedTuple):
    """What makes a pieced border fit: how wide the plain strips at the sides and at the ends are
    (0 where none is needed), and how many units go along each then."""

    sides: Exact
    ends: Exact
    along: tuple[int, int]


def spacer_for(inner: Pair, unit: Exact, measure: Measure) -> Spacer:
    """The spacer for a border of units ``unit`` long round a top of size ``inner``, as wide as it
    comes out cut."""
    (sides, across), (ends, down) = (_spacer(length, unit, measure) for length in inner)
    return Spacer(sides, ends, (across, down))


def _spacer(length: Exact, unit: Exact, measure: Measure) -> tuple[Exact, int]:
    number = max(1, round(float(length / unit)))
    if abs(number * unit - length) <= length * EASED:
        return ZERO, number
    number = max(1, ceil_exact(length / unit))
    spare = (number * unit - length) / 2
    least, twice = measure.from_inches(LEAST_SPACER), 2 * measure.seam
    while 0 < spare < least:
        number += 1
        spare += unit / 2
    return (cut_to_meet(spare + twice, measure) - twice if spare else ZERO), number


def units_of(border: Border, inner: Pair, sizes: Sizes, measure: Measure) -> int:
    """How many units a pieced border round a top has; 0 of any other."""
    size = sizes.get(border.block)
    if border.kind != "pieced" or size is None:
        return 0
    return 2 * sum(spacer_for(inner, size.in_use[0], measure).along)


def fitting_units(inner: Pair, near: Exact, number: int = 2) -> list[Exact]:
    """The lengths of unit nearest to ``near`` that need no spacer: those that go into both sides.
    With width : height = m : n in lowest terms that is width/(m k) for every whole k. None where
    the two sides have no common measure."""
    ratio = inner[0] / inner[1]
    if not isinstance(ratio, Fraction):
        return []
    common = inner[0] / ratio.numerator
    middle = max(1, round(float(common / near)))
    units = {common / k for k in range(max(1, middle - number), middle + number + 1)}
    return sorted(units, key=lambda length: abs(length - near))[:number]


def rounds(border: Border, inner: Pair, sizes: Sizes, measure: Measure, number: int) -> list[Round]:
    """A border round a top whose upper left corner is at (0, 0): one round of strips, of a pieced
    border first its spacer; nothing where it has no width, or its block is not known."""
    label = f"Border {number}"
    if border.kind == "pieced":
        size = sizes.get(border.block)
        if size is None:
            return []
        spacer = spacer_for(inner, size.in_use[0], measure)
        all_rounds = []
        if spacer.sides or spacer.ends:
            all_rounds.append(
                _butted(f"{label}, spacer", border, inner, (spacer.sides, spacer.ends))
            )
        outer = inner[0] + 2 * spacer.sides, inner[1] + 2 * spacer.ends
        pieced = _pieced(label, border, outer, size.in_use[1], spacer)
        by = Point(-spacer.sides, -spacer.ends)
        return [*all_rounds, pieced.moved(by)]
    if not border.width:
        return []
    wide = width_as_cut(border.width, measure)
    if border.kind == "mitred":
        return [_mitred(label, border, inner, wide)]
    if border.kind == "corner-squares":
        return [_with_corners(label, border, inner, wide)]
    return [_butted(label, border, inner, (wide, wide))]


def grown(inner: Pair, new_rounds: list[Round]) -> Pair:
    """The size of a top with these rounds."""
    points = [p for each in new_rounds for piece in each.pieces for p in piece.outline]
    if not points:
        return inner
    xs, ys = [p.x for p in points], [p.y for p in points]
    return (
        max(max(xs), inner[0]) - min(min(xs), ZERO), max(max(ys), inner[1]) - min(min(ys), ZERO)
    )  # fmt: skip


def _strip(name: str, x: Exact, y: Exact, wide: Exact, high: Exact, border: Border) -> Row:
    kind = "spacer" if border.kind == "pieced" else "border"
    piece = TopPiece(kind, rectangle(x, y, wide, high), border.fabric)  # type: ignore[arg-type]
    return Row(name, ((piece,),))


def _butted(label: str, border: Border, inner: Pair, wide: Pair) -> Round:
    """Strips in pairs, the second pair over the ends of the first; ``wide`` at the sides and at the
    ends, where 0 is none."""
    (w, h), (side, end) = inner, wide
    pairs = []
    if border.order == "ends-first":
        if end:
            pairs.append((
                _strip(NAMES[2], ZERO, -end, w, end, border),
                _strip(NAMES[3], ZERO, h, w, end, border),
            ))  # fmt: skip
        if side:
            pairs.append((
                _strip(NAMES[0], -side, -end, side, h + 2 * end, border),
                _strip(NAMES[1], w, -end, side, h + 2 * end, border),
            ))  # fmt: skip
        return Round(label, tuple(pairs), inner)
    if side:
        pairs.append((
            _strip(NAMES[0], -side, ZERO, side, h, border),
            _strip(NAMES[1], w, ZERO, side, h, border),
        ))  # fmt: skip
    if end:
        pairs.append((
            _strip(NAMES[2], -side, -end, w + 2 * side, end, border),
            _strip(NAMES[3], -side, h, w + 2 * side, end, border),
        ))  # fmt: skip
    return Round(label, tuple(pairs), inner)


def _mitred(label: str, border: Border, inner: Pair, wide: Exact) -> Round:
    """Strips whose corners are cut at 45 degrees and closed last."""
    w, h = inner
    outer = rectangle(-wide, -wide, w + 2 * wide, h + 2 * wide)
    points = rectangle(ZERO, ZERO, w, h)
    strips = []
    for i in range(4):  # top, right, bottom, left
        j = (i + 1) % 4
        outline = outer[i], outer[j], points[j], points[i]
        strips.append(TopPiece("border", outline, border.fabric))
    top, right, bottom, left = strips
    pairs = (
        (Row(NAMES[0], ((left,),)), Row(NAMES[1], ((right,),))),
        (Row(NAMES[2], ((top,),)), Row(NAMES[3], ((bottom,),))),
    )
    return Round(label, pairs, inner, mitred=True)


def _with_corners(label: str, border: Border, inner: Pair, wide: Exact) -> Round:
    w, h = inner

    def end(name: str, y: Exact) -> Row:
        cells: list[Cell] = []
        for x, length in ((-wide, wide), (ZERO, w), (w, wide)):
            corner = x != 0
            fabric = (border.corner_fabric or border.fabric) if corner else border.fabric
            piece = TopPiece(
                "border-corner" if corner else "border", rectangle(x, y, length, wide), fabric
            )
            cells.append((piece,))
        return Row(name, tuple(cells))

    sides = (
        _strip(NAMES[0], -wide, ZERO, wide, h, border), _strip(NAMES[1], w, ZERO, wide, h, border)
    )  # fmt: skip
    return Round(label, (sides, (end(NAMES[2], -wide), end(NAMES[3], h))), inner)


def _pieced(label: str, border: Border, inner: Pair, deep: Exact, spacer: Spacer) -> Round:
    """Units along each side, eased to it, their tops outward, and a square in each corner."""
    w, h = inner

    def units(side: int) -> Iterator[Cell]:
        number = spacer.along[side % 2]
        long = inner[side % 2] / number
        for k in range(number):
            at = (k + Fraction(1, 2)) * long
            middle = {
                0: Point(at, -deep / 2), 1: Point(w + deep / 2, at),
                2: Point(at, h + deep / 2), 3: Point(-deep / 2, at),
            }[side]  # fmt: skip
            placed = Placed(k, side, border.block, turn=side)
            lying = Lying(placed, (long, deep), middle, 2 * side)
            wide, high = (long, deep) if side % 2 == 0 else (deep, long)
            outline = rectangle(middle.x - wide / 2, middle.y - high / 2, wide, high)
            yield (TopPiece("block", outline, "", lying),)

    def end(name: str, side: int, y: Exact) -> Row:
        def corner(x: Exact) -> Cell:
            fabric = border.corner_fabric or border.fabric
            return (TopPiece("border-corner", rectangle(x, y, deep, deep), fabric),)

        return Row(name, (corner(-deep), *units(side), corner(w)))

    sides = (
        Row(NAMES[0], tuple(units(3))),
        Row(NAMES[1], tuple(units(1))),
    )
    return Round(label, (sides, (end(NAMES[2], 0, -deep), end(NAMES[3], 2, h))), inner)


def fitting_near(
    border: Border, new_rounds: Sequence[Round], sizes: Sizes, label: str
) -> list[Exact]:
    """The lengths of a pieced border's block nearest to its own, from half to double, at which no
    spacer is needed; nothing where it needs none, or is not pieced."""
    size = sizes.get(border.block)
    own_rounds = [each for each in new_rounds if each.label.split(",")[0] == label]
    if border.kind != "pieced" or size is None or not own_rounds:
        return []
    long = size.drawn[0]
    near = fitting_units(own_rounds[0].inner, long)
    if long in near:
        return []
    return [unit for unit in near if long / 2 <= unit <= 2 * long]
