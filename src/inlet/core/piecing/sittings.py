"""Batches shared out over sittings, in the time the maker has."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.piecing.batches import Batch
from inlet.core.piecing.tasks import Task


class Sitting(NamedTuple):
    """Batches that fit the time there is."""

    batches: tuple[Batch, ...]

    @property
    def minutes(self) -> float:
        return sum(batch.minutes for batch in self.batches)


def sittings(found: Sequence[Batch], minutes: float) -> tuple[Sitting, ...]:
    """Batches shared out over sittings of so many minutes; a task that does not fit the time left
    is begun if at least one of it does, and goes on in the next sitting. One that takes longer
    than a whole sitting each has one to itself."""
    out: list[list[Batch]] = [[]]
    left = minutes
    for batch in found:
        here: list[Task] = []
        for task in batch.tasks:
            rest: Task | None = task
            while rest is not None:
                each = rest.minutes / max(1, rest.times)
                fit = rest.times if rest.minutes <= left + 1e-9 else int((left + 1e-9) / each)
                if fit <= 0 and left < minutes:  # nothing more fits: next sitting
                    if here:
                        out[-1].append(Batch(batch.place, tuple(here)))
                    here, left = [], minutes
                    out.append([])
                    continue
                fit = max(1, fit)
                done = rest._replace(times=fit, minutes=each * fit)
                here.append(done)
                left -= done.minutes
                more = rest.times - fit
                rest = rest._replace(times=more, minutes=each * more) if more else None
        if here:
            out[-1].append(Batch(batch.place, tuple(here)))
    return tuple(Sitting(tuple(row)) for row in out if row)
