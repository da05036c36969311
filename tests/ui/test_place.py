"""Where the window opens and how large, and the knobs of the dial."""

from __future__ import annotations

import json

import pytest
from PySide6.QtCore import QRect
from PySide6.QtWidgets import QApplication

from inlet.ui import theme
from inlet.ui.draft.dial import Dial
from inlet.ui.shell.session import Session, new_project
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.window import TITLE_BAR, Window


def opened(qtbot, settings):
    theme.apply(QApplication.instance())
    session = Session()
    window = Window(session, settings)
    session.start(new_project(), None)
    window.may_leave = lambda: True
    qtbot.addWidget(window)
    window.show()
    return window


@pytest.mark.parametrize(
    "place",
    [None, (10, 60, 760, 500), (-4000, 9000, 760, 500), (0, 0, 9000, 9000), "left", [1, 2, 3]],
)
def test_the_window_opens_inside_the_screen_with_its_title_bar(qtbot, place):
    if place is not None:
        path = Settings().path
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(json.dumps({"window": list(place)}))
    window = opened(qtbot, Settings())
    room = QApplication.primaryScreen().availableGeometry()
    assert window.width() <= room.width()
    assert window.height() <= room.height() - TITLE_BAR
    if isinstance(place, tuple):
        assert room.contains(QRect(window.pos(), window.size()))
    if place == (10, 60, 760, 500):
        assert QRect(window.pos(), window.size()) == QRect(*place)
    window.close()


def test_size_and_place_are_remembered(qtbot):
    settings = Settings()
    window = opened(qtbot, settings)
    window.setGeometry(20, 70, 760, 600)
    window.close()
    again = opened(qtbot, Settings())
    assert again.geometry() == QRect(20, 70, 760, 600)
    again.close()


def test_every_knob_of_the_dial_shows_its_fold(maker):
    dial = maker.window.findChild(Dial)
    shown = {
        key: (knob.text(), knob.icon().pixmap(30, 30).toImage() if not knob.text() else None)
        for key, knob in dial.knobs.items()
    }
    assert len(shown) == 6
    for key, (text, image) in shown.items():
        assert text or not image.isNull()
        assert all(shown[k] != (text, image) for k in shown if k != key)
