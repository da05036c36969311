"""The maker's own pace: how long things took by the log, against what the rates say of them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.bench.jobs import BenchJob
from inlet.core.bench.progress import Log
from inlet.core.project import LogEntry

LEAST = 15
"""Minutes that must have been taken before they say something."""


class MakerPace(NamedTuple):
    """How many minutes things take for each minute the rates give them, from ``minutes`` that were
    taken; 1 from none."""

    factor: float = 1.0
    minutes: int = 0


def pace_of(log: Log, jobs: Sequence[BenchJob]) -> MakerPace:
    """The pace of what was timed and can be told from the jobs: minutes taken over minutes by the
    rates, of the same things. Time spent on a thing that was not done then counts with it; things
    ticked within one minute share its time."""
    taken, by_rates = 0, 0.0
    minutes_each = list(_minutes_each(jobs, log))
    timed_at = ""
    for entry in log:
        shares = bool(timed_at) and entry.at == timed_at
        is_timed = entry.minutes is not None or shares
        timed_at = entry.at if is_timed else ""
        if not is_timed or entry.did in ("unpicked", "measured", "note"):
            continue
        each = next((m for names, m in minutes_each if _is_of(entry, names)), None)
        if each is None:
            continue
        taken += entry.minutes or 0
        if entry.did != "timed":
            by_rates += entry.number * each
    if taken < LEAST or by_rates <= 0:
        return MakerPace()
    return MakerPace(taken / by_rates, taken)


def minutes_by_rates(log: Log, jobs: Sequence[BenchJob]) -> float:
    """What the rates give to what some entries say was done; nothing to what no job is of."""
    minutes_each = list(_minutes_each(jobs, log))
    each = (next((m for names, m in minutes_each if _is_of(entry, names)), 0.0) for entry in log)
    return sum(entry.number * minutes for entry, minutes in zip(log, each, strict=True))


Names = tuple[str, str, str]
"""The name of a thing, its drawing's mark, a part of it."""


def _minutes_each(jobs: Sequence[BenchJob], log: Log) -> Iterator[tuple[Names, float]]:
    """What one of each thing takes by the rates, part by part; with the last part, what no part
    of the log says was done before it."""
    parts_ticked = {(entry.what, entry.part) for entry in log if entry.part}
    last: dict[str, float] = {}
    for job in jobs:
        if job.laid is not None:
            yield (f"{job.verb} {job.what}", "", ""), job.minutes
        elif job.thing is not None:
            thing = job.thing
            each = job.minutes * job.times / max(1, thing.times)
            if job.part:
                yield (thing.name, thing.drawn, job.part), each
            if not job.part or (thing.name, job.part) not in parts_ticked:
                last[thing.name] = last.get(thing.name, 0.0) + each
            if not job.part:
                yield (thing.name, thing.drawn, ""), last[thing.name]


def _is_of(entry: LogEntry, names: Names) -> bool:
    name, drawn, part = names
    same = entry.drawn == drawn if entry.drawn and drawn else entry.what == name
    return same and entry.part == part
