"""A pressed block: the back with its allowances folded, the front with what shows through, the
layers; over it an arrow a seam and a mark a junction."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal

from inlet.core.cancellation import check
from inlet.core.draft import Draft, lightness
from inlet.core.figures.display import (
    Area,
    Box,
    Clip,
    Corners,
    Disc,
    FabricArea,
    Figure,
    Frame,
    Item,
    Side,
    Spot,
    Tag,
    TagLook,
    bounds_of,
)
from inlet.core.figures.marks import arrow, both_ways, junction_mark
from inlet.core.pressing import Layer, PressingPlan, Stretch, shown_through
from inlet.core.project import Project

View = Literal["back", "front", "layers"]
LAYER = 34 / 255
"""How dark a layer is."""
DARKEST = 0.34
"""How dark the darkest fabric is seen through the lightest, of 1."""
SHORTEST = 20.0
"""A seam below this length has no arrow; see ``Frame.unit``."""
SMALL_FROM = 80
"""Junctions from which their marks are smaller."""


def pressed_frame(box: Box, draft: Draft, seam: float, view: View, unit: float = 1.0) -> Frame:
    """Where a block lies in a box with its allowances round it: from the back, left and right
    change places."""
    width, height = (float(x) for x in draft.block.finished)
    bounds = -seam, -seam, width + seam, height + seam
    return Frame.fit(box, bounds, unit, width if view == "back" else None)


def pressed_figure(
    draft: Draft, layers: Iterable[Layer], project: Project, frame: Frame, view: View
) -> Figure:
    """The block itself, without marks."""
    ordered = sorted(layers, key=lambda layer: layer.depth)
    if view == "back":
        return _back(draft, ordered, frame)
    if view == "front":
        return _front(draft, ordered, project, frame)
    return _layers(draft, ordered, frame)


def _back(draft: Draft, layers: Sequence[Layer], frame: Frame) -> Figure:
    """Wrong sides; of an allowance folded back once its right side is seen."""
    back: list[Item] = [
        FabricArea(frame.outline(patch.shape), patch.fabric, "back") for patch in draft.patches
    ]
    for layer in layers:
        check()
        fabric = draft.patches[layer.patch].fabric
        side: Side = "turned" if layer.folds % 2 else "allowance"
        back.append(FabricArea(frame.corners(layer.outline), fabric, side))
    return tuple(back)


def _front(draft: Draft, layers: Sequence[Layer], project: Project, frame: Frame) -> Figure:
    """The fabrics, and darker where an allowance of a darker fabric lies under a lighter one."""
    levels = {fabric.id: lightness(fabric.colour) for fabric in project.fabrics}
    behind = [
        (corners, bounds_of([corners]), levels.get(draft.patches[layer.patch].fabric or "", 100.0))
        for layer in layers
        for corners in [frame.corners(layer.outline)]
    ]
    front: list[Item] = []
    for patch in draft.patches:
        check()
        corners = frame.outline(patch.shape)
        box, level = bounds_of([corners]), levels.get(patch.fabric or "", 0.0)
        shades = tuple(
            Area(outline, "shade", strength)
            for outline, reach, under in behind
            if (strength := DARKEST * shown_through(level, under)) and _meet(reach, box)
        )
        front.append(FabricArea(corners, patch.fabric))
        if shades:
            front.append(Clip(corners, shades))
    return tuple(front)


def _layers(draft: Draft, layers: Iterable[Layer], frame: Frame) -> Figure:
    """The more layers, the darker."""
    return (
        *(FabricArea(frame.outline(p.shape), p.fabric, "plain") for p in draft.patches),
        *(Area(frame.corners(layer.outline), "layer", LAYER) for layer in layers),
    )


def _meet(box: Box, layer: Box) -> bool:
    return (
        box[0] < layer[2] and layer[0] < box[2] and box[1] < layer[3] and layer[1] < box[3]
    )  # fmt: skip


# --- over it ------------------------------------------------------------------------------------


def arrows_figure(plan: PressingPlan, frame: Frame) -> Figure:
    """Which way each seam goes, once for as far as it goes so; two arrows apart where it is
    open."""
    arrows: list[Item] = []
    for run in _one_way(plan):
        middle = run[len(run) // 2]
        size = arrow_size(plan, middle, frame)
        if size:
            arrows += way_figure(plan, middle, frame, size)
    return tuple(arrows)


def _one_way(plan: PressingPlan) -> list[list[Stretch]]:
    """Seams as far as they go one way, from junction to junction."""
    stretches: list[list[Stretch]] = []
    for stretch in plan.stretches:
        last = stretches[-1][-1] if stretches else None
        goes_on = (
            last is not None
            and last.join is stretch.join
            and last.end == stretch.begin
            and plan.toward(last.join, last.begin) == plan.toward(stretch.join, stretch.begin)
            and stretch.join.vertices[stretch.begin] not in stretch.join.pivots
        )
        if goes_on:
            stretches[-1].append(stretch)
        else:
            stretches.append([stretch])
    return stretches


def arrow_size(plan: PressingPlan, stretch: Stretch, frame: Frame) -> float:
    """How long a seam's arrow is; 0 where the seam is too short for one."""
    (x0, y0), (x1, y1) = frame.corners(stretch.ends)
    long = abs(x0 - x1) + abs(y0 - y1)
    if long < SHORTEST * frame.unit:
        return 0.0
    allowance = float(plan.seam) * frame.scale
    return min(max(allowance * 1.3, 16 * frame.unit), long / 2, 32 * frame.unit)


def way_figure(
    plan: PressingPlan, stretch: Stretch, frame: Frame, size: float, strong: bool = False
) -> Figure:
    """The arrow of a seam, or both of one that is open."""
    (x, y), (dx, dy) = plan.middle(stretch), plan.square(stretch)
    at, ahead = frame.at(x, y), frame.at(x + dx, y + dy)
    if stretch.toward is None:
        return both_ways(at, ahead, size * 0.75, strong)
    return arrow(at, ahead, size, strong)


def junctions_figure(plan: PressingPlan, frame: Frame) -> Figure:
    """A mark at each junction that is inside or is counted."""
    radius = (5 if len(plan.junctions) > SMALL_FROM else 7) * frame.unit
    marks: list[Item] = []
    for met in plan.junctions:
        if met.junction.inside or met.counts:
            marks += junction_mark(frame.spot(met.junction.at), met.state, radius)
    return tuple(marks)


def counts_figure(plan: PressingPlan, frame: Frame) -> Figure:
    """The most layers at each junction, in figures."""
    most, step = plan.thickest(), 13 * frame.unit
    points = 8.0 if len(plan.junctions) > SMALL_FROM / 2 else 10.0
    tags = []
    for met in plan.junctions:
        if met.junction.inside:
            x, y = frame.spot(met.junction.at)
            look: TagLook = "strong" if most is not None and met == most else "plain"
            tags.append(Tag((x + step, y - step), str(met.layers), points, look))
    return tuple(tags)


def held_figure(plan: PressingPlan, frame: Frame) -> Figure:
    """A pin's head on every seam that is held."""
    held = {pin.span for pin in plan.pins}
    return tuple(
        Disc(_quarter(frame.corners(stretch.ends)), 4 * frame.unit, "held")
        for stretch in plan.stretches
        if stretch.span in held
    )


def _quarter(ends: Corners) -> Spot:
    """A quarter of the way along, beside the arrow in the middle."""
    (x0, y0), (x1, y1) = ends
    return x0 + (x1 - x0) * 0.25, y0 + (y1 - y0) * 0.25
