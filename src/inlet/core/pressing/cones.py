"""Fabric folded round a point, seen so near that every piece of it is a cone.

Each patch that meets at a point reaches past it by an allowance on all sides, so near the point it
is a whole sheet. Every seam there folds the sheets along its line. A sheet becomes cones, intervals
of directions; folding one along a line at angle t takes direction d to 2t - d. However they are
folded, n sheets cover each direction n times on average: pressing only moves layers about.

Angles are in radians, clockwise on screen, and are compared with a tolerance far below any angle
that two seams of a block can make.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import pairwise
from math import pi
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

TURN = 2 * pi
NEAR = 1e-7
"""Directions nearer than this are one."""

Cone = tuple[float, float]
"""Directions from the first to the second, clockwise; at most a whole turn."""
SHEET: tuple[Cone, ...] = ((0.0, TURN),)


class Crease(NamedTuple):
    """Where a sheet is folded: along the line at angle ``at``, what lies in ``beyond`` of it."""

    at: float
    beyond: Cone


def crease(at: float, clockwise: bool, whole: bool) -> Crease:
    """The crease along an arm at angle ``at``, for a sheet of the part that lies on its
    ``clockwise`` side or on the other; ``whole`` if the seam goes on past the point to the raw
    edge, else only beside the arm itself."""
    width = pi if whole else pi / 2
    return Crease(at, (at - width, at) if clockwise else (at, at + width))


def folded_back(cones: Sequence[Cone], along: Crease) -> tuple[Cone, ...]:
    """Cones once what lies beyond a crease is folded back."""
    begin, end = along.beyond
    out: list[Cone] = []
    for cone in cones:
        low, high = cone
        at = low
        for k in range(-2, 3):
            p, q = max(low, begin + k * TURN), min(high, end + k * TURN)
            if q - p > NEAR:
                if p - at > NEAR:
                    out.append((at, p))
                out.append(_turned_over(p, q, along.at))
                at = q
        if high - at > NEAR:
            out.append((at, high))
    return tuple(out)


def _turned_over(low: float, high: float, at: float) -> Cone:
    begin, end = 2 * at - high, 2 * at - low
    whole = begin // TURN * TURN
    return begin - whole, end - whole


def sectors(rays: Iterable[Sequence[Cone]]) -> NDArray[np.float64]:
    """A direction well inside each sector that the edges of cones part the turn into."""
    ends = sorted({round(x % TURN, 9) for cones in rays for cone in cones for x in cone} | {0.0})
    apart = [ends[0]]
    apart += [b for a, b in pairwise(ends) if b - a > NEAR]
    if TURN - apart[-1] < NEAR:
        apart.pop()
    return np.array([(a + b) / 2 for a, b in pairwise([*apart, TURN])])


def layers_in(cones: Sequence[Cone], directions: NDArray[np.float64]) -> NDArray[np.int64]:
    """(directions,): how many of the cones cover each."""
    array = np.zeros(len(directions), int)
    for low, high in cones:
        for k in (-1, 0, 1, 2):
            array += (directions + k * TURN > low) & (directions + k * TURN < high)
    return array
