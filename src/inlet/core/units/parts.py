"""Parts of a block: what is sewn of what, down to single patches."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.assembly import Faces, Join, Side
from inlet.core.geometry import Arcs, Outline, Point, Polygon
from inlet.core.project import UnitKind


class Part(NamedTuple):
    """A connected group of patches.

    ``parts`` are what its last seams join; none for a single patch. Where straight seams run
    through they lie in a row, in order along ``across`` (a step square to those seams, finished
    lengths). ``joins`` sew the parts together, in the order in which that is done, the last of them
    makes the part; ``short`` is by how many partial seams they may miss the least possible.
    ``stuck`` means it cannot be sewn at all, and has no joins. ``kind`` is its
    name if it is a unit; ``nested`` are units of several patches that a named part is built with,
    whole. ``arcs`` are the sides of ``outline`` that are curved.
    """

    faces: Faces
    outline: Polygon
    kind: UnitKind | None
    parts: tuple[Part, ...] = ()
    across: Point | None = None
    stuck: bool = False
    nested: tuple[Part, ...] = ()
    arcs: Arcs = ()
    joins: tuple[Join, ...] = ()
    short: int = 0

    @property
    def shape(self) -> Outline:
        return Outline(self.outline, self.arcs)

    @property
    def side(self) -> Side:
        """What another seam joins it by: its last join, or its patches if none made it."""
        return self.joins[-1] if self.joins else self.faces

    @property
    def awkward(self) -> bool:
        """Is it sewn of several parts, none of them in a row?"""
        return bool(self.parts) and self.across is None

    @property
    def face(self) -> int:
        """The patch of a part that is one patch."""
        (only,) = self.faces
        return only


def walk(part: Part) -> Iterator[Part]:
    """A part and everything in it, the smallest first."""
    parts, left = [], [part]
    while left:
        each = left.pop()
        parts.append(each)
        left += each.parts
    return reversed(parts)


def tiling(part: Part) -> Iterator[Part]:
    """The named parts highest in the tree, and single patches where nothing above has a name."""
    left = [part]
    while left:
        each = left.pop()
        if each.kind is not None or not each.parts:
            yield each
        else:
            left += reversed(each.parts)
