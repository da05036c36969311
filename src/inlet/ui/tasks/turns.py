"""The window's thread goes first, and what keeps work safe from a crash.

Only one thread runs Python at a time, and one that computes hands over every few milliseconds: a
click that takes a hundred short steps would wait a hundred times. So threads hand over far sooner
than usual, and while the window handles events, or something urgent is done, work in other threads
waits wherever it asks whether it is to stop, for a moment at a time.
"""

from __future__ import annotations

import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager

from PySide6.QtCore import QAbstractEventDispatcher

LONGEST = 0.5
"""Seconds that work waits for the window at a time: longer than any event takes but for few."""
OWN = 0.05
"""Seconds that it then has for itself, however busy the window is."""
NAP = 0.002
HANDED_OVER = 0.000_02
"""Seconds after which a thread that computes hands over to one that waits. Beside two busy threads
a change of the stage takes 0.09 s with this, 0.9 s with a thousandth of a second; the threads
themselves compute as much."""

_busy_until = 0.0
_own_until = 0.0
_urgent = 0
_heard: set[int] = set()


def busy() -> None:
    """The window begins to handle events."""
    global _busy_until
    _busy_until = time.perf_counter() + LONGEST


def idle() -> None:
    """The window waits: for events, or for work to be done."""
    global _busy_until
    _busy_until = 0.0


@contextmanager
def urgent() -> Iterator[None]:
    """Other work waits for what is done here."""
    global _urgent
    _urgent += 1
    try:
        yield
    finally:
        _urgent -= 1


def give_way() -> None:
    """Called by work in another thread: wait while the window is busy or something is urgent."""
    global _own_until
    if not (_busy_until or _urgent) or time.perf_counter() < _own_until:
        return
    began = time.perf_counter()
    while (now := time.perf_counter()) < _busy_until or _urgent:
        if now - began > LONGEST:
            _own_until = now + OWN
            return
        time.sleep(NAP)


def listen() -> None:
    """Hear when this thread's event loop begins and ends to handle events; once is enough."""
    dispatcher = QAbstractEventDispatcher.instance()
    if dispatcher is not None and id(dispatcher) not in _heard:
        _heard.add(id(dispatcher))
        sys.setswitchinterval(HANDED_OVER)
        dispatcher.awake.connect(busy)
        dispatcher.aboutToBlock.connect(idle)
