"""What to do at the mat, stroke by stroke, in words."""

from __future__ import annotations

from inlet.core.layout.strokes import Stroke
from inlet.core.numbers import Exact, Fraction, floor_exact, spelled, whole_spelled
from inlet.core.project import LaidFabric, Measure
from inlet.core.words import length_text

SAFE_LAYERS = 4
"""More layers drift under the ruler."""


def on_ruler(size: Exact, measure: Measure) -> str:
    """A length as it is read on the ruler, then in words: ``3 1/2 in: three and a half``."""
    exact = size if isinstance(size, Fraction) else Fraction(floor_exact(size * 64), 64)
    return f"{length_text(size, measure)}: {spelled(exact, measure.system)}"


def stroke_text(stroke: Stroke, measure: Measure) -> str:
    """One cut in a sentence or two."""
    size = length_text(stroke.size, measure)
    first = {
        "square": f"Square the edge: take off {size} at most",
        "strip": f"Cut a strip {on_ruler(stroke.size, measure)}",
        "segment": f"Cut across the strip at {on_ruler(stroke.size, measure)}",
        "row": f"Cut along the strip at {on_ruler(stroke.size, measure)}",
        "piece": f"Cut off a piece {on_ruler(stroke.size, measure)}",
        "trim": f"Trim to {on_ruler(stroke.size, measure)}",
    }[stroke.what]
    if stroke.what == "square" and stroke.way == "along":  # the ends of a strip
        first = f"Trim off the selvages, {size} at most"
    where = ""
    if len(stroke.of) > 1 and stroke.stacked > 1:
        where = f", {whole_spelled(stroke.stacked)} in a stack"
    elif len(stroke.of) > 1:
        where = f", through all {whole_spelled(len(stroke.of))} side by side"
    opened = "Open out what is left at the fold. " if stroke.opens else ""
    layers = f" ({stroke.layers} layers)" if stroke.layers > 1 else ""
    return f"{opened}{first}{where}{layers}."


def finished_text(stroke: Stroke) -> str:
    """The stacks a cut adds to: ``2 for A1``; nothing where no piece is ready."""
    return ", ".join(f"{number} for {label}" for label, number in stroke.finishes)


def layers_text(laid: LaidFabric) -> str:
    """How the fabric lies on the mat."""
    return {
        1: "in a single layer",
        2: "folded once, selvage to selvage",
        4: "folded twice, the fold to the selvages",
    }[laid.layers]
