"""Figures that appear where blocks are set side by side: patches of one fabric that touch across
the seams between blocks and close on themselves.

A repeat goes on without end, as a pattern on a torus: what leaves it on the right comes in on the
left. Patches of one fabric along a shared edge are one figure. A figure that comes back to itself
one or more repeats away goes on without end, as a ground does; one that does not is closed.
"""

from __future__ import annotations

from collections import defaultdict
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from inlet.core.cancellation import check
from inlet.core.geometry import Picture, Point, cross, edges, midpoint
from inlet.core.numbers import Exact, Fraction, floor_exact

HAIR = 1e-7
"""Of an edge's length: corners nearer to it than this are looked at exactly."""
Segment = tuple[Point, Point]


class _EdgePiece(NamedTuple):
    """A piece of an edge of a patch, from corner to corner of any patch, the patch on its right."""

    patch: int
    start: Point
    end: Point


def closed_figures(picture: Picture, size: tuple[Exact, Exact], cell: tuple[Exact, Exact]) -> tuple[
    Segment, ...
]:  # fmt: skip
    """The outlines of the closed figures of a repeat of this size that cross the seams between its
    blocks, which lie ``cell`` apart; as segments in no order."""
    pieces = _pieces(picture, size)
    at: dict[tuple[Point, Point], list[_EdgePiece]] = defaultdict(list)
    for piece in pieces:
        at[_key(piece, size)].append(piece)
    beside: dict[int, list[tuple[int, Point, bool]]] = defaultdict(list)
    inner: set[_EdgePiece] = set()
    for piece in pieces:
        middle, runs = _key(piece, size)
        for other in at.get((middle, Point(-runs.x, -runs.y)), ()):
            if picture[other.patch][1] != picture[piece.patch][1]:
                continue
            step = piece.start.minus(other.end)  # how far the other lies from where it touches
            beside[piece.patch].append((other.patch, step, _on_seam(piece, cell)))
            inner.add(piece)
    outlined = _closed(beside, len(picture))
    return tuple(
        (piece.start, piece.end)
        for piece in pieces
        if piece.patch in outlined and piece not in inner
    )


def _closed(beside: dict[int, list[tuple[int, Point, bool]]], number: int) -> set[int]:
    """The patches of figures that cross a seam between blocks and come back nowhere else."""
    outlined: set[int] = set()
    seen: set[int] = set()
    for first in range(number):
        check()
        if first in seen or first not in beside:
            continue
        where = {first: Point(Fraction(0), Fraction(0))}
        waiting, closed, crosses = [first], True, False
        for here in waiting:
            for there, step, on_seam in beside[here]:
                crosses |= on_seam
                place = where[here].plus(step)
                if there not in where:
                    where[there] = place
                    waiting.append(there)
                elif where[there] != place:
                    closed = False
        seen |= set(where)
        if closed and crosses:
            outlined |= set(where)
    return outlined


def _pieces(picture: Picture, size: tuple[Exact, Exact]) -> list[_EdgePiece]:
    """The edges of all patches, cut where a corner of another lies on them, on this side of the
    repeat or, at its edge, on the other."""
    wide, high = size
    corners = list(
        {
            Point(p.x + dx, p.y + dy)
            for outline, _ in picture
            for p in outline
            for dx in (-wide, 0, wide)
            for dy in (-high, 0, high)
        }
    )
    xs, ys = np.array([p.floats() for p in corners]).T
    pieces = []
    for number, (outline, _) in enumerate(picture):
        check()
        for p, q in edges(outline):
            (px, py), (qx, qy) = p.floats(), q.floats()
            off = np.abs((xs - px) * (qy - py) - (ys - py) * (qx - px))
            share = (xs - px) * (qx - px) + (ys - py) * (qy - py)
            whole = (qx - px) ** 2 + (qy - py) ** 2
            near = (off < HAIR * whole) & (share > HAIR * whole) & (share < (1 - HAIR) * whole)
            step = q.minus(p)
            stops = sorted(
                (float(share[i]), corners[i])
                for i in np.flatnonzero(near).tolist()
                if cross(corners[i].minus(p), step) == 0
            )
            ends = [p, *(stop for _, stop in stops), q]
            pieces += [_EdgePiece(number, start, end) for start, end in pairwise(ends)]
    return pieces


def _key(piece: _EdgePiece, size: tuple[Exact, Exact]) -> tuple[Point, Point]:
    """Where a piece lies in the repeat, and which way it runs."""
    middle = midpoint(piece.start, piece.end)
    x = middle.x - floor_exact(middle.x / size[0]) * size[0]
    y = middle.y - floor_exact(middle.y / size[1]) * size[1]
    return Point(x, y), piece.end.minus(piece.start)


def _on_seam(piece: _EdgePiece, cell: tuple[Exact, Exact]) -> bool:
    """Does a piece lie on a seam between blocks?"""
    (p, q), (wide, high) = (piece.start, piece.end), cell
    upright = p.x == q.x and _is_multiple(p.x, wide)
    return upright or (p.y == q.y and _is_multiple(p.y, high))


def _is_multiple(length: Exact, of: Exact) -> bool:
    return floor_exact(length / of) * of == length
