"""Scraps sewn over the corners of squares: seams within the maker's bounds, scraps that cover.

Promise: a scrap that is said to cover does, allowance included; squares beside one another differ.
"""

from inlet.core.improvised.corners import CornerChoice, corner_choice, corner_problems
from inlet.core.improvised.coverage import LeastScrap, least_scrap, scrap_over
from inlet.core.improvised.field import Spot, field_of, key_of
from inlet.core.improvised.pace import pace_of, pace_text
from inlet.core.improvised.picture import square_picture
from inlet.core.improvised.scraps import ScrapPool, scrap_pool, scrap_strips, weight_text
from inlet.core.improvised.seams import (
    CornerSeam,
    ImprovisedSquare,
    ends_of,
    line_of,
    raw_size,
    seam_text,
)
from inlet.core.improvised.trial import CornerTrial, corners_of_strip, trial_text, tried

__all__ = [
    "CornerChoice",
    "CornerSeam",
    "CornerTrial",
    "ImprovisedSquare",
    "LeastScrap",
    "ScrapPool",
    "Spot",
    "corner_choice",
    "corner_problems",
    "corners_of_strip",
    "ends_of",
    "field_of",
    "key_of",
    "least_scrap",
    "line_of",
    "pace_of",
    "pace_text",
    "raw_size",
    "scrap_over",
    "scrap_pool",
    "scrap_strips",
    "seam_text",
    "square_picture",
    "trial_text",
    "tried",
    "weight_text",
]
