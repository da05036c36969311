"""Fabric on the table, exactly: sewing two sheets together, cutting them apart, opening them.

A sheet is what shows of a piece of sewn fabric from its right side: patches with their fabric, raw
edges included. Two sheets right sides together are described as seen from above through the fabric:
the upper one's patches lie where they lie, wrong side up. Sewing along a line and opening it turns
the upper sheet over along that line; what lies beyond the line is allowance and shows no more.
"""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.geometry import (
    Bounds,
    Line,
    Picture,
    Point,
    Polygon,
    bounds,
    clip,
    clip_to_box,
    edges,
    flip,
    line_through,
    offset_sides,
)
from inlet.core.numbers import Exact, Fraction

Sheet = Picture
ZERO: Exact = Fraction(0)


def square_sheet(size: Exact, fabric: str | None, left: Exact = ZERO, top: Exact = ZERO) -> Sheet:
    """A square of fabric with its top left corner at (left, top)."""
    right, bottom = left + size, top + size
    corners = (Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom))
    return ((corners, fabric),)


def kept(sheet: Sheet, *lines: Line) -> Sheet:
    """What is left of a sheet on the growing side of every line."""
    out = []
    for outline, fabric in sheet:
        left: Polygon = outline
        for line in lines:
            left = clip(left, line) if left else left
        if left:
            out.append((left, fabric))
    return tuple(out)


def kept_in_box(sheet: Sheet, within: Bounds) -> Sheet:
    """What is left of a sheet in a box."""
    parts = ((clip_to_box(outline, within), fabric) for outline, fabric in sheet)
    return tuple((part, fabric) for part, fabric in parts if part)


def opened(lower: Sheet, upper: Sheet, seam: Line) -> Sheet:
    """Two sheets sewn along ``seam`` and opened; the parts on its growing side are the unit's,
    the others its allowance."""
    turned = tuple((flip(outline, seam), fabric) for outline, fabric in kept(upper, seam))
    return kept(lower, seam) + turned


def pair_across(lower: Sheet, upper: Sheet, middle: Line, seam: Exact) -> tuple[Sheet, Sheet]:
    """Sewn ``seam`` either side of a drawn line, cut apart on it, both halves opened."""
    other_line = middle.opposite()
    return (
        opened(lower, upper, middle.shifted(seam)),
        opened(lower, upper, other_line.shifted(seam)),
    )


def raw_cell(patches: Sequence[tuple[Polygon, str | None]], outline: Polygon, seam: Exact) -> Sheet:
    """Patches sewn together where they lie: each reaches ``seam`` beyond the outline of them all,
    and to its seams elsewhere."""
    lines = [line_through(p, q) for p, q in edges(outline)]

    def beyond(p: Point, q: Point) -> Exact | int:
        return seam if any(o.side(p) == 0 == o.side(q) for o in lines) else 0

    return tuple(
        (offset_sides(patch, [beyond(p, q) for p, q in edges(patch)]), fabric)
        for patch, fabric in patches
    )


def box(sheet: Sheet) -> Bounds:
    """Left, top, right, bottom of a sheet."""
    return bounds([p for outline, _ in sheet for p in outline])


def trimmed(sheet: Sheet, seam: Exact) -> Sheet:
    """What of a sheet will show once it is sewn in all round: its box less ``seam`` a side."""
    left, top, right, bottom = box(sheet)
    return kept_in_box(sheet, (left + seam, top + seam, right - seam, bottom - seam))


def size(sheet: Sheet) -> tuple[Exact, Exact]:
    left, top, right, bottom = box(sheet)
    return right - left, bottom - top
