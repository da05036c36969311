"""The units of a block: equal ones counted, mirror pairs told apart, each with its label."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from math import dist
from typing import NamedTuple

from inlet.core.assembly import Faces
from inlet.core.cancellation import check
from inlet.core.draft import Draft, patch_polygons
from inlet.core.geometry import (
    Alike,
    Motion,
    Outline,
    Picture,
    Polygon,
    bounds,
    curve_length,
    edges,
    inside_point,
    is_rectangle,
    mirrored,
    motion_between,
    outline_area,
    squared_length,
)
from inlet.core.numbers import Exact, root_up
from inlet.core.project import UnitKind
from inlet.core.units.parts import Part, tiling


class UnitPlace(NamedTuple):
    """Where a unit lies in the block: its part, the motion that brings it there from the first
    place of its unit, and the part it is nested in, if any."""

    part: Part
    motion: Motion
    within: Part | None = None


class Unit(NamedTuple):
    """One kind of unit in its own colouring.

    ``picture`` is it as it lies in its first place, finished length; ``size`` (width, height) along
    its own sides as it lies there (geese: nose up); ``fabrics`` in the picture's
    order, each once. ``mirror_of`` is the label of the unit it is the mirror image of, if any.
    """

    label: str
    kind: UnitKind
    size: tuple[Exact, Exact]
    picture: Picture
    fabrics: tuple[str | None, ...]
    mirror_of: str | None
    places: tuple[UnitPlace, ...]
    shapes: tuple[Outline, ...] = ()
    """The patches' outlines in the picture's order, arcs as arcs."""
    outline: Polygon = ()
    """Its corners as it lies in its first place, finished length."""

    @property
    def part(self) -> Part:
        return self.places[0].part

    @property
    def tiles(self) -> bool:
        """Does it lie in the block of its own, not only nested in another unit?"""
        return any(place.within is None for place in self.places)

    @property
    def handed(self) -> bool:
        """Does it differ from its mirror image, fabric for fabric?"""
        return motion_between(self.picture, mirrored(self.picture)) is None

    def nested_in(self, other_unit: Unit) -> int:
        """In how many of the places of ``other_unit`` together does it lie nested."""
        faces = {place.part.faces for place in other_unit.places}
        return sum(p.within is not None and p.within.faces in faces for p in self.places)

    def scaled(self, k: Exact) -> Unit:
        """The same unit at ``k`` times the size."""
        return self._replace(
            size=(self.size[0] * k, self.size[1] * k),
            picture=tuple(
                (tuple(p.scaled(k, k) for p in outline), tag) for outline, tag in self.picture
            ),
            shapes=tuple(shape.scaled(k, k) for shape in self.shapes),
            outline=tuple(p.scaled(k, k) for p in self.outline),
        )


def find_units(draft: Draft, root: Part) -> tuple[Unit, ...]:
    """The units that tile a block, the largest ones named on its tree, in reading order; each
    followed by those nested in it."""
    alike = Alike()
    groups: list[list[UnitPlace]] = []
    for part, within in _with_nested(sorted(tiling(root), key=lambda p: min(p.faces))):
        group, motion = alike.add(picture_of(draft, part.faces))
        if group == len(groups):
            groups.append([])
        groups[group].append(UnitPlace(part, motion, within))
    twin = {g: other for g in range(len(groups)) if (other := alike.mirror_of(g)) is not None}
    labels: list[str] = []
    plain = 0
    for g in range(len(groups)):
        if g in twin:
            labels.append(f"{labels[twin[g]]} rev")
        else:
            labels.append(letters(plain))
            plain += 1
    units = []
    for g, (label, picture, places) in enumerate(zip(labels, alike.first, groups, strict=True)):
        check()
        part = places[0].part
        units.append(
            Unit(
                label,
                part.kind or "other",
                _size(part),
                picture,
                tuple(dict.fromkeys(fabric for _, fabric in picture)),
                labels[twin[g]] if g in twin else None,
                tuple(places),
                tuple(draft.patches[f].shape for f in sorted(part.faces)),
                part.outline,
            )
        )
    return tuple(units)


def _with_nested(
    parts: Iterable[Part], within: Part | None = None
) -> Iterator[tuple[Part, Part | None]]:
    for part in parts:
        yield part, within
        yield from _with_nested(part.nested, part)


def picture_of(draft: Draft, faces: Faces) -> Picture:
    """The patches of a part where they lie, with their fabric."""
    drawn, patches = patch_polygons(draft), draft.patches
    return tuple((drawn[f], patches[f].fabric) for f in sorted(faces))


def length_inside(unit: Unit) -> float:
    """How long the seams inside a unit are, finished: what its patches measure round, less the way
    round the unit, is both sides of each."""
    sides = sum(
        sum(map(curve_length, shape.sides())) if shape.arcs else _way_round(shape.corners)
        for shape in unit.shapes
    )
    return max(0.0, (sides - _way_round(unit.outline)) / 2)


def _way_round(outline: Polygon) -> float:
    return sum(dist(p, q) for p, q in edges([corner.floats() for corner in outline]))


def fabric_in(unit: Unit, seam: Exact) -> float:
    """The fabric in one sewn unit: its unfinished area, and twice the allowance along each seam
    inside it."""
    s = float(seam)
    w, h = (float(x) for x in unit.size)
    box = (w + 2 * s) * (h + 2 * s)
    if len(unit.outline) != 4:
        box = sum(outline_area(shape) for shape in unit.shapes) + _way_round(unit.outline) * s
    return box + 2 * s * length_inside(unit)


def label_place(draft: Draft, part: Part) -> tuple[float, float]:
    """Where a unit's label goes, finished lengths: well inside a single patch, inside the first
    patch of its own of a unit with others nested in it, else the middle of the unit's box."""
    if len(part.faces) == 1:
        return inside_point(draft.patches[part.face].shape).floats()
    if part.nested:
        own_faces = part.faces - {f for inner in part.nested for f in inner.faces}
        return inside_point(draft.patches[min(own_faces)].shape).floats()
    left, top, right, bottom = (float(x) for x in bounds(part.outline))
    return (left + right) / 2, (top + bottom) / 2


def letters(number: int) -> str:
    """0 → A, 25 → Z, 26 → AA: the label of the n-th kind."""
    label = ""
    number += 1
    while number:
        number, digit = divmod(number - 1, 26)
        label = chr(ord("A") + digit) + label
    return label


def _size(part: Part) -> tuple[Exact, Exact]:
    """(width, height) along a rectangle's sides, or of the box round any other outline."""
    outline = part.outline
    if not is_rectangle(outline):
        left, top, right, bottom = bounds(outline)
        return right - left, bottom - top
    e, f = (root_up(squared_length(outline[i], outline[i + 1])) for i in (0, 1))
    if part.kind == "flying-geese":  # said width by height, the goose's nose up, in any turn
        return max(e, f), min(e, f)
    upright = outline[0].x == outline[1].x
    return (f, e) if upright else (e, f)
