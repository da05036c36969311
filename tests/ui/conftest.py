"""The real window, driven as a person would."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication

from inlet.core.geometry.point import Point
from inlet.ui import guard, theme
from inlet.ui.piecing.sittings import SittingsList
from inlet.ui.shell.session import Session, new_project
from inlet.ui.shell.window import Window
from tests.blocks import point


@pytest.fixture(autouse=True)
def no_error_is_caught():
    """What the guard caught would not fail a test by itself."""
    caught: list[Exception] = []
    usual = guard.note
    guard.note = lambda error: (caught.append(error), usual(error))[1]
    yield caught
    guard.note = usual
    assert not caught


class Maker:
    """A person at the window: mouse, keys, and eyes."""

    def __init__(self, qtbot, window: Window) -> None:
        self.bot, self.window = qtbot, window
        self.session = window.session
        self.drawing = window.draft.drawing

    def at(self, p: Point) -> QPoint:
        return self.drawing.to_screen(p).toPoint()

    def draw(self, *lines: str) -> None:
        """Drag seams, each ``"x y x y"`` in grid units."""
        self.window.draft.tool_buttons["seam"].click()
        for line in lines:
            x0, y0, x1, y1 = line.split()
            start, end = self.at(point(x0, y0)), self.at(point(x1, y1))
            self.bot.mousePress(self.drawing, Qt.MouseButton.LeftButton, pos=start)
            self.bot.mouseMove(self.drawing, (start + end) / 2)
            self.bot.mouseMove(self.drawing, end)
            self.bot.mouseRelease(self.drawing, Qt.MouseButton.LeftButton, pos=end)

    def drag(self, line: str, shift: bool = False) -> None:
        """Drag with the tool in the hand, ``"x y x y"`` in grid units."""
        x0, y0, x1, y1 = line.split()
        start, end = self.at(point(x0, y0)), self.at(point(x1, y1))
        held = Qt.KeyboardModifier.ShiftModifier if shift else Qt.KeyboardModifier.NoModifier
        button = Qt.MouseButton.LeftButton
        self.bot.mousePress(self.drawing, button, held, start)
        self.bot.mouseMove(self.drawing, (start + end) / 2)
        self.bot.mouseMove(self.drawing, end)
        self.bot.mouseRelease(self.drawing, button, held, end)

    def clicks(self, *places: Point) -> None:
        """Click at places, one after the other."""
        for place in places:
            self.bot.mouseMove(self.drawing, self.at(place))
            self.bot.mouseClick(self.drawing, Qt.MouseButton.LeftButton, pos=self.at(place))

    def keys(self, *keys: Qt.Key | str) -> None:
        """Press keys over the drawing; a string is typed."""
        for key in keys:
            if isinstance(key, str):
                self.bot.keyClicks(self.drawing, key)
            else:
                self.bot.keyClick(self.drawing, key)

    def click(self, x: str, y: str, tool: str) -> None:
        self.window.draft.tool_buttons[tool].click()
        spot = self.at(point(x, y))
        self.bot.mouseClick(self.drawing, Qt.MouseButton.LeftButton, pos=spot)

    def paint(self, fabric: str, *places: str) -> None:
        self.session.pick_fabric(fabric)
        for place in places:
            self.click(*place.split(), "paint")

    def unit(self, words: str) -> None:
        """Pick a unit of the tray, which is drawn aside."""
        tray = self.window.draft_ticket.tray

        def found():
            shown = (*tray.buttons.values(), *tray.own_buttons.values())
            return [b for b in shown if b.toolTip() == words and b.isVisible()]

        self.bot.waitUntil(lambda: bool(found()), timeout=20000)
        found()[0].click()

    def type(self, field, text: str) -> None:
        field.setFocus()
        field.selectAll()
        if text.isascii():
            self.bot.keyClicks(field, text)
        else:  # no key of the test keyboard makes these
            field.insert(text)
        self.bot.keyClick(field, Qt.Key.Key_Return)

    def stage(self, name: str) -> None:
        self.bot.mouseClick(self.window.rail.buttons[name], Qt.MouseButton.LeftButton)
        assert self.window.stage == name

    def wait(self):
        """Until the plan of what is drawn now has come; returns it."""
        self.bot.waitUntil(lambda: self.session.plan is not None, timeout=20000)
        return self.session.plan

    def written(self) -> str:
        """Until what is being written is; what is said of it."""
        self.bot.waitUntil(lambda: self.window.writer.at_rest, timeout=60000)
        return self.window.message_text.text()

    def reads(self, widget) -> str:
        """Every word shown in a widget."""
        from PySide6.QtWidgets import QAbstractButton, QLabel

        QApplication.processEvents()
        lists = [text for view in widget.findChildren(SittingsList) for text in view.texts]
        words = [w.text() for kind in (QLabel, QAbstractButton) for w in widget.findChildren(kind)
                 if not w.isHidden()]  # fmt: skip
        return "\n".join([*words, *lists])


@pytest.fixture
def maker(qtbot):
    """A maker before an empty project."""
    app = QApplication.instance()
    theme.apply(app)
    window = Window(Session())
    window.session.start(new_project(), None)
    window.resize(1280, 800)
    window.may_leave_really, window.may_leave = window.may_leave, lambda: True
    qtbot.addWidget(window)
    window.show()
    qtbot.waitExposed(window)
    made = Maker(qtbot, window)
    made.wait()
    yield made
    window.session.close()
