"""Which ways there are to make each kind of unit.

A way is worked out for one unit and one seam allowance. Its sizes follow from geometry: every one
of them is the size for which its moves, run on the cut pieces, give the unit exactly, which
``proof.makes_unit`` checks by running them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from inlet.core.numbers import Exact
from inlet.core.units.geese import no_waste_geese
from inlet.core.units.half_square import eight_at_a_time, four_at_a_time, two_at_a_time
from inlet.core.units.patchwise import patch_by_patch
from inlet.core.units.quarter_square import crossed_pairs
from inlet.core.units.units import Unit
from inlet.core.units.way import Way

_BUILDERS: dict[str, tuple[Callable[[Unit, Exact], Way | None], ...]] = {
    "half-square-triangle": (two_at_a_time, four_at_a_time, eight_at_a_time),
    "quarter-square-triangle": (crossed_pairs,),
    "flying-geese": (no_waste_geese,),
}


def ways(unit: Unit, seam: Exact) -> Iterator[Way]:
    """Every way to make a unit, the usual one first, each worked out when it is come to. There is
    always one: patch by patch, the last."""
    for builder in _BUILDERS.get(unit.kind, ()):
        way = builder(unit, seam)
        if way is not None:
            yield way
    yield patch_by_patch(unit, seam)
