"""The proof of a plan: sew it from its cut pieces, exactly, and compare with the draft."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from inlet.core.assembly import Faces, Join, all_joins, faces_of, goes_on, shared_edges
from inlet.core.cancellation import check
from inlet.core.draft import Draft, uncovered
from inlet.core.geometry import at_origin, same_picture
from inlet.core.methods import Sewn, made_unit, sew_up
from inlet.core.numbers import Exact
from inlet.core.planning import UnitPlan
from inlet.core.units import Part


def resewn(draft: Draft, root: Part, units: Sequence[UnitPlan], seam: Exact) -> bool:
    """Does the plan give the draft? Each unit is made by its method in use from its exact pieces,
    turned as the block has it, and sewn to its neighbours edge to edge; the block that results
    must be the draft, patch for patch and fabric for fabric, and the draft's borders must lie along
    every seam that was drawn. Every seam must run along all that the two parts it joins share."""
    made: dict[frozenset[int], Sewn] = {}
    for plan in units:
        check()
        sewn = made_unit(plan.in_use.method, plan.unit, seam)
        if sewn is None:
            return False
        for place in plan.unit.places:
            turn = place.motion.turn_only()
            made[place.part.faces] = (turn.polygon(sewn[0]), turn.picture(sewn[1]))
    return resewn_of(draft, root, made)


def resewn_of(draft: Draft, root: Part, made: Mapping[Faces, Sewn]) -> bool:
    """Do the joins of a block give the draft, as for ``resewn``, sewn of parts that are ``made``
    already, by their patches?"""
    if not _holds(draft, root):
        return False
    whole = sew_up(root, lambda part: made.get(part.faces))
    if whole is None:
        return False
    check()
    drawn = tuple((patch.polygon, patch.fabric) for patch in draft.patches)
    made_whole = at_origin(whole[1])
    check()
    return same_picture(made_whole, at_origin(drawn)) and not uncovered(draft)


def _holds(draft: Draft, root: Part) -> bool:
    """Can the joins of a block be sewn as they say, one after the other, to make all of it?

    - Each joins two parts that share no patch, along all that they share, without a break: so raw
      edges that meet are equal, and dots and ends lie on both.
    - Where it turns a corner it says so, or goes on there into a seam that was left open for it.
    - Whatever is left open is finished, once.
    """
    waiting: dict[tuple[int, int], int] = {}  # (join left open, vertex) -> finished by
    for join in all_joins(root.side):
        check()
        one, other = map(faces_of, join.sides)
        if one & other or join.faces != one | other or not _along_all(draft, join):
            return False
        bent = len({draft.arrangement.edges[k].line for k in join.edges}) > 1
        inner = range(1, len(join.edges)) if bent else ()
        if not all(_turns_as_said(draft, join, i, waiting) for i in inner):
            return False
        for end in join.left_open:
            if end.vertex not in join.ends or end.finished_by <= join.number:
                return False
            waiting[join.number, end.vertex] = end.finished_by
    return not waiting and faces_of(root.side) == frozenset(range(len(draft.patches)))


def _turns_as_said(draft: Draft, join: Join, i: int, waiting: dict[tuple[int, int], int]) -> bool:
    """Does a join go straight over its i-th vertex, or else turn there and say so, or go on into a
    seam that was left open there for it? That one waits no more."""
    v, pair = join.vertices[i], join.edges[i - 1 : i + 1]
    if goes_on(draft, v, pair[0], pair[1]) or v in join.pivots:
        return True
    opened = [finish.join for finish in join.finishes if finish.vertex == v]
    if len(opened) != 1 or waiting.pop((opened[0].number, v), None) != join.number:
        return False
    # A seam that closes on itself has both its ends there.
    ends_there = [opened[0].edges[k] for k in (0, -1) if opened[0].vertices[k] == v]
    return any(goes_on(draft, v, end, edge) for end in ends_there for edge in pair)


def _along_all(draft: Draft, join: Join) -> bool:
    """Does a join run along every edge that its two sides share, each from where the last ended?"""
    arrangement = draft.arrangement
    shared = shared_edges(draft, *map(faces_of, join.sides))
    steps = zip(join.edges, join.vertices, join.vertices[1:], strict=False)
    chained = all(arrangement.edges[k][:2] in ((v, w), (w, v)) for k, v, w in steps)
    return chained and shared == sorted(join.edges)
