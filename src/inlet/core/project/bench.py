"""What the maker wishes of the work at the bench, and the time that is being taken."""

from __future__ import annotations

from inlet.core.project.value import Value


class Timer(Value, frozen=True, kw_only=True):
    """Time being taken: running since a time (``2026-11-30T21:56``; empty while it is paused), and
    ``counted`` minutes before that."""

    since: str = ""
    counted: int = 0


class Bench(Value, frozen=True, kw_only=True):
    """When all is to be done (``2026-12-20``; empty for no date), how often in a week the maker
    sits down to it, and the timer, while there is one."""

    finish: str = ""
    sittings_a_week: int = 3
    timer: Timer | None = None
