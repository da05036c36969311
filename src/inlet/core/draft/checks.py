"""The drawing put into words: what is wrong with a draft and where."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from inlet.core.draft.patches import Draft
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import inner_point, narrowest
from inlet.core.numbers import Exact
from inlet.core.problem import Problem
from inlet.core.project import Measure
from inlet.core.words import length_text, place_text, unit_of

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


def drawing_problems(draft: Draft, measure: Measure) -> Iterator[Problem]:
    """Every fault of the drawing itself, worst first: seams, then cloth, then slivers."""
    for fault in draft.arrangement.faults:
        level, code, text = _FAULTS[fault.kind]
        yield Problem(level, code, (fault.point,), text.format(place=place_text(fault.point)))
    for spot, home in zip(draft.block.fabric_at, draft.homes, strict=True):
        if home is not None:
            continue
        point = Point(*spot.point)
        yield Problem(
            "warning",
            "fabric-on-seam",
            (point,),
            f"The fabric given at {place_text(point)} lies in no patch (on a seam or outside).",
        )
    for patch in draft.patches:
        if patch.fabric is None:
            at = inner_point(draft.arrangement.outline(patch.face))
            yield Problem(
                "error",
                "patch-without-fabric",
                (at,),
                f"The patch at {place_text(at)} has no fabric yet.",
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
                f"The patch at {place_text(at)} is a sliver: {width:.2f} {unit_of(measure)} "
                f"finished at its narrowest, less than the {length_text(limit, measure)} seam.",
            )


def on_mark(length: Exact, ruler: Fraction) -> bool:
    """Does a length land on the maker's ruler mark?"""
    ratio = length / ruler
    return isinstance(ratio, Fraction) and ratio.denominator == 1
