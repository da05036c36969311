"""All that is learnt of a maker, from the log of a project and what its plan makes."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from inlet.core.bench import Plan, jobs, timings
from inlet.core.hand.estimate import Estimate, HandMeasure, learnt
from inlet.core.hand.measures import hand_measures, trimmed_sides
from inlet.core.hand.minutes import TimesLearnt, rates_learnt, times_learnt
from inlet.core.hand.practice import NextExercise, next_exercise, practised
from inlet.core.hand.trims import TrimEstimate, trims_learnt
from inlet.core.project import Project, Rates


class MakerHand(NamedTuple):
    """What was measured, the ``seams`` learnt from it and how large what is trimmed comes out (None
    from too little), the ``times``; and the ``rates`` with what is known to be otherwise."""

    measures: list[HandMeasure]
    seams: Estimate | None
    times: TimesLearnt
    rates: Rates
    trims: TrimEstimate | None = None


def _seams(measures: list[HandMeasure], mark: float) -> Estimate | None:
    """Types told apart as far as they can be: long seams from short ones last of all."""
    estimate = learnt(measures, mark)
    if estimate is None or "long" not in estimate.apart:
        return estimate
    together = [m._replace(takes=_long_as_short(m.takes)) for m in measures]
    return learnt(together, mark)


def _long_as_short(takes: Mapping[str, float]) -> dict[str, float]:
    merged = {kind: part for kind, part in takes.items() if kind != "long"}
    whole = merged.get("straight", 0.0) + takes.get("long", 0.0)
    return merged | ({"straight": whole} if whole else {})


def learn_hand(plan: Plan, project: Project) -> MakerHand:
    """The hand by a project's log, as far as it is of what a plan makes."""
    measure = project.measure
    measures = hand_measures(plan, project)
    mark = float(measure.finest) / float(measure.system.per_inch)
    seams = _seams(measures, mark)
    trims = trims_learnt(trimmed_sides(plan, project), mark)
    times = times_learnt(timings(project.log, jobs(plan, project)))
    return MakerHand(measures, seams, times, rates_learnt(times, project.rates or Rates()), trims)


def coming_exercise(plan: Plan | None, project: Project) -> NextExercise:
    """The exercise that comes next, by the results in the log and the seams learnt from what the
    plan makes, where there is one."""
    seams = learn_hand(plan, project).seams if plan is not None else None
    return next_exercise(practised(project), seams)
