"""Advice on pressing: the thickest junction and what would flatten it; what a pin costs."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from inlet.core.draft import Draft, draft, fits, turned, turner
from inlet.core.pressing.find import find_pressing
from inlet.core.pressing.holding import Pinned
from inlet.core.pressing.junctions import Junction
from inlet.core.pressing.outcomes import OPEN
from inlet.core.pressing.pressing_plan import Met, PressingPlan, cost_if, met
from inlet.core.pressing.reasons import points_text
from inlet.core.project import Block, BlockPressing, Project, replace
from inlet.core.units import break_down

QUARTER = (1, False)


AGAIN = 20_000
"""How much work goes into another pressing of the block, see ``solve``."""


class PressingAdvice(NamedTuple):
    """A sentence, the vertex it is about, and the pressing to take for it, if it can be taken."""

    text: str
    vertex: int | None = None
    take: Pinned | None = None
    drop: int | None = None
    """The pin to let go of, by its place among the block's."""
    two: bool = False
    """Are two versions to be allowed?"""


def pressing_advice(plan: PressingPlan, project: Project) -> list[PressingAdvice]:
    """What an expert would look at: the thickest junction first, then pins, then the edges."""
    advice = []
    thickest = plan.thickest()
    if thickest is not None and thickest.layers > plan.block.weights["foot"]:
        advice += _flatter(plan, project, thickest)
    advice += _pins(plan, project)
    advice += _edges(plan, project)
    return advice


def _flatter(plan: PressingPlan, project: Project, thick: Met) -> list[PressingAdvice]:
    junction = thick.junction
    flatter = []
    if junction.spin is not None and thick.state != "whirled":
        flatter.append((Pinned(-1, None, junction.vertex, 1), "Spun"))
    last = max(junction.seats, key=lambda seat: seat.join.number)
    span, _ = plan.seams.of[last.join.number, last.arms[0].place]
    if plan.versions[0][span] is not None:
        flatter.append((Pinned(-1, span, None, OPEN), "With its last seam open"))
    advice = []
    for wish, words in flatter:
        layers = _layers_if(plan, wish, junction)
        cost = cost_if(plan, wish)
        if layers is None or layers >= thick.layers:
            continue
        more = cost - plan.cost
        price = f"for {points_text(more)}" if more > 0 else "for nothing more"
        text = f"{words}, {layers} layers would lie there, {price}."
        advice.append(PressingAdvice(text, junction.vertex, wish))
    other = _other_order(plan, project, junction)
    if other is not None and other < thick.layers:
        text = f"Sewn the other way (columns for rows), {other} layers would lie there."
        advice.append(PressingAdvice(text, junction.vertex))
    head = f"Most layers meet at one junction: {thick.layers}."
    if not advice:
        head += " Nothing flatter was found: clip and press it well."
    return [PressingAdvice(head, junction.vertex), *advice]


def _layers_if(plan: PressingPlan, wish: Pinned, junction: Junction) -> int | None:
    """The layers at a junction with one wish granted and all else as it is."""
    best = None
    seams = plan.seams
    if wish.span is not None:
        ways = list(plan.versions[0])
        ways[wish.span] = None
        for arm in max(junction.seats, key=lambda seat: seat.join.number).arms:
            ways[seams.of[arm.join.number, arm.place][0]] = None
        return met(seams, ways, junction).layers
    assert junction.spin is not None
    for clockwise in (True, False):
        ways = list(plan.versions[0])
        for arm in (*junction.spin.ends, *junction.spin.arms):
            span, swapped = seams.of[arm.join.number, arm.place]
            ways[span] = arm.side(clockwise) ^ swapped
        layers = met(seams, ways, junction).layers
        best = layers if best is None else min(best, layers)
    return best


def _other_order(plan: PressingPlan, project: Project, junction: Junction) -> int | None:
    """The layers at a junction when the block is sewn as its turned picture would be."""
    block = plan.seams.draft.block
    if not fits(QUARTER, block):
        return None
    other_draft: Draft = draft(turned(block, QUARTER))
    pressing = find_pressing(project, other_draft, break_down(other_draft), (), AGAIN)
    if pressing is None:
        return None
    move: Callable = turner(QUARTER, *block.finished)  # type: ignore[type-arg]
    at = move(junction.at)
    return next((m.layers for m in pressing.junctions if m.junction.at == at), None)


def _pins(plan: PressingPlan, project: Project) -> list[PressingAdvice]:
    """What each pin costs, the dearest first; pins that contradict others."""
    block = plan.seams.draft.block
    wishes = block.pressing or BlockPressing()
    pins: list[tuple[int, PressingAdvice]] = []
    for pin in plan.pins:
        if not pin.kept:
            text = "A pin cannot be kept: equal parts press alike, and another pin says otherwise."
            pins.append((10**9, PressingAdvice(text, drop=pin.number)))
            continue
        rest = tuple(p for i, p in enumerate(wishes.pins) if i != pin.number)
        free = _pressed_again(plan, project, replace(block, pressing=replace(wishes, pins=rest)))
        if free is not None and free.cost < plan.cost:
            text = f"Pin {pin.number + 1} costs {points_text(plan.cost - free.cost)}: clear it."
            pins.append((plan.cost - free.cost, PressingAdvice(text, drop=pin.number)))
    return [advice for _, advice in sorted(pins, key=lambda each: -each[0])[:5]]


def _pressed_again(plan: PressingPlan, project: Project, block: Block) -> PressingPlan | None:
    drawn = plan.seams.draft._replace(block=block)
    return find_pressing(project, drawn, plan.root, (), AGAIN)


def _edges(plan: PressingPlan, project: Project) -> list[PressingAdvice]:
    """What to do where the edges do not nest with the neighbours."""
    bad = [at_edge for at_edge in plan.edges if at_edge.state not in ("tee", "nests")]
    if not bad:
        return []
    number = "One seam" if len(bad) == 1 else f"{len(bad)} seams"
    edges = [PressingAdvice(f"{number} at the edge will not nest with the next block's.")]
    block = plan.seams.draft.block
    wishes = block.pressing or BlockPressing()
    if wishes.versions == 1:
        two = replace(block, pressing=replace(wishes, versions=2))
        pressing = _pressed_again(plan, project, two)
        if pressing is not None and len(pressing.versions) > 1 and pressing.nests_beside:
            counts = " and ".join(f"{n} of version {v}" for v, n in enumerate(pressing.of_each, 1))
            edges.append(
                PressingAdvice(f"With two versions all of them nest: {counts}, by turns.", two=True)
            )
    edges.append(
        PressingAdvice(
            "Else leave the last seams until the neighbours are known, or press them open."
        )
    )
    return edges
