"""The tree of a block that is set of slices: slices in rows, rows in the block."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.assembly import Faces
from inlet.core.draft import Draft
from inlet.core.geometry import Point
from inlet.core.numbers import Exact, Fraction
from inlet.core.remake.follow import Remade
from inlet.core.remake.set_again import places_of
from inlet.core.units import Part, with_joins

ZERO = Fraction(0)


def slice_parts(drawn: Draft, remade: Remade) -> tuple[Part, ...]:
    """Each place of a block set of slices as a part of its drawing, in reading order."""
    places = places_of(remade.slices)
    boxes = [
        (left, top, left + each.size[0], top + each.size[1])
        for each, (left, top) in zip(remade.slices, places, strict=True)
    ]
    faces: list[set[int]] = [set() for _ in boxes]
    for patch in drawn.patches:
        corners = patch.outline
        x = (min(p.x for p in corners) + max(p.x for p in corners)) / 2
        y = (min(p.y for p in corners) + max(p.y for p in corners)) / 2
        # No patch lies in two places: new seams run between them.
        home = next(i for i, box in enumerate(boxes) if box[0] < x < box[2] and box[1] < y < box[3])
        faces[home].add(patch.face)
    return tuple(
        Part(frozenset(f), _corners(*box), None) for f, box in zip(faces, boxes, strict=True)
    )


def sewn_tree(drawn: Draft, remade: Remade) -> Part:
    """The slices sewn into rows, the rows into the block, with the joins that do it."""
    parts, columns = slice_parts(drawn, remade), len({each.column for each in remade.slices})
    rows = [parts[i : i + columns] for i in range(0, len(parts), columns)]
    across, down = Point(Fraction(1), ZERO), Point(ZERO, Fraction(1))
    lines = [_joined(row, across) for row in rows]
    return with_joins(drawn, _joined(lines, down), {})


def _joined(parts: Sequence[Part], across: Point) -> Part:
    if len(parts) == 1:
        return parts[0]
    first, last = parts[0].outline[0], parts[-1].outline[2]
    faces: Faces = frozenset().union(*(part.faces for part in parts))
    outline = _corners(first.x, first.y, last.x, last.y)
    return Part(faces, outline, None, tuple(parts), across)


def _corners(left: Exact, top: Exact, right: Exact, bottom: Exact) -> tuple[Point, ...]:
    """A box as an outline, clockwise from its top left."""
    return Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom)
