"""How far the corners are: sewn, left, at what pace, how long it takes yet."""

from __future__ import annotations

from datetime import date, timedelta
from math import ceil
from typing import NamedTuple

from inlet.core.improvised.scraps import ScrapPool
from inlet.core.project import Measure, Rates


class Pace(NamedTuple):
    """``sewn`` of so many ``corners``; ``minutes`` for each, as ``measured`` or by the maker's
    rates; ``sitting`` is how many minutes there are at a time."""

    sewn: int
    corners: int
    minutes: float
    measured: bool
    sitting: int

    @property
    def left(self) -> int:
        return max(0, self.corners - self.sewn)

    @property
    def minutes_left(self) -> float:
        return self.left * self.minutes

    @property
    def sittings_left(self) -> int:
        return ceil(self.minutes_left / self.sitting)


def pace_of(pool: ScrapPool, sewn: int, minutes: int, rates: Rates, measure: Measure) -> Pace:
    """The pace of ``sewn`` corners in so many minutes; by the rates for a seam, its length,
    pressing and trimming where nothing was measured."""
    if sewn and minutes:
        return Pace(sewn, pool.corners, minutes / sewn, True, rates.sitting)
    long = pool.length / pool.corners if pool.corners else 0.0
    seconds = rates.seam + rates.length * long / measure.system.rate_length
    return Pace(
        sewn, pool.corners, (seconds + rates.press + rates.trim) / 60, False, rates.sitting
    )  # fmt: skip


def pace_text(pace: Pace, today: date) -> str:
    """``3,079 corners left at 76 an hour: 40 h 31 min, 41 sittings; at one a day until 10 January
    2027.``"""
    if not pace.left:
        return "All corners are sewn."
    hour = round(60 / pace.minutes) if pace.minutes else 0
    source = "at your pace of" if pace.measured else "by your rates at"
    hours, minutes = divmod(round(pace.minutes_left), 60)
    number = pace.sittings_left
    sittings = "1 sitting" if number == 1 else f"{number:,} sittings"
    words = (
        f"{pace.left:,} corners left, {source} {hour} an hour: {hours} h {minutes:02d} min, "
        f"{sittings} of {pace.sitting} min"
    )
    try:
        last = today + timedelta(days=max(0, number - 1))
    except OverflowError:
        return f"{words}."
    return f"{words}; with one a day until {last.day} {last:%B %Y}."
