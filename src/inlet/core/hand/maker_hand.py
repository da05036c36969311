"""All that is learnt of a maker, from the log of a project and what its plan makes."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.bench import Plan, jobs, timings
from inlet.core.hand.estimate import Estimate, HandMeasure, learnt
from inlet.core.hand.measures import hand_measures
from inlet.core.hand.minutes import TimesLearnt, rates_learnt, times_learnt
from inlet.core.project import Project, Rates


class MakerHand(NamedTuple):
    """What was measured, the ``seams`` learnt from it (None from too little), the ``times``; and
    the ``rates`` with what is known to be otherwise."""

    measures: list[HandMeasure]
    seams: Estimate | None
    times: TimesLearnt
    rates: Rates


def learn_hand(plan: Plan, project: Project) -> MakerHand:
    """The hand by a project's log, as far as it is of what a plan makes."""
    measure = project.measure
    measures = hand_measures(plan, project)
    seams = learnt(measures, float(measure.mark) / float(measure.system.per_inch))
    times = times_learnt(timings(project.log, jobs(plan, project)))
    return MakerHand(measures, seams, times, rates_learnt(times, project.rates or Rates()))
