"""What parts of a block that is set of slices measure."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.project import Measure
from inlet.core.table import Size
from inlet.core.units import Part


class SlicedSizes(NamedTuple):
    """What parts of a block set of slices measure: cuts are measured from the centre, so that what
    its start block is ``off`` its drawn size goes to the slices at the edges, half to each side.
    ``finished`` is the block as drawn, ``whole`` what it measured, where the maker said so."""

    measure: Measure
    finished: Size
    off: Size
    whole: Size | None = None

    def of(self, part: Part, exact: Size) -> Size:
        """What a rectangular part of ``exact`` unfinished size measures."""
        corner, far = part.outline[0], part.outline[2]
        if self.whole is not None and all(
            end - begin == side for begin, end, side in zip(corner, far, self.finished, strict=True)
        ):
            return self.whole
        wide, high = (
            size + self.off[axis] / 2 * ((corner[axis] == 0) + (far[axis] == self.finished[axis]))
            for axis, size in enumerate(exact)
        )
        return wide, high
