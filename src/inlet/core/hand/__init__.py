"""The maker's hand, learnt from what was measured and timed: how much a seam of theirs really
takes, and how long their work does.

Promise: what cannot be told from what was measured is said, not guessed at.
"""

from inlet.core.hand.crossings import TYPES as SEAM_TYPES
from inlet.core.hand.crossings import SeamType
from inlet.core.hand.estimate import CUT_SPREAD, Estimate, HandMeasure
from inlet.core.hand.maker_hand import MakerHand, learn_hand
from inlet.core.hand.minutes import times_lines
from inlet.core.hand.words import hand_lines, is_of_whole_seams

__all__ = [
    "CUT_SPREAD",
    "SEAM_TYPES",
    "Estimate",
    "HandMeasure",
    "MakerHand",
    "SeamType",
    "hand_lines",
    "is_of_whole_seams",
    "learn_hand",
    "times_lines",
]
