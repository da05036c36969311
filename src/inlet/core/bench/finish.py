"""When it will be done: sittings spread evenly over the weeks, and what a lost day means."""

from __future__ import annotations

from datetime import date, timedelta
from typing import NamedTuple

DAYS = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
MONTHS = (
    "Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec",
)  # fmt: skip
MOST_A_WEEK = 21
"""Sittings: three a day."""
LAST_DAY = date(9999, 12, 31)


class LastDay(NamedTuple):
    """The day of the last sitting, the same where today is lost, and, where that is after the date
    wished, how many sittings a week would be enough (None where none would)."""

    last: date
    lost: date
    wished: date | None = None
    enough: int | None = None


def last_day(sittings: int, a_week: int, first: date) -> date:
    """The day of the last of some sittings, the first of which is on a day, so many a week, evenly
    spread: number k, counted from 0, is so many days later as fit k/a_week weeks."""
    days = max(0, sittings - 1) * 7 // max(1, a_week)
    room = (LAST_DAY - first).days
    return first + timedelta(days=min(days, room))


def finish(sittings: int, a_week: int, today: date, wished: date | None = None) -> LastDay:
    """When the sittings that are left are over. A sitting that is lost is made up for at the end:
    the next one is as many days away as any."""
    last = last_day(sittings, a_week, today)
    lost = last_day(sittings + 1, a_week, today)
    if wished is None or last <= wished:
        return LastDay(last, lost, wished)
    more = range(a_week + 1, MOST_A_WEEK + 1)
    enough = next((n for n in more if last_day(sittings, n, today) <= wished), None)
    return LastDay(last, lost, wished, enough)


def day_text(day: date) -> str:
    """``Wed 30 Dec 2026``."""
    return f"{DAYS[day.weekday()]} {day.day} {MONTHS[day.month - 1]} {day.year}"


def finish_text(when: LastDay, sittings: int, a_week: int) -> str:
    """When it is done, how that compares with the date wished, and what a lost day means."""
    if not sittings:
        return "Everything is done."
    many = "1 sitting is left" if sittings == 1 else f"{sittings} sittings are left"
    text = f"{many}. At {a_week} a week the last is on {day_text(when.last)}"
    if when.wished is not None:
        text += f", {_against(when.last, when.wished)}"
    text += f". If today is lost: {day_text(when.lost)}"
    if when.wished is not None:
        text += f", {_against(when.lost, when.wished)}"
    text += "."
    if when.wished is not None and when.last > when.wished:
        text += (
            f" {when.enough} sittings a week would be enough."
            if when.enough is not None
            else " No number of sittings of this length is enough: make them longer, or the quilt "
            "smaller."
        )
    return text


def _against(day: date, wished: date) -> str:
    days = (wished - day).days
    if not days:
        return "the day you wish"
    number = "1 day" if abs(days) == 1 else f"{abs(days)} days"
    return f"{number} {'before' if days > 0 else 'after'} the day you wish"


def date_typed(text: str) -> date | None:
    """A day as it is typed: ``2026-12-20``, ``20 Dec 2026``, ``20.12.2026``; None of nothing.
    Raises ``ValueError`` with what is wrong."""
    text = text.strip()
    if not text:
        return None
    parts = text.replace(".", " ").replace("/", " ").replace("-", " ").split()
    try:
        first, month, last = parts
        named = {name.lower(): i for i, name in enumerate(MONTHS, 1)}
        number = named.get(month[:3].lower()) or int(month)
        year, day = (first, last) if len(first) == 4 else (last, first)
        return date(int(year), number, int(day))
    except ValueError:
        raise ValueError("type a day as 2026-12-20 or 20 Dec 2026") from None
