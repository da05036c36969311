"""How the pieces of a print with a direction stand: how many of each stack are cut along it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence

from inlet.core.cutlist.cuts import Cut, Stacks
from inlet.core.draft import Draft
from inlet.core.geometry import bounds, is_rectangle
from inlet.core.planning import UnitPlan
from inlet.core.project import Project

Standing = Mapping[str, int]
"""By the label of a stack: how many of its pieces stand with their long side along the print,
which runs up the block as it runs along the fabric."""


def standing(
    drawn: Draft, units: Sequence[UnitPlan], stacks: Stacks, project: Project, copies: int
) -> Standing:
    """The rectangles of prints with a direction that stand upright in the block, counted in its
    drawing. Only pieces sewn patch to patch keep how they were cut; of others it is not told."""
    directed = {fabric.id for fabric in project.fabrics if fabric.direction}
    counts: Counter[str] = Counter()
    if not directed:
        return counts
    seam = project.measure.seam
    for plan in units:
        if not plan.in_use.method.by_patches:
            continue
        labels = dict(
            zip(
                ((p.piece.fabric, p.piece.exact) for p in plan.in_use.pieces),
                stacks[plan.unit.label],
                strict=True,
            )
        )
        for place in plan.unit.places:
            for face in place.part.faces:
                patch = drawn.patches[face]
                if patch.fabric not in directed or not is_rectangle(patch.outline):
                    continue
                left, top, right, bottom = bounds(patch.outline)
                wide, high = right - left + 2 * seam, bottom - top + 2 * seam
                label = labels.get((patch.fabric, (min(wide, high), max(wide, high))))
                if label and high > wide:
                    counts[label] += copies
    return counts


def turned_prints(cuts: Sequence[Cut], project: Project) -> dict[str, tuple[str, ...]]:
    """By a print with a direction: the units it cannot be kept upright in, as their pieces are cut
    apart and turned, or sewn into sets first."""
    directed = {fabric.id for fabric in project.fabrics if fabric.direction}
    prints: dict[str, dict[str, None]] = {}
    for cut in cuts:
        if cut.fabric in directed and (
            cut.crosscut != "none" or cut.shape in ("strip", "template")
        ):
            prints.setdefault(cut.fabric, {}).update(dict.fromkeys(cut.labels))
    return {fabric: tuple(labels) for fabric, labels in prints.items()}
