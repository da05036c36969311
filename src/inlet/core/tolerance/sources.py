"""Where the errors of a block come from: which edges are of one cut, which seams of one sewing.

A straight side of a patch is one cut. Patches of a strip set share more: the strips and their seams
are the same for all segments of the unit, and a segment's ends are one cut across all its bands.
What is marked and sewn before it is cut apart has one line for both of its patches.
"""

from __future__ import annotations

from collections.abc import Hashable, Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from inlet.core.assembly import Faces, Join, all_joins, rim
from inlet.core.plan import PreparedBlock
from inlet.core.planning import UnitPlan
from inlet.core.tolerance.as_cut import LengthChanges
from inlet.core.tolerance.pieces import Array, Numbers, Pieces, pieces_of
from inlet.core.tolerance.sew import sewn_up
from inlet.core.tolerance.sewing_hand import SewingHand
from inlet.core.tolerance.sewn import SewnPieces
from inlet.core.tolerance.squared import ON_BASE, SquaredUnit, squared_units
from inlet.core.units import Part, UnitPlace


@dataclass(frozen=True, eq=False)
class BlockModel:
    """A block ready to be sewn by any hand: its ``pieces``, the ``units`` that are squared; of each
    half-edge (H) the number of its ``cut``, of each seam (S) that of its ``sewing``, of each side
    of a squared unit (U, 4) that of its ``trim``; ``drawn`` and ``drawn_units`` are how far edges
    lie out as they are cut at the ruler's marks. ``guided`` (S) are seams sewn by the edge or the
    foot, which take what the hand takes more; others are sewn on a drawn line. Lengths are in the
    project's unit, ``per_inch`` of them to an inch."""

    block: PreparedBlock
    pieces: Pieces
    units: list[SquaredUnit]
    cut: Numbers
    sewing: Numbers
    trim: Numbers
    drawn: Array
    drawn_units: Array
    guided: NDArray[np.bool_]
    per_inch: float

    @property
    def sources(self) -> int:
        """How many independent errors there are: cuts, sewings, trims, in this order."""
        return self.cuts + self.sewings + self.trim.size

    @property
    def cuts(self) -> int:
        return int(self.cut.max(initial=-1)) + 1

    @property
    def sewings(self) -> int:
        return int(self.sewing.max(initial=-1)) + 1

    def spreads(self, hand: SewingHand) -> Array:
        """The standard deviation of each source, in the project's unit."""
        cuts, sewings = self.cuts, self.sewings
        spreads = np.full(self.sources, hand.edge_spread)
        spreads[cuts : cuts + sewings] = hand.spread
        trimmed = np.array([unit.trimmed for unit in self.units], dtype=bool)
        spreads[cuts + sewings :][np.repeat(trimmed, 4)] = hand.trimmed_edge[1]
        return spreads * self.per_inch

    def sewn(self, hand: SewingHand, errors: Array) -> SewnPieces:
        """The block as it comes out with these errors (sources, n), beside what the hand always
        does."""
        cuts, sewings = self.cuts, self.sewings
        cut = hand.cut / 2 * self.per_inch
        raw = self.drawn[:, :, None] + (errors[self.cut] + cut)[:, None, :]
        more = np.array([hand.takes_more(seam.type) for seam in self.pieces.seams]) * self.per_inch
        seams = errors[cuts + self.sewing] + np.where(self.guided, more, 0.0)[:, None]
        trims = errors[cuts + sewings :].reshape(*self.trim.shape, errors.shape[1])
        trimmed = np.array([unit.trimmed for unit in self.units], dtype=bool)
        more_out = np.where(trimmed, hand.trimmed_edge[0] * self.per_inch, cut)
        squared = self.drawn_units[:, :, None] + trims + more_out[:, None, None]
        return sewn_up(self.pieces, raw, seams, self.units, squared)


def block_model(block: PreparedBlock) -> BlockModel | None:
    """The model of a block; None where its drawing cannot be sewn, or it is one piece. Slices of
    other blocks are taken as they should be, and sewn together by the hand."""
    if block.assembly is None:
        return None
    per_inch = float(block.measure.system.per_inch)
    pieces = pieces_of(block.draft, block.assembly, per_inch)
    units = squared_units(pieces, block.units, block.assembly)
    keys, seam_keys = _keys(block, pieces)
    drawn, drawn_units = LengthChanges(pieces, block).offsets(units)
    return BlockModel(
        block, pieces, units, _numbered(keys), _numbered(seam_keys),
        np.arange(4 * len(units), dtype=np.intp).reshape(len(units), 4),
        drawn, drawn_units.reshape(len(units), 4), _guided(pieces, units),
        per_inch,
    )  # fmt: skip


def _guided(pieces: Pieces, units: list[SquaredUnit]) -> NDArray[np.bool_]:
    """Which seams are sewn by the edge: not those within units sewn over a base."""
    on_line = [h for unit in units if not unit.trimmed for h in np.flatnonzero(
        np.isin(pieces.piece, sorted(unit.faces)))]  # fmt: skip
    guided = np.ones(len(pieces.seams), dtype=bool)
    for i, seam in enumerate(pieces.seams):
        guided[i] = not (np.isin(seam.stays, on_line).all() and np.isin(seam.comes, on_line).all())
    return guided


def _numbered(keys: list[Hashable]) -> Numbers:
    number = {key: i for i, key in enumerate(dict.fromkeys(keys))}
    return np.array([number[key] for key in keys], dtype=np.intp)


def _keys(block: PreparedBlock, pieces: Pieces) -> tuple[list[Hashable], list[Hashable]]:
    """What each half-edge's cut and each seam's sewing is of, equal for what is one doing."""
    edges = block.draft.arrangement.edges
    halves: list[Hashable] = []
    for h in range(pieces.halves):
        nx, ny = pieces.normal[h, 0]
        line = edges[pieces.edge[h]].line
        halves.append(("side", int(pieces.piece[h]), line, round(nx, 4), round(ny, 4)))
    assert block.assembly is not None
    number_of = {join.faces: i for i, join in enumerate(all_joins(block.assembly))}
    seams: list[Hashable] = list(range(len(pieces.seams)))
    for slice_faces in _ready_parts(block.assembly):
        around = rim(block.draft, slice_faces)
        for h in np.flatnonzero(np.isin(pieces.piece, sorted(slice_faces))).tolist():
            if int(pieces.edge[h]) in around:
                halves[h] = ("slice", min(slice_faces), edges[pieces.edge[h]].line)
    for plan in block.units:
        for k, place in enumerate(plan.unit.places):
            if plan.in_use.sets:
                for row in _rows(place.part):
                    _of_set(block, pieces, plan, place, row, halves, seams, number_of)
            elif plan.in_use.method.products and plan.in_use.name not in ON_BASE:
                inside = np.flatnonzero(
                    np.isin(pieces.piece, sorted(place.part.faces)) & (pieces.sewn_by >= 0)
                )
                around = rim(block.draft, place.part.faces)
                for h in inside.tolist():
                    if int(pieces.edge[h]) not in around:
                        line = edges[pieces.edge[h]].line
                        halves[h] = ("marked", plan.unit.label, k, line)
    return halves, seams


def _ready_parts(last: Join) -> Iterator[Faces]:
    """Parts of several pieces that no join of the block makes: slices."""
    for join in all_joins(last):
        for side in join.sides:
            if not isinstance(side, Join) and len(side) > 1:
                yield side


def _rows(part: Part) -> Iterator[Part]:
    """The parts of single patches side by side: segments."""
    if all(not inner.parts for inner in part.parts):
        if part.parts:
            yield part
        return
    for inner in part.parts:
        yield from _rows(inner)


def _of_set(
    block: PreparedBlock, pieces: Pieces, plan: UnitPlan, place: UnitPlace, row: Part,
    halves: list[Hashable], seams: list[Hashable], number_of: dict[frozenset[int], int],
) -> None:  # fmt: skip
    """A segment: its bands are of strips, its seams of the set, its ends each one cut."""
    motion, label = place.motion, plan.unit.label
    c, s, by = float(motion.cos), float(motion.sin), motion.by.floats()

    def there(at: Array) -> tuple[float, float]:
        """Where a place lies in the unit's first place."""
        x, y = at[0] - by[0], at[1] - by[1]
        return round(c * x + s * y, 4), round(c * y - s * x, 4)

    for join in row.joins:
        i = number_of.get(join.faces)
        if i is not None:
            ends = np.array([join.points[0].floats(), join.points[-1].floats()])
            seams[i] = ("set", label, there(ends.mean(axis=0)))
    edges, around = block.draft.arrangement.edges, rim(block.draft, row.faces)
    inside = np.flatnonzero(np.isin(pieces.piece, sorted(row.faces)))
    on_line: dict[int, set[int]] = {}
    for h in inside:
        if int(pieces.edge[h]) in around:
            on_line.setdefault(edges[pieces.edge[h]].line, set()).add(int(pieces.piece[h]))
    for h in inside:
        line = edges[pieces.edge[h]].line
        if int(pieces.edge[h]) in around and len(on_line[line]) > 1:
            halves[h] = ("end", label, tuple(sorted(row.faces)), line)
        else:
            middle = (pieces.at[h] + pieces.at[pieces.after[h]]) / 2
            halves[h] = ("band", label, there(middle), there(middle + pieces.normal[h, 0]))
