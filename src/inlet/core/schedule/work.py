"""What a plan takes: what is done where, in which sittings, with how much thread."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.project import Measure, Rates
from inlet.core.schedule.batches import Batch
from inlet.core.schedule.sittings import Sitting, least_sittings, sittings
from inlet.core.schedule.thread import Thread, thread_for


class Work(NamedTuple):
    """What is done at the mat, the machine and the iron, place by place; the sittings of the
    maker's length it is shared out over, and the ``least`` there could be; the thread it takes."""

    batches: tuple[Batch, ...]
    sittings: tuple[Sitting, ...]
    thread: Thread
    least: int = 0

    @property
    def minutes(self) -> float:
        return sum(batch.minutes for batch in self.batches)


def work_for(batches: tuple[Batch, ...], rates: Rates, measure: Measure) -> Work:
    """The sittings and the thread of what is done, in its order."""
    thread = thread_for(batches, rates.bobbin, measure)
    least = least_sittings(batches, rates.sitting)
    return Work(batches, sittings(batches, rates.sitting), thread, least)
