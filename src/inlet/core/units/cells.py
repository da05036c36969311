"""Where no straight seam runs through a part: the cells it is sewn of, and in what order."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.assembly import Faces, Order, join_rims, sewing_order
from inlet.core.cancellation import check
from inlet.core.units.part_seams import PartSeams

ALL_CELLS = 60
"""Parts of up to this many patches are also tried patch by patch where that could be better."""


class Cells(NamedTuple):
    """The cells of a part, each sewn before, and the order that sews them together."""

    groups: list[Faces]
    order: Order


class CellFinder:
    """The cells of parts of one draft."""

    def __init__(self, seams: PartSeams) -> None:
        self.seams, self.draft, self.edges = seams, seams.draft, seams.edges

    def cells(self, faces: Faces) -> Cells | None:
        """A part's cells: what curves that run through leave between them, or what straight seams
        do, sewn as the assembler finds best; None where it finds no order."""
        curves = self.seams.curved_chords(faces)
        if curves:
            inner, _ = self.seams.of(faces)
            kept = [k for k in inner if self.edges[k].line not in curves]
            groups = self.seams.components(faces, kept)
        else:
            groups = self._early(faces)
        order = self._order(groups)
        if order is None:
            return None
        cells = self._with_whole_parts(Cells(groups, order))
        least = len(self.seams.unpassed & self.seams.inside(faces))
        if cells.order.awkward > (least, 0) and len(cells.groups) < len(faces) <= ALL_CELLS:
            # Cells taken together early could stand in the way of a better order.
            single = [frozenset([f]) for f in sorted(faces)]
            other_order = self._order(single)
            if other_order is not None and other_order.awkward < cells.order.awkward:
                return Cells(single, other_order)
        return cells

    def _order(self, groups: Sequence[Faces]) -> Order | None:
        if any(self.draft.patches[f].holes for g in groups for f in g):
            return None
        return sewing_order(self.draft, groups)

    def _early(self, faces: Faces) -> list[Faces]:
        """What can be sewn together first, bottom up: two parts can be joined early when they share
        one whole side of each."""
        owner: dict[int, Faces] = {f: frozenset([f]) for f in faces}
        waiting = sorted(faces)
        while waiting:
            check()
            one = owner[waiting.pop(0)]
            other = next(
                (g for g in self._neighbours(one, owner) if self._whole_side(one, g)), None
            )
            if other is not None:
                joined = one | other
                owner.update(dict.fromkeys(joined, joined))
                waiting.append(min(joined))
        groups = sorted(set(owner.values()), key=min)
        # joined all round, yet no seam runs through: patch by patch
        return groups if len(groups) > 1 else [frozenset([f]) for f in sorted(faces)]

    def _with_whole_parts(self, cells: Cells) -> Cells:
        """Rectangles that are sewn on the way taken as parts of their own, where that costs no
        seam more: a ring inside a ring is a unit."""
        whole = self._rectangles(cells.order)
        if not whole:
            return cells
        kept = [g for g in cells.groups if not any(g <= w for w in whole)]
        new = sorted(kept + whole, key=min)
        outer = self._order(new)
        inner = [self._order([g for g in cells.groups if g <= w]) for w in whole]
        if outer is None or None in inner:
            return cells
        awkward = [o.awkward for o in (outer, *inner) if o is not None]
        if (sum(p for p, _ in awkward), sum(q for _, q in awkward)) > cells.order.awkward:
            return cells
        return Cells(new, outer._replace(short=cells.order.short))

    def _rectangles(self, order: Order) -> list[Faces]:
        """The largest rectangles that an order makes before its last seam."""
        boxes = []
        for join in order.joins[:-1]:
            check()
            boxes.append(join_rims(self.draft, join))
        whole: list[Faces] = []
        for faces in sorted(boxes, key=len, reverse=True):
            check()
            if not any(faces <= g for g in whole) and self.seams.is_rectangle(faces):
                whole.append(faces)
        return whole

    def _neighbours(self, one: Faces, owner: dict[int, Faces]) -> list[Faces]:
        """The groups that share a seam with ``one``, in a fixed order."""
        beside = {
            owner[face]
            for f in one
            for k in self.seams.edges_of[f]
            for face in (self.edges[k].right, self.edges[k].left)
            if face in owner and face not in one
        }
        return sorted(beside, key=min)

    def _whole_side(self, one: Faces, other: Faces) -> bool:
        """Do two neighbours meet along one whole side of each, and make a triangle or a
        quadrilateral? Then that seam can be sewn before anything around it."""
        lines = {
            self.edges[k].line
            for f in one
            for k in self.seams.edges_of[f]
            if self.edges[k].right in other or self.edges[k].left in other
        }
        both = one | other
        return (
            len(lines) == 1
            and 2 < len(self.seams.shape(both).corners) <= 4
            and bool(self.seams.chords(both))
        )
