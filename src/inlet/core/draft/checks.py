"""The drawing put into words: what is wrong with a draft and where."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from inlet.core.draft.patches import Draft
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import inner_point, narrowest
from inlet.core.numbers import Exact, show
from inlet.core.problem import Problem
from inlet.core.project import Measure

_FAULTS = {
    "outside": ("error", "seam-outside", "A seam runs outside the block to {place}."),
    "duplicate": (
        "warning",
        "seam-duplicate",
        "A seam lies on another seam or on the block's edge at {place}.",
    ),
    "stops": ("error", "seam-stops", "A seam stops inside a patch at {place}."),
    "island": (
        "error",
        "seam-island",
        "The shape at {place} touches no other seam: the patch around it would need a hole.",
    ),
}


def place(point: Point) -> str:
    """A place in the block in words, in grid units from the top left."""
    return f"{show(point.x)} across, {show(point.y)} down"


def drawing_problems(draft: Draft, measure: Measure) -> Iterator[Problem]:
    """Every fault of the drawing itself, worst first: seams, then cloth, then slivers."""
    for fault in draft.arrangement.faults:
        level, code, text = _FAULTS[fault.kind]
        yield Problem(level, code, (fault.point,), text.format(place=place(fault.point)))
    for point in draft.unused_fabric_at:
        yield Problem(
            "warning",
            "fabric-on-seam",
            (point,),
            f"The fabric given at {place(point)} lies in no patch (on a seam or outside).",
        )
    for patch in draft.patches:
        if patch.fabric is None:
            at = inner_point(draft.arrangement.outline(patch.face))
            yield Problem(
                "error",
                "patch-without-fabric",
                (at,),
                f"The patch at {place(at)} has no fabric yet.",
            )
    limit = measure.seam
    for patch in draft.patches:
        width = narrowest(patch.outline)
        if width < float(limit) - 1e-9:
            at = inner_point(draft.arrangement.outline(patch.face))
            yield Problem(
                "warning",
                "sliver",
                (at,),
                f"The patch at {place(at)} is a sliver: {_near(width, measure)} finished at its "
                f"narrowest, less than the {_sized(limit, measure)} seam allowance.",
            )


def _near(width: float, measure: Measure) -> str:
    return f"{width:.2f} {unit(measure)}"


def _sized(length: Exact, measure: Measure) -> str:
    return f"{show(length, system=measure.system)} {unit(measure)}"


def unit(measure: Measure) -> str:
    return "in" if measure.system == "inch" else "cm"


def on_mark(length: Exact, ruler: Fraction) -> bool:
    """Does a length land on the maker's ruler mark?"""
    ratio = length / ruler
    return isinstance(ratio, Fraction) and ratio.denominator == 1
