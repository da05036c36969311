"""The proof of a plan: sew it from its cut pieces, exactly, and compare with the draft."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.draft.patches import Draft
from inlet.core.geometry.motion import at_origin, canonical
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
    return canonical(at_origin(whole[1])) == canonical(at_origin(drawn))
