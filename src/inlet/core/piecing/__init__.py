"""The piecing stage: the order of joins, the steps, and the proof that they give the draft.

Promise: a plan that is shown as ready was sewn up again and gave the draft.
"""

from inlet.core.piecing.advice import (
    CUT_SHORT,
    Advised,
    SeamAdvice,
    advice_for,
    advice_lines,
    advice_text,
    known_advice,
)
from inlet.core.piecing.assembling import assembly_steps, run_lengths
from inlet.core.piecing.cards import StepCard, cards, fabric_rows
from inlet.core.piecing.checks import not_proved, order_problems, seam_problems
from inlet.core.piecing.pictures import raw_sheet, step_moves, turned_over
from inlet.core.piecing.resew import resewn, resewn_of
from inlet.core.piecing.seam_count import SeamCount, count_seams
from inlet.core.piecing.seam_test import (
    Effect,
    SeamTestResult,
    effect_of,
    effect_text,
    parse_seam_test,
    read_seam_test,
    seam_test_text,
    should_measure,
    usual_seam_test,
)
from inlet.core.piecing.step import Step
from inlet.core.piecing.steps import find_steps, labels_of, numbered, unit_steps

__all__ = [
    "CUT_SHORT",
    "Advised",
    "Effect",
    "SeamAdvice",
    "SeamCount",
    "SeamTestResult",
    "Step",
    "StepCard",
    "advice_for",
    "advice_lines",
    "advice_text",
    "assembly_steps",
    "cards",
    "count_seams",
    "effect_of",
    "effect_text",
    "fabric_rows",
    "find_steps",
    "known_advice",
    "labels_of",
    "not_proved",
    "numbered",
    "order_problems",
    "parse_seam_test",
    "raw_sheet",
    "read_seam_test",
    "resewn",
    "resewn_of",
    "run_lengths",
    "seam_problems",
    "seam_test_text",
    "should_measure",
    "step_moves",
    "turned_over",
    "unit_steps",
    "usual_seam_test",
]
