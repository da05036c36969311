"""A unit as planned: methods compared, what the maker chose, fabric at hand, what is left over.

Promise: cut sizes follow the maker's ruler and cutting style; the exact size is kept beside them.
"""

from inlet.core.planning.checks import method_problems
from inlet.core.planning.choices import with_choice, without_method
from inlet.core.planning.compare import (
    COLUMNS,
    Comparison,
    Comparisons,
    MethodCost,
    cut_area,
    table,
)
from inlet.core.planning.cut_piece import CutPiece, CutSize, triangles_given, triangles_needed
from inlet.core.planning.cut_rule import CutRule, cut_to_meet, right_triangle, usual_rule
from inlet.core.planning.made_size import MadeSize, made_note
from inlet.core.planning.offers import Offer, left_over, offers
from inlet.core.planning.planned import plan_units, sharing_squares, squares_shared, with_inside
from inlet.core.planning.stock import Stock, largest_from, parse_stock
from inlet.core.planning.tray_units import tray_units_of
from inlet.core.planning.unit_plan import MethodPlan, Need, Twin, UnitPlan, Widths
from inlet.core.planning.upright import quarters_in, turned_on
from inlet.core.planning.words import (
    apart_text,
    kind_words,
    length_or_size,
    method_words,
    move_text,
    offer_text,
    over_text,
    piece_text,
    runs_words,
    spare_text,
    times_words,
    upright_notes,
)

__all__ = [
    "COLUMNS",
    "Comparison",
    "Comparisons",
    "CutPiece",
    "CutRule",
    "CutSize",
    "MadeSize",
    "MethodCost",
    "MethodPlan",
    "Need",
    "Offer",
    "Stock",
    "Twin",
    "UnitPlan",
    "Widths",
    "apart_text",
    "cut_area",
    "cut_to_meet",
    "kind_words",
    "largest_from",
    "left_over",
    "length_or_size",
    "made_note",
    "method_problems",
    "method_words",
    "move_text",
    "offer_text",
    "offers",
    "over_text",
    "parse_stock",
    "piece_text",
    "plan_units",
    "quarters_in",
    "right_triangle",
    "runs_words",
    "sharing_squares",
    "spare_text",
    "squares_shared",
    "table",
    "times_words",
    "tray_units_of",
    "triangles_given",
    "triangles_needed",
    "turned_on",
    "upright_notes",
    "usual_rule",
    "with_choice",
    "with_inside",
    "without_method",
]
