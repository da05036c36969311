"""Time taken: a timer that may be left running, paused and corrected; times as they are typed."""

from __future__ import annotations

import re
from datetime import datetime

from inlet.core.project import Timer, replace

FORGOTTEN = 180
"""Minutes without a tick or a pause after which a timer was probably forgotten."""
LONGEST = 7 * 24 * 60


def minutes_between(since: str, at: str) -> int:
    """Whole minutes from one time to another, as the log writes them; none where either cannot be
    read, or the clock was put back."""
    try:
        passed = datetime.fromisoformat(at) - datetime.fromisoformat(since)
    except (ValueError, TypeError):
        return 0
    return max(0, int(passed.total_seconds() // 60))


def timed(timer: Timer, at: str) -> int:
    """The minutes a timer has counted."""
    return min(LONGEST, timer.counted + (minutes_between(timer.since, at) if timer.since else 0))


def paused(timer: Timer, at: str) -> Timer:
    return replace(timer, since="", counted=timed(timer, at))


def going_on(timer: Timer, at: str) -> Timer:
    return timer if timer.since else replace(timer, since=at)


def is_forgotten(timer: Timer, at: str) -> bool:
    """Has it run so long that it was probably forgotten?"""
    return bool(timer.since) and minutes_between(timer.since, at) >= FORGOTTEN


_SPAN = re.compile(r"(\d{1,2})[:.](\d\d)\s*(?:-|–|to)\s*(\d{1,2})[:.](\d\d)$")
_HOURS = re.compile(r"(?:(\d{1,3})\s*(?:h|hours?)\s*)?(?:(\d{1,5})\s*(?:m|min|minutes?)?)?$")


def minutes_typed(text: str) -> int:
    """Minutes as they are typed: ``25``, ``25 min``, ``1 h 20``, or from one time to another:
    ``19:30-20:15``. Raises ``ValueError`` with what is wrong."""
    text = text.strip().lower()
    span = _SPAN.match(text)
    if span:
        begins, ends = ([int(h), int(m)] for h, m in (span.groups()[:2], span.groups()[2:]))
        if max(begins[0], ends[0]) > 23 or max(begins[1], ends[1]) > 59:
            raise ValueError("a time of day goes from 0:00 to 23:59")
        minutes = (ends[0] - begins[0]) * 60 + ends[1] - begins[1]
        if minutes <= 0:
            raise ValueError("it ends before it starts; past midnight, type how many minutes")
        return minutes
    hours = _HOURS.match(text)
    if not text or not hours:
        raise ValueError("type minutes as 25, 1 h 20 or 19:30-20:15")
    minutes = int(hours[1] or 0) * 60 + int(hours[2] or 0)
    if not 0 < minutes <= LONGEST:
        raise ValueError("it must be above 0, up to a week")
    return minutes
