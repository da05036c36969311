"""Batches shared out over sittings, in the time the maker has: as few sittings as there can be in
their order, each ending where the least walks and the least is left half done."""

from __future__ import annotations

from collections.abc import Sequence
from math import ceil
from typing import NamedTuple

from inlet.core.schedule.batches import Batch
from inlet.core.schedule.tasks import Task


class Sitting(NamedTuple):
    """Batches that fit the time there is."""

    batches: tuple[Batch, ...]

    @property
    def minutes(self) -> float:
        return sum(batch.minutes for batch in self.batches)


WELL_FILLED = 0.75
"""Of a sitting: how much of it is used at least before it ends early for a better place."""
LEAST_PART = 4
"""A task is parted so that a part of so many lies on either side, where that does."""
HAIR = 1e-9


class _Spot(NamedTuple):
    """Where a sitting may end: before a task, or after so many of its pieces."""

    task: int
    pieces: int = 0


class _Queue(NamedTuple):
    """All tasks in their order, with the batch each is of, and the minutes of a sitting."""

    tasks: Sequence[Task]
    batch_of: Sequence[int]
    minutes: float

    def each(self, task: int) -> float:
        return self.tasks[task].minutes / max(1, self.tasks[task].times)

    def farthest(self, spot: _Spot) -> _Spot:
        """Where a sitting that begins here ends at the latest: it holds one piece at least."""
        left, first = self.minutes, True
        while spot.task < len(self.tasks):
            times, each = self.tasks[spot.task].times, self.each(spot.task)
            number = times - spot.pieces
            fit = number if number * each <= left + HAIR else int((left + HAIR) / each)
            fit = max(fit, int(first and number > 0))
            if fit < number:
                return _Spot(spot.task, spot.pieces + fit)
            left, first, spot = max(0.0, left - fit * each), False, _Spot(spot.task + 1)
        return spot

    def nearest(self, spot: _Spot) -> _Spot:
        """Where a sitting that ends here begins at the earliest."""
        left, first = self.minutes, True
        while spot > _Spot(0):
            task = spot.task if spot.pieces else spot.task - 1
            number, each = spot.pieces or self.tasks[task].times, self.each(task)
            fit = number if number * each <= left + HAIR else int((left + HAIR) / each)
            fit = max(fit, int(first and number > 0))
            if fit < number:
                return _Spot(task, number - fit)
            left, first, spot = max(0.0, left - fit * each), False, _Spot(task)
        return spot

    def best(self, begin: _Spot, low: _Spot, high: _Spot) -> _Spot:
        """Where a sitting ends best, from one spot to another: between two places, else between
        two tasks, as late as can be; else inside a task, a good part of it on either side."""
        if high.task == len(self.tasks):
            return high
        spots = [_Spot(task) for task in range(high.task, low.task - 1, -1)]
        spots = [s for s in spots if low <= s <= high and self._well_filled(begin, s)]
        walks = (s for s in spots if self.batch_of[s.task] != self.batch_of[s.task - 1])
        inside = high
        if high.pieces:
            part = -(-self.tasks[high.task].times // LEAST_PART)
            spot = _Spot(high.task, min(high.pieces, self.tasks[high.task].times - part))
            if spot.pieces >= part and low <= spot and self._well_filled(begin, spot):
                inside = spot
        return next(walks, next(iter(spots), inside))

    def _well_filled(self, begin: _Spot, end: _Spot) -> bool:
        return self.between(begin, end) >= WELL_FILLED * self.minutes

    def between(self, begin: _Spot, end: _Spot) -> float:
        """The minutes from one spot to another."""
        whole = sum(self.tasks[i].minutes for i in range(begin.task, end.task))
        before = begin.pieces * self.each(begin.task) if begin.pieces else 0.0
        return whole - before + (end.pieces * self.each(end.task) if end.pieces else 0.0)

    def sitting(self, begin: _Spot, end: _Spot) -> Sitting:
        """What is done from one spot to another."""
        batches: dict[int, list[Task]] = {}
        for i in range(begin.task, min(end.task + 1, len(self.tasks))):
            low = begin.pieces if i == begin.task else 0
            high = end.pieces if i == end.task else self.tasks[i].times
            if high > low or (i < end.task and not self.tasks[i].times):
                batches.setdefault(self.batch_of[i], []).append(_parted(self.tasks[i], low, high))
        return Sitting(tuple(Batch(tasks[0].place, tuple(tasks)) for tasks in batches.values()))


def _parted(task: Task, low: int, high: int) -> Task:
    """The pieces of a task from ``low`` on before ``high``."""
    if high - low == task.times:
        return task
    each, marks = task.minutes / task.times, task.marks / task.times
    own_marks = ceil(marks * high - HAIR) - ceil(marks * low - HAIR)
    return task._replace(times=high - low, minutes=each * (high - low), marks=own_marks, begun=True)


def sittings(batches: Sequence[Batch], minutes: float) -> tuple[Sitting, ...]:
    """Batches shared out over sittings of so many minutes, in their order; a task is parted at
    whole pieces. No order holds fewer sittings: each could end as late as its time allows, and ends
    sooner only where that leaves as many to come. A piece that takes longer than a sitting has one
    to itself."""
    tasks = [task for batch in batches for task in batch.tasks]
    batch_of = [i for i, batch in enumerate(batches) for _ in batch.tasks]
    line = _Queue(tasks, batch_of, max(minutes, HAIR))
    end = _Spot(len(tasks))
    number, spot = 0, _Spot(0)
    while spot < end:
        spot, number = line.farthest(spot), number + 1
    earliest = [end]
    for _ in range(number):
        earliest.append(line.nearest(earliest[-1]))
    shared: list[Sitting] = []
    begin = _Spot(0)
    for left in range(number - 1, -1, -1):
        high = line.farthest(begin)
        spot = line.best(begin, earliest[left], high)
        shared.append(line.sitting(begin, spot))
        begin = spot
    return tuple(sitting for sitting in shared if sitting.batches)


def least_sittings(batches: Sequence[Batch], minutes: float) -> int:
    """How many sittings so many minutes of work take at the least, were it all one piece."""
    whole = sum(batch.minutes for batch in batches)
    return ceil(whole / minutes - HAIR) if minutes > 0 else 0
