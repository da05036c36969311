"""Ways to make a unit: one file a family, the catalogue of all, trimming, and the proof.

Promise: each method's moves give the unit exactly; ``made_unit`` sews them to see it.
"""

from inlet.core.methods.catalogue import method_named, methods_for
from inlet.core.methods.centred_panel import centred_panel
from inlet.core.methods.inset import alike_from
from inlet.core.methods.method import (
    ByProduct,
    Method,
    SetOfStrips,
    bias_edges,
    effort_of,
    every_piece,
)
from inlet.core.methods.proof import Sewn, made_unit, sew_up
from inlet.core.methods.rows import PRESS
from inlet.core.methods.strip_set import Bands, segments
from inlet.core.methods.trim import Trim, sewn_large_move, trim_move, trim_of

__all__ = [
    "PRESS",
    "Bands",
    "ByProduct",
    "Method",
    "SetOfStrips",
    "Sewn",
    "Trim",
    "alike_from",
    "bias_edges",
    "centred_panel",
    "effort_of",
    "every_piece",
    "made_unit",
    "method_named",
    "methods_for",
    "segments",
    "sew_up",
    "sewn_large_move",
    "trim_move",
    "trim_of",
]
