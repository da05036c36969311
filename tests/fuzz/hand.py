"""A random hand at the real window: mouse, keys, shortcuts, typed text, undo and redo, stages and
sizes, the quilt's top, the mat, the back as pressed, files written and the window closed in the
middle. Dialogs that open are answered at random. The document is checked after each burst."""

from __future__ import annotations

import os
import random
import re
import resource
import shutil
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from pathlib import Path

from PySide6.QtCore import (
    QAbstractEventDispatcher,
    QPoint,
    QPointF,
    Qt,
    QTimer,
    qInstallMessageHandler,
)
from PySide6.QtGui import QKeySequence
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QAbstractSpinBox,
    QApplication,
    QCheckBox,
    QComboBox,
    QDialog,
    QFileDialog,
    QLineEdit,
    QPushButton,
    QSpinBox,
    QToolButton,
    QWidget,
)

from inlet.core.draft.patches import draft
from inlet.files.project.project_json import dumps, load, loads
from inlet.ui import guard
from inlet.ui.remake.stage import CORNERS, PANELS
from inlet.ui.shell.app import DEMO
from inlet.ui.shell.rail import STAGES
from inlet.ui.shell.session import Session, new_project
from inlet.ui.shell.window import Window
from inlet.ui.tasks import turns
from tests.fuzz.drafts import tiling_fault

SLOW, STALL = 0.5, 0.2
"""Seconds that no event may take, and that few may, on a machine that does ``PACE``."""
PACE = 0.045
"""Seconds of a usual machine for a loop of a million steps."""
MOST_STALLS = 1_000
"""One event in so many may take longer than ``STALL``."""
LOOK = 0.02
"""Seconds between two looks at where the window's thread is."""
MOUSE = 0.008
"""Seconds between two reports of a mouse."""
CLOSED = 1.0
"""Seconds in which a window closes, whatever is under way."""
_SHORTCUTS = (
    "Ctrl+Z", "Ctrl+Shift+Z", "Ctrl+Y", "Ctrl+G", "Ctrl+B", "Ctrl+D", "Ctrl+T", "Ctrl+M", "Alt+Up",
    "Alt+Down", "Ctrl+V", "Ctrl+=", "Ctrl+-", "Ctrl+1", "Ctrl+2", "Ctrl+3", "Ctrl+4", "Ctrl+5",
    "Ctrl+6", "Ctrl+7", "Ctrl+8", "F2", "Tab", "m", "+", "-", "0", "PgDown", "PgUp",
    "Shift+Tab", "Escape", "Return", "Space", "Up", "Down", "Left", "Right", "Delete", "Backspace",
    ".", ",", "s", "c", "e", "u", "a", "w", "r", "f", "l", "1", "2", "3", "Shift+R", "Shift+F",
)  # fmt: skip
_TEXTS = (
    "3",
    "9",
    "12 3/4",
    "3 3/8",
    "2 of 3 3/8, 3 7/16",
    "19:30-20:15",
    "20 Dec 2026",
    "2:1:2",
    "6",
    "0",
    "-1",
    "x",
    "5 squares",
    "√2",
    "1/0",
    "",
    "10 cm",
    "40",
)


MOST_CHECKED = 400
"""Patches: drawings of more take minutes beside a plan under way, and are checked by ``drafts``."""


def taken() -> float:
    """Seconds that others have taken from the processors of a rented machine since it was started,
    all processors together."""
    lines = Path("/proc/stat").read_text().splitlines()
    ticks = [int(line.split()[8]) for line in lines if re.match(r"cpu\d", line)]
    return sum(ticks) / os.sysconf("SC_CLK_TCK")


def pace() -> float:
    """How much slower than a usual machine this one is now, at least 1: a rented one may be three
    times so, and by turns."""
    began, total = time.thread_time(), 0
    for i in range(1_000_000):
        total += i
    return max(1.0, (time.thread_time() - began) / PACE)


class Watch:
    """How long the window could not answer, since the watch was started: by the clock, without the
    time in which the event loop of a dialog or a menu waited for events; but no longer than our
    process was at work, all threads taken together. A machine that is shared stops a process for a
    second while it gives its processors to others; that is no stall of the window's. ``others``:
    the seconds they took, of all processors: our threads wait for one another."""

    def __init__(self) -> None:
        loop = QAbstractEventDispatcher.instance()
        assert loop is not None
        loop.aboutToBlock.connect(self._waits)
        loop.awake.connect(self._goes_on)
        self.start()

        self.window_thread = threading.get_ident()
        self.where, self.looking = "", True
        threading.Thread(target=self._look_on, daemon=True).start()

    def start(self) -> None:
        self.taken = taken()
        self.clock, self.work = time.perf_counter(), time.process_time()
        self.system = resource.getrusage(resource.RUSAGE_SELF).ru_stime
        self._waited, self._since = 0.0, 0.0
        self.where = ""

    def _look_on(self) -> None:
        """Where in our code the window's thread is once an event has taken too long."""
        while self.looking:
            time.sleep(LOOK)
            clock = self.clock
            late = not self._since and time.perf_counter() - clock - self._waited > STALL * 0.75
            if late and not self.where and clock == self.clock:
                self.where = self._place() or "outside our code"

    def _place(self) -> str:
        """The innermost places in our code."""
        frame, places = sys._current_frames().get(self.window_thread), []
        while frame is not None and len(places) < 5:
            path = frame.f_code.co_filename
            if "inlet" in path:
                places.append(f"{Path(path).stem}:{frame.f_lineno}")
            frame = frame.f_back
        return " < ".join(places)

    def _waits(self) -> None:
        self._since = time.perf_counter()

    def _goes_on(self) -> None:
        if self._since:
            self._waited += time.perf_counter() - self._since
            self._since = 0.0

    def took(self) -> float:
        busy = time.perf_counter() - self.clock - self._waited
        self.others = taken() - self.taken
        self.in_system = resource.getrusage(resource.RUSAGE_SELF).ru_stime - self.system
        return min(busy, time.process_time() - self.work)


@dataclass
class Findings:
    """What went wrong, in words; the slowest event; the seconds of slow ones that cannot be judged;
    memory in MB every thousand events."""

    wrong: list[str] = field(default_factory=list)
    slowest: tuple[float, str] = (0.0, "")
    stalls: list[str] = field(default_factory=list)
    not_judged: list[float] = field(default_factory=list)
    closings: list[float] = field(default_factory=list)
    memory: list[float] = field(default_factory=list)


class Hand:
    """``Hand(seed).work(n)``: n events, always the same for a seed, as far as threads allow."""

    def __init__(self, seed: int, demo: bool = True) -> None:
        self.chance = random.Random(f"hand {seed}")
        self.found = Findings()
        self.folder = Path(tempfile.mkdtemp())
        self.demo = demo
        self.watch = Watch()
        self._open()
        self.doing = ""
        guard.listeners.append(self._noted)
        self._dialog = QFileDialog.getSaveFileName
        QFileDialog.getSaveFileName = self._target  # type: ignore[assignment]
        self._usual = qInstallMessageHandler(self._warned)
        self._at_work = True
        self._answer_soon()

    def _open(self) -> None:
        self.session = Session()
        self.window = Window(self.session)
        self.session.said.connect(self._said)
        self.session.start(load(DEMO) if self.demo else new_project(), None)
        self.window.resize(1280, 800)
        self.window.show()
        self._quits = False
        self.window.quit_.triggered.connect(self._quit)

    def _quit(self) -> None:
        """Quit was asked for, as by a search for commands."""
        self._quits = True

    def _said(self, text: str) -> None:
        if "Inlet could not" in text or "Inlet cannot" in text:
            self.found.wrong.append(f"said {text!r} while {self.doing}")

    def _target(self, *_: object, **__: object) -> tuple[str, str]:
        """Where a dialog says to write: nowhere, to a new file, over one, or where none can be."""
        name = self.chance.choice(("", "out", "out.pdf", "out.svg", "out.csv", "out.inlet", "no/x"))
        return (str(self.folder / name) if name else ""), ""

    def _close(self) -> None:
        """Close the window in the middle of whatever it does, and open another."""
        self.doing = "closing"
        self.session.history.mark_saved()
        began = time.perf_counter()
        self.window.close()
        self.found.closings.append(time.perf_counter() - began)
        self.window.deleteLater()
        self._open()

    def _top(self) -> Iterator[None]:
        """Click, drag, or turn the wheel over the quilt's top."""
        self.window.show_stage("quilt")
        yield
        top = self.window.quilt.top
        if not top.isVisible():
            self.window.quilt.turn_to(self.chance.randrange(4))
            return
        p, q = self._place(top), self._place(top)
        left = Qt.MouseButton.LeftButton
        held = self.chance.choice(
            (Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.ShiftModifier)
        )
        self.doing = "working on the top"
        QTest.mousePress(top, left, held, p)
        yield
        if self.chance.random() < 0.4:
            QTest.mouseMove(top, q)
            yield
        QTest.mouseRelease(top, left, held, q)
        yield
        keys = (Qt.Key.Key_R, Qt.Key.Key_M, Qt.Key.Key_Delete, Qt.Key.Key_Left, Qt.Key.Key_Down)
        QTest.keyClick(top, self.chance.choice(keys))

    def _mat(self) -> Iterator[None]:
        """Cuts made and taken back, another fabric, the whole quilt's."""
        self.window.show_stage("cutting")
        yield
        stage = self.window.cutting
        if self.chance.random() < 0.1:
            stage.turn_to(self.chance.randrange(stage.pages.count()))
            yield
        keys = (Qt.Key.Key_Space, Qt.Key.Key_Space, Qt.Key.Key_Backspace, Qt.Key.Key_PageDown)
        self.doing = "cutting"
        QTest.keyClick(stage.mat, self.chance.choice(keys))

    def _back(self) -> Iterator[None]:
        """Seams of the back picked, turned over, pinned by keys."""
        self.window.show_stage("pressing")
        yield
        picture = self.window.pressing.picture
        self.doing = "pressing"
        if picture.isVisible():
            QTest.mouseClick(picture, Qt.MouseButton.LeftButton, pos=self._place(picture))
            yield
            keys = (Qt.Key.Key_Space, Qt.Key.Key_O, Qt.Key.Key_Right, Qt.Key.Key_Delete)
            QTest.keyClick(picture, self.chance.choice(keys))

    def _slices(self) -> Iterator[None]:
        """Cuts dragged, pieces turned and swapped, arrangements and ways to set taken."""
        self.window.show_stage("remake")
        yield
        stage = self.window.remake
        if self.chance.random() < 0.2:
            stage.turn_to(self.chance.randrange(stage.pages.count()))
            yield
        page = stage.slice_page
        self.doing = "slicing"
        picture = self.chance.choice((page.start, page.result))
        start, end = self._place(picture), self._place(picture)
        QTest.mousePress(picture, Qt.MouseButton.LeftButton, pos=start)
        QTest.mouseMove(picture, end)
        yield
        QTest.mouseRelease(picture, Qt.MouseButton.LeftButton, pos=end)
        yield
        keys = (Qt.Key.Key_R, Qt.Key.Key_F, Qt.Key.Key_N, Qt.Key.Key_Left, Qt.Key.Key_Down)
        QTest.keyClick(picture, self.chance.choice(keys))
        pictures = self.chance.choice((page.thumbnails, stage.gallery.pictures))
        shown = [button for button in pictures.buttons if button.isVisible()]
        if shown:
            yield
            self.doing = "taking a picture"
            self.chance.choice(shown).click()
        if self.chance.random() < 0.2:
            yield
            self.doing = "keeping slices"
            self.window.slicing.keep()

    def _corners_and_panels(self) -> Iterator[None]:
        """Improvised corners and panels begun, dragged, drawn again, set into the quilt."""
        self.window.show_stage("remake")
        stage = self.window.remake
        which = self.chance.choice((CORNERS, PANELS))
        stage.turn_to(which)
        yield
        page = stage.corners if which == CORNERS else stage.panels
        self.doing = "corners" if which == CORNERS else "a panel"
        if page.begin.isVisible():
            page.begin.click()
            yield
        picture = stage.corners.picture if which == CORNERS else stage.panels.piece
        if picture.isVisible():
            start, end = self._place(picture), self._place(picture)
            if self.chance.random() < 0.6:
                handles = ("along", "scrap") if which == CORNERS else ("motif", "motif-end")
                if which == CORNERS or stage.panels.model.panel is not None:
                    start = picture.spot_of(self.chance.choice(handles)).toPoint()
            QTest.mousePress(picture, Qt.MouseButton.LeftButton, pos=start)
            QTest.mouseMove(picture, end)
            yield
            QTest.mouseRelease(picture, Qt.MouseButton.LeftButton, pos=end)
            yield
            keys = (Qt.Key.Key_N, Qt.Key.Key_Left, Qt.Key.Key_Down)
            QTest.keyClick(picture, self.chance.choice(keys))
        if which == CORNERS and self.chance.random() < 0.3:
            yield
            self.doing = "a field of squares"
            self.window.remake_ticket.corners.set_quilt.click()

    def _spin(self) -> None:
        found = self._visible(QSpinBox) + self._visible(QCheckBox)
        if found:
            widget = self.chance.choice(found)
            self.doing = f"setting {widget.accessibleName()!r}"
            if isinstance(widget, QSpinBox):
                few = min(widget.maximum(), widget.minimum() + 40)
                widget.setValue(self.chance.randint(widget.minimum(), few))
            else:
                widget.toggle()

    def _write(self) -> None:
        actions = [a for a in self.window.actions() if "…" in a.text() or "Save" in a.text()]
        action = self.chance.choice(actions)
        if "Open" not in action.text() and "Import" not in action.text():
            self.doing = f"asking for {action.text()!r}"
            action.trigger()

    def _noted(self, _log: object) -> None:
        self.found.wrong.append(f"an error while {self.doing}")

    def _warned(self, _kind: object, _context: object, text: str) -> None:
        if "propagateSizeHints" not in text and "This plugin" not in text:
            self.found.wrong.append(f"Qt says {text!r} while {self.doing}")

    def _answer_soon(self) -> None:
        # A timer of its own each time: one whose answer opens another dialog would not come again.
        if self._at_work:
            QTimer.singleShot(5, self._answer)

    def _answer(self) -> None:
        """Something waits for an answer: accept, refuse or leave it. No file is written."""
        self._answer_soon()
        popup, modal = QApplication.activePopupWidget(), QApplication.activeModalWidget()
        if popup is not None:
            popup.close()
        elif isinstance(modal, QDialog):
            yes = self.chance.random() < 0.4 and not isinstance(modal, QFileDialog)
            modal.accept() if yes else modal.reject()
        elif modal is not None:
            modal.close()

    # --- events -------------------------------------------------------------------------------

    def _place(self, widget: QWidget) -> QPoint:
        return QPoint(
            self.chance.randrange(max(1, widget.width())),
            self.chance.randrange(max(1, widget.height())),
        )

    def _visible(self, kind: type) -> list[QWidget]:
        return [w for w in self.window.findChildren(kind) if w.isVisible() and w.isEnabled()]

    def _draw(self) -> Iterator[None]:
        drawing = self.window.draft.drawing
        if not drawing.isVisible():
            self.window.show_stage("draft")
            yield
        p, q = self._place(drawing), self._place(drawing)
        button = Qt.MouseButton.LeftButton
        held = self.chance.choice(
            (Qt.KeyboardModifier.NoModifier,) * 4 + (Qt.KeyboardModifier.ShiftModifier,)
        )
        if self.chance.random() < 0.1:
            button = Qt.MouseButton.RightButton
        QTest.mouseMove(drawing, p)
        yield
        QTest.mousePress(drawing, button, held, p)
        yield
        QTest.mouseMove(drawing, q)
        yield
        QTest.mouseRelease(drawing, button, held, q)

    def _tool(self) -> None:
        button = self.chance.choice(list(self.window.draft.tool_buttons.values()))
        button.click()

    def _click(self) -> None:
        found = self._visible(QPushButton) + self._visible(QToolButton)
        found = [w for w in found if w.accessibleName() != "Close" and w.text() != "Quit"]
        if found:
            widget = self.chance.choice(found)
            self.doing = f"clicking {widget.accessibleName() or widget.text()!r}"
            QTest.mouseClick(widget, Qt.MouseButton.LeftButton)

    def _type(self) -> None:
        found = [
            w for w in self._visible(QLineEdit) if not isinstance(w.parent(), QAbstractSpinBox)
        ]
        if found:
            widget = self.chance.choice(found)
            text = self.chance.choice(_TEXTS)
            self.doing = f"typing {text!r} into {widget.accessibleName()!r}"
            widget.setFocus()
            widget.selectAll()
            widget.insert(text) if not text.isascii() else QTest.keyClicks(widget, text)
            QTest.keyClick(widget, Qt.Key.Key_Return)

    def _key(self) -> None:
        keys = self.chance.choice(_SHORTCUTS)
        self.doing = f"pressing {keys}"
        combination = QKeySequence(keys)[0]
        target = self.chance.choice(
            (self.window.draft.drawing, QApplication.focusWidget(), self.window)
        )
        if target is not None and target.isVisible():
            QTest.keyClick(target, combination.key(), combination.keyboardModifiers())

    def _anywhere(self) -> None:
        at = self._place(self.window)
        widget = self.window.childAt(at)
        if widget is not None:
            self.doing = f"clicking on a {type(widget).__name__}"
            inside = widget.mapFrom(self.window, QPointF(at)).toPoint()
            QTest.mouseMove(widget, inside)
            QTest.mouseClick(
                widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, inside
            )

    def _stage(self) -> None:
        self.window.show_stage(self.chance.choice(STAGES))

    def _size(self) -> None:
        self.window.resize(self.chance.randint(400, 1600), self.chance.randint(300, 1000))

    def _history(self) -> Iterator[None]:
        for _ in range(self.chance.randint(1, 6)):
            self.chance.choice((self.session.undo, self.session.undo, self.session.redo))()
            yield

    def _choose(self) -> None:
        found = [w for w in self._visible(QComboBox) if w.count()]
        if found:
            box = self.chance.choice(found)
            self.doing = f"choosing in {box.accessibleName()!r}"
            box.setCurrentIndex(self.chance.randrange(box.count()))
            box.activated.emit(box.currentIndex())

    def work(self, events: int) -> Findings:
        """So many events, with a look at the document after each twenty."""
        ways = [
            (self._draw, 30), (self._tool, 10), (self._click, 12), (self._type, 5), (self._key, 22),
            (self._anywhere, 10), (self._stage, 4), (self._size, 1), (self._history, 4),
            (self._choose, 3), (self._top, 8), (self._mat, 6), (self._back, 5), (self._spin, 4),
            (self._slices, 6), (self._corners_and_panels, 6), (self._write, 2), (self._close, 0.3),
        ]  # fmt: skip
        kinds, weights = zip(*ways, strict=True)
        for n in range(events):
            (do,) = self.chance.choices(kinds, weights)
            self.doing = do.__name__.strip("_")
            if n % 250 == 0:
                slower = pace()
            for took in self._steps(do):
                closes = self._quits and not self.window.isVisible()
                if do != self._close and not closes:
                    # The machine's pace changes by the second.
                    late = took / slower > STALL
                    self._note(took / max(slower, pace()) if late else took / slower)
            if n % 20 == 19:
                self._look()
            if n % 1000 == 999:
                self.found.memory.append(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024)
        stalls = len(self.found.stalls)
        if stalls * MOST_STALLS > max(events, MOST_STALLS):
            self.found.wrong.append(f"{stalls} of {events} events took over {STALL} s")
        slow = [took for took in self.found.closings if took > CLOSED]
        self.found.wrong += [f"closing took {took:.2f} s" for took in slow]
        return self.found

    def _steps(self, do: Callable[[], Iterator[None] | None]) -> Iterator[float]:
        """Do it; for each step of it, as a press of a button and its release, the seconds until
        the window had answered. Between two steps the window waits, as it does for a mouse."""
        steps = self._pauses(do)
        going = True
        while going:
            turns.busy()
            self.watch.start()
            going = next(steps, False)
            QApplication.processEvents()
            took = self.watch.took()
            turns.idle()
            time.sleep(MOUSE)
            yield took

    def _pauses(self, do: Callable[[], Iterator[None] | None]) -> Iterator[bool]:
        for _ in do() or ():
            yield True

    def _note(self, took: float) -> None:
        if took > STALL >= took - self.watch.others:
            self.found.not_judged.append(took)  # it was late because of them, as far as is known
            return
        self.found.slowest = max(self.found.slowest, (took, self.doing))
        if took > STALL:
            system = f"{self.watch.in_system:.2f} s of the system's"
            self.found.stalls.append(f"{took:.2f} s ({system}), {self.doing}: {self.watch.where}")
        if took > SLOW:
            self.found.wrong.append(f"{took:.2f} s while {self.doing}")

    def _look(self) -> None:
        project = self.session.project
        if loads(dumps(project)) != project:
            self.found.wrong.append(f"not read back equal after {self.doing}")
        found = draft(self.session.block)
        fault = tiling_fault(found) if len(found.patches) <= MOST_CHECKED else None
        if fault:
            self.found.wrong.append(f"{fault} after {self.doing}")
        if len(self.session.block.seams) > 60 or len(project.blocks) > 12:
            self.session.start(load(DEMO), None)
        if not self.window.isVisible() and self._quits:
            self._close()
        elif not self.window.isVisible():
            self.found.wrong.append(f"the window closed after {self.doing}")
            self.window.show()

    def leave(self) -> None:
        """Close the window as it is."""
        self._at_work = self.watch.looking = False
        guard.listeners.remove(self._noted)
        self.session.history.mark_saved()
        self.window.close()
        QFileDialog.getSaveFileName = self._dialog  # type: ignore[method-assign]
        shutil.rmtree(self.folder, ignore_errors=True)
        qInstallMessageHandler(self._usual)
