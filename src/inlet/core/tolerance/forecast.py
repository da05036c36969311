"""What a hand will do to a block: its points, crossings and sizes, by many simulated sewings."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.assembly import Faces
from inlet.core.cancellation import check
from inlet.core.fitting import EASED
from inlet.core.numbers import Exact
from inlet.core.tolerance.pieces import Array
from inlet.core.tolerance.sewing_hand import SewingHand
from inlet.core.tolerance.sides import PartSides, measured, part_sides
from inlet.core.tolerance.sources import BlockModel
from inlet.core.tolerance.spots import (
    CrossingSpot,
    PointSpot,
    apart,
    beyond,
    crossing_spots,
    crossing_table,
    point_spots,
    point_table,
)

VISIBLE = 1 / 32
"""Inches by which a point or a crossing is off before the eye sees it, from two feet."""
USUAL_NUMBER = 2000
"""Sewings: a chance is then known to about a hundredth."""
AT_ONCE = 1000
"""Sewings worked out together: few enough for memory, as many as spare Python's own time."""
Bools = NDArray[np.bool_]
EDGE = 0.05
"""Of the sewings are smaller than the sizes told, as many larger."""


class PointRisk(NamedTuple):
    """How often a point at a ``vertex`` is cut off, floats, or either, visibly; of all the tips
    that meet there. ``middle`` is how far the worse of them lies beyond the seam, in inches."""

    vertex: int
    at: tuple[float, float]
    cut_off: float
    floats: float
    off: float
    middle: float


class CrossingRisk(NamedTuple):
    """How often seams do not meet visibly at a ``vertex`` of the seam of that number, and by how
    much they are apart, in inches, in two of three sewings. ``off_pinned``: how often where the
    crossing is pinned, and eased as far as fabric can be between it and the ends of its seam."""

    vertex: int
    at: tuple[float, float]
    seam: int
    off: float
    off_pinned: float
    spread: float


class SizeSpread(NamedTuple):
    """The unfinished size of a part ``as`` planned at the marks and as it comes out, in the
    project's unit: the ``middle``, from ``low`` to ``high`` in nine of ten, width and height."""

    name: str
    faces: Faces
    planned: tuple[Exact, Exact]
    middle: tuple[float, float]
    low: tuple[float, float]
    high: tuple[float, float]


class Forecast(NamedTuple):
    """``any_cut`` is how often some point is cut off visibly; ``number`` is how many blocks were
    sewn."""

    points: tuple[PointRisk, ...]
    crossings: tuple[CrossingRisk, ...]
    sizes: tuple[SizeSpread, ...]
    any_cut: float
    number: int

    @property
    def block(self) -> SizeSpread | None:
        """The size of the whole block, where it is a rectangle."""
        return self.sizes[0] if self.sizes else None


class Outcomes(NamedTuple):
    """In ``n`` sewings, in inches: how far each point lies beyond its seam (P, n), crossings are
    apart (C, n); in the project's unit, the sizes (K, 2, n)."""

    beyond: Array
    apart: Array
    sizes: Array


class Watched:
    """What is looked at of a block: its points, crossings, and the parts that have a size."""

    def __init__(self, model: BlockModel) -> None:
        block = model.block
        assert block.assembly is not None
        self.model = model
        self.points: list[PointSpot] = point_spots(model.pieces, block.assembly)
        self.crossings: list[CrossingSpot] = crossing_spots(model.pieces, block.assembly)
        self._points = point_table(model.pieces, self.points)
        self._at_edge = np.array([spot.edge for spot in self.points], dtype=bool)
        self._crossings = crossing_table(model.pieces, self.crossings)
        self.parts: list[tuple[str, Faces, tuple[Exact, Exact], PartSides]] = []
        whole = part_sides(model.pieces, block.root)
        if whole is not None:
            self.parts.append(("Block", block.root.faces, block.made_size, whole))
        for plan in block.units:
            sides = part_sides(model.pieces, plan.unit.part)
            if (
                sides is not None
                and len(plan.unit.part.faces) > 1
                and plan.unit.part.faces != block.root.faces
            ):
                exact = _as_lying(model, sides, plan.unfinished)
                size = block.made.of(plan.unit.part, exact)
                self.parts.append((f"Unit {plan.unit.label}", plan.unit.part.faces, size, sides))

    def outcomes(self, hand: SewingHand, errors: Array) -> Outcomes:
        """What these errors (sources, n) make of it. A block's own edge is sewn into the quilt as
        its other seams are: its point lies that much farther in."""
        model = self.model
        sewn = model.sewn(hand, errors)
        n, per_inch = errors.shape[1], model.per_inch
        corners = sewn.corners(np.arange(model.pieces.halves))
        points = beyond(sewn, corners, self._points) / per_inch
        points[self._at_edge] += hand.takes_more("straight")
        crossings = apart(sewn, corners, self._crossings) / per_inch
        seam = float(model.block.measure.seam)
        sizes = np.empty((len(self.parts), 2, n))
        for i, (_, _, _, sides) in enumerate(self.parts):
            sizes[i] = measured(sewn, sides, seam)
        return Outcomes(points, crossings, sizes)


def _as_lying(
    model: BlockModel, sides: PartSides, size: tuple[Exact, Exact]
) -> tuple[Exact, Exact]:
    """A unit's size, which of its sides is the wider put as it lies in the block."""
    pieces = model.pieces
    long = [float(pieces.length[sides.halves[sides.side == k]].sum()) for k in (1, 0)]
    low, high = sorted(size)
    return (high, low) if long[0] > long[1] else (low, high)


def sewings(model: BlockModel, hand: SewingHand, number: int, seed: int) -> Iterator[Array]:
    """The errors of so many sewings, some at once."""
    chance = np.random.default_rng(seed)
    spreads = model.spreads(hand)[:, None]
    for begin in range(0, number, AT_ONCE):
        check()
        n = min(AT_ONCE, number - begin)
        yield chance.standard_normal((len(spreads), n)) * spreads


def forecast(
    watched: Watched, hand: SewingHand, number: int = USUAL_NUMBER, seed: int = 1
) -> Forecast:
    """What a hand will do to a block, by so many simulated sewings."""
    return forecast_of(watched, all_outcomes(watched, hand, number, seed))


def all_outcomes(watched: Watched, hand: SewingHand, number: int, seed: int) -> Outcomes:
    """What comes of so many sewings."""
    drawn = sewings(watched.model, hand, number, seed)
    parts = [watched.outcomes(hand, errors) for errors in drawn]
    return Outcomes(*(np.concatenate(each, axis=-1) for each in zip(*parts, strict=True)))


def forecast_of(watched: Watched, outcomes: Outcomes) -> Forecast:
    """The chances and sizes in outcomes of many sewings."""
    points, crossings = outcomes.beyond, outcomes.apart
    cut, floats = points > VISIBLE, points < -VISIBLE
    missed = np.abs(crossings) > VISIBLE
    number = outcomes.sizes.shape[-1]
    return Forecast(
        tuple(_point_risks(watched, points, cut, floats)),
        tuple(
            CrossingRisk(
                spot.vertex, _place(watched, spot.vertex), spot.seam, float(missed[i].mean()),
                float((np.abs(crossings[i]) > VISIBLE + _eased(watched, spot)).mean()),
                float(np.quantile(np.abs(crossings[i]), 2 / 3)),
            )
            for i, spot in enumerate(watched.crossings)
        ),
        tuple(
            SizeSpread(
                name, faces, planned,
                *(_pair(np.quantile(sizes, share, axis=1)) for share in (0.5, EDGE, 1 - EDGE)),
            )
            for (name, faces, planned, _), sizes in zip(watched.parts, outcomes.sizes, strict=True)
        ),
        float(cut.any(axis=0).mean()) if len(cut) else 0.0,
        number,
    )  # fmt: skip


def _point_risks(watched: Watched, points: Array, cut: Bools, floats: Bools) -> Iterator[PointRisk]:
    """Of all tips at a vertex together."""
    by_vertex: dict[int, list[int]] = {}
    for i, spot in enumerate(watched.points):
        by_vertex.setdefault(spot.vertex, []).append(i)
    for vertex, tips in by_vertex.items():
        middles = np.median(points[tips], axis=1)
        yield PointRisk(
            vertex, _place(watched, vertex), float(cut[tips].any(axis=0).mean()),
            float(floats[tips].any(axis=0).mean()),
            float((cut[tips] | floats[tips]).any(axis=0).mean()),
            float(middles[np.argmax(np.abs(middles))]),
        )  # fmt: skip


def _eased(watched: Watched, spot: CrossingSpot) -> float:
    """Inches that fabric gives, pinned at a crossing: by the length to the nearer end of the
    seam."""
    pieces = watched.model.pieces
    seam = pieces.seams[spot.seam]
    ends = np.concatenate([seam.stays, pieces.after[seam.stays]])
    x, y = _place(watched, spot.vertex)
    far = np.hypot(pieces.at[ends, 0] - x, pieces.at[ends, 1] - y)
    rim = [d for v, d in zip(pieces.vertex[ends], far, strict=True)
           if (pieces.vertex[ends] == v).sum() == 1]  # fmt: skip
    return float(min(rim, default=0.0)) * float(EASED) / watched.model.per_inch


def _place(watched: Watched, vertex: int) -> tuple[float, float]:
    x, y = watched.model.pieces.at[watched.model.pieces.vertex == vertex][0]
    return float(x), float(y)


def _pair(values: Array) -> tuple[float, float]:
    return float(values[0]), float(values[1])
