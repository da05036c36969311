"""Templates as they lie on the fabric: their cut lines inside the places laid out for them."""

from __future__ import annotations

from itertools import pairwise

from inlet.core.cutlist import Cut
from inlet.core.geometry import Outline, bounds
from inlet.core.project import Measure
from inlet.core.templates.angles import angled
from inlet.core.templates.cut_line import Place, cutting_sides, sewing_sides

Corners = tuple[Place, ...]


def laid_outlines(cut: Cut, holds: int, measure: Measure) -> tuple[Corners, ...]:
    """The cut lines of a stack's templates, right side up in a place that ``holds`` so many: one
    with its box's long side along x, or several head to tail along x. From (0, 0) on, y down."""
    if not cut.outline:
        return ()
    if holds > 1:
        angled_cut = angled(cut.outline, measure)
        return tuple(angled_cut.pieces(holds)) if angled_cut is not None else ()
    seam = float(measure.seam)
    sides = cutting_sides(sewing_sides(Outline(cut.outline)), seam)
    corners = [side.start for side in sides]
    xs, ys = zip(*corners, strict=True)
    reach = max(max(xs) - min(xs), max(ys) - min(ys))
    if reach > cut.cut[1] + measure.system.thread:
        left, top, right, bottom = (float(x) for x in bounds(cut.outline))
        box = left - seam, top - seam, right + seam, bottom + seam
        corners = _within(corners, box)
        xs, ys = zip(*corners, strict=True)
    if max(ys) - min(ys) > max(xs) - min(xs):  # a quarter turn: x to y, y to -x
        corners = [(-y, x) for x, y in corners]
        xs, ys = zip(*corners, strict=True)
    return (tuple((x - min(xs), y - min(ys)) for x, y in corners),)


def _within(corners: list[Place], box: tuple[float, float, float, float]) -> list[Place]:
    """What of an outline lies in a box. The chords of an arc that runs smoothly into a side make a
    long thin tip of its allowance; it is cut off where the piece's place ends."""
    for at, edge in enumerate(box):
        axis, inward = at % 2, 1 if at < 2 else -1
        kept: list[Place] = []
        for p, q in pairwise((*corners, corners[0])):
            p_in, q_in = (inward * (place[axis] - edge) for place in (p, q))
            if p_in >= 0:
                kept.append(p)
            if (p_in > 0 > q_in) or (p_in < 0 < q_in):
                k = p_in / (p_in - q_in)
                kept.append((p[0] + k * (q[0] - p[0]), p[1] + k * (q[1] - p[1])))
        corners = kept
    return corners


def in_box(corners: Corners, width: float, height: float, turned: bool) -> Corners:
    """The same in a box on screen: along its width where the place is ``turned``, else upright, a
    quarter turn on (never mirrored, whichever hand the picture is for)."""
    return corners if turned else tuple((y, height - x) for x, y in corners)
