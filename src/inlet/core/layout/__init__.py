"""Fabric laid out and cut, stroke by stroke; how far it is.

Promise: following the strokes gives every piece asked for; the layout is the same on every machine.
"""

from inlet.core.layout.cards import CutCard, card, fabric_text, finished_card, preparing
from inlet.core.layout.checks import fabric_problems, print_problems, size_problems
from inlet.core.layout.cut_lines import CutPart, CuttingLine
from inlet.core.layout.fabric_plan import FabricPlan, ToCut, begun_for, piece_area
from inlet.core.layout.grain import grain_texts
from inlet.core.layout.laid_places import LaidPlace, Rect, Way, fits, length_used, places_of
from inlet.core.layout.layout import AT_ONCE, BEST, FEW, lay_out, lay_out_fabric
from inlet.core.layout.progress import (
    begin,
    begun_at,
    cuts_of,
    differ_in_cuts_only,
    given_up,
    gone_on,
    kept,
    lines_of,
    next_set_up,
    under_way,
    worth_keeping,
)
from inlet.core.layout.sources import strip_room
from inlet.core.layout.stash import (
    TITLES,
    new_have,
    per_cent,
    price_typed,
    size_hint,
    size_shown,
    size_typed,
)
from inlet.core.layout.stroke_words import finished_text, layers_text, line_text
from inlet.core.layout.strokes import Stroke, ready_after
from inlet.core.layout.tools import SetUp, Tools, handled_by, tools_for, tools_of
from inlet.core.layout.tools_typed import (
    LEAST_HANDLED,
    LEAST_SIDE,
    MOST_HANDLED,
    MOST_SIDE,
    handled_typed,
    mat_typed,
    rulers_typed,
    tools_shown,
)
from inlet.core.layout.words import (
    bought_text,
    buying_text,
    length_words,
    piece_names,
    set_lines,
    set_name,
    strips_text,
    strips_to_cut,
    total_text,
)

__all__ = [
    "AT_ONCE",
    "BEST",
    "FEW",
    "LEAST_HANDLED",
    "LEAST_SIDE",
    "MOST_HANDLED",
    "MOST_SIDE",
    "TITLES",
    "CutCard",
    "CutPart",
    "CuttingLine",
    "FabricPlan",
    "LaidPlace",
    "Rect",
    "SetUp",
    "Stroke",
    "ToCut",
    "Tools",
    "Way",
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
    "handled_by",
    "handled_typed",
    "kept",
    "lay_out",
    "lay_out_fabric",
    "layers_text",
    "length_used",
    "length_words",
    "line_text",
    "lines_of",
    "mat_typed",
    "new_have",
    "next_set_up",
    "per_cent",
    "piece_area",
    "piece_names",
    "places_of",
    "preparing",
    "price_typed",
    "print_problems",
    "ready_after",
    "rulers_typed",
    "set_lines",
    "set_name",
    "size_hint",
    "size_problems",
    "size_shown",
    "size_typed",
    "strip_room",
    "strips_text",
    "strips_to_cut",
    "tools_for",
    "tools_of",
    "tools_shown",
    "total_text",
    "under_way",
    "worth_keeping",
]
