"""Pressing in words: states of junctions, ways of seams."""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.pressing.outcomes import State
from inlet.core.pressing.pressing_plan import Met, PressingPlan, Stretch
from inlet.core.pressing.reasons import points_text
from inlet.core.pressing.weights import METHOD_TITLES
from inlet.core.project import Project
from inlet.core.words import fabric_name

CARE = (
    "Set each seam first: press it closed, as it was sewn. Then open it, dark side up, and press, "
    "do not rub: bias edges stretch. The iron and its steam are hot. The manuals of your own tools "
    "come first."
)
STATES: dict[State, str] = {
    "nests": "nested",
    "whirled": "spun",
    "open": "both seams open",
    "mixed": "one seam open",
    "stacks": "stacked",
    "tee": "a T: nothing crosses",
}
STATE_ORDER: tuple[State, ...] = ("nests", "whirled", "open", "mixed", "stacks", "tee")


def junction_text(met: Met) -> str:
    """A junction in a sentence."""
    state_text = {
        "nests": "The seams nest: they lie opposite ways and lock.",
        "whirled": "The centre is spun: its seams turn the same way round.",
        "open": "Both seams are open: match them with pins.",
        "mixed": "One seam is open: there is no ridge to lock against.",
        "stacks": "The seam allowances stack: both are pressed the same way.",
        "tee": "No seam crosses here.",
    }[met.state]
    return f"{state_text} {met.layers} layers at most."


def way_text(
    plan: PressingPlan, stretch: Stretch, project: Project, from_behind: bool = False
) -> str:
    """Which way a seam goes: "toward Fog, up"."""
    if stretch.toward is None:
        return "open"
    fabric = fabric_name(project, plan.seams.draft.patches[stretch.toward].fabric)
    return f"toward {fabric}, {heading(plan, stretch, from_behind)}"


def heading(plan: PressingPlan, stretch: Stretch, from_behind: bool = False) -> str:
    """Up, down, left, right: the way a seam goes, seen from the front or from behind."""
    x, y = plan.square(stretch)
    x = -x if from_behind else x
    parts = []
    if abs(y) > abs(x) * 0.4:
        parts.append("down" if y > 0 else "up")
    if abs(x) > abs(y) * 0.4:
        parts.append("to the right" if x > 0 else "to the left")
    return " and ".join(parts)


def pressing_lines(plan: PressingPlan) -> Iterator[str]:
    """How well a block is pressed, beside its neighbours too, and its thickest place."""
    good, crossed = plan.nesting
    gap = f", at most {points_text(plan.gap)} from the least" if plan.gap else ", the least"
    nest = f"{good} of {crossed} junctions nest, " if crossed else ""
    yield f"Pressing ({METHOD_TITLES[plan.method].lower()}): {nest}{points_text(plan.cost)}{gap}."
    yield from beside_lines(plan)
    thickest = plan.thickest()
    if thickest is not None:
        yield f"Most layers at one junction: {thickest.layers}."


def beside_lines(plan: PressingPlan) -> Iterator[str]:
    """How a block meets its neighbours, and what to do where it does not nest."""
    if not plan.setting:
        return
    met = [at_edge for at_edge in plan.edges if at_edge.state != "tee"]
    if not met:
        yield f"Laid {plan.setting}, no seam meets a seam of the next block."
        return
    good = sum(at_edge.state == "nests" for at_edge in met)
    yield (
        f"Laid {plan.setting}, {good} of {len(met)} seams at the edge nest with the next block's."
    )
    if len(plan.versions) > 1:
        one, two = plan.of_each
        yield (
            f"Press blocks in two versions, {one} and {two} of every {one + two}, and lay them by "
            "turns: no two of one version side by side."
        )
    elif good == len(met):
        yield "One version is enough."
    yield "Seams between blocks: odd rows away from the row's label, even rows toward it."
