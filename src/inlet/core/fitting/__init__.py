"""A block sewn up as it is cut: whether its seams fit, and what to do where they do not.

Promise: what is told of sizes is what comes out of the pieces as they are cut.
"""

from inlet.core.fitting.answers import Answer, answers, at_size, with_bands
from inlet.core.fitting.checks import fit_problems
from inlet.core.fitting.made import as_made, worst_easing
from inlet.core.fitting.measured import MadeSizes, SizesOfParts
from inlet.core.fitting.remedies import EASED, Fit, Fitting
from inlet.core.fitting.runs import made_whole, runs_of
from inlet.core.fitting.stretches import EdgeSpan, stretches
from inlet.core.fitting.words import NAMES, as_exact, done_text, misfit_text

__all__ = [
    "EASED",
    "NAMES",
    "Answer",
    "EdgeSpan",
    "Fit",
    "Fitting",
    "MadeSizes",
    "SizesOfParts",
    "answers",
    "as_exact",
    "as_made",
    "at_size",
    "done_text",
    "fit_problems",
    "made_whole",
    "misfit_text",
    "runs_of",
    "stretches",
    "with_bands",
    "worst_easing",
]
