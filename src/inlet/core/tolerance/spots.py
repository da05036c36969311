"""Where it shows how a block was sewn: points that are to be sharp, and crossings that are to meet.

A point is a corner of a piece at a vertex that a later seam, or the block's edge, runs past: its
tip is where the stitch lines of its two sides meet. Where that lies beyond the stitch line of
the other seam, the point is cut off; where it stays short of it, it floats. A crossing is where
seams of both sides of a later seam meet one another. What is of one fabric does not show.
"""

from __future__ import annotations

from collections import defaultdict
from math import pi
from typing import NamedTuple

import numpy as np

from inlet.core.assembly import Join, all_joins, faces_of
from inlet.core.tolerance.pieces import FLAT, Array, Numbers, Pieces
from inlet.core.tolerance.sewn import SewnPieces

SHARP = 0.56 * pi
"""The widest corner that is a point: a little over a right one. The tip of a needle is wherever it
is pressed, and is none."""


class PointSpot(NamedTuple):
    """The corner at the start of a half-edge, at a ``vertex``; the half-edges of the other seam on
    its side with which end (0, 1) of each lies there. ``edge``: that seam is the next one that the
    block is sewn into."""

    vertex: int
    corner: int
    halves: Numbers
    ends: Numbers
    edge: bool


class CrossingSpot(NamedTuple):
    """A vertex on a seam where seams of both sides end: the corners there of the side that stays
    and of the one that comes, and which way the seam runs."""

    vertex: int
    seam: int
    stays: Numbers
    comes: Numbers
    along: tuple[float, float]


def point_spots(pieces: Pieces, last: Join) -> list[PointSpot]:
    """All points of a block that show, by their vertex."""
    at_vertex = _seams_at(pieces, last)
    spots: list[PointSpot] = []
    for corner in range(pieces.halves):
        if not _shows(pieces, corner) or not FLAT < _angle(pieces, corner) < SHARP:
            continue
        before, vertex = int(pieces.before[corner]), int(pieces.vertex[corner])
        own_lines = {_line_of(pieces, before), _line_of(pieces, corner)}
        own_sewn = [_when(pieces, int(pieces.sewn_by[h])) for h in (before, corner)]
        for seam, side, halves in at_vertex.get(vertex, ()):
            later = _when(pieces, seam) > max(own_sewn) or seam < 0
            if not later or int(pieces.piece[corner]) not in side:
                continue
            if any(_line_of(pieces, h) in own_lines for h, _ in halves):
                continue
            numbers = np.array(halves, dtype=np.intp).T
            spots.append(PointSpot(vertex, corner, numbers[0], numbers[1], seam < 0))
    return sorted(spots, key=lambda spot: (spot.vertex, spot.corner))


SeamSide = tuple[int, frozenset[int], list[tuple[int, int]]]


def _seams_at(pieces: Pieces, last: Join) -> dict[int, list[SeamSide]]:
    """By vertex: each seam there (the block's edges below 0), the pieces on one side of it, and
    that side's half-edges with their end there."""
    sides_at: dict[int, list[SeamSide]] = defaultdict(list)
    for i, (join, seam) in enumerate(zip(all_joins(last), pieces.seams, strict=True)):
        for side in join.sides:
            faces = faces_of(side)
            halves = [int(h) for h in (*seam.stays, *seam.comes) if int(pieces.piece[h]) in faces]
            for vertex, there in _ends(pieces, halves).items():
                sides_at[vertex].append((i, faces, there))
    everything = frozenset(range(pieces.count))
    by_line: dict[int, list[int]] = defaultdict(list)
    for h in np.flatnonzero(pieces.sewn_by < 0).tolist():
        if _beside(pieces, h) >= 0:
            continue  # sewn before, in a slice
        by_line[_line_of(pieces, h)].append(h)
    for number, halves in enumerate(by_line.values(), 1):
        for vertex, there in _ends(pieces, halves).items():
            sides_at[vertex].append((-number, everything, there))
    return sides_at


def _when(pieces: Pieces, seam: int) -> int:
    """When a seam is sewn: those of the block's edge after all others."""
    return seam if seam >= 0 else len(pieces.seams)


def _ends(pieces: Pieces, halves: list[int]) -> dict[int, list[tuple[int, int]]]:
    ends: dict[int, list[tuple[int, int]]] = defaultdict(list)
    for h in halves:
        ends[int(pieces.vertex[h])].append((h, 0))
        ends[int(pieces.vertex[pieces.after[h]])].append((h, 1))
    return ends


def _line_of(pieces: Pieces, half: int) -> int:
    return pieces.draft.arrangement.edges[int(pieces.edge[half])].line


def _angle(pieces: Pieces, corner: int) -> float:
    """The angle of a piece at a corner: half a turn less the turn from the one normal to the
    other."""
    first, second = pieces.normal[pieces.before[corner], 1], pieces.normal[corner, 0]
    turn = np.arctan2(first[0] * second[1] - first[1] * second[0], first @ second)
    return float(pi - turn) % (2 * pi)


def _shows(pieces: Pieces, corner: int) -> bool:
    """Is the piece of another fabric than those beside both sides of the corner?"""
    patches = pieces.draft.patches
    fabric = patches[int(pieces.piece[corner])].fabric
    for h in (int(pieces.before[corner]), corner):
        beside = _beside(pieces, h)
        if beside >= 0 and patches[beside].fabric == fabric:
            return False
    return True


def _beside(pieces: Pieces, half: int) -> int:
    edge = pieces.draft.arrangement.edges[int(pieces.edge[half])]
    return edge.left if edge.right == int(pieces.piece[half]) else edge.right


def crossing_spots(pieces: Pieces, last: Join) -> list[CrossingSpot]:
    """All crossings of a block that show, in the order they are sewn."""
    spots: list[CrossingSpot] = []
    for i, (join, seam) in enumerate(zip(all_joins(last), pieces.seams, strict=True)):
        stays = _corners_on(pieces, seam.stays)
        comes = _corners_on(pieces, seam.comes)
        for vertex in join.vertices[1:-1]:
            if vertex in join.pivots:
                continue
            here, there = stays.get(vertex, []), comes.get(vertex, [])
            if _differ(pieces, here) and _differ(pieces, there):
                along = pieces.normal[here[0], 0]
                spots.append(
                    CrossingSpot(
                        vertex, i, np.array(here, dtype=np.intp), np.array(there, dtype=np.intp),
                        (float(along[1]), float(-along[0])),
                    )
                )  # fmt: skip
    return spots


def _corners_on(pieces: Pieces, halves: Numbers) -> dict[int, list[int]]:
    """The corners on the half-edges of one side of a seam, by vertex."""
    corners: dict[int, list[int]] = defaultdict(list)
    for h in halves.tolist():
        for corner in (h, int(pieces.after[h])):
            at = corners[int(pieces.vertex[corner])]
            if corner not in at:
                at.append(corner)
    return corners


def _differ(pieces: Pieces, corners: list[int]) -> bool:
    """Does a seam between two pieces of different fabric end here?"""
    faces = {int(pieces.piece[c]) for c in corners}
    return len(faces) == 2 and len({pieces.draft.patches[f].fabric for f in faces}) == 2


class PointTable(NamedTuple):
    """Points as arrays, a row for each point and half-edge of its other seam: the corner that is
    its tip, the corner where the other seam lies, that half-edge and which end of it, and where the
    rows of each point begin."""

    tips: Numbers
    there: Numbers
    halves: Numbers
    ends: Numbers
    begin: Numbers


def point_table(pieces: Pieces, spots: list[PointSpot]) -> PointTable:
    """All points together."""
    rows = [
        (spot.corner, int(pieces.after[h]) if end else int(h), int(h), int(end))
        for spot in spots
        for h, end in zip(spot.halves, spot.ends, strict=True)
    ]
    tips, there, halves, ends = np.array(rows, dtype=np.intp).reshape(-1, 4).T
    lengths = [0, *(len(spot.halves) for spot in spots)][:-1] if spots else []
    begin = np.cumsum(np.array(lengths, dtype=np.intp))
    return PointTable(tips, there, halves, ends, begin)


def beyond(sewn: SewnPieces, corners: Array, table: PointTable) -> Array:
    """How far each tip lies beyond the other seam's stitch line, in each sewing (P, n), by where
    all corners came to lie (2, H, n): below 0 it stays short of it."""
    if not len(table.begin):
        return np.zeros((0, corners.shape[2]))
    looks = sewn.looks(table.halves, table.ends)
    apart_by = corners[:, table.tips] - corners[:, table.there]
    distances = apart_by[0] * looks[0] + apart_by[1] * looks[1]
    return _means(distances, table.begin)


class CrossingTable(NamedTuple):
    """Crossings as arrays: the corners of the side that stays, and of the one that comes, all after
    one another, and where those of each crossing begin; which way its seam runs, and on which
    piece that is told."""

    stays: Numbers
    stays_begin: Numbers
    comes: Numbers
    comes_begin: Numbers
    along: Array
    pieces: Numbers


def crossing_table(pieces: Pieces, spots: list[CrossingSpot]) -> CrossingTable:
    """All crossings together."""
    sides = []
    for corners in ([spot.stays for spot in spots], [spot.comes for spot in spots]):
        lengths = [0, *map(len, corners)][:-1] if corners else []
        flat = np.concatenate([*corners, np.zeros(0, dtype=np.intp)]).astype(np.intp)
        sides += [flat, np.cumsum(np.array(lengths, dtype=np.intp))]
    along = np.array([spot.along for spot in spots]).reshape(-1, 2)
    on = np.array([pieces.piece[spot.stays[0]] for spot in spots], dtype=np.intp)
    return CrossingTable(sides[0], sides[1], sides[2], sides[3], along, on)


def apart(sewn: SewnPieces, corners: Array, table: CrossingTable) -> Array:
    """How far apart the seams of both sides meet each crossing, along its seam, in each sewing
    (C, n)."""
    if not len(table.pieces):
        return np.zeros((0, corners.shape[2]))
    gaps = [
        _means(corners[k, table.stays], table.stays_begin)
        - _means(corners[k, table.comes], table.comes_begin)
        for k in (0, 1)
    ]
    cos, sin = sewn.cos[table.pieces], sewn.sin[table.pieces]
    tx, ty = table.along.T[:, :, None]
    along: Array = gaps[0] * (cos * tx - sin * ty) + gaps[1] * (sin * tx + cos * ty)
    return along


def _means(rows: Array, begin: Numbers) -> Array:
    """The mean of each run of rows, from where it begins to where the next does."""
    counts = np.diff(np.append(begin, len(rows)))
    means: Array = np.add.reduceat(rows, begin, axis=0) / counts[:, None]
    return means
