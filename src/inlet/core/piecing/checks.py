"""What the sewing of a block brings up: partial seams with no room, parts that cannot be sewn, a
plan that does not give the draft."""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.draft import Draft
from inlet.core.geometry import inside_point
from inlet.core.problem import Problem
from inlet.core.project import Measure
from inlet.core.table import too_short
from inlet.core.units import Part, walk
from inlet.core.words import place_text, unit_of


def seam_problems(drawn: Draft, root: Part, measure: Measure) -> Iterator[Problem]:
    """Partial seams with no room to stop half way."""
    for join in (join for part in walk(root) for join in part.joins):
        if too_short(join, measure.seam):
            at = drawn.arrangement.points[join.left_open[0].vertex]
            yield Problem(
                "warning",
                "short-partial",
                (at,),
                f"The partial seam that ends at {place_text(at)} is only {join.length:.2f} "
                f"{unit_of(measure)} long: there is hardly room to stop half way. Sew it by hand, "
                "or make the block larger.",
            )


def order_problems(drawn: Draft, root: Part) -> Iterator[Problem]:
    """Parts for which no order of sewing was found, though nothing is wrong with the drawing."""
    for part in walk(root):
        if part.stuck:
            at = inside_point(drawn.arrangement.outlines[min(part.faces)])
            yield Problem(
                "error",
                "no-order",
                (at,),
                f"No order was found to sew the {len(part.faces)} patches round {place_text(at)} "
                "in: one more seam across them would help.",
            )


def not_proved() -> Problem:
    """Sewing the plan up gave something else than was drawn."""
    return Problem(
        "error",
        "not-resewn",
        (),
        "Sewing this plan up did not give the draft back exactly, so it is not shown as ready.",
    )
