"""What the hand does without meaning it: the wheel over a list, keys after a click, a sentence that
comes while the pointer is over a button."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractSpinBox,
    QApplication,
    QComboBox,
    QScrollArea,
)

from inlet.files.project.project_json import load
from inlet.ui.shell.app import DEMO
from inlet.ui.shell.rail import STAGES

LEFT = Qt.MouseButton.LeftButton
LOOKS = 20
"""So many looks, 10 ms apart, find every button in its place."""


@pytest.fixture
def at_work(maker, qtbot):
    maker.session.start(load(DEMO), None)
    maker.wait()
    return maker


def visible(maker, kind):
    return [w for w in maker.window.findChildren(kind) if w.isVisible()]


def turn_wheel(widget, by=-120):
    window = widget.window()
    at = widget.mapTo(window, QPointF(widget.rect().center()))
    QTest.wheelEvent(window.windowHandle(), at, QPoint(0, by))


@pytest.mark.parametrize("stage", STAGES)
def test_the_wheel_changes_no_value(at_work, stage):
    at_work.stage(stage)
    project = at_work.session.project
    boxes = [*visible(at_work, QComboBox), *visible(at_work, QAbstractSpinBox)]
    assert boxes
    for box in boxes:
        box.setFocus()
        before = box.currentIndex() if isinstance(box, QComboBox) else box.value()
        for by in (120, -120):
            turn_wheel(box, by)
            after = box.currentIndex() if isinstance(box, QComboBox) else box.value()
            assert after == before
    assert at_work.session.project is project


def test_the_wheel_over_a_list_scrolls_what_it_lies_in(at_work):
    at_work.stage("cutting")
    ticket = at_work.window.cutting_ticket
    ticket.page_buttons["rules"].click()
    at_work.window.settings.folded = {"ticket": False}
    at_work.window.resize(1280, 420)
    QApplication.processEvents()
    area = next(a for a in visible(at_work, QScrollArea) if a.isAncestorOf(ticket))
    assert area.verticalScrollBar().maximum() > 0
    turn_wheel(ticket.rules.folds)
    assert area.verticalScrollBar().value() > 0


def test_a_number_that_is_typed_is_one_edit(at_work):
    at_work.stage("cutting")
    ticket = at_work.window.cutting_ticket
    ticket.page_buttons["rules"].click()
    box, before = ticket.rules.every, at_work.session.project
    box.setFocus()
    box.selectAll()
    QTest.keyClicks(box, "12")
    assert at_work.session.project is before
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert at_work.session.project.cutting.square_every == 12
    at_work.session.undo()
    assert at_work.session.project == before


def places_of_buttons(maker, qtbot):
    """Where every button that is seen lies, once nothing is laid out any more."""
    looks = []

    def rests():
        buttons = visible(maker, QAbstractButton)
        spots = [b.mapTo(maker.window, QPoint(0, 0)) for b in buttons]
        looks.append(sorted({spot.toTuple() for spot in spots}))
        rested = maker.session.at_rest and len(looks) > LOOKS
        return rested and all(look == looks[-1] for look in looks[-LOOKS:])

    qtbot.waitUntil(rests, timeout=60000)
    return looks[-1]


@pytest.mark.parametrize("stage", STAGES)
def test_a_sentence_moves_nothing_under_the_pointer(at_work, qtbot, stage):
    at_work.stage(stage)
    places = places_of_buttons(at_work, qtbot)
    at_work.session.said.emit("The width must be more than 0; 9 in is kept. " * 3)
    qtbot.waitUntil(at_work.window.message.isVisible)
    seen = [place for place in places_of_buttons(at_work, qtbot) if place in places]
    assert seen == places  # and the one that closes the sentence
    at_work.window.message.hide()
    assert places_of_buttons(at_work, qtbot) == places


def test_keys_of_a_card_work_after_a_click_elsewhere_but_not_in_a_field(at_work, qtbot):
    at_work.stage("cutting")
    window, stage = at_work.window, at_work.window.cutting
    qtbot.waitUntil(lambda: stage.lying is not None, timeout=20000)
    qtbot.mouseClick(window.cutting_ticket.page_buttons["rules"], LEFT)
    at_work.window.cutting_ticket.rules.wash.setFocus()
    QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Backspace)  # nothing to take back
    window.setFocus()
    for number in range(3):  # prepared, then two cuts
        QTest.keyClick(window, Qt.Key.Key_Space)
        qtbot.waitUntil(lambda n=number: (stage._done(stage.lying) or 0) == max(0, n))
    lying = stage.lying
    for field in (window.cutting_ticket.rules.margin, window.topbar.seam):
        field.setFocus()
        QTest.keyClick(field, Qt.Key.Key_Space)
        QTest.keyClick(field, Qt.Key.Key_PageDown)
        assert stage.lying is lying
        assert stage._done(lying) == 2
    window.topbar.seam.undo()
    at_work.stage("pressing")
    picture = window.pressing.picture
    qtbot.waitUntil(lambda: picture.pressing is not None, timeout=20000)
    picture._step_seam(1)
    window.pressing_ticket.method.setFocus()
    window.setFocus()
    pins = len(at_work.session.block.pressing.pins) if at_work.session.block.pressing else 0
    QTest.keyClick(window, Qt.Key.Key_F)
    assert len(at_work.session.block.pressing.pins) != pins
