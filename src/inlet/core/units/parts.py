"""Parts of a block: what is sewn of what, down to single patches."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.assembly.net import Faces
from inlet.core.assembly.sewing import Sewing
from inlet.core.geometry.outline import Arcs, Outline
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Polygon, from_first_corner


class Part(NamedTuple):
    """A connected group of patches.

    ``parts`` are what its last seams join, in order along ``across`` (a step square to those
    seams, finished lengths); none for a single patch. Where no straight seam runs through,
    ``sewings`` say how the parts are joined, in order, and ``short`` by how many partial seams
    that may miss the least possible. ``stuck`` means it cannot be sewn at all. ``kind`` is its
    name if it is a unit; ``nested`` are units of several patches that a named part is built with,
    whole. ``arcs`` are the sides of ``outline`` that are curved.
    """

    faces: Faces
    outline: Polygon
    kind: str | None
    parts: tuple[Part, ...] = ()
    across: Point | None = None
    stuck: bool = False
    nested: tuple[Part, ...] = ()
    arcs: Arcs = ()
    sewings: tuple[Sewing, ...] = ()
    short: int = 0

    @property
    def shape(self) -> Outline:
        return Outline(self.outline, self.arcs)

    @property
    def face(self) -> int:
        """The patch of a part that is one patch."""
        (only,) = self.faces
        return only


def merges(part: Part) -> tuple[tuple[int, int], ...]:
    """Which two are joined by each seam of a part, in order: its parts by number, then what the
    seams before made, counted on from there. Long rows of equal parts are joined in pairs, then in
    pairs of pairs, an odd one last; others from their first part on."""
    if part.sewings:
        return tuple(s.parts for s in part.sewings)
    n = len(part.parts)
    if n < LONG_ROW or not _all_alike(part.parts):
        return tuple((0 if i == 1 else n + i - 2, i) for i in range(1, n))
    out: list[tuple[int, int]] = []
    left = list(range(n))
    while len(left) > 1:
        made = [n + len(out) + i for i in range(len(left) // 2)]
        out += zip(left[::2], left[1::2], strict=False)
        left = made + left[2 * len(made) :]
    return tuple(out)


LONG_ROW = 6
"""Equal parts in a row from which on they are joined in pairs."""


def _all_alike(parts: Sequence[Part]) -> bool:
    """Are they of one outline, moved, and of as many patches?"""
    shapes = set()
    for part in parts:
        outline = from_first_corner(part.outline)
        steps = tuple(p.minus(outline[0]) for p in outline)
        shapes.add((len(part.faces), steps))
        if len(shapes) > 1:
            return False
    return True


def walk(part: Part) -> Iterator[Part]:
    """A part and everything in it, the smallest first."""
    found, left = [], [part]
    while left:
        each = left.pop()
        found.append(each)
        left += each.parts
    return reversed(found)


def tiling(part: Part) -> Iterator[Part]:
    """The named parts highest in the tree, and single patches where nothing above has a name."""
    left = [part]
    while left:
        each = left.pop()
        if each.kind is not None or not each.parts:
            yield each
        else:
            left += reversed(each.parts)
