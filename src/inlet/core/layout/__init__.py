"""Fabric laid out and cut, stroke by stroke; how far it is.

Promise: following the strokes gives every piece asked for; the layout is the same on every machine.
"""

from inlet.core.layout.cards import CutCard, card, fabric_text, finished_card, preparing
from inlet.core.layout.checks import fabric_problems, print_problems, size_problems
from inlet.core.layout.fabric_plan import FabricPlan, ToCut, begun_for, piece_area
from inlet.core.layout.grain import grain_texts
from inlet.core.layout.layout import AT_ONCE, BEST, FEW, lay_out, lay_out_fabric
from inlet.core.layout.progress import (
    begin,
    begun_at,
    cuts_of,
    differ_in_cuts_only,
    given_up,
    gone_on,
    kept,
    under_way,
    worth_keeping,
)
from inlet.core.layout.stash import (
    TITLES,
    new_have,
    per_cent,
    price_typed,
    size_hint,
    size_shown,
    size_typed,
)
from inlet.core.layout.stroke_words import finished_text, layers_text, stroke_text
from inlet.core.layout.strokes import (
    LaidPlace,
    Rect,
    Stroke,
    fits,
    length_used,
    places_of,
    ready_after,
    strokes_of,
)
from inlet.core.layout.words import (
    bought_text,
    buying_text,
    set_lines,
    set_name,
    strips_text,
    total_text,
)

__all__ = [
    "AT_ONCE",
    "BEST",
    "FEW",
    "TITLES",
    "CutCard",
    "FabricPlan",
    "LaidPlace",
    "Rect",
    "Stroke",
    "ToCut",
    "begin",
    "begun_at",
    "begun_for",
    "bought_text",
    "buying_text",
    "card",
    "cuts_of",
    "differ_in_cuts_only",
    "fabric_problems",
    "fabric_text",
    "finished_card",
    "finished_text",
    "fits",
    "given_up",
    "gone_on",
    "grain_texts",
    "kept",
    "lay_out",
    "lay_out_fabric",
    "layers_text",
    "length_used",
    "new_have",
    "per_cent",
    "piece_area",
    "places_of",
    "preparing",
    "price_typed",
    "print_problems",
    "ready_after",
    "set_lines",
    "set_name",
    "size_hint",
    "size_problems",
    "size_shown",
    "size_typed",
    "strips_text",
    "stroke_text",
    "strokes_of",
    "total_text",
    "under_way",
    "worth_keeping",
]
