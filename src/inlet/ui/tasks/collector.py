"""Python's collector of reference cycles, kept out of the way.

It runs in whichever thread happens to allocate: in a worker's it would destroy discarded widgets,
which Qt forbids, and in the window's a look through all that a plan holds stalls it by half a
second. So it rests while anything is under way. What was made meanwhile is set aside, as plans hold
no cycles; all is looked through when the window is not the one in use.
"""

from __future__ import annotations

import gc

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QGuiApplication

AWAY = 3000
"""Milliseconds after which a user who turned to another program is taken to stay there: one window
that closes while the next one opens is no such turn."""
_working = 0


def rest() -> None:
    """Work begins."""
    global _working
    _working += 1
    gc.disable()


def rest_over() -> None:
    """Work has ended."""
    global _working
    _working = max(0, _working - 1)
    if not _working:
        gc.freeze()
        gc.enable()


def look_through_unseen(app: QGuiApplication) -> None:
    """Look through everything whenever the user has turned to another program, and stays there."""
    away = QTimer(app)
    away.setSingleShot(True)
    away.setInterval(AWAY)
    away.timeout.connect(_look_through)

    def turned_to(state: Qt.ApplicationState) -> None:
        if state == Qt.ApplicationState.ApplicationActive:
            away.stop()
        else:
            away.start()

    app.applicationStateChanged.connect(turned_to)


def _look_through() -> None:
    if not _working:
        gc.unfreeze()
        gc.collect()
        gc.freeze()
