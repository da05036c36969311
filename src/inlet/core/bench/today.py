"""Today's list: what fits the time there is, less what was done today already."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.bench.diary import day_of
from inlet.core.bench.jobs import BenchJob
from inlet.core.bench.pace import MakerPace, minutes_by_rates, pace_of
from inlet.core.bench.sharing import Portion, sittings_left
from inlet.core.project import LogEntry, Project, Rates

LEAST = 2.0
"""Minutes that are worth sitting down for."""


class Today(NamedTuple):
    """What is to do today, in the order of the schedule; entries of today that say what was done,
    and the minutes that took; how many sittings are left in all, and the pace they are told by."""

    portions: tuple[Portion, ...]
    done: tuple[LogEntry, ...]
    minutes_done: float
    sittings: int
    pace: MakerPace

    @property
    def minutes(self) -> float:
        return sum(portion.minutes for portion in self.portions)


def today(jobs: Sequence[BenchJob], project: Project, minutes: float, day: str) -> Today:
    """The list for a day (``2026-11-30``) on which there are so many minutes; the sittings that
    are left are as long as the maker's usual ones."""
    pace = pace_of(project.log, jobs)
    done = tuple(
        entry for entry in project.log if day_of(entry) == day and entry.did in ("done", "cut")
    )
    minutes_done = minutes_by_rates(done, jobs) * pace.factor
    left = minutes - minutes_done
    now = sittings_left(jobs, left, pace.factor)[:1] if left >= LEAST else ()
    usual = sittings_left(jobs, (project.rates or Rates()).sitting, pace.factor)
    return Today(now[0] if now else (), done, minutes_done, len(usual), pace)
