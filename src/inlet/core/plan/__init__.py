"""From the project to a plan: of a block, and of the quilt.

Promise: a pure function of the project that never raises for what is drawn: problems are in the
plan; nothing writes into a plan.
"""

from inlet.core.plan.assembly_steps import BACKING, TURNS, QuiltStep, RowCard, listed
from inlet.core.plan.block import MOST_COPIES, BlockPlan, plan_block
from inlet.core.plan.handedness import both_hands, hands_lines, hands_text
from inlet.core.plan.prepared import PreparedBlock
from inlet.core.plan.quilt import QuiltPlan, plan_quilt
from inlet.core.plan.quilt_work import work_text
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

__all__ = [
    "BACKING",
    "BEDS",
    "MOST_COPIES",
    "TURNS",
    "BlockPlan",
    "PreparedBlock",
    "Proposal",
    "QuiltPlan",
    "QuiltStep",
    "RowCard",
    "SewnBlock",
    "SizeCost",
    "both_hands",
    "cost_of",
    "cost_text",
    "hands_lines",
    "hands_text",
    "listed",
    "plan_block",
    "plan_quilt",
    "proposals",
    "target_typed",
    "work_text",
]
