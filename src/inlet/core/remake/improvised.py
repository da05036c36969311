"""Squares with improvised corners: no two next to one another alike.

Angles vary on purpose. Where each seam lies is drawn by chance, always the same for a seed, within
the maker's bounds, and drawn again where a square beside it has the same.
"""

from __future__ import annotations

import random
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.numbers import Exact
from inlet.core.remake.corners import CornerSeam

MOST_DRAWN = 50
"""After so many draws bounds leave no other seam: the last one is taken."""


class CornerBounds(NamedTuple):
    """How seams may lie: from ``least`` to ``most`` from the corner along each edge, in steps of
    ``step``; the longer leg at most ``steepest`` times the shorter; from ``fewest`` to ``corners``
    corners of a square."""

    least: Exact
    most: Exact
    step: Exact
    steepest: Exact
    fewest: int
    corners: int


class ImprovisedSquare(NamedTuple):
    """The seams across its corners, and the fabric of each."""

    seams: tuple[CornerSeam, ...]
    fabrics: tuple[str, ...]


def seams_within(bounds: CornerBounds) -> tuple[tuple[Exact, Exact], ...]:
    """Every pair of legs that the bounds allow."""
    steps = []
    leg = bounds.least
    while leg <= bounds.most:
        steps.append(leg)
        leg = leg + bounds.step
    return tuple((a, b) for a in steps for b in steps if max(a, b) <= bounds.steepest * min(a, b))


def improvised(
    columns: int, rows: int, bounds: CornerBounds, fabrics: Sequence[str], seed: int
) -> Iterator[ImprovisedSquare]:
    """Squares in reading order; nothing where the bounds allow no seam. No square has a seam, or
    the fabric of a corner, that the squares left of it and above it have at the same corner."""
    legs = seams_within(bounds)
    if not legs or not fabrics:
        return
    chance = random.Random(seed)
    above: list[ImprovisedSquare | None] = [None] * columns
    for _ in range(rows):
        check()
        left: ImprovisedSquare | None = None
        for column in range(columns):
            beside = [square for square in (left, above[column]) if square is not None]
            left = _drawn(chance, legs, bounds, fabrics, beside)
            above[column] = left
            yield left


def _drawn(
    chance: random.Random,
    legs: Sequence[tuple[Exact, Exact]],
    bounds: CornerBounds,
    fabrics: Sequence[str],
    beside: Sequence[ImprovisedSquare],
) -> ImprovisedSquare:
    number = chance.randint(bounds.fewest, bounds.corners)
    corners = sorted(chance.sample(range(4), number))
    seams, chosen = [], []
    for corner in corners:
        taken = {s for square in beside for s in square.seams if s.corner == corner}
        worn = {
            fabric
            for square in beside
            for s, fabric in zip(square.seams, square.fabrics, strict=True)
            if s.corner == corner
        }
        for _ in range(MOST_DRAWN):
            seam = CornerSeam(corner, *chance.choice(legs))
            if seam not in taken:
                break
        for _ in range(MOST_DRAWN):
            fabric = chance.choice(fabrics)
            if fabric not in worn:
                break
        seams.append(seam)
        chosen.append(fabric)
    return ImprovisedSquare(tuple(seams), tuple(chosen))
