"""Which ways there are to make each kind of unit.

A method is worked out for one unit and one seam allowance. Its sizes follow from geometry: every
one of them is the size for which its moves, run on the cut pieces, give the unit exactly, which
``proof.makes_unit`` checks by running them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from inlet.core.methods.corner_squares import corner_squares
from inlet.core.methods.geese import folded_geese, no_waste_geese
from inlet.core.methods.half_square import (
    eight_at_a_time,
    four_at_a_time,
    strip_triangles,
    two_at_a_time,
)
from inlet.core.methods.long_strips import sew_and_trim
from inlet.core.methods.method import Method
from inlet.core.methods.patchwise import corners_cut_once, patch_by_patch
from inlet.core.methods.quarter_square import crossed_pairs
from inlet.core.methods.strip_set import KINDS as STRIP_SET_KINDS
from inlet.core.methods.strip_set import strip_set
from inlet.core.methods.striped import strip_pieced
from inlet.core.numbers import Exact
from inlet.core.units import Unit

STRIPED = "striped halves"
Builder = Callable[[Unit, Exact], Method | None]

# Before and after sewing patch by patch, the usual method first.
_BUILDERS: dict[str, tuple[tuple[Builder, ...], tuple[Builder, ...]]] = {
    "half-square-triangle": (
        (two_at_a_time, four_at_a_time, eight_at_a_time),
        (strip_triangles, corner_squares),
    ),
    STRIPED: ((), (strip_pieced,)),
    "quarter-square-triangle": ((crossed_pairs,), ()),
    "three-triangle": ((crossed_pairs,), ()),
    "flying-geese": ((no_waste_geese,), (corner_squares, folded_geese)),
    "square-in-square": ((), (corners_cut_once, corner_squares)),
    "corner-triangle": ((corner_squares,), ()),
    "rounds": ((), (sew_and_trim,)),
    **dict.fromkeys(STRIP_SET_KINDS, ((), (strip_set,))),
}


def methods_for(unit: Unit, seam: Exact) -> Iterator[Method]:
    """Every method to make a unit, the usual one first, each worked out when it is come to. There
    is always one: patch by patch."""
    kind: str = unit.kind
    if kind == "half-square-triangle" and len(unit.picture) > 2:
        kind = STRIPED
    before, after = _BUILDERS.get(kind, ((), ()))
    for builder in (*before, patch_by_patch, *after):
        method = builder(unit, seam)
        if method is not None:
            yield method
