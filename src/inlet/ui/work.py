"""Work off the window's thread, for those who ask for it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol

from PySide6.QtCore import QRunnable, SignalInstance

from inlet.core.stopping import Job, Stopped, under
from inlet.ui.guard import guarded

PAUSE = 12
"""Milliseconds between an edit and what is worked out of it."""


class Asker(Protocol):
    """Who asked: hears of a failure, and of the end, in the window's thread."""

    failed: SignalInstance
    finished: SignalInstance


@guarded
class Work(QRunnable):
    """Does ``do`` as a job that can be stopped."""

    def __init__(self, asker: Asker, do: Callable[[], object], job: Job) -> None:
        super().__init__()
        self.asker, self.do, self.job = asker, do, job

    def run(self) -> None:
        try:
            with under(self.job):
                self.do()
        except Stopped:
            pass
        except Exception as error:  # a defect of ours must not take the window down with it
            self.asker.failed.emit(repr(error))
        self.asker.finished.emit()
