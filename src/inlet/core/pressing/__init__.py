"""Which way each seam is pressed, and what lies on what then.

Promise: the cheapest answer by the maker's priorities, proved, or with the gap to what is proved;
equal units are pressed alike.
"""

from inlet.core.pressing.advice import PressingAdvice, pressing_advice
from inlet.core.pressing.costs import shown_through
from inlet.core.pressing.find import find_pressing
from inlet.core.pressing.folding import Layer
from inlet.core.pressing.holding import Pinned
from inlet.core.pressing.junctions import Junction
from inlet.core.pressing.neighbours import SETTING_TITLES
from inlet.core.pressing.outcomes import OPEN, State
from inlet.core.pressing.pins import (
    pin_centre,
    pin_stretch,
    pin_wish,
    pin_within,
    unpin_all,
    unpin_stretch,
)
from inlet.core.pressing.pressing_plan import AtEdge, Met, PressingPlan, Stretch, cost_if
from inlet.core.pressing.reasons import flip_text, points_text, reason
from inlet.core.pressing.steps import StepPress, step_press
from inlet.core.pressing.weights import METHOD_NOTES, METHOD_TITLES, MOST_POINTS, TABLE, points_of
from inlet.core.pressing.words import (
    CARE,
    STATE_ORDER,
    STATES,
    beside_lines,
    junction_text,
    pressing_lines,
    way_text,
)

__all__ = [
    "CARE",
    "METHOD_NOTES",
    "METHOD_TITLES",
    "MOST_POINTS",
    "OPEN",
    "SETTING_TITLES",
    "STATES",
    "STATE_ORDER",
    "TABLE",
    "AtEdge",
    "Junction",
    "Layer",
    "Met",
    "Pinned",
    "PressingAdvice",
    "PressingPlan",
    "State",
    "StepPress",
    "Stretch",
    "beside_lines",
    "cost_if",
    "find_pressing",
    "flip_text",
    "junction_text",
    "pin_centre",
    "pin_stretch",
    "pin_wish",
    "pin_within",
    "points_of",
    "points_text",
    "pressing_advice",
    "pressing_lines",
    "reason",
    "shown_through",
    "step_press",
    "unpin_all",
    "unpin_stretch",
    "way_text",
]
