"""How each thing in a picture is drawn: one table for screen, PDF and SVG. Colour never carries a
meaning alone: lines differ in dashes and width, marks in shape."""

from __future__ import annotations

from typing import Literal, NamedTuple

from inlet.core.figures.display import Kind

Colour = Literal["ink", "soft", "line", "paper", "accent", "ruler"]
Dash = Literal["whole", "dashes", "dots", "dash-dots"]


class Look(NamedTuple):
    """A line's colour, width and dashes, and what fills it; None for none. ``halo`` is how much
    wider a line of the paper's colour lies below it, so that it is seen on dark fabric and along
    hatching; ``flat`` a line ends where it ends."""

    line: Colour | None = None
    width: float = 1.0
    dash: Dash = "whole"
    fill: Colour | None = None
    halo: float = 0.0
    flat: bool = False
    hatched: bool = False


LOOKS: dict[Kind, Look] = {
    # At the table: what is sewn, cut, marked, laid there; spots on it.
    "seam": Look("ink", 2.0, "dashes", halo=1.6),
    "cut": Look("accent", 2.4, halo=1.6),
    "mark": Look("ink", 1.6, "dots", halo=1.6),
    "ruler": Look("accent", 1.6, "dash-dots", halo=1.6),
    "dot": Look("paper", 1.5, fill="ink"),
    "pin": Look("paper", 1.5, fill="ink"),
    "stop": Look("paper", 1.5, fill="accent"),
    "point-halo": Look("paper", 4.0),
    "point": Look("accent", 2.0),
    # As pressed: arrows over seams, what happens at junctions.
    "halo": Look("paper", flat=True),
    "arrow": Look("ink", flat=True),
    "strong-arrow": Look("accent", flat=True),
    "arrow-head": Look("paper", 1.4, fill="ink"),
    "strong-arrow-head": Look("paper", 1.4, fill="accent"),
    "held": Look("paper", 1.6, fill="accent"),
    "tee": Look("paper", 1.4, fill="soft"),
    "nests": Look("paper", 1.4, fill="ink"),
    "nests-way": Look("paper", 1.2),
    "open": Look("ink", 1.8, fill="paper"),
    "half-open": Look("ink", 1.8, fill="accent"),
    "stacks": Look("paper", 1.4, fill="accent"),
    "stacks-cross": Look("paper", 1.4),
    "blades": Look("ink", 1.4, fill="paper"),
    "blade": Look(fill="ink"),
    "layer": Look(fill="ink"),
    "shade": Look(fill="ink"),
    # On the mat.
    "selvage": Look(fill="soft", hatched=True),
    "fold": Look("ink", 2.5),
    "piece-ready": Look("ink"),
    "piece-to-cut": Look("soft", 1.0, "dots"),
    "piece-chosen": Look("ink", 1.8),
    "crosscut": Look("ink", 1.0, "dashes"),
    "template": Look("ink"),
    "cut-done": Look("ink", 1.6),
    "next-piece": Look("accent", 1.4),
    "next-cut": Look("accent", 3.0),
    "next-ruler": Look("soft", 1.0, fill="ruler"),
    "ruler-mark": Look("soft", 0.6),
    "square-off": Look(fill="accent", hatched=True),
    # A block cut apart and set again; a figure that appears across blocks.
    "figure": Look("accent", 1.1),
    "taken": Look(fill="soft", hatched=True),
    "new-seam": Look("ink", 1.8),
    "slice-chosen": Look("accent", 3.0),
    "way-up": Look("paper", 1.0, fill="ink"),
    "missed": Look("accent", 2.4),
    # A scrap tried on the corner of a square.
    "uncovered": Look(fill="accent", hatched=True),
    "scrap": Look("soft", 1.2, "dashes", halo=1.0),
    "square-edge": Look("ink", 2.0, halo=1.2),
    "motif": Look("ink", 1.6, halo=1.4),
    # What a hand will do.
    "planned-edge": Look("ink", 1.4, "dashes", halo=1.2),
    "risk-low": Look("ink", 1.6, fill="paper"),
    "risk-some": Look("paper", 1.6, fill="ink"),
    "risk-high": Look("paper", 1.6, fill="accent"),
    "row-risk-low": Look("soft", 1.2, "dots", halo=1.0),
    "row-risk-some": Look("ink", 2.2, "dashes", halo=1.4),
    "row-risk-high": Look("accent", 3.2, halo=1.6),
    "words": Look("ink"),
    "soft-words": Look("soft"),
}
