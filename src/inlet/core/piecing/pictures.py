"""What a step looks like on the table: parts laid out, and sewn, raw edges and all."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction

from inlet.core.draft.patches import Draft
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Polygon
from inlet.core.numbers import Exact, root_up
from inlet.core.piecing.steps import Step
from inlet.core.units.breakdown import Part
from inlet.core.units.sheets import Sheet, raw_cell
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
    """A part sewn, as it lies in the block, raw edges included; arcs in chords. Where several seams
    end at one point of the edge, patches may overlap beyond it, as their allowances do."""
    patches = [draft.patches[face] for face in sorted(part.faces)]
    return raw_cell([(patch.drawn, patch.fabric) for patch in patches], part.outline, seam)


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
