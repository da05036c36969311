"""The maker's hand, learnt from what was measured and timed: how much a seam of theirs really
takes, and how long their work does; exercises that better it.

Promise: what cannot be told from what was measured is said, not guessed at.
"""

from inlet.core.hand.crossings import LONG, SeamType
from inlet.core.hand.crossings import TYPES as SEAM_TYPES
from inlet.core.hand.estimate import CUT_SPREAD, Estimate, HandMeasure
from inlet.core.hand.exercises import EXERCISES, Exercise, exercise_named, exercise_plan
from inlet.core.hand.maker_hand import MakerHand, coming_exercise, learn_hand
from inlet.core.hand.minutes import times_lines
from inlet.core.hand.practice import (
    DONE_WELL,
    NextExercise,
    PracticeResult,
    practised,
    progress_text,
    result_text,
    with_practice,
)
from inlet.core.hand.words import hand_lines, is_of_whole_seams, trim_lines

__all__ = [
    "CUT_SPREAD",
    "DONE_WELL",
    "EXERCISES",
    "LONG",
    "SEAM_TYPES",
    "Estimate",
    "Exercise",
    "HandMeasure",
    "MakerHand",
    "NextExercise",
    "PracticeResult",
    "SeamType",
    "coming_exercise",
    "exercise_named",
    "exercise_plan",
    "hand_lines",
    "is_of_whole_seams",
    "learn_hand",
    "practised",
    "progress_text",
    "result_text",
    "times_lines",
    "trim_lines",
    "with_practice",
]
