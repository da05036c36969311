"""What parts of a block that is set of slices measure."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.draft import draft
from inlet.core.numbers import Exact, Fraction, floor_exact
from inlet.core.project import Measure
from inlet.core.remake import Remade, places_of
from inlet.core.table import Size
from inlet.core.units import Part

ZERO = Fraction(0)


class SlicedSizes(NamedTuple):
    """What parts of a block set of slices measure. Cuts are measured from the centre, so that what
    a start block is ``off`` its drawn size goes to the slices at its edges, half to each side,
    wherever they are set. ``whole`` is what the block measured, where the maker said so."""

    measure: Measure
    how: Remade
    off: Size
    whole: Size | None = None

    def of(self, part: Part, exact: Size) -> Size:
        """What a rectangular part of ``exact`` unfinished size measures; where its rows, or its
        columns, come out different, their mean."""
        if self.how.cuts.diagonal:
            number = len(draft(self.how.set_again.block).patches)
            return (self.whole or self.raw) if len(part.faces) == number else exact
        corner, far = part.outline[0], part.outline[2]
        inside = [
            i
            for i, (left, top) in enumerate(places_of(self.how.slices))
            if corner.x <= left < far.x and corner.y <= top < far.y
        ]
        if self.whole is not None and len(inside) == len(self.how.slices):
            return self.whole
        wide, high = (_mean(self._sums(inside, axis)) for axis in (0, 1))
        return exact[0] + wide, exact[1] + high

    @property
    def finished(self) -> Size:
        """What the block comes out at, finished, as its slices are cut."""
        if self.how.cuts.diagonal:
            twice = 2 * self.measure.seam
            return self.raw[0] - twice, self.raw[1] - twice
        every = range(len(self.how.slices))
        wide, high = self.how.set_again.block.finished
        return wide + _mean(self._sums(every, 0)), high + _mean(self._sums(every, 1))

    @property
    def raw(self) -> Size:
        """What a block whose start blocks lie on point is trimmed to: the mark below what its
        slices reach, less what the start blocks are too small."""
        mark, lost = self.measure.mark, min(*self.off, ZERO)
        wide, high = self.how.set_again.block.finished
        wide, high = (side + 2 * self.measure.seam + lost for side in (wide, high))
        return floor_exact(wide / mark) * mark, floor_exact(high / mark) * mark

    def cut(self, piece: int) -> Size:
        """What a slice measures as it is cut."""
        left, top, right, bottom = self.how.slices[piece].cut
        return right - left + self._off(piece, 0), bottom - top + self._off(piece, 1)

    @property
    def worst(self) -> Exact:
        """By how much two rows, or two columns, of the block differ at most."""
        if self.how.cuts.diagonal:
            return ZERO  # it is trimmed
        every = range(len(self.how.slices))
        return max(max(sums) - min(sums) for sums in (self._sums(every, axis) for axis in (0, 1)))

    def _sums(self, places: range | list[int], axis: int) -> list[Exact]:
        """How much longer each row of places is than drawn; each column, for axis 1."""
        sums: dict[int, Exact] = {}
        for place in places:
            laid, here = self.how.laid[place], self.how.slices[place]
            line = here.row if axis == 0 else here.column
            turned = (axis + laid.quarters) % 2
            sums[line] = sums.get(line, ZERO) + self._off(laid.piece, turned)
        return list(sums.values())

    def _off(self, piece: int, axis: int) -> Exact:
        """How much larger a slice is than drawn, as it lies in its start block."""
        here, last = self.how.slices[piece], self.how.slices[-1]
        at, end = (here.column, last.column) if axis == 0 else (here.row, last.row)
        return self.off[axis] / 2 * ((at == 0) + (at == end))


def _mean(lengths: list[Exact]) -> Exact:
    return sum(lengths, ZERO) / len(lengths)
