"""Pressing in words: states of junctions, ways of seams."""

from __future__ import annotations

from inlet.core.pressing.outcomes import State
from inlet.core.pressing.pressed import Met, PressingPlan, Stretch
from inlet.core.project.project import Project
from inlet.core.words import cloth_name

STATES: dict[State, str] = {
    "nests": "nests",
    "whirled": "is whirled",
    "open": "both seams open",
    "mixed": "one seam open",
    "stacks": "stacks",
    "tee": "a T: nothing crosses",
}
STATE_ORDER: tuple[State, ...] = ("nests", "whirled", "open", "mixed", "stacks", "tee")


def junction_text(met: Met) -> str:
    """A junction in a sentence."""
    told = {
        "nests": "The seams nest: they lie opposite ways and lock.",
        "whirled": "The centre is whirled: its seams turn the same way round.",
        "open": "Both seams are open: match them with pins.",
        "mixed": "One seam is open: there is no ridge to lock against.",
        "stacks": "The seams stack: they lie the same way, on a heap.",
        "tee": "No seam crosses here.",
    }[met.state]
    return f"{told} {met.layers} layers at most."


def way_text(
    plan: PressingPlan, stretch: Stretch, project: Project, from_behind: bool = False
) -> str:
    """Which way a seam goes: "toward Fog, up"."""
    if stretch.toward is None:
        return "open"
    cloth = cloth_name(project, plan.seams.draft.patches[stretch.toward].fabric)
    return f"toward {cloth}, {heading(plan, stretch, from_behind)}"


def heading(plan: PressingPlan, stretch: Stretch, from_behind: bool = False) -> str:
    """Up, down, left, right: the way a seam goes, seen from the front or from behind."""
    x, y = plan.square(stretch)
    x = -x if from_behind else x
    parts = []
    if abs(y) > abs(x) * 0.4:
        parts.append("down" if y > 0 else "up")
    if abs(x) > abs(y) * 0.4:
        parts.append("right" if x > 0 else "left")
    return " and ".join(parts)
