"""What a fabric is cut from, in the order in which it is used up: scraps, bolts, what is new."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.layout.laid_places import room_across
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import (
    Cutting,
    Fabric,
    Have,
    LaidFabric,
    LaidKind,
    Layers,
    Project,
    folded,
)

ZERO = Fraction(0)


class Source(NamedTuple):
    """Fabric to lay down, as it comes out of the wash: how wide and how long, in how many layers,
    and what squaring takes of it."""

    kind: LaidKind
    width: Exact
    length: Exact
    layers: Layers
    squaring: Exact


ORDER = ("strips", "squares", "scrap", "panel", "fat-quarter", "bolt")


def sources(fabric: Fabric, rules: Cutting, project: Project) -> Iterator[Source]:
    """What there is of a fabric, what is smaller first."""
    squaring = project.measure.squared_off
    have = sorted(fabric.have, key=lambda h: (ORDER.index(h.kind), float(h.length or 0)))
    if not rules.scraps_first:
        have.sort(key=lambda h: h.kind != "bolt")
    for owned in have:
        wide, long = have_size(owned, fabric, project)
        if owned.kind in WASHED and rules.wash:
            wide, long = (
                wide * (1 - fabric.shrinkage[1] / 100),
                long * (1 - fabric.shrinkage[0] / 100),
            )
        layers = folded(rules.folds) if owned.kind == "bolt" else 1
        lost = ZERO if owned.kind == "squares" else squaring  # of strips only their ends
        for _ in range(owned.count):
            yield Source(owned.kind, wide, long, layers, lost)


def strip_room(project: Project, fabric: str | None) -> Exact:
    """How much of a strip is for pieces whose ends are both cut."""
    layers = folded((project.cutting or Cutting()).folds)
    width, squaring = project.usable_width(fabric or ""), project.measure.squared_off
    laid = LaidFabric(kind="new", width=width, length=width, layers=layers, squaring=squaring)
    return room_across(laid) * max(2, layers) / 2


WASHED = ("bolt", "fat-quarter", "panel")


def have_size(owned: Have, fabric: Fabric, project: Project) -> tuple[Exact, Exact]:
    """How wide and how long a piece of what is there is to use: of a strip its length lies across,
    as it does on the bolt."""
    system = project.measure.system
    usual = fabric.width if fabric.width is not None else system.fabric_width
    if owned.kind == "squares":
        side = owned.width if owned.width is not None else ZERO
        return side, side
    if owned.kind == "strips":
        long = owned.length if owned.length is not None else usual
        return long, owned.width if owned.width is not None else ZERO
    if owned.kind == "fat-quarter":
        short, long = system.fat_quarter_size
        wide = owned.width if owned.width is not None else long
        return wide - 2 * owned.selvage, owned.length if owned.length is not None else short
    wide = owned.width if owned.width is not None else usual
    return wide - 2 * owned.selvage, owned.length if owned.length is not None else ZERO
