"""The maker's own pace: how long things took by the log, against what the rates say of them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.bench.jobs import BenchJob
from inlet.core.bench.progress import Log
from inlet.core.project import LogEntry

Names = tuple[str, str, str]
"""The name of a thing, its drawing's mark, a part of it."""
TAKES_TIME = ("done", "cut", "timed")
"""What of the log is work that the rates know."""
LEAST = 15
"""Minutes that must have been taken before they say something."""


class MakerPace(NamedTuple):
    """How many minutes things take for each minute the rates give them, from ``minutes`` that were
    taken; 1 from none."""

    factor: float = 1.0
    minutes: int = 0


def pace_of(log: Log, jobs: Sequence[BenchJob]) -> MakerPace:
    """The pace of what was timed and can be told from the jobs: minutes taken over minutes by the
    rates, of the same things. Things ticked within one minute share its time; time that was written
    down by itself is for all of a thing that was done without its time being taken."""
    taken, by_rates = 0, 0.0
    known = _Known(jobs, log)
    by_itself: set[Names] = set()
    untimed: dict[Names, float] = {}
    timed_at = ""
    for entry in log:
        shares = bool(timed_at) and entry.at == timed_at
        is_timed = entry.minutes is not None or shares
        timed_at = entry.at if is_timed else ""
        if entry.did not in TAKES_TIME:
            continue
        rate = known.of(entry)
        if rate is None:
            continue
        names, each = rate
        taken += entry.minutes or 0
        if entry.did == "timed":
            by_itself.add(names)
        elif is_timed:
            by_rates += entry.number * each
        else:
            untimed[names] = untimed.get(names, 0.0) + entry.number * each
    by_rates += sum(minutes for names, minutes in untimed.items() if names in by_itself)
    if taken < LEAST or by_rates <= 0:
        return MakerPace()
    return MakerPace(taken / by_rates, taken)


def minutes_by_rates(log: Log, jobs: Sequence[BenchJob]) -> float:
    """What the rates give to what some entries say was done; nothing to what no job is of."""
    known = _Known(jobs, log)
    rates = ((entry, known.of(entry)) for entry in log)
    return sum(entry.number * rate[1] for entry, rate in rates if rate is not None)


class _Known:
    """What one of each thing takes by the rates, part by part: by the mark of its drawing, or by
    its name where either has none."""

    def __init__(self, jobs: Sequence[BenchJob], log: Log) -> None:
        self.by_mark: dict[tuple[str, str], tuple[Names, float]] = {}
        self.by_name: dict[tuple[str, str], tuple[Names, float]] = {}
        self.unmarked: dict[tuple[str, str], tuple[Names, float]] = {}
        for names, minutes in _minutes_each(jobs, log):
            name, drawn, part = names
            self.by_name.setdefault((name, part), (names, minutes))
            if drawn:
                self.by_mark.setdefault((drawn, part), (names, minutes))
            else:
                self.unmarked.setdefault((name, part), (names, minutes))

    def of(self, entry: LogEntry) -> tuple[Names, float] | None:
        """What the thing of an entry is known as, and its minutes."""
        if not entry.drawn:
            return self.by_name.get((entry.what, entry.part))
        marked = self.by_mark.get((entry.drawn, entry.part))
        return marked or self.unmarked.get((entry.what, entry.part))


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
