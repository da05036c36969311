"""The tree of sewn seams: two parts at a time, down to single patches.

A ``Join`` is one seam sewn, whatever its kind: through a row, round a corner, along a curve, or
part of the way. Its two sides are what was sewn before, other joins or ready parts, so the last
join of a block holds all the others: the steps, the pictures, the words, the seam allowance
test, the proof and pressing are walks over them, in the order of their numbers.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal, NamedTuple, TypeAlias

from inlet.core.assembly.net import Faces
from inlet.core.geometry import Curve, Point, curve_length

JoinKind = Literal["straight", "partial", "set-in", "curve"]

Side: TypeAlias = "Join | Faces"
"""A part that is joined: by the join that made it; one that is ready (in the tree of a block, a
single patch) by its patches."""


class LeftOpen(NamedTuple):
    """An end of a seam, at ``vertex``, that stays open until the join of that number is sewn."""

    vertex: int
    finished_by: int


class Finish(NamedTuple):
    """A seam left open before that is sewn on from ``vertex``, together with this one."""

    vertex: int
    join: Join


class Leg(NamedTuple):
    """A stretch of a seam without a corner, from one of its vertices to another, by their places
    in it. ``finishes``: at its beginning it goes on from a seam left open before."""

    begin: int
    end: int
    finishes: bool = False


@dataclass(frozen=True, slots=True, eq=False)
class Join:
    """One seam that joins two parts. Joins are equal if they sew the same seam between the same
    patches at the same place in the order, however those patches were sewn before.

    ``number`` is its place in the order of sewing, from 1 on; ``faces`` are the patches it makes
    one part of. ``edges`` and ``vertices`` (of the arrangement) run along it from one end to the
    other, ``curves`` are its edges at finished size. ``legs`` are its stretches between corners in
    the order they are sewn. ``pivots`` are the vertices where it turns a corner, ``dots`` those of
    its ends where another join does, so that it stops there, an allowance short of the raw edge.
    What is in ``left_open`` is sewn only with a later join: this one is a partial seam.
    ``finishes`` are those it finishes itself.
    """

    number: int
    sides: tuple[Side, Side]
    faces: Faces
    edges: tuple[int, ...]
    vertices: tuple[int, ...]
    curves: tuple[Curve, ...]
    legs: tuple[Leg, ...]
    pivots: tuple[int, ...] = ()
    dots: tuple[int, ...] = ()
    left_open: tuple[LeftOpen, ...] = ()
    finishes: tuple[Finish, ...] = ()

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Join) and self._own() == other._own()

    def __hash__(self) -> int:
        return self.number

    def _own(self) -> tuple[object, ...]:
        """All of it but the joins before it: those it names by their numbers and patches."""
        return (
            self.number, self.faces, self.edges, self.vertices, self.curves, self.legs, self.pivots,
            self.dots, self.left_open, tuple(map(faces_of, self.sides)),
            tuple((vertex, join.number) for vertex, join in self.finishes),
        )  # fmt: skip

    @property
    def id(self) -> str:
        return f"j{self.number}"

    @property
    def kind(self) -> JoinKind:
        if self.pivots:
            return "set-in"
        if self.left_open:
            return "partial"
        return "curve" if any(curve.centre for curve in self.curves) else "straight"

    @property
    def ends(self) -> tuple[int, int]:
        """The vertices where it begins and ends."""
        return self.vertices[0], self.vertices[-1]

    @property
    def points(self) -> tuple[Point, ...]:
        """Where its vertices lie, finished lengths."""
        return (*(curve.start for curve in self.curves), self.curves[-1].end)

    @property
    def length(self) -> float:
        """The whole length of the seam, finished."""
        return sum(map(curve_length, self.curves))

    def leg_of(self, place: int) -> int:
        """The leg that an edge is of, by their places in the join."""
        spans = (sorted((leg.begin, leg.end)) for leg in self.legs)
        return next(i for i, (low, high) in enumerate(spans) if low <= place < high)

    @property
    def larger_first(self) -> tuple[Side, Side]:
        """Its two sides, the one of more patches first."""
        one, other = self.sides
        return (other, one) if len(faces_of(other)) > len(faces_of(one)) else (one, other)

    def at(self, vertex: int) -> Point:
        """Where one of its vertices lies, finished lengths."""
        return self.points[self.vertices.index(vertex)]


def faces_of(side: Side) -> Faces:
    """The patches of a part that is joined."""
    return side.faces if isinstance(side, Join) else side


def all_joins(last: Side | None) -> Iterator[Join]:
    """A join and all those its sides were made by, in sewing order."""
    joins: list[Join] = []
    left: list[Side | None] = [last]
    while left:
        join = left.pop()
        if isinstance(join, Join):
            joins.append(join)
            left += join.sides
    return reversed(joins)
