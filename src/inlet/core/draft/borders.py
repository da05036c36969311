"""Do the patches' borders lie along all that was drawn?

The arrangement could be wrong in a way that a comparison with itself does not show. So this looks
at the seams as they were drawn, and at nothing of the arrangement but where its edges lie.
"""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise
from math import atan2, hypot, pi
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.cancellation import check
from inlet.core.draft.patches import Draft
from inlet.core.geometry import Arrangement, Curve, circle_of
from inlet.core.memo import Latest
from inlet.core.project import Seam

OFF = 1e-8
"""Grid units: how far an edge may lie off the seam it is a piece of, and how long a gap may be."""

Floats = NDArray[np.float64]


_GAPS: Latest[Arrangement, tuple[tuple[Seam, ...], list[int]]] = Latest(8)
"""What was found for an arrangement and the seams drawn: painting, naming and re-sizing a block
leave both alone."""


def uncovered(draft: Draft) -> list[int]:
    """The seams, by their number, along which the borders of patches have a gap inside the block.

    Edges whose ends and middle lie on a seam cover it from one end to the other; along the seam
    they must leave nothing out.
    """
    known = _GAPS.get(draft.arrangement)
    if known is None or known[0] is not draft.block.seams:
        known = _GAPS.keep(draft.arrangement, (draft.block.seams, _uncovered(draft)))
    return known[1]


def _uncovered(draft: Draft) -> list[int]:
    arrangement = draft.arrangement
    edges = [arrangement.curve(edge) for edge in arrangement.edges]
    check()
    p = np.array([e.start.floats() for e in edges])
    check()
    q = np.array([e.end.floats() for e in edges])
    check()
    middle = np.array([_middle(e) for e in edges])
    size = tuple(float(x) for x in draft.block.grid)
    out = []
    for n, seam in enumerate(draft.block.seams):
        check()
        if _has_gap(seam.curve, (p, q, middle), (size[0], size[1])):
            out.append(n)
    return out


def _middle(curve: Curve) -> tuple[float, float]:
    """The place half way along a curve."""
    (px, py), (qx, qy) = curve.start.floats(), curve.end.floats()
    x, y = (px + qx) / 2, (py + qy) / 2
    if curve.centre is None:
        return x, y
    cx, cy = curve.centre.floats()
    k = hypot(px - cx, py - cy) / hypot(x - cx, y - cy)
    return cx + (x - cx) * k, cy + (y - cy) * k


def _has_gap(seam: Curve, edges: tuple[Floats, Floats, Floats], size: tuple[float, float]) -> bool:
    whole, along, off = _ruler(seam)
    on = np.all([off(places) <= OFF for places in edges], axis=0)
    array = np.stack([along(places[on]) for places in edges[:2]], axis=1)
    ends = np.sort(array, axis=1)
    reached = 0.0
    gaps = []
    for low, high in sorted(ends.tolist()):
        if low > reached + OFF and reached < whole - OFF:
            gaps.append((reached, min(low, whole)))
        reached = max(reached, high)
    if reached < whole - OFF:
        gaps.append((reached, whole))
    # A gap may run in and out of the block: part it where the seam meets the block's edge.
    meets = [float(at) for at in along(_on_edge(seam, size)) if 0 < at < whole]
    return any(
        _inside(seam, (a + b) / 2, size)
        for low, high in gaps
        for a, b in pairwise(sorted({low, high, *(m for m in meets if low < m < high)}))
        if b > a + OFF
    )


def _on_edge(seam: Curve, size: tuple[float, float]) -> Floats:
    """Where a seam's line or circle meets the lines of the block's four edges."""
    (px, py), (qx, qy) = seam.start.floats(), seam.end.floats()
    found: list[tuple[float, float]] = []
    for axis in (0, 1):
        p, q = ((px, py), (qx, qy)) if axis == 0 else ((py, px), (qy, qx))
        for edge in (0.0, size[axis]):
            across: list[float] = []
            if seam.centre is None:
                if p[0] != q[0]:
                    across = [p[1] + (q[1] - p[1]) * (edge - p[0]) / (q[0] - p[0])]
            else:
                c = seam.centre.floats()[::-1] if axis else seam.centre.floats()
                room = float(circle_of(seam).squared) - (edge - c[0]) ** 2
                if room > 0:
                    across = [c[1] - room**0.5, c[1] + room**0.5]
            found += [(edge, y) if axis == 0 else (y, edge) for y in across]
    return np.array(found or [(px, py)])


class _Ruler(NamedTuple):
    """A seam's length; how far along it places lie, and how far off its line or circle."""

    whole: float
    along: Callable[[Floats], Floats]
    off: Callable[[Floats], Floats]


def _ruler(seam: Curve) -> _Ruler:
    (px, py), (qx, qy) = seam.start.floats(), seam.end.floats()
    if seam.centre is None:
        length = hypot(qx - px, qy - py)
        ux, uy = (qx - px) / length, (qy - py) / length
        return _Ruler(
            length,
            lambda at: (at[:, 0] - px) * ux + (at[:, 1] - py) * uy,
            lambda at: np.abs((at[:, 0] - px) * uy - (at[:, 1] - py) * ux),
        )
    cx, cy = seam.centre.floats()
    r = float(circle_of(seam).squared) ** 0.5
    begin = atan2(py - cy, px - cx)
    sign = 1.0 if seam.clockwise else -1.0

    def along(at: Floats) -> Floats:
        turn = sign * (np.arctan2(at[:, 1] - cy, at[:, 0] - cx) - begin)
        return np.asarray(r * (np.mod(turn + pi / 2, 2 * pi) - pi / 2))

    end = along(np.array([[qx, qy]]))[0]
    return _Ruler(
        float(end),
        along,
        lambda at: np.abs(np.hypot(at[:, 0] - cx, at[:, 1] - cy) - r),
    )


def _inside(seam: Curve, at: float, size: tuple[float, float]) -> bool:
    """Is the place so far along a seam well inside the block?"""
    x, y = place_along(seam, at)
    return OFF < x < size[0] - OFF and OFF < y < size[1] - OFF


def place_along(seam: Curve, at: float) -> tuple[float, float]:
    """The place a length along a seam from its start."""
    (px, py), (qx, qy) = seam.start.floats(), seam.end.floats()
    if seam.centre is None:
        k = at / hypot(qx - px, qy - py)
        return px + (qx - px) * k, py + (qy - py) * k
    cx, cy = seam.centre.floats()
    turn = (1 if seam.clockwise else -1) * at / float(circle_of(seam).squared) ** 0.5
    c, s = np.cos(turn), np.sin(turn)
    return (
        float(cx + c * (px - cx) - s * (py - cy)),
        float(cy + s * (px - cx) + c * (py - cy)),
    )
