"""The proof of a plan: sew it from its cut pieces, exactly, and compare with the draft."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.draft.patches import Draft
from inlet.core.geometry.motion import Picture, canonical
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import moved
from inlet.core.numbers import Exact
from inlet.core.units.breakdown import Part
from inlet.core.units.chosen import UnitPlan
from inlet.core.units.proof import Sewn, made_unit, sew_up


def resewn(draft: Draft, root: Part, units: Sequence[UnitPlan], seam: Exact) -> bool:
    """Does the plan give the draft? Each unit is made by its method in use from its exact pieces,
    turned as the block has it, and sewn to its neighbours edge to edge; the block that results
    must be the draft, patch for patch and cloth for cloth."""
    made: dict[frozenset[int], Sewn] = {}
    for plan in units:
        sewn = made_unit(plan.method.way, plan.unit, seam)
        if sewn is None:
            return False
        for place in plan.unit.places:
            turn = place.motion.turn_only()
            made[place.part.faces] = (turn.polygon(sewn[0]), turn.picture(sewn[1]))
    whole = sew_up(root, lambda part: made.get(part.faces))
    if whole is None:
        return False
    drawn = tuple((patch.outline, patch.fabric) for patch in draft.patches)
    return canonical(_at_corner(whole[1])) == canonical(_at_corner(drawn))


def _at_corner(picture: Picture) -> Picture:
    """The picture moved so that its box begins at (0, 0)."""
    points = [p for outline, _ in picture for p in outline]
    by = Point(-min(p.x for p in points), -min(p.y for p in points))
    return tuple((moved(outline, by), tag) for outline, tag in picture)
