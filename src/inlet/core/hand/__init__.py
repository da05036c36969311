"""The maker's hand, learnt from what was measured and timed: how much a seam of theirs really
takes, and how long their work does.

Promise: what cannot be told from what was measured is said, not guessed at.
"""

from inlet.core.hand.estimate import Estimate, HandMeasure, learnt
from inlet.core.hand.measures import hand_measures
from inlet.core.hand.minutes import TimesLearnt, rates_learnt, times_learnt, times_lines
from inlet.core.hand.words import hand_lines

__all__ = [
    "Estimate",
    "HandMeasure",
    "TimesLearnt",
    "hand_lines",
    "hand_measures",
    "learnt",
    "rates_learnt",
    "times_learnt",
    "times_lines",
]
