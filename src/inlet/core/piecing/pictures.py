"""What a step looks like on the table: parts laid out, and sewn, raw edges and all."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction

from inlet.core.draft.patches import Draft
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Polygon, edges, line_through, offset
from inlet.core.numbers import Exact, root_up
from inlet.core.piecing.steps import Step
from inlet.core.units.breakdown import Part
from inlet.core.units.sheets import Sheet, kept
from inlet.core.units.way import Move


def step_moves(draft: Draft, step: Step, seam: Exact) -> tuple[Move, ...]:
    """The step's pictures: a unit's moves, or the parts laid out and then sewn together."""
    if step.unit is not None:
        return step.unit.method.moves
    part = step.part
    sheets = [raw_sheet(draft, p, seam) for p in part.parts]
    return (
        Move("lay", "Lay out", _spread(sheets, part, seam)),
        Move("open", "Sewn", raw_sheet(draft, part, seam)),
    )


def raw_sheet(draft: Draft, part: Part, seam: Exact) -> Sheet:
    """A part sewn, as it lies in the block, raw edges included: each patch reaches ``seam`` beyond
    the part's outline where it lies at it, and to its seams elsewhere. Where several seams end at
    one point of the edge, patches may overlap beyond it, as their allowances do."""

    if not part.parts:
        patch = draft.patches[part.face]
        return ((offset(patch.outline, seam), patch.fabric),)
    out: list[tuple[Polygon, str | None]] = []
    lines = [line_through(p, q) for p, q in edges(part.outline)]
    raw_lines = [line.shifted(-seam) for line in lines]
    for face in sorted(part.faces):
        patch = draft.patches[face]
        grown: Sheet = ((offset(patch.outline, seam), patch.fabric),)
        for p, q in edges(patch.outline):
            on_edge = any(line.side(p) == 0 == line.side(q) for line in lines)
            if not on_edge:
                grown = kept(grown, line_through(p, q))
        out += kept(grown, *raw_lines)
    return tuple(out)


def _spread(sheets: Sequence[Sheet], part: Part, seam: Exact) -> Sheet:
    """Parts in their order with a gap between them, along ``part.across``."""
    assert part.across is not None
    length = root_up(part.across.x * part.across.x + part.across.y * part.across.y)
    gap = 4 * seam
    step = Point(part.across.x / length * gap, part.across.y / length * gap)
    out: list[tuple[Polygon, str | None]] = []
    for i, sheet in enumerate(sheets):
        by = step.scaled(Fraction(i), Fraction(i))
        out += [(tuple(p.plus(by) for p in outline), fabric) for outline, fabric in sheet]
    return tuple(out)
