"""The work that is left, shared out: the next sitting, and what fits a few minutes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from itertools import groupby
from typing import NamedTuple

from inlet.core.bench.jobs import BENCH_PLACES, BenchJob
from inlet.core.layout import cuts_of
from inlet.core.project import Project
from inlet.core.schedule import Batch, Task, sittings

FIT_AT_ONCE = 4
"""Jobs that are named for a few minutes."""
QUICK = 1e-9


class Portion(NamedTuple):
    """So many of what is left of a job, in so many minutes; ``which`` job it is, counted from 0."""

    which: int
    job: BenchJob
    number: int
    minutes: float


def sittings_left(
    jobs: Sequence[BenchJob], minutes: float, pace: float = 1.0
) -> tuple[tuple[Portion, ...], ...]:
    """What is left of some jobs, in their order, shared out over sittings of so many minutes, as
    the schedule does it; each takes ``pace`` times what the rates say."""
    tasks = [
        Task(i, "", "", "mat" if job.place == "floor" else job.place, job.verb, job.left,
             job.left * job.minutes * pace)
        for i, job in enumerate(jobs) if job.left
    ]  # fmt: skip
    batches = [Batch(place, tuple(row)) for place, row in groupby(tasks, lambda t: t.place)]
    return tuple(
        tuple(
            Portion(task.step, jobs[task.step], task.times, task.minutes)
            for batch in sitting.batches
            for task in batch.tasks
        )
        for sitting in sittings(batches, minutes)
    )


def quick_jobs(
    jobs: Sequence[BenchJob], project: Project, minutes: float, pace: float = 1.0
) -> tuple[Portion, ...]:
    """What can be begun now and ended within so many minutes, wherever it is done: the first of
    each place, then more in the order of the schedule."""
    ready = [
        Portion(i, job, number, number * job.minutes * pace)
        for i, (job, free) in enumerate(zip(jobs, _free(jobs, project), strict=True))
        for number in (min(free, _fitting(job, minutes, pace)),)
        if number > 0
    ]
    firsts = [next((p for p in ready if p.job.place == place), None) for place in BENCH_PLACES]
    first = sorted((p for p in firsts if p is not None), key=lambda p: p.which)
    more = [p for p in ready if p not in first]
    return tuple((*first, *more)[:FIT_AT_ONCE])


def _fitting(job: BenchJob, minutes: float, pace: float) -> int:
    """How many of a job are done in so many minutes."""
    each = job.minutes * pace
    return job.left if each < QUICK else min(job.left, int((minutes + QUICK) / each))


def _free(jobs: Sequence[BenchJob], project: Project) -> Iterator[int]:
    """How many of each job can be done now: what the part before has come to, once everything the
    step is made of is done and cut. What is sewn already was cut."""
    there = stacks_cut(jobs, project)
    steps: dict[str, int] = {}  # done of the part of a step that came last, as a part of all
    whole = {job.thing.name: job.left == 0 for job in jobs if job.thing is not None}
    for job in jobs:
        if job.thing is None:
            yield job.left
            continue
        name, times = job.thing.name, max(1, job.thing.times)
        if name in steps:
            free = steps[name] * job.times // times - job.done
        else:
            ready = all(whole.get(needed, True) for needed in job.needs)
            is_cut = job.done > 0 or all(there.get(label, True) for label in job.stacks)
            free = job.left if ready and is_cut else 0
        steps[name] = job.done * times // max(1, job.times)
        yield max(0, min(job.left, free))


def stacks_cut(jobs: Sequence[BenchJob], project: Project) -> Mapping[str, bool]:
    """Which stacks are cut, by their label, of all that are cut from the fabric of some jobs."""
    cut: dict[str, bool] = {}
    for job in jobs:
        if job.laid is None:
            continue
        for i, stroke in enumerate(cuts_of(job.laid.laid, project)):
            for label, _ in stroke.finishes:
                cut[label] = cut.get(label, True) and i < job.done
    return cut
