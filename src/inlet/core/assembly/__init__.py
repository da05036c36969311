"""In what order parts are sewn to one another, whatever was drawn.

Promise: an order for every drawing that can be sewn, with as few pivots as the bound says, and the
same on every machine.
"""

from inlet.core.assembly.net import Faces, goes_on, heading, unit_heading, unpassed
from inlet.core.assembly.sewing import Order, sewing_order
from inlet.core.assembly.shape import join_rims, part_shape, rim, shared_edges
from inlet.core.assembly.tree import (
    Finish,
    Join,
    JoinKind,
    LeftOpen,
    Leg,
    Side,
    all_joins,
    faces_of,
)

__all__ = [
    "Faces",
    "Finish",
    "Join",
    "JoinKind",
    "LeftOpen",
    "Leg",
    "Order",
    "Side",
    "all_joins",
    "faces_of",
    "goes_on",
    "heading",
    "join_rims",
    "part_shape",
    "rim",
    "sewing_order",
    "shared_edges",
    "unit_heading",
    "unpassed",
]
