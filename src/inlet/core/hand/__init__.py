"""The maker's hand, learnt from what was measured: how much a seam of theirs really takes.

Promise: what cannot be told from what was measured is said, not guessed at.
"""

from inlet.core.hand.estimate import Estimate, HandMeasure, learnt
from inlet.core.hand.measures import hand_measures
from inlet.core.hand.words import hand_lines

__all__ = ["Estimate", "HandMeasure", "hand_lines", "hand_measures", "learnt"]
