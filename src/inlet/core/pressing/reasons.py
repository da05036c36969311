"""Why a seam goes the way it does, in one sentence: what it saves against the other way."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import NamedTuple

import numpy as np

from inlet.core.assembly import faces_of
from inlet.core.pressing.costs import (
    TO_DARK,
    folded_back,
    shadow,
    share_of_seam,
    waiting_side,
)
from inlet.core.pressing.junctions import Junction
from inlet.core.pressing.outcomes import outcome
from inlet.core.pressing.pressing_plan import PressingPlan, value_of
from inlet.core.pressing.spans import Span, Toward
from inlet.core.project import Project
from inlet.core.words import fabric_name


class Saved(NamedTuple):
    """What a way saves against another, in thousandths of a point, and why."""

    points: int
    why: str


def reason(plan: PressingPlan, span: int, project: Project) -> str:
    """Why a span is pressed as it is, in one sentence."""
    way = plan.versions[0][span]
    if any(pin.span == span and pin.kept for pin in plan.pins):
        return "You pinned it so."
    spun = _spun_at(plan, span)
    if spun is not None:
        return (
            f"The centre is spun: all its seams turn the same way round, {spun} layers lie "
            "there, and the stitches in the allowance are undone."
        )
    key = plan.seams.spans[span].join.number, way
    if key not in plan.known_reasons or len(plan.seams.spans[span].join.legs) > 1:
        saved = _saved_open(plan, span) if way is None else _saved(plan, span, way, project)
        plan.known_reasons[key] = max(saved, default=_LAST, key=lambda s: s.points).why
    return plan.known_reasons[key]


_FEWER = "Fewer layers lie where it meets other seams."
_LAST = Saved(0, "Either way is as good; equal parts are pressed alike.")


def flip_text(plan: PressingPlan, cost: int) -> str:
    """What a flip costs, told before it is made."""
    return f"{points_text(cost - plan.cost)} more" if cost > plan.cost else "costs nothing more"


def points_text(cost: int) -> str:
    """A cost in points: thousandths shown where they matter."""
    points = cost / 1000
    if cost and abs(points) < 0.1:
        return "less than 0.1 points"
    shown = f"{points:.1f}".removesuffix(".0")
    return f"{shown} point" if shown == "1" else f"{shown} points"


def side_fabrics(plan: PressingPlan, span: Span, side: int, project: Project) -> str:
    """The fabrics along one side of a span, in words."""
    fabrics = _names(plan, span, side, project)
    return "the fabrics there" if len(fabrics) > 2 else " and ".join(fabrics)


def _names(plan: PressingPlan, span: Span, side: int, project: Project) -> list[str]:
    edges = plan.seams.draft.arrangement.edges
    names: dict[str, None] = {}
    for join, begin, end, swapped in span.pieces:
        own_faces = faces_of(join.sides[side ^ swapped])
        for k in join.edges[begin:end]:
            for face in (edges[k].right, edges[k].left):
                if face in own_faces:
                    names[fabric_name(project, plan.seams.draft.patches[face].fabric)] = None
    return list(names)


def _saved(plan: PressingPlan, number: int, way: int, project: Project) -> Iterator[Saved]:
    """What pressing a span its way saves against the other side."""
    w, other = plan.block.weights, 1 - way
    seam = sorted(_spans_of_seam(plan, number))
    span = plan.seams.spans[number]
    fabric = side_fabrics(plan, span, way, project)
    if waiting_side(span) is not None:
        yield Saved(
            w["against"] if waiting_side(span) == way else -w["against"],
            "A partial seam lies away from the piece that is sewn across its open end.",
        )
    saved = back = inward = 0
    darker = 0.0
    through: dict[str, None] = {}  # fabrics the other way, where something would show
    for n in seam:
        each = plan.seams.spans[n]
        share, folds = share_of_seam(each), folded_back(plan.seams, each)
        shades = [shadow(plan.block, each, side) for side in (way, other)]
        saved += round(share * w["shadow"] * (shades[1][0] - shades[0][0]))
        if shades[1][0] > shades[0][0]:
            under = _names(plan, each, way, project)
            through |= dict.fromkeys(
                n for n in _names(plan, each, other, project) if n not in under
            )
        darker += share * shades[0][1]
        back += folds[other] - folds[way]
        inward += round(share * w["inward"] * plan.block.firm) * (plan.block.outward.get(n) == way)
    if saved:
        light = " and ".join(through) if 0 < len(through) < 3 else "the fabrics there"
        yield Saved(saved, f"To the dark: it would show through {light}, not through {fabric}.")
    away = "Away from the point where seams meet" if _point_on(plan, seam, other) else ""
    if back:
        why = away or "Into the side with fewer seams"
        yield Saved(w["folded-back"] * back // 2, f"{why}: less is folded back on itself.")
    yield Saved(inward, "Away from the centre, where there is room.")
    nests, layers = _at_ends(plan, number, other)
    if nests[0]:
        at = "one junction" if nests[1] == 1 else f"{nests[1]} junctions"
        yield Saved(nests[0], f"It nests with the seams it meets, at {at}.")
    if layers:
        yield Saved(layers, f"{away}: fewer layers lie there." if away else _FEWER)
    yield Saved(round(TO_DARK * darker), f"To the darker side, {fabric}.")
    beside = _neighbours(plan, number)
    if beside:
        yield Saved(beside, "It nests with the block beside it.")
    yield Saved(1, "The other way from the row beside it, or as its equals are pressed.")


def _saved_open(plan: PressingPlan, number: int) -> Iterator[Saved]:
    """Why a span is open: what the better of its sides would cost more."""
    w = plan.block.weights
    if w["closed"] > w["open"]:
        yield Saved(10**9, "Open, as this pressing method has every seam.")
    for side in (0, 1):
        nests, layers = _at_ends(plan, number, side)
        if layers > 0:
            yield Saved(layers, "Open, since it lies flatter where many seams meet.")
        if nests[0] > 0:
            yield Saved(nests[0], "Open, since to a side it would stack on the seams it meets.")
    yield Saved(1, "Open, since to either side it would show through or lie in a lump.")


def _at_ends(plan: PressingPlan, span: int, way: Toward) -> tuple[tuple[int, int], int]:
    """What pressing a span another way would cost more at its junctions, the others as they are:
    for nesting, and at how many of them; and for layers."""
    w = plan.block.weights
    now = list(plan.versions[0])
    seam = _spans_of_seam(plan, span)
    then = list(now)
    for s in seam:
        then[s] = None if way is None else way
    nesting = places = layers = 0
    near = {j.vertex: j for s in seam for j in plan.touching.get(s, ())}
    for junction in near.values():
        costs = [_costs(plan, junction, ways) for ways in (now, then)]
        gained = costs[1][0] - costs[0][0]
        nesting += gained
        places += gained > 0
        layers += w["layer"] * (max(0, costs[1][1] - w["foot"]) - max(0, costs[0][1] - w["foot"]))
    return (max(nesting, 0), places), max(layers, 0)


def _costs(plan: PressingPlan, junction: Junction, ways: Sequence[Toward]) -> tuple[int, int]:
    """What the crossings at a junction cost, and its layers."""
    w = plan.block.weights
    costs = tuple(value_of(plan.seams, ways, arm) for arm in junction.arms)
    key = (junction.vertex, *costs)
    if key not in plan.known_outcomes:
        came = outcome(junction, np.array([costs]))
        cost = w["stacked"] * came.stacked + w["half-open"] * came.half_open
        cost = cost + w["both-open"] * came.both_open
        plan.known_outcomes[key] = int(cost[0]), int(came.layers[0])
    return plan.known_outcomes[key]


def _point_on(plan: PressingPlan, seam: Iterable[int], side: int) -> bool:
    """Do two earlier seams or more end at one point inside a seam, on that side of it?"""
    for s in seam:
        for join, begin, end, swapped in plan.seams.spans[s].pieces:
            own_faces = faces_of(join.sides[side ^ swapped])
            for vertex in join.vertices[begin + 1 : end]:
                arms = plan.seams.at[vertex].arms if vertex in plan.seams.at else ()
                if sum(a.join.number < join.number and a.join.faces <= own_faces for a in arms) > 1:
                    return True
    return False


def _spans_of_seam(plan: PressingPlan, span: int) -> set[int]:
    """A span, and those of the same seam that go the same way."""
    now, own_span = plan.versions[0], plan.seams.spans[span]
    spans = {stretch.span for stretch in plan.of_join[own_span.join.number]}
    return {s for s in spans if now[s] == now[span]}


def _neighbours(plan: PressingPlan, span: int) -> int:
    at_edges = [
        at_edge
        for at_edge in plan.edges
        if plan.seams.of[at_edge.end.arm.join.number, at_edge.end.arm.place][0] == span
    ]
    return plan.block.weights["stacked"] if any(e.state == "nests" for e in at_edges) else 0


def _spun_at(plan: PressingPlan, span: int) -> int | None:
    """How many layers lie at a whirled centre that a span ends at."""
    for junction in plan.touching.get(span, ()):
        if junction.vertex in plan.spun and junction.spin is not None:
            for arm in junction.spin.arms:
                if plan.seams.of[arm.join.number, arm.place][0] == span:
                    return plan.at_vertex(junction.vertex).layers
    return None
