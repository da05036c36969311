"""Other ways to make a block: each is the project with one thing changed, ready to be planned."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.assembly import part_shape
from inlet.core.draft import Draft, erase_pieces
from inlet.core.geometry import Polygon, is_convex
from inlet.core.numbers import Fraction
from inlet.core.plan import PreparedBlock
from inlet.core.planning import UnitPlan, method_words, with_choice
from inlet.core.project import Block, Project, replace
from inlet.core.words import length_text, measured_text

MOST_METHODS = 8
"""Other methods that are tried, of all units together."""


class Variant(NamedTuple):
    """What is changed, as an advice (``Trim unit A to size``), and the block and project then."""

    advice: str
    project: Project
    block: Block


def variants(block: PreparedBlock) -> Iterator[Variant]:
    """Everything that may help: trimming, other methods, pieces of one fabric cut as one, a size
    at which every cut lands on the ruler's marks, a larger allowance."""
    yield from _trimmed(block)
    yield from _by_other_methods(block)
    yield from _as_one(block)
    yield from _at_other_sizes(block)
    yield from _with_more_allowance(block)


def _with_block(project: Project, old: Block, new: Block) -> Project:
    return replace(project, blocks=tuple(new if b is old else b for b in project.blocks))


def _trimmed(block: PreparedBlock) -> Iterator[Variant]:
    """Each kind of unit that could be trimmed cut larger; all of them where there are several."""
    plans = [
        plan for plan in block.units
        if plan.in_use.trim_to is None and plan.in_use.method.trims and plan.is_sewn
    ]  # fmt: skip
    if len(plans) > 1:
        measure = replace(block.measure, style="trim")
        project = replace(block.project, measure=measure)
        yield Variant("Cut all units larger and trim them to size", project, block.block)
    for plan in plans:
        new = _chosen(block, plan, style="trim")
        if new is not None:
            advice = f"Cut unit {plan.unit.label} larger and trim it to size"
            yield Variant(advice, _with_block(block.project, block.block, new), new)


def _by_other_methods(block: PreparedBlock) -> Iterator[Variant]:
    number = 0
    for plan in block.units:
        for method in plan.known_methods():
            if method.name == plan.in_use.name or number == MOST_METHODS:
                continue
            new = _chosen(block, plan, method=method.name)
            if new is not None:
                number += 1
                advice = f"Make unit {plan.unit.label} another way: {method_words(method.name)}"
                yield Variant(advice, _with_block(block.project, block.block, new), new)


def _chosen(block: PreparedBlock, plan: UnitPlan, **changes: str) -> Block | None:
    units = [each.unit for each in block.units]
    try:
        return with_choice(block.draft, units, plan.unit, plan.choice, **changes)
    except ValueError:
        return None


def _as_one(block: PreparedBlock) -> Iterator[Variant]:
    """Pieces of one fabric beside each other whose outline together is as simple, as one piece."""
    edges = list(_between_alike(block.draft))
    if not edges:
        return
    arrangement = block.draft.arrangement
    new = erase_pieces(block.block, [arrangement.curve(arrangement.edges[k]) for k in edges])
    number = "a seam" if len(edges) == 1 else f"{len(edges)} seams"
    yield Variant(
        f"Cut pieces of the same fabric that lie side by side as one: {number} fewer",
        _with_block(block.project, block.block, new), new,
    )  # fmt: skip


def _between_alike(draft: Draft) -> Iterator[int]:
    """Whole seams between two pieces of one fabric, each piece in one pair at the most, where both
    together are convex."""
    arrangement, patches = draft.arrangement, draft.patches
    used: set[int] = set()
    for k, edge in enumerate(arrangement.edges):
        pair = (edge.right, edge.left)
        if min(pair) < 0 or used & set(pair) or pair[0] == pair[1]:
            continue
        patch, beside = (patches[face] for face in pair)
        if patch.fabric is None or patch.fabric != beside.fabric or patch.arcs or beside.arcs:
            continue
        if patch.holes or beside.holes:
            continue
        shared = [
            i for i in arrangement.edges_of[pair[0]] if set(arrangement.edges[i][3:]) == set(pair)
        ]
        outline = _outline_of_both(draft, pair)
        if shared == [k] and outline is not None and is_convex(outline):
            used.update(pair)
            yield k


def _outline_of_both(draft: Draft, pair: tuple[int, int]) -> Polygon | None:
    return part_shape(draft, frozenset(pair)).corners or None


def _at_other_sizes(block: PreparedBlock) -> Iterator[Variant]:
    sizes = block.ruler_friendly
    if sizes.on_marks:
        return
    for size in (sizes.smaller, sizes.larger):
        if size is not None:
            new = replace(block.block, finished=size)
            size_text = measured_text(size, block.measure) if size[0] != size[1] else length_text(
                size[0], block.measure)  # fmt: skip
            yield Variant(
                f"Draw the block {size_text} finished, where every cut lands on a mark",
                _with_block(block.project, block.block, new), new,
            )  # fmt: skip


def _with_more_allowance(block: PreparedBlock) -> Iterator[Variant]:
    """Half as much again: other cut sizes may lie nearer to the ruler's marks."""
    seam = block.measure.seam * Fraction(3, 2)
    measure = replace(block.measure, seam=seam)
    seam_text = length_text(seam, measure)
    yield Variant(
        f"Take a seam allowance of {seam_text}",
        replace(block.project, measure=measure),
        block.block,
    )
