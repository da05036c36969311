"""All that is worked out of what a hand will do to a block, in one go."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.bench import Plan
from inlet.core.hand import learn_hand
from inlet.core.plan import SewnBlock
from inlet.core.project import Project
from inlet.core.tolerance.faults import hand_fault
from inlet.core.tolerance.forecast import USUAL_NUMBER, Forecast, Watched, forecast
from inlet.core.tolerance.sewing_hand import HANDS, SewingHand, learnt_hand
from inlet.core.tolerance.shares import Share, shares
from inlet.core.tolerance.sources import block_model
from inlet.core.tolerance.words import risk_line

OWN = "mine"
WHOSE = {"steady": "a steady hand", "beginner": "a beginner's hand"}


class Outlook(NamedTuple):
    """``hand`` as it is learnt or assumed, and ``whose`` seam it is, in words; of a block that is
    sewn, what is ``watched`` of it, the ``forecast``, and which work makes it uneven; or why there
    is none."""

    hand: SewingHand
    whose: str
    watched: Watched | None = None
    forecast: Forecast | None = None
    shares: tuple[Share, ...] = ()
    fault: str = ""


def whose_hand(plan: Plan, project: Project, name: str = OWN) -> tuple[SewingHand, str]:
    """A hand by its name (``mine``: as the log tells it), and whose seam that is, in words."""
    if name in HANDS:
        return HANDS[name], WHOSE[name]
    learnt = learn_hand(plan, project)
    return learnt_hand(learnt), "your seam" if learnt.seams is not None else "a usual seam"


def outlook(
    block: SewnBlock, plan: Plan, project: Project, name: str = OWN, wider: float = 0.0
) -> Outlook:
    """What the hand of that name, sewing so many inches ``wider``, will do to a block; the hand is
    learnt from what the ``plan`` makes."""
    hand, whose = whose_hand(plan, project, name)
    return look_ahead(block, plan, hand.sewing_wider(wider), whose)


def look_ahead(block: SewnBlock, plan: Plan, hand: SewingHand, whose: str) -> Outlook:
    """What a hand will do to a block."""
    fault = hand_fault(hand, plan)
    if fault:
        return Outlook(hand, whose, fault=f"{fault[0].upper()}{fault[1:]}.")
    model = block_model(block)
    if model is None:
        return Outlook(hand, whose, fault="This block has no seams, or cannot be sewn yet.")
    watched = Watched(model)
    return Outlook(
        hand, whose, watched, forecast(watched, hand, USUAL_NUMBER), shares(watched, hand)
    )


def ticket_line(block: SewnBlock, plan: Plan, project: Project) -> str:
    """The line on a block's ticket, as the maker sews: ``2 of 8 points at risk with your seam.``;
    empty of a block that has none, or cannot be sewn yet."""
    hand, whose = whose_hand(plan, project)
    model = block_model(block)
    if model is None or hand_fault(hand, plan):
        return ""
    return risk_line(forecast(Watched(model), hand, USUAL_NUMBER), whose)
