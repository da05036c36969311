"""Which ways there are to make each kind of unit.

A method is worked out for one unit and one seam allowance. Its sizes follow from geometry: every
one of them is the size for which its moves, run on the cut pieces, give the unit exactly, which
``proof.makes_unit`` checks by running them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

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


_NAMES: dict[Builder, str] = {
    two_at_a_time: "two-at-a-time",
    four_at_a_time: "four-at-a-time",
    eight_at_a_time: "eight-at-a-time",
    strip_triangles: "strip-triangles",
    corner_squares: "corner-squares",
    strip_pieced: "strip-set",
    crossed_pairs: "crossed-pairs",
    no_waste_geese: "no-waste",
    folded_geese: "folded",
    corners_cut_once: "corners-cut-once",
    sew_and_trim: "sew-and-trim",
    strip_set: "strip-set",
}
"""What a builder calls its method; sewing patch by patch has several names."""


def methods_for(unit: Unit, seam: Exact) -> Iterator[Method]:
    """Every method to make a unit, the usual one first, each worked out when it is come to. There
    is always one: patch by patch."""
    return _built(_builders(unit), unit, seam)


def method_named(name: str, unit: Unit, seam: Exact) -> Method | None:
    """The method of that name among ``methods_for`` a unit, without the others being worked out;
    None where there is none."""
    builders = [builder for builder in _builders(unit) if _NAMES.get(builder, name) == name]
    return next((m for m in _built(builders, unit, seam) if m.name == name), None)


def _builders(unit: Unit) -> tuple[Builder, ...]:
    kind: str = unit.kind
    if kind == "half-square-triangle" and len(unit.picture) > 2:
        kind = STRIPED
    before, after = _BUILDERS.get(kind, ((), ()))
    return (*before, patch_by_patch, *after)


def _built(builders: Iterable[Builder], unit: Unit, seam: Exact) -> Iterator[Method]:
    return (method for build in builders if (method := build(unit, seam)) is not None)
