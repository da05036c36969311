"""What parts measure, raw edge to raw edge, as they come off the machine."""

from __future__ import annotations

from typing import NamedTuple, Protocol

from inlet.core.fitting.sewn import SewnUp
from inlet.core.fitting.words import as_exact
from inlet.core.numbers import Exact
from inlet.core.project import Measure
from inlet.core.table import Size
from inlet.core.units import Part

SAME = 1e-9


class SizesOfParts(Protocol):
    """What parts measure, in a measure."""

    @property
    def measure(self) -> Measure: ...

    def of(self, part: Part, exact: Size) -> Size:
        """What a rectangular part of ``exact`` unfinished size measures."""
        ...


class MadeSizes(NamedTuple):
    """The sizes of parts of a block sewn up as cut; None ``sewn`` where it cannot be. ``whole`` is
    what the block measured, where the maker said so."""

    sewn: SewnUp | None
    measure: Measure
    whole: Size | None = None

    def of(self, part: Part, exact: Size) -> Size:
        """What a rectangular part of ``exact`` unfinished size measures, width and height the same
        way round."""
        if (
            self.whole is not None
            and self.sewn is not None
            and len(part.faces) == len(self.sewn.layout.draft.patches)
        ):
            return self.whole
        found = self.sewn.size(part.faces, part.outline) if self.sewn else None
        if found is None:
            return exact
        twice = 2 * self.measure.seam
        raw = [side + float(twice) for side in found]
        wide, high = (float(side) for side in exact)
        if abs(raw[0] - wide) + abs(raw[1] - high) > abs(raw[1] - wide) + abs(raw[0] - high):
            raw.reverse()
        return self._side(raw[0], exact[0]), self._side(raw[1], exact[1])

    def _side(self, made: float, exact: Exact) -> Exact:
        return exact if abs(made - float(exact)) < SAME else as_exact(made, self.measure)
