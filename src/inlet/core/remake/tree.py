"""The tree of a block that is set of slices: slices in rows, rows in the block."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.assembly import Faces
from inlet.core.draft import Draft
from inlet.core.geometry import Point
from inlet.core.numbers import Fraction
from inlet.core.remake.follow import Remade
from inlet.core.remake.reaches import Box
from inlet.core.remake.set_again import places_of
from inlet.core.units import Part, with_joins

ZERO = Fraction(0)


def place_boxes_of(remade: Remade) -> tuple[Box, ...]:
    """Where each slice lies once it is set again."""
    return tuple(
        (left, top, left + each.size[0], top + each.size[1])
        for each, (left, top) in zip(remade.slices, places_of(remade.slices), strict=True)
    )


def slice_parts(drawn: Draft, remade: Remade) -> tuple[Part, ...]:
    """Each place of a block set of slices as a part of its drawing, in reading order."""
    boxes = place_boxes_of(remade)
    faces: list[set[int]] = [set() for _ in boxes]
    for patch in drawn.patches:
        corners = [remade.in_frame(p) for p in patch.polygon]  # an arc may bulge from an edge
        x = (min(p.x for p in corners) + max(p.x for p in corners)) / 2
        y = (min(p.y for p in corners) + max(p.y for p in corners)) / 2
        # No patch lies in two places: new seams run between them.
        home = next(i for i, box in enumerate(boxes) if box[0] < x < box[2] and box[1] < y < box[3])
        faces[home].add(patch.face)
    return tuple(
        Part(frozenset(f), remade.outline_of(box), None)
        for f, box in zip(faces, boxes, strict=True)
    )


def sewn_tree(drawn: Draft, remade: Remade) -> Part:
    """The slices sewn into rows, the rows into the block, with the joins that do it."""
    parts, columns = slice_parts(drawn, remade), len({each.column for each in remade.slices})
    boxes = place_boxes_of(remade)
    zero, one = ZERO, Fraction(1)
    straight = remade.on_point is None
    across = Point(one, zero) if straight else Point(one, -one)
    down = Point(zero, one) if straight else Point(one, one)
    lines, around = [], []
    for i in range(0, len(parts), columns):
        box = (*boxes[i][:2], *boxes[i + columns - 1][2:])
        lines.append(_joined(remade, parts[i : i + columns], box, across))
        around.append(box)
    whole = (*around[0][:2], *around[-1][2:])
    return with_joins(drawn, _joined(remade, lines, whole, down), {})


def _joined(remade: Remade, parts: Sequence[Part], box: Box, across: Point) -> Part:
    if len(parts) == 1:
        return parts[0]
    faces: Faces = frozenset().union(*(part.faces for part in parts))
    return Part(faces, remade.outline_of(box), None, tuple(parts), across)
