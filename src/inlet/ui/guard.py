"""The one guard round everything that Qt calls.

An exception inside a Qt override (a paint, an event, a size asked for) ends the process with this
PySide6. So every class of ours that overrides one is ``@guarded``: the error becomes a line in the
log, the window is told and puts the work on its desk, and Qt gets an answer that does no harm.
Errors in slots, which Python prints and lives on after, go the same way by ``catch_slots``.
"""

from __future__ import annotations

import logging
import sys
import time
import traceback
from collections.abc import Callable
from contextlib import suppress
from functools import wraps
from logging.handlers import RotatingFileHandler
from pathlib import Path
from types import TracebackType
from typing import Any, TypeVar

from PySide6.QtCore import QRect, QSize, Qt, qInstallMessageHandler

from inlet.files.program_files import log_file

Class = TypeVar("Class", bound=type)

_NOTHING: Callable[[], Any] = lambda: None  # noqa: E731

ANSWERS: dict[str, Callable[[], Any]] = {
    "eventFilter": lambda: False,
    "event": lambda: False,
    "sizeHint": QSize,
    "minimumSizeHint": QSize,
    "minimumSize": QSize,
    "hasHeightForWidth": lambda: False,
    "heightForWidth": lambda: 0,
    "count": lambda: 0,
    "itemAt": _NOTHING,
    "takeAt": _NOTHING,
    "addItem": _NOTHING,
    "setGeometry": _NOTHING,
    "invalidate": _NOTHING,
    "expandingDirections": lambda: Qt.Orientation(0),
    "geometry": QRect,
    "run": _NOTHING,
    "rowCount": lambda: 0,
    "data": _NOTHING,
    "paint": _NOTHING,
    "loadResource": _NOTHING,
    "focusNextPrevChild": lambda: False,
}
"""What Qt is answered where an override fails. An event handler is any ``...Event``."""

LARGEST_LOG = 500_000
"""Bytes of a log; the one before it is kept."""
AGAIN = 30.0
"""Seconds in which the same error is noted once: a paint that fails does so many times a second."""

listeners: list[Callable[[Path], None]] = []
"""Told of each error noted, with the log: the windows that are open."""
_noted: dict[str, float] = {}


def overrides(cls: type) -> list[str]:
    """The names a class defines that Qt calls."""
    return [n for n in cls.__dict__ if n in ANSWERS or n.endswith("Event")]


def guarded(cls: Class) -> Class:
    """A class whose overrides cannot end the process."""
    for name in overrides(cls):
        setattr(cls, name, _safe(cls.__dict__[name], ANSWERS.get(name, _NOTHING)))
    return cls


def _safe(method: Callable[..., Any], answer: Callable[[], Any]) -> Callable[..., Any]:
    @wraps(method)
    def safe(*args: Any) -> Any:
        try:
            return method(*args)
        except Exception as error:
            note(error)
            # A painter left with the error would outlive what it paints on, which ends the process.
            traceback.clear_frames(error.__traceback__)
        if method.__name__ == "closeEvent":  # nothing may be lost for it
            args[1].ignore()
        return answer()

    return safe


def catch_slots() -> None:
    """Note errors that Python would only print, such as those in slots."""

    def hook(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        if isinstance(error, Exception):
            note(error)
        else:
            sys.__excepthook__(kind, error, trace)

    sys.excepthook = hook


UNSHOWN = ("This plugin does not support propagateSizeHints()",)
"""What Qt says of a window that is drawn on no screen, and nobody needs to know."""


def quiet_messages() -> None:
    """Keep from standard error what Qt says there to no purpose."""

    def hear(_kind: object, _context: object, text: str) -> None:
        if text not in UNSHOWN:
            with suppress(OSError, ValueError):
                print(text, file=sys.stderr, flush=True)

    qInstallMessageHandler(hear)


def note(error: Exception) -> None:
    """Log an error, and tell the windows; once, where the same one comes again and again. Nothing
    here raises."""
    if log(error):
        for tell in list(listeners):
            with suppress(Exception):
                tell(log_file())


def plain_trace(error: BaseException) -> str:
    """Where an error was and of which kind, with nothing of the maker's in it: no folder, no name,
    no value."""
    lines = []
    cause = error.__cause__ or error.__context__
    if cause is not None:
        lines.append(plain_trace(cause))
    for frame in traceback.extract_tb(error.__traceback__):
        lines.append(f"  {_module(Path(frame.filename))}, line {frame.lineno}, in {frame.name}")
    return "\n".join([*lines, type(error).__name__])


def _module(file: Path) -> str:
    """A file of ours below its package, of another library by its name."""
    parts = file.parts
    ours = "inlet" in parts
    return "/".join(parts[-parts[::-1].index("inlet") :]) if ours else file.name


def log(error: Exception) -> bool:
    """Write an error to the log, plainly, and to standard error, whole; False where the same was
    written just now. Nothing here raises."""
    text = "".join(traceback.format_exception(error))
    where = text.rsplit("  File ", 1)[-1]
    now = time.monotonic()
    if now - _noted.get(where, -AGAIN) < AGAIN:
        return False
    _noted[where] = now
    with suppress(OSError, ValueError):
        print(text, file=sys.stderr, end="", flush=True)
    file = log_file()
    with suppress(OSError):
        file.parent.mkdir(parents=True, exist_ok=True)
        handler = RotatingFileHandler(file, maxBytes=LARGEST_LOG, backupCount=1, encoding="utf-8")
        handler.setFormatter(logging.Formatter("%(asctime)s\n%(message)s"))
        handler.emit(logging.makeLogRecord({"msg": plain_trace(error), "levelno": logging.ERROR}))
        handler.close()
    return True
