"""Why a hand cannot sew a plan, in a sentence."""

from __future__ import annotations

from inlet.core.bench import Plan
from inlet.core.geometry import bounds
from inlet.core.hand import SEAM_TYPES
from inlet.core.plan import BlockPlan
from inlet.core.tolerance.sewing_hand import SewingHand
from inlet.core.words import length_text, unit_of


def hand_fault(hand: SewingHand, plan: Plan) -> str:
    """What is wrong with a hand for this plan; empty where it can sew it: its seam leaves something
    of the narrowest piece."""
    measure = plan.measure
    per_inch = float(measure.system.per_inch)
    if min(hand.spread, hand.cut_spread) < 0:
        return "a spread of a hand is not below 0"
    widest = max(hand.takes_more(kind) for kind in SEAM_TYPES)
    seam = float(measure.seam) + widest * per_inch
    if seam <= 0:
        return "a seam of this hand takes nothing"
    blocks = (plan, *plan.then_sewn) if isinstance(plan, BlockPlan) else plan.sewn
    narrow = min(
        (
            min(right - left, foot - top)
            for block in blocks
            for patch in block.draft.patches
            for left, top, right, foot in [bounds(patch.outline)]
        ),
        default=None,
        key=float,
    )
    if narrow is None or 2 * seam < float(narrow) + 2 * float(measure.seam):
        return ""
    seam_text = f"{seam:.2f} {unit_of(measure)}"
    piece = length_text(narrow + 2 * measure.seam, measure)
    return f"a seam that takes {seam_text} leaves nothing of a piece cut {piece} wide"
