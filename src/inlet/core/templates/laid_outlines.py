"""Templates as they lie on the fabric: their cut lines inside the places laid out for them."""

from __future__ import annotations

from inlet.core.cutlist import Cut
from inlet.core.geometry import Outline
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
    sides = cutting_sides(sewing_sides(Outline(cut.outline)), float(measure.seam))
    corners = [side.start for side in sides]
    xs, ys = zip(*corners, strict=True)
    if max(ys) - min(ys) > max(xs) - min(xs):  # a quarter turn: x to y, y to -x
        corners = [(-y, x) for x, y in corners]
        xs, ys = zip(*corners, strict=True)
    return (tuple((x - min(xs), y - min(ys)) for x, y in corners),)


def in_box(corners: Corners, width: float, height: float, turned: bool) -> Corners:
    """The same in a box on screen: along its width where the place is ``turned``, else upright, a
    quarter turn on (never mirrored, whichever hand the picture is for)."""
    return corners if turned else tuple((y, height - x) for x, y in corners)
