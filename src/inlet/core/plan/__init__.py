"""From the project to a plan: of a block, and of the quilt.

Promise: a pure function of the project that never raises for what is drawn: problems are in the
plan; nothing writes into a plan.
"""

from inlet.core.plan.block import plan_block
from inlet.core.plan.block_steps import block_step_name
from inlet.core.plan.corner_steps import corner_step_name
from inlet.core.plan.drawn_block import MOST_COPIES, BlockPlan
from inlet.core.plan.edge_steps import band_title
from inlet.core.plan.handedness import both_hands, hands_lines, hands_text
from inlet.core.plan.prepared import PreparedBlock, prepare_block
from inlet.core.plan.preparing import prepared_for
from inlet.core.plan.quilt import QuiltPlan, plan_quilt, top_of, turned_text
from inlet.core.plan.quilt_answers import (
    TITLES,
    QuiltAnswer,
    answer_text,
    comes_out,
    quilt_answers,
)
from inlet.core.plan.quilt_fit import apart_problems, apart_text
from inlet.core.plan.quilt_step import BACKING, QuiltStep, near_length
from inlet.core.plan.quilt_work import work_text
from inlet.core.plan.rows import (
    TURNS,
    RowCard,
    alike_rows,
    labels_text,
    listed,
    row_length_text,
)
from inlet.core.plan.sewn_block import SewnBlock
from inlet.core.plan.size_proposals import (
    BEDS,
    Proposal,
    SizeCost,
    cost_of,
    cost_text,
    proposals,
    target_typed,
)
from inlet.core.plan.sliced import called, sizes_as_cut
from inlet.core.plan.sliced_sizes import SlicedSizes

__all__ = [
    "BACKING",
    "BEDS",
    "MOST_COPIES",
    "TITLES",
    "TURNS",
    "BlockPlan",
    "PreparedBlock",
    "Proposal",
    "QuiltAnswer",
    "QuiltPlan",
    "QuiltStep",
    "RowCard",
    "SewnBlock",
    "SizeCost",
    "SlicedSizes",
    "alike_rows",
    "answer_text",
    "apart_problems",
    "apart_text",
    "band_title",
    "block_step_name",
    "both_hands",
    "called",
    "comes_out",
    "corner_step_name",
    "cost_of",
    "cost_text",
    "hands_lines",
    "hands_text",
    "labels_text",
    "listed",
    "near_length",
    "plan_block",
    "plan_quilt",
    "prepare_block",
    "prepared_for",
    "proposals",
    "quilt_answers",
    "row_length_text",
    "sizes_as_cut",
    "target_typed",
    "top_of",
    "turned_text",
    "work_text",
]
