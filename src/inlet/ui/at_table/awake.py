"""The screen kept awake while hands are at the table, where the desktop has a word for that."""

from __future__ import annotations

from PySide6.QtDBus import QDBusConnection, QDBusInterface

NAME, PATH = "org.freedesktop.ScreenSaver", "/org/freedesktop/ScreenSaver"


class Awake:
    """Asks the desktop not to dim the screen, and takes that back."""

    def __init__(self) -> None:
        self._asked: object = None

    def keep(self) -> None:
        """Keep the screen on; nothing comes of it where no desktop is asked."""
        if self._asked is None and QDBusConnection.sessionBus().isConnected():
            saver = QDBusInterface(NAME, PATH, NAME)
            answer = saver.call("Inhibit", "Inlet", "A step is shown at the table")
            self._asked = next(iter(answer.arguments()), None)

    def release(self) -> None:
        """Let the screen dim again."""
        if self._asked is not None:
            QDBusInterface(NAME, PATH, NAME).call("UnInhibit", self._asked)
            self._asked = None
