"""Lengths on ruler's marks with the least difference at any seam, by an integer program."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from inlet.core.numbers import Exact, Fraction

FARTHEST = 8
"""Marks that a length may lie from its exact one."""

HEAVY = 1000.0
"""What a seam that differs more than is eased weighs, to a length that lies off as much."""

MOST_NODES = 2_000
"""Branches before the search is cut short."""

Row = tuple[Sequence[tuple[Exact, float]], float]
"""A stretch: each length's share in its difference, and the rest of it."""


def least_difference(
    rows: Sequence[Row],
    lengths: Sequence[Exact],
    mark: Fraction,
    thread: Fraction,
    least: int,
) -> dict[Exact, Fraction]:
    """A mark for each length, the ``least`` or one after it: the least difference beyond a
    ``thread`` at the worst stretch, then the least to be off in all. Nothing where none is found.

    The columns are the marks of each length, how far each is off, and the worst difference beyond a
    thread; each row is held between plus and minus that and a thread.
    """
    count = len(lengths)
    column = {length: i for i, length in enumerate(lengths)}
    table = np.zeros((len(rows), 2 * count + 1))
    low, high = np.zeros(len(rows)), np.zeros(len(rows))
    for r, (shares, rest) in enumerate(rows):
        for length, share in shares:
            table[r, column[length]] = share * float(mark)
        low[r], high[r] = -float(thread) - rest, float(thread) - rest
    more, less = table.copy(), table.copy()
    more[:, -1], less[:, -1] = 1, -1
    exact = np.array([float(length) for length in lengths])
    over = np.hstack([np.eye(count) * float(mark), -np.eye(count), np.zeros((count, 1))])
    under = np.hstack([np.eye(count) * float(mark), np.eye(count), np.zeros((count, 1))])
    marks = exact / float(mark)
    found = milp(
        np.concatenate([np.zeros(count), np.ones(count), [HEAVY]]),
        integrality=np.concatenate([np.ones(count), np.zeros(count + 1)]),
        bounds=Bounds(
            np.concatenate([np.maximum(least, np.floor(marks) - FARTHEST), np.zeros(count + 1)]),
            np.concatenate([np.ceil(marks) + FARTHEST, np.full(count + 1, np.inf)]),
        ),
        constraints=[
            LinearConstraint(more, low, np.inf),
            LinearConstraint(less, -np.inf, high),
            LinearConstraint(over, -np.inf, exact),
            LinearConstraint(under, exact, np.inf),
        ],
        options={"node_limit": MOST_NODES},
    )
    if found.x is None:
        return {}
    return {length: round(found.x[i]) * mark for i, length in enumerate(lengths)}
