"""Work kept safe between saves, and who has a file open.

Each window has a desk: a small file of its own in the user's state folder with the project as it
is after the last burst of edits, the path it belongs to and the process that holds it. A desk whose
process is gone was left behind by a crash, and its work is offered again. A desk that a living
process holds tells a second window that the file is open already.
"""

from __future__ import annotations

import json
import os
import re
import threading
import time
import uuid
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, nullcontext, suppress
from pathlib import Path
from typing import NamedTuple

from inlet.core.project import Project
from inlet.files.problem import FileProblem, reason
from inlet.files.program_files import desks_folder
from inlet.files.project.project_json import dumps_compact, loads
from inlet.files.whole import clear_abandoned, write_whole

Look = tuple[int, int]
"""A file's time in nanoseconds and its size, to know by whether another has written it."""
Call = tuple[Project | None, Path | None, Look | None]
"""What ``Desk.keep`` is called with."""


def look_of(path: Path) -> Look | None:
    """How a file looks; None where there is none."""
    try:
        stat_result = path.stat()
    except OSError:
        return None
    return stat_result.st_mtime_ns, stat_result.st_size


class Left(NamedTuple):
    """Work a crash left behind: the project, the file it belongs to if it has one, and its desk;
    ``seen`` is how that file looked when the window last read or wrote it."""

    project: Project
    path: Path | None
    desk: Path
    seen: Look | None = None


USUAL = 0.03
"""Seconds that putting down a project takes at most, but for a large one; a few thousandths on a
quiet machine."""
OUTDATED, KEPT_DAYS = "outdated", 30
"""The folder for work older than its file, and the days it is kept there."""
PATIENCE = 0.4
"""Seconds that an edit waits for the one before it to be down, where that takes unusually long."""


class Desk:
    """One window's place. Nothing here ever stops the work: where the folder cannot be written,
    ``trouble`` says why and the window goes on without."""

    def __init__(self, folder: Path | None = None) -> None:
        self.folder = folder if folder is not None else desks_folder()
        self.file = self.folder / f"{os.getpid()}-{uuid.uuid4().hex[:8]}.json"
        self.trouble = ""
        self.unread: list[Path] = []  # desks of others that could not be read, and are kept
        self.first: Callable[[], AbstractContextManager[object]] = nullcontext
        """What writing goes on in: it may let other threads wait."""
        self._lock = threading.Lock()
        self._left = False
        self._newest: Call | None = None  # what is to be put down next
        self._asked = threading.Event()
        self._kept = threading.Event()
        self._took = 0.0  # seconds that the thread was at work on the one before
        self._thread: threading.Thread | None = None

    def keep_soon(
        self, project: Project | None, path: Path | None, seen: Look | None = None
    ) -> None:
        """``keep`` in another thread, at once; of calls that come while it writes the newest. It is
        waited for as long as it usually takes, unless the one before took longer: then all but a
        large project is down before the window goes on. Where the one before is not down yet, as on
        a busy machine, that is waited for first: a crash loses one edit at most."""
        if self._thread is not None:
            self._kept.wait(PATIENCE)
        self._kept.clear()
        self._newest = project, path, seen
        if self._thread is None:
            self._thread = threading.Thread(target=self._keep_newest, daemon=True)
            self._thread.start()
        self._asked.set()
        if self._took <= USUAL:
            self._kept.wait(USUAL)

    def _keep_newest(self) -> None:
        while not self._left:
            self._asked.wait()
            self._asked.clear()
            newest, self._newest = self._newest, None
            if newest is not None:
                with self.first(), self._lock:
                    if not self._left:
                        began = time.thread_time()
                        self._keep(*newest)
                        self._took = time.thread_time() - began
                if self._newest is None:
                    self._kept.set()

    def keep(self, project: Project | None, path: Path | None, seen: Look | None = None) -> None:
        """Put down what is being worked on; no project where all of it is saved. May be called in
        any thread; one call waits for another, and takes the place of one still to come."""
        self._newest = None
        with self._lock:
            if not self._left:
                self._keep(project, path, seen)

    def _keep(self, project: Project | None, path: Path | None, seen: Look | None) -> None:
        record = {
            "pid": os.getpid(),
            "begun": _begun(os.getpid()),
            "path": str(path.resolve()) if path is not None else None,
            "seen": seen,
            "project": dumps_compact(project) if project is not None else None,
        }
        try:
            self.folder.mkdir(parents=True, exist_ok=True)
            write_whole(self.file, json.dumps(record).encode("utf-8"), sync=False)
            self.trouble = ""
        except OSError as error:
            self.trouble = reason(error)

    def leave(self) -> None:
        """The window is closed and nothing is to be offered again."""
        with self._lock, suppress(OSError):
            self._left = True
            self._asked.set()
            self.file.unlink(missing_ok=True)

    def held_elsewhere(self, path: Path) -> bool:
        """Does another living window have this file open?"""
        wanted = str(path.resolve())
        return any(
            record.get("path") == wanted and _lives(record)
            for file, record in _records(self.folder)
            if file != self.file
        )

    def left_behind(self) -> list[Left]:
        """Work of windows that are gone, newest first. Desks with nothing on them are cleared
        away; what cannot be read is put aside and named in ``unread``, never deleted."""
        works: list[tuple[float, Left]] = []
        clear_abandoned(self.folder)
        _clear_old(self.folder)
        self.unread = list(_put_aside(self.folder))
        for file, record in _records(self.folder):
            if file == self.file or _lives(record):
                continue
            text, path = record.get("project"), record.get("path")
            if text is None:
                with suppress(OSError):
                    file.unlink()
                continue
            try:
                project = loads(text, file.name) if isinstance(text, str) else None
            except FileProblem:
                project = None
            if project is None:
                self.unread += _aside(file)
                continue
            with suppress(OSError):
                belongs = Path(path) if isinstance(path, str) else None
                left = Left(project, belongs, file, _look_in(record))
                if _is_outdated(left):
                    _set_aside(file, OUTDATED)
                else:
                    works.append((file.stat().st_mtime, left))
        return [left for _, left in sorted(works, key=lambda item: -item[0])]


def _is_outdated(left: Left) -> bool:
    """Was the file saved by another since, after the work was put down? Then who saved it was
    offered the work, or had newer."""
    now = look_of(left.path) if left.path is not None else None
    return now is not None and now != left.seen and now[0] > left.desk.stat().st_mtime_ns


def _clear_old(folder: Path) -> None:
    """Outdated work is kept for a while, and then deleted."""
    with suppress(OSError):
        for file in (folder / OUTDATED).glob("*.json"):
            if time.time() - file.stat().st_mtime > KEPT_DAYS * 86_400:
                file.unlink()


def _look_in(record: dict[str, object]) -> Look | None:
    match record.get("seen"):
        case [int(time), int(size)]:
            return time, size
    return None


def clear(left: Left) -> None:
    """The work has been taken up again, or is not wanted."""
    with suppress(OSError):
        left.desk.unlink(missing_ok=True)


def _records(folder: Path) -> Iterator[tuple[Path, dict[str, object]]]:
    """Every desk that can be read."""
    for file in _desks(folder):
        record = _record(file)
        if record is not None:
            yield file, record


def _desks(folder: Path) -> list[Path]:
    try:
        return sorted(folder.glob("*.json"))
    except OSError:
        return []


def _record(file: Path) -> dict[str, object] | None:
    """What a desk holds; None where it cannot be read."""
    try:
        record = json.loads(file.read_text("utf-8"))
    except (OSError, ValueError, RecursionError):
        return None
    return record if isinstance(record, dict) else None


def _put_aside(folder: Path) -> Iterator[Path]:
    """Desks that cannot be read, where they are kept from now on."""
    for file in _desks(folder):
        if _record(file) is None:
            yield from _aside(file)


def _aside(file: Path) -> list[Path]:
    """Move a desk that cannot be read to a folder beside the others, so that it is told once."""
    return [_set_aside(file, "unread")]


def _set_aside(file: Path, folder: str) -> Path:
    """Move a desk to a folder beside the others; where it is then."""
    kept = file.parent / folder / file.name
    try:
        kept.parent.mkdir(exist_ok=True)
        os.replace(file, kept)
    except OSError:
        return file
    return kept


def _lives(record: dict[str, object]) -> bool:
    """Is the process that put this down still there? Numbers of processes come round again, so
    the moment it began must be the same too."""
    pid = record.get("pid")
    if not isinstance(pid, int) or pid <= 0:
        return False
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except OSError:
        pass
    return _begun(pid) == record.get("begun")


def _begun(pid: int) -> str:
    """When a process began, as the system counts it; empty where the system does not tell."""
    try:
        stat = Path(f"/proc/{pid}/stat").read_text("utf-8")
    except OSError:
        return ""
    match = re.search(r"\)\s+(.*)", stat, re.DOTALL)
    fields = match[1].split() if match else []
    if not fields or fields[0] in "ZX":  # ended, and only not yet fetched by its parent
        return "ended"
    return fields[19] if len(fields) > 19 else ""
