"""Batches shared out over sittings, in the time the maker has."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.schedule.batches import Batch
from inlet.core.schedule.tasks import Task


class Sitting(NamedTuple):
    """Batches that fit the time there is."""

    batches: tuple[Batch, ...]

    @property
    def minutes(self) -> float:
        return sum(batch.minutes for batch in self.batches)


LEAST_PART = 4
"""A task is parted only if a part of so many lies on either side."""


def _worth_beginning(task: Task, fit: int, minutes: float) -> bool:
    """Is it worth doing ``fit`` of a task now, the rest in the next sitting of so many minutes?"""
    if fit >= task.times:
        return True
    parted_well = fit * LEAST_PART >= task.times and (task.times - fit) * LEAST_PART >= task.times
    return fit > 0 and (parted_well or task.minutes > minutes)


def _parted(task: Task, fit: int) -> tuple[Task, Task | None]:
    """So many of a task now, and what is left of it."""
    more = task.times - fit
    if not more:
        return task, None
    each = task.minutes / task.times
    marks = -(-task.marks * fit // task.times)
    now = task._replace(times=fit, minutes=each * fit, marks=marks, begun=True)
    rest = task._replace(times=more, minutes=each * more, marks=task.marks - marks, begun=True)
    return now, rest


def sittings(batches: Sequence[Batch], minutes: float) -> tuple[Sitting, ...]:
    """Batches shared out over sittings of so many minutes; a task that does not fit the time left
    is begun if a good part of it does, and goes on in the next sitting: nobody sews one now and 23
    later. What takes longer than a whole sitting each has one to itself."""
    out: list[list[Batch]] = [[]]
    left = minutes
    for batch in batches:
        here: list[Task] = []
        for task in batch.tasks:
            rest: Task | None = task
            while rest is not None:
                each = rest.minutes / max(1, rest.times)
                fit = rest.times if rest.minutes <= left + 1e-9 else int((left + 1e-9) / each)
                if left < minutes and not _worth_beginning(rest, fit, minutes):
                    if here:
                        out[-1].append(Batch(batch.place, tuple(here)))
                    here, left = [], minutes
                    out.append([])
                    continue
                fit = max(1, fit)
                done, rest = _parted(rest, fit)
                here.append(done)
                left = max(0.0, left - done.minutes)
        if here:
            out[-1].append(Batch(batch.place, tuple(here)))
    return tuple(Sitting(tuple(row)) for row in out if row)
