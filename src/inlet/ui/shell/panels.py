"""Which of the panels round the stage are folded: the stage keeps most of the window."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal, NamedTuple

Panel = Literal["tape", "bar", "rail", "ticket"]
PANELS: tuple[Panel, ...] = ("tape", "bar", "rail", "ticket")
"""In the order in which they are folded where room is short: the tape says as much in one line, the
top bar has its fields behind a button, the rail loses its figures, the ticket is out of sight."""
LEAST_STAGE = 0.60
"""Of the window's area that is the stage's."""


class Breadth(NamedTuple):
    """Pixels a panel takes, open and folded."""

    open: int
    folded: int


class WindowRoom(NamedTuple):
    """The window's inside in pixels, and how wide what stands beside the stage is besides the rail
    and the ticket."""

    width: int
    height: int
    beside: int = 0


def stage_share(
    room: WindowRoom, panels: Mapping[Panel, Breadth], folded: frozenset[Panel]
) -> float:
    """How much of the window's area the stage has, from 0 to 1."""
    taken = {name: sizes.folded if name in folded else sizes.open for name, sizes in panels.items()}
    wide = max(0, room.width - room.beside - taken["rail"] - taken["ticket"])
    high = max(0, room.height - taken["bar"] - taken["tape"])
    return wide * high / max(1, room.width * room.height)


def folded_panels(
    room: WindowRoom,
    panels: Mapping[Panel, Breadth],
    chosen: Mapping[Panel, bool],
    order: Sequence[Panel] = PANELS,
) -> frozenset[Panel]:
    """The panels to fold: those the maker folded, and then others, in their ``order``, until the
    stage has ``LEAST_STAGE``. What the maker opened (False in ``chosen``) stays open."""
    folded = {name for name in order if chosen.get(name)}
    for name in order:
        if stage_share(room, panels, frozenset(folded)) >= LEAST_STAGE:
            break
        if name not in chosen and panels[name].folded < panels[name].open:
            folded.add(name)
    return frozenset(folded)
