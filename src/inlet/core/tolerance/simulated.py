"""A simulated maker: cuts, sews and measures what a plan makes, and writes the log.

It stands in for a person at the table: with a hidden hand, as ``sewing_hand`` knows them, and a
seed, from which everything follows. Work is logged job by job with the minutes it took, evening by
evening; each unit is measured as it comes from the machine, read to half a ruler's mark.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import NamedTuple

import numpy as np

from inlet.core.bench import Plan, Thing, jobs, sewn_things, with_job, with_timer, with_unpicked
from inlet.core.cancellation import check
from inlet.core.numbers import Fraction, nearest_mark
from inlet.core.piecing import Step
from inlet.core.plan import SewnBlock
from inlet.core.project import LogEntry, Pair, Project, Rates, Timer, replace
from inlet.core.tolerance.pieces import Array
from inlet.core.tolerance.sewing_hand import SewingHand
from inlet.core.tolerance.sides import measured, part_sides
from inlet.core.tolerance.sources import BlockModel, block_model

FOLD = 1 / 8
"""Inches that a seam takes more of each side where an edge lies folded under."""
BEGINS = 19
"""The hour of an evening."""
UNEVEN = 0.15
"""Of the minutes some work takes by the maker's pace: how they differ from time to time."""
MOST_OF_A_KIND = 400
"""Units of one kind that are sewn in the simulation; of more, these stand for the others."""
WRONG_WAY = "wrong way round"


class Slips(NamedTuple):
    """How many pieces were cut by the wrong half mark, edges folded under, units turned."""

    mark: int
    folded: int
    turned: int


class Simulated(NamedTuple):
    """The project with the log written, and the slips that went into it."""

    project: Project
    slips: Slips


def simulated(plan: Plan, project: Project, hand: SewingHand, seed: int, day: str) -> Simulated:
    """What the plan makes, made by a simulated maker from an evening of ``day`` (``2026-12-01``)
    on, in addition to what is in the log."""
    maker = _MakerAtWork(plan, project, hand, seed, day)
    maker.work()
    return Simulated(maker.project, Slips(**maker.slips))


class _MakerAtWork:
    def __init__(self, plan: Plan, project: Project, hand: SewingHand, seed: int, day: str) -> None:
        self.plan, self.project, self.hand = plan, project, hand
        self.chance = np.random.default_rng(seed)
        self.now = datetime.fromisoformat(day).replace(hour=BEGINS, minute=0)
        self.sitting = (project.rates or Rates()).sitting
        self.begun = self.now
        self.of_thing = {thing.name: (thing, of, step) for thing, of, step in sewn_things(plan)}
        self.models: dict[int, BlockModel | None] = {}
        self.slips: Counter[str] = Counter(mark=0, folded=0, turned=0)

    def work(self) -> None:
        """All jobs that are left, in their order; a unit is measured after its last."""
        left = [job for job in jobs(self.plan, self.project) if job.left > 0]
        last = {job.thing.name: i for i, job in enumerate(left) if job.thing is not None}
        for i, job in enumerate(left):
            check()
            at = self._clock()
            minutes = job.minutes * job.left * self.hand.pace
            taken = round(minutes * max(0.3, self.chance.normal(1.0, UNEVEN)))
            self.project = with_timer(self.project, Timer(since=at))
            self.now += timedelta(minutes=taken)
            self.project = with_job(self.project, job, job.left, self._stamp())
            self.project = with_timer(self.project, None)
            if job.thing is not None and last[job.thing.name] == i:
                self._measure(job.thing.name)

    def _clock(self) -> str:
        """The time now; the next evening, where this one is over."""
        if self.now - self.begun >= timedelta(minutes=self.sitting):
            self.begun = self.begun + timedelta(days=1)
            self.now = self.begun
        return self._stamp()

    def _stamp(self) -> str:
        return self.now.isoformat(timespec="minutes")

    def _measure(self, name: str) -> None:
        """The sizes of all units of a step, as the ruler tells them; turned ones are unpicked."""
        thing, of, step = self.of_thing.get(name, (None, None, None))
        if thing is None or of is None or step is None or step.measures is None or step.cuts:
            return
        turned = int(self.chance.binomial(thing.times, self.hand.slips.turned))
        if turned and step.unit is not None and len(step.part.faces) > 1:
            self.slips["turned"] += turned
            self.project = with_unpicked(self.project, thing, turned, WRONG_WAY, self._stamp())
            entry = LogEntry(
                what=thing.name, number=turned, at=self._stamp(), size=thing.size,
                drawn=thing.drawn,
            )  # fmt: skip
            self.project = replace(self.project, log=(*self.project.log, entry))
        sizes = Counter(self._sizes(thing, of, step))
        for size, number in sorted(sizes.items(), key=lambda item: tuple(map(float, item[0]))):
            entry = LogEntry(
                what=thing.name, did="measured", number=number, at=self._stamp(), size=size,
                drawn=thing.drawn,
            )  # fmt: skip
            self.project = replace(self.project, log=(*self.project.log, entry))

    def _sizes(self, thing: Thing, of: SewnBlock, step: Step) -> Iterator[Pair]:
        if id(of) not in self.models:
            self.models[id(of)] = block_model(of)
        model = self.models[id(of)]
        sides = None if model is None else part_sides(model.pieces, step.part)
        if model is None or sides is None or len(step.part.faces) < 2:
            return
        number = min(thing.times, MOST_OF_A_KIND)
        sewn = model.sewn(self.hand, self._errors(model, number))
        finest = of.measure.finest
        for wide, high in measured(sewn, sides, float(of.measure.seam)).T:
            yield _read(wide, finest), _read(high, finest)

    def _errors(self, model: BlockModel, number: int) -> Array:
        """The errors of so many blocks, with slips."""
        spreads = model.spreads(self.hand)[:, None]
        errors = self.chance.standard_normal((model.sources, number)) * spreads
        cuts, sewings = model.cuts, model.sewings
        missed = self.chance.random((cuts, number)) < self.hand.slips.mark / 4
        half = float(model.block.measure.mark) / 2
        errors[:cuts] += missed * self.chance.choice([-half, half], (cuts, number))
        folded = self.chance.random((sewings, number)) < self.hand.slips.folded
        errors[cuts : cuts + sewings] += folded * FOLD * model.per_inch
        self.slips["mark"] += int(missed.sum())
        self.slips["folded"] += int(folded.sum())
        return errors


def _read(length: float, finest: Fraction) -> Fraction:
    """A length as it is read off a ruler."""
    return nearest_mark(Fraction(length).limit_denominator(10_000), finest)
