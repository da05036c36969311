"""A new block out of a sewn one: sliced, and set again.

Promise: what is shown is what comes of it, each new seam taking its two allowances.
"""

from inlet.core.remake.choosing import in_other_fabrics, set_by
from inlet.core.remake.closed_figures import Segment, closed_figures
from inlet.core.remake.edit import (
    by_chance,
    cut_in,
    cuts_text,
    cuts_typed,
    flipped,
    parts_at_marks,
    swapped,
    turned_at,
    with_cuts,
)
from inlet.core.remake.exchanges import Exchange, exchanged, exchanges, value_exchanges
from inlet.core.remake.follow import (
    CannotFollow,
    Remade,
    arcs_sliced,
    drawing_of,
    followed,
    pieces_of,
    remade,
    remade_before,
)
from inlet.core.remake.nesting import Nesting, SliceJunction, nesting, nesting_text
from inlet.core.remake.numbers import CutApart, ToSew, Wanted, cut_key, needed, starts_of
from inlet.core.remake.offers import SliceOffer, offers
from inlet.core.remake.on_point import from_on_point
from inlet.core.remake.repeats import Repeat, picture_of_repeat, repeats
from inlet.core.remake.seam_lines import cut_words, through_seams
from inlet.core.remake.set_again import TURNED, Laid, as_they_were, places_of, slice_picture
from inlet.core.remake.slices import Slice, SliceError, frame_of, sliced
from inlet.core.remake.start_chart import MOST_PARTS, chart_table, sizes_of, start_chart
from inlet.core.remake.tree import place_boxes_of, sewn_tree, slice_parts

__all__ = [
    "MOST_PARTS",
    "TURNED",
    "CannotFollow",
    "CutApart",
    "Exchange",
    "Laid",
    "Nesting",
    "Remade",
    "Repeat",
    "Segment",
    "Slice",
    "SliceError",
    "SliceJunction",
    "SliceOffer",
    "ToSew",
    "Wanted",
    "arcs_sliced",
    "as_they_were",
    "by_chance",
    "chart_table",
    "closed_figures",
    "cut_in",
    "cut_key",
    "cut_words",
    "cuts_text",
    "cuts_typed",
    "drawing_of",
    "exchanged",
    "exchanges",
    "flipped",
    "followed",
    "frame_of",
    "from_on_point",
    "in_other_fabrics",
    "needed",
    "nesting",
    "nesting_text",
    "offers",
    "parts_at_marks",
    "picture_of_repeat",
    "pieces_of",
    "place_boxes_of",
    "places_of",
    "remade",
    "remade_before",
    "repeats",
    "set_by",
    "sewn_tree",
    "sizes_of",
    "slice_parts",
    "slice_picture",
    "sliced",
    "start_chart",
    "starts_of",
    "swapped",
    "through_seams",
    "turned_at",
    "value_exchanges",
    "with_cuts",
]
