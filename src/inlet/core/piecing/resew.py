"""The proof of a plan: sew it from its cut pieces, exactly, and compare with the draft."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.assembly.net import Faces, goes_on
from inlet.core.assembly.sewing import Sewing
from inlet.core.draft.borders import uncovered
from inlet.core.draft.patches import Draft
from inlet.core.geometry.located import same_picture
from inlet.core.geometry.motion import at_origin
from inlet.core.methods.proof import Sewn, made_unit, sew_up
from inlet.core.numbers.root2 import Exact
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.stopping import check
from inlet.core.units.parts import Part, walk


def resewn(draft: Draft, root: Part, units: Sequence[UnitPlan], seam: Exact) -> bool:
    """Does the plan give the draft? Each unit is made by its method in use from its exact pieces,
    turned as the block has it, and sewn to its neighbours edge to edge; the block that results
    must be the draft, patch for patch and cloth for cloth, and the draft's borders must lie along
    every seam that was drawn. Seams that turn corners, stop short or
    are curved must run along all that the two parts they join share."""
    if not all(_sewings_hold(draft, part) for part in walk(root)):
        return False
    made: dict[frozenset[int], Sewn] = {}
    for plan in units:
        check()
        sewn = made_unit(plan.method.method, plan.unit, seam)
        if sewn is None:
            return False
        for place in plan.unit.places:
            turn = place.motion.turn_only()
            made[place.part.faces] = (turn.polygon(sewn[0]), turn.picture(sewn[1]))
    whole = sew_up(root, lambda part: made.get(part.faces))
    if whole is None:
        return False
    check()
    drawn = tuple((patch.drawn, patch.fabric) for patch in draft.patches)
    made_whole = at_origin(whole[1])
    check()
    return same_picture(made_whole, at_origin(drawn)) and not uncovered(draft)


def _sewings_hold(draft: Draft, part: Part) -> bool:
    """Can a part's sewings be sewn as they say, one after the other?

    - Each runs, without a break, along all that its two parts share: so raw edges that meet are
      equal, and dots and ends lie on both.
    - Where it turns a corner it says so, or goes on there into a seam that was left open for it.
    - Whatever is left open is finished, once.
    """
    if not part.sewings:
        return True
    made = [inner.faces for inner in part.parts]
    waiting: dict[tuple[int, int], int] = {}  # (sewing, vertex) -> finished by
    for number, sewing in enumerate(part.sewings):
        check()
        one, other = (made[k] for k in sewing.parts)
        if one & other or not _along_all(draft, sewing, one, other):
            return False
        for i in range(1, len(sewing.edges)):
            v, pair = sewing.vertices[i], sewing.edges[i - 1 : i + 1]
            if goes_on(draft, v, pair[0], pair[1]) or v in sewing.pivots:
                continue
            opened = [f.sewing for f in sewing.finishes if f.vertex == v]
            if len(opened) != 1 or waiting.pop((opened[0], v), None) != number:
                return False
            first = part.sewings[opened[0]]
            # A seam that closes on itself has both its ends there.
            ends_there = [first.edges[k] for k in (0, -1) if first.vertices[k] == v]
            if not any(goes_on(draft, v, end, edge) for end in ends_there for edge in pair):
                return False
        ends = sewing.vertices[0], sewing.vertices[-1]
        for finish in sewing.left_open:
            if finish.vertex not in ends or finish.sewing <= number:
                return False
            waiting[number, finish.vertex] = finish.sewing
        made.append(one | other)
    return not waiting and made[-1] == part.faces


def _along_all(draft: Draft, sewing: Sewing, one: Faces, other: Faces) -> bool:
    """Does a seam run along every edge that two parts share, each from where the last ended?"""
    arrangement = draft.arrangement
    shared = {
        k
        for face in one
        for k in arrangement.edges_of[face]
        if arrangement.edges[k].right in other or arrangement.edges[k].left in other
    }
    steps = zip(sewing.edges, sewing.vertices, sewing.vertices[1:], strict=False)
    chained = all(
        {arrangement.edges[k].start, arrangement.edges[k].end} == {v, w} for k, v, w in steps
    )
    return chained and shared == set(sewing.edges) and len(shared) == len(sewing.edges)
