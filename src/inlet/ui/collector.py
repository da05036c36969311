"""Python's cycle collector, kept out of threads that work.

It runs in whichever thread happens to allocate, and would destroy discarded widgets in a worker's,
which Qt forbids. It rests while any worker is at work and goes on in the window's thread.
"""

from __future__ import annotations

import gc

_working = 0


def rest() -> None:
    """A worker begins. To be called in the window's thread."""
    global _working
    _working += 1
    gc.disable()


def go_on() -> None:
    """A worker is done. To be called in the window's thread."""
    global _working
    _working = max(0, _working - 1)
    if not _working:
        gc.enable()
