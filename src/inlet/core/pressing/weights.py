"""What each fault of a pressed block weighs, and why; every method has weights of its own.

Weights are in points. Costs are counted in whole thousandths of a point, so that they add up
exactly and two answers that cost the same are seen to.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from inlet.core.numbers import Exact, Fraction
from inlet.core.project import PressingMethod

POINT = 1000
"""Parts of a point that costs are counted in."""


class Weight(NamedTuple):
    """A row of the table: its ``name`` in files, what it is called on screen, why it weighs, and
    how many points it weighs in the mixed method."""

    name: str
    title: str
    reason: str
    points: Fraction


TABLE = (
    Weight("stacked", "Seams that stack at a junction",
           "They do not lock, and the ridge is as high as both.", Fraction(10)),
    Weight("half-open", "A junction with one seam open",
           "There is no ridge to push the other seam against.", Fraction(5)),
    Weight("both-open", "A junction with both seams open",
           "It lies flat, but only pins hold the seams to each other.", Fraction(4)),
    Weight("layer", "Each layer above what a presser foot climbs well",
           "The foot stalls, stitches get short, and the top has a lump.", Fraction(1)),
    Weight("foot", "Layers a presser foot climbs well",
           "Seven lie at a nested four-way centre, and every machine sews that.", Fraction(8)),
    Weight("shadow", "A dark allowance under a lighter fabric",
           "It shows through from the front, along the whole seam.", Fraction(5)),
    Weight("inward", "A round pressed toward its centre",
           "Away from it there is room, and the next strip lies flat.", Fraction(8)),
    Weight("folded-back", "A seam folded back on itself",
           "Bulk goes where there is room for it: into the plain piece, away from a nose.",
           Fraction(3, 2)),
    Weight("open", "A seam pressed open",
           "It is slower to press, weaker, and cannot lock.", Fraction(7)),
    Weight("closed", "A seam pressed to one side",
           "Makers who press open want every seam so.", Fraction(0)),
    Weight("whirl", "A centre spun",
           "Stitches in the allowance have to be undone there.", Fraction(3)),
    Weight("not-whirled", "A four-way centre not spun",
           "Makers who spin the seams want every centre spun.", Fraction(0)),
    Weight("against", "A waiting seam pressed against the way it must lie",
           "Its open end would be sewn shut under the next piece.", Fraction(30)),
    Weight("version", "A second version of a unit or block",
           "Two stacks have to be kept apart.", Fraction(8)),
    Weight("again", "A seam pressed again, the other way",
           "It was pressed once, and the crease has to be taken out.", Fraction(2)),
)  # fmt: skip

WEIGHT_NAMES = tuple(each.name for each in TABLE)
MOST_POINTS = 1000

METHOD_POINTS: Mapping[str, Mapping[str, Fraction]] = {
    "mixed": {},
    "dark": {"shadow": Fraction(60), "open": Fraction(50), "whirl": Fraction(20)},
    "nest": {"stacked": Fraction(100), "half-open": Fraction(60), "both-open": Fraction(50),
             "shadow": Fraction(2), "open": Fraction(20)},
    "open": {"open": Fraction(0), "closed": Fraction(40), "half-open": Fraction(0),
             "both-open": Fraction(0), "whirl": Fraction(40)},
    "whirl": {"whirl": Fraction(0), "not-whirled": Fraction(25), "stacked": Fraction(30)},
    "end": {"open": Fraction(60), "again": Fraction(0)},
}  # fmt: skip
"""Where a method weighs otherwise than the mixed one."""

METHOD_TITLES: dict[PressingMethod, str] = {
    "mixed": "Mixed",
    "dark": "To the dark",
    "nest": "Nesting first",
    "open": "Open",
    "whirl": "Spin the centres",
    "end": "Press at the end",
}

METHOD_NOTES = {
    "mixed": "All of it weighed: nesting, shadows, layers, room.",
    "dark": "No dark allowance under a lighter fabric, whatever it costs.",
    "nest": "Seams lock at every junction where they can.",
    "open": "Every seam open: flat, slow, matched with pins.",
    "whirl": "Four-way centres turned all one way round: flat, with unpicking.",
    "end": "Nothing is pressed on the way: fold each seam with the finger as the plan says, "
    "and press the block once.",
}

Weights = Mapping[str, int]
"""Thousandths of a point by name; ``foot`` is whole layers."""


def points_of(method: PressingMethod, own_weights: Mapping[str, Exact]) -> dict[str, Exact]:
    """The points of a method, by name, with the maker's ``own_weights`` in place of its."""
    points: dict[str, Exact] = {weight.name: weight.points for weight in TABLE}
    points.update(METHOD_POINTS[method])
    points.update({name: value for name, value in own_weights.items() if name in points})
    return points


def weights_of(method: PressingMethod, own_weights: Mapping[str, Exact]) -> Weights:
    """The same in thousandths of a point; ``foot`` in whole layers."""
    points = points_of(method, own_weights)
    weights = {name: round(float(value) * POINT) for name, value in points.items()}
    weights["foot"] = round(float(points["foot"]))
    return weights
