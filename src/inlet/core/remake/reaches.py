"""How far the seams and patches of a block reach that is cut apart: a slice asks those near it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.draft import Draft, image
from inlet.core.geometry import Curve, Point, extremes
from inlet.core.memo import Latest
from inlet.core.numbers import Exact

Box = tuple[Exact, Exact, Exact, Exact]
HAIR = 1e-6
"""Floats are no nearer to what they stand for than this."""


class Reaches(NamedTuple):
    """Of a block that is cut: its straight ``lines`` and its ``arcs`` (from one seam that they meet
    to the next) in finished length, and how far each of these and each of its patches reaches, as
    floats (left, top, right, bottom): most lie outside a slice."""

    lines: tuple[tuple[Point, Point], ...]
    seams: NDArray[np.float64]
    arcs: tuple[Curve, ...]
    bows: NDArray[np.float64]
    patches: NDArray[np.float64]


_REACHES: Latest[Draft, Reaches] = Latest(40)


def reaches_of(start: Draft) -> Reaches:
    """Those of a block, worked out once."""
    return _REACHES.of(start, _reaches)


def _reaches(start: Draft) -> Reaches:
    sx, sy = start.block.scale
    lines = tuple(
        (Point(p.x * sx, p.y * sy), Point(q.x * sx, q.y * sy))
        for seam in start.block.seams if seam.arc is None
        for p, q in [seam.ends]
    )  # fmt: skip
    edges = start.arrangement.edges if start.block.curves else ()
    drawn = (start.arrangement.curve(edge) for edge in edges)
    arcs = tuple(image(c, lambda p: p.scaled(sx, sy)) for c in drawn if c.centre is not None)
    bows = np.array([extremes(arc) for arc in arcs]).reshape(-1, 4)
    patches = _boxes([patch.outline for patch in start.patches])
    return Reaches(lines, _boxes(lines), arcs, bows, patches)


def _boxes(outlines: Sequence[Sequence[Point]]) -> NDArray[np.float64]:
    boxes = []
    for outline in outlines:
        xs, ys = zip(*(p.floats() for p in outline), strict=True)
        boxes.append((min(xs), min(ys), max(xs), max(ys)))
    return np.array(boxes).reshape(-1, 4)


def near(boxes: NDArray[np.float64], box: Box) -> list[int]:
    """Those that may reach into a box: which of them do is then told exactly."""
    left, top, right, bottom = map(float, box)
    near = (boxes[:, 0] <= right + HAIR) & (boxes[:, 2] >= left - HAIR)
    near &= (boxes[:, 1] <= bottom + HAIR) & (boxes[:, 3] >= top - HAIR)
    return np.flatnonzero(near).tolist()


def within(reach: NDArray[np.float64], box: Box) -> bool:
    """Does what reaches so far surely lie inside a box?"""
    left, top, right, bottom = map(float, box)
    low, high = reach[:2] - (left, top), (right, bottom) - reach[2:]
    return bool(min(*low, *high) > HAIR)
