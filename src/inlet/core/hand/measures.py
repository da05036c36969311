"""What was measured of units, as the learning takes it: how far off, across which seams."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator

from inlet.core.bench import Plan, sewn_things
from inlet.core.hand.crossings import LONG, Crossings, crossings
from inlet.core.hand.estimate import HandMeasure
from inlet.core.hand.practice import practice_measures
from inlet.core.numbers import Exact
from inlet.core.piecing import Step
from inlet.core.plan import SewnBlock
from inlet.core.project import LogEntry, Pair, Project


def hand_measures(plan: Plan, project: Project) -> list[HandMeasure]:
    """Every measured size in the log of what the plan makes, and of exercises, in inches. Left out
    is what was trimmed, as its size is the ruler's; and what no longer is in the plan."""
    per_inch = float(project.measure.system.per_inch)
    measures = list(practice_measures(project))
    known_sides: dict[str, tuple[Crossings, Crossings]] = {}
    for entry, size, planned, of, step, number in _measured(plan, project):
        if _is_trimmed(step):
            continue
        if entry.drawn not in known_sides:
            sides = crossings(of.draft, step.part, _trimmed(of, step), LONG * per_inch)
            known_sides[entry.drawn] = sides
        sides = known_sides[entry.drawn]
        measures += list(_of_entry(entry, size, planned, sides, per_inch)) * number
    return measures


def trimmed_sides(plan: Plan, project: Project) -> list[float]:
    """How many inches each measured side of a trimmed unit is off."""
    per_inch = float(project.measure.system.per_inch)
    return [
        _inches(size[axis] - planned[axis], per_inch)
        for _, size, planned, _, step, number in _measured(plan, project)
        if _is_trimmed(step)
        for axis in (0, 1)
        for _ in range(number)
    ]


def _measured(
    plan: Plan, project: Project
) -> Iterator[tuple[LogEntry, Pair, Pair, SewnBlock, Step, int]]:
    """Each measured size in the log of what the plan makes: the entry, its size and the planned
    one, the block and step; and how many of its units were each laid on the ruler."""
    together: dict[tuple[str, str], set[Pair]] = defaultdict(set)
    for entry in project.log:
        if entry.did == "measured" and entry.size is not None:
            together[entry.what, entry.at].add(entry.size)
    known = {thing.drawn: (of, step) for thing, of, step in sewn_things(plan) if thing.drawn}
    for entry in project.log:
        if entry.did != "measured" or entry.size is None or entry.drawn not in known:
            continue
        of, step = known[entry.drawn]
        if step.measures is not None:
            differ = len(together[entry.what, entry.at]) > 1
            number = min(entry.number, MOST_APART if differ else MOST_ALIKE)
            yield entry, entry.size, step.measures, of, step, number


def _is_trimmed(step: Step) -> bool:
    return step.unit is not None and step.unit.in_use.trim_to is not None


def _trimmed(of: SewnBlock, step: Step) -> dict[int, int]:
    """The faces of units that are trimmed before they are sewn into what a step makes, each with
    its unit's number there: whatever their seams took, a ruler gave them their size."""
    if step.unit is not None:
        return {}
    places = [
        place for unit in of.units if unit.in_use.trim_to is not None for place in unit.unit.places
    ]
    return {face: number for number, place in enumerate(places) for face in place.part.faces}


def _of_entry(
    entry: LogEntry, size: Pair, planned: Pair, sides: tuple[Crossings, Crossings], per_inch: float
) -> Iterator[HandMeasure]:
    """Both sides, where they were measured: of a square that has one size, the side with more
    seams across it."""
    both = size[0] != size[1] or planned[0] != planned[1]
    which = (0, 1) if both else (0,) if sides[0].all >= sides[1].all else (1,)
    for axis in which:
        crossed, off = sides[axis], _inches(size[axis] - planned[axis], per_inch)
        yield HandMeasure(off, crossed.takes, crossed.squares, crossed.pieces, entry.what)


MOST_ALIKE = 12
"""Of units that all measured alike no more are counted: they were hardly each laid on the ruler."""
MOST_APART = 400
"""The same, of units of which sizes differ: each was."""


def _inches(length: Exact, per_inch: float) -> float:
    return float(length) / per_inch
