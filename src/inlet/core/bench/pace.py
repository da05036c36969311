"""The maker's own pace: how long things took by the log, against what the rates say of them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal, NamedTuple

from inlet.core.bench.jobs import BenchJob
from inlet.core.bench.progress import Log
from inlet.core.project import LogEntry

Names = tuple[str, str, str]
"""The name of a thing, its drawing's mark, a part of it."""
TAKES_TIME = ("done", "cut", "timed")
"""What of the log is work that the rates know."""
WorkKind = Literal["cut", "mark", "sew", "press", "trim", "other"]
_KINDS: dict[str, WorkKind] = {
    "Mark": "mark", "Sew": "sew", "Press": "press", "Fold": "press", "Trim": "trim",
}  # fmt: skip
LEAST = 15
"""Minutes that must have been taken before they say something."""


class Timing(NamedTuple):
    """Minutes ``taken``, all at once or for one thing, and those the rates give to what was done,
    by kind of work."""

    taken: int
    by_rates: Mapping[WorkKind, float]


class MakerPace(NamedTuple):
    """How many minutes things take for each minute the rates give them, from ``minutes`` that were
    taken; 1 from none."""

    factor: float = 1.0
    minutes: int = 0


def pace_of(log: Log, jobs: Sequence[BenchJob]) -> MakerPace:
    """The pace of what was timed and can be told from the jobs: minutes taken over minutes by the
    rates, of the same things."""
    all_timings = timings(log, jobs)
    taken = sum(timing.taken for timing in all_timings)
    by_rates = sum(sum(timing.by_rates.values()) for timing in all_timings)
    if taken < LEAST or by_rates <= 0:
        return MakerPace()
    return MakerPace(taken / by_rates, taken)


def timings(log: Log, jobs: Sequence[BenchJob]) -> list[Timing]:
    """All that was timed. Things ticked within one minute share its time; time that was written
    down by itself is for all of a thing that was done without its time being taken."""
    known = _Known(jobs, log)
    taken: dict[object, int] = {}
    work: dict[object, _KindMinutes] = {}
    untimed: dict[Names, _KindMinutes] = {}
    timed_at, at_once = "", 0
    for i, entry in enumerate(log):
        shares = bool(timed_at) and entry.at == timed_at
        is_timed = entry.minutes is not None or shares
        timed_at = entry.at if is_timed else ""
        at_once = at_once if shares else i
        rate = known.of(entry) if entry.did in TAKES_TIME else None
        if rate is None:
            continue
        names, each = rate
        by_itself = entry.did == "timed"
        group: object = names if by_itself else at_once
        if is_timed:
            taken[group] = taken.get(group, 0) + (entry.minutes or 0)
            work.setdefault(group, _KindMinutes())
        if not by_itself:
            (work[group] if is_timed else untimed.setdefault(names, _KindMinutes())).add(
                each, entry.number
            )
    for names, done in untimed.items():
        if names in work:
            work[names].add(done)
    return [Timing(taken[group], work[group]) for group in taken]


def minutes_by_rates(log: Log, jobs: Sequence[BenchJob]) -> float:
    """What the rates give to what some entries say was done; nothing to what no job is of."""
    known = _Known(jobs, log)
    rates = ((entry, known.of(entry)) for entry in log)
    return sum(entry.number * sum(rate[1].values()) for entry, rate in rates if rate is not None)


class _KindMinutes(dict[WorkKind, float]):
    """Minutes by kind of work."""

    def add(self, other: Mapping[WorkKind, float], times: float = 1) -> None:
        for kind, minutes in other.items():
            self[kind] = self.get(kind, 0.0) + times * minutes


def _kind(job: BenchJob) -> WorkKind:
    return "cut" if job.verb.startswith("Cut") else _KINDS.get(job.verb, "other")


class _Known:
    """What one of each thing takes by the rates, part by part: by the mark of its drawing, or by
    its name where either has none."""

    def __init__(self, jobs: Sequence[BenchJob], log: Log) -> None:
        self.by_mark: dict[tuple[str, str], tuple[Names, _KindMinutes]] = {}
        self.by_name: dict[tuple[str, str], tuple[Names, _KindMinutes]] = {}
        self.unmarked: dict[tuple[str, str], tuple[Names, _KindMinutes]] = {}
        for names, minutes in _minutes_each(jobs, log):
            name, drawn, part = names
            self.by_name.setdefault((name, part), (names, minutes))
            if drawn:
                self.by_mark.setdefault((drawn, part), (names, minutes))
            else:
                self.unmarked.setdefault((name, part), (names, minutes))

    def of(self, entry: LogEntry) -> tuple[Names, _KindMinutes] | None:
        """What the thing of an entry is known as, and its minutes."""
        if not entry.drawn:
            return self.by_name.get((entry.what, entry.part))
        marked = self.by_mark.get((entry.drawn, entry.part))
        return marked or self.unmarked.get((entry.what, entry.part))


def _minutes_each(jobs: Sequence[BenchJob], log: Log) -> Iterator[tuple[Names, _KindMinutes]]:
    """What one of each thing takes by the rates, part by part; with the last part, what no part
    of the log says was done before it."""
    parts_ticked = {(entry.what, entry.part) for entry in log if entry.part}
    last: dict[str, _KindMinutes] = {}
    for job in jobs:
        if job.laid is not None:
            yield (f"{job.verb} {job.what}", "", ""), _KindMinutes({_kind(job): job.minutes})
        elif job.thing is not None:
            thing = job.thing
            each = _KindMinutes({_kind(job): job.minutes * job.times / max(1, thing.times)})
            if job.part:
                yield (thing.name, thing.drawn, job.part), each
            if not job.part or (thing.name, job.part) not in parts_ticked:
                last.setdefault(thing.name, _KindMinutes()).add(each)
            if not job.part:
                yield (thing.name, thing.drawn, ""), _KindMinutes(last[thing.name])
