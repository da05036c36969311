"""An awkward size at the window: its answers side by side, one taken by one click."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QPushButton

from inlet.core.numbers.fraction import Fraction as F
from inlet.files.project.project_json import dumps, loads
from inlet.ui.widgets.answers import BandsPicture


def use(maker, qtbot, card, name):
    """Click the button of the answer whose words begin so, and wait for the plan."""
    qtbot.waitUntil(card.isEnabled)
    (found,) = [
        b for b in card.findChildren(QPushButton)
        if b.isVisible() and b.accessibleName().startswith(f"Use: {name}")
    ]  # fmt: skip
    qtbot.waitUntil(lambda: found.height() > 5)  # laid out
    qtbot.mouseClick(found, Qt.MouseButton.LeftButton)
    return maker.wait()


def answered(maker, qtbot, card):
    maker.wait()
    qtbot.waitUntil(lambda: card.isVisible() and card.isEnabled())
    return maker.reads(card)


def test_an_awkward_size_shows_its_answers_and_takes_one_by_a_click(maker, qtbot):
    maker.type(maker.window.draft_ticket.columns, "4")
    maker.type(maker.window.draft_ticket.rows, "4")
    maker.draw("3 0 3 3", "4 3 1 3", "1 4 1 1", "0 1 3 1")  # a ring
    card = maker.window.draft_ticket.answers
    maker.wait()
    assert not card.isVisible()  # 9 in: 2 1/4 each
    maker.type(maker.window.topbar.width_edit, "10 3/4")
    maker.type(maker.window.topbar.height_edit, "10 3/4")
    words = answered(maker, qtbot, card)
    assert "Finer marks" in words
    assert "in use" in words
    assert "10⅞ in" in words  # left as it is: four times 2 11/16, each cut 2 3/4 or so
    assert card.findChildren(BandsPicture)
    card.grab()

    plan = use(maker, qtbot, card, "Leave it")
    assert plan.fit.remedy == "leave"
    assert maker.session.measure.awkward == "leave"
    assert loads(dumps(maker.session.project)).measure.awkward == "leave"
    qtbot.waitUntil(lambda: "Take the best one again" in maker.reads(card))

    plan = use(maker, qtbot, card, "Bands on marks")
    assert [band * plan.block.scale[0] for band in maker.session.block.columns] == [
        F(11, 4), F(21, 8), F(21, 8), F(11, 4)
    ]  # fmt: skip
    qtbot.waitUntil(lambda: not card.isVisible())
    assert plan.fit.remedy == "none"
    maker.session.undo()
    answered(maker, qtbot, card)
    plan = use(maker, qtbot, card, "Another size: Make it 11 in")
    assert plan.block.finished == (F(11), F(11))


def test_answers_are_no_wider_than_the_ticket(maker, qtbot):
    ticket = maker.window.draft_ticket
    for edit in (ticket.columns, ticket.rows):
        maker.type(edit, "2:1:2")
    for edit in (maker.window.topbar.width_edit, maker.window.topbar.height_edit):
        maker.type(edit, "7 3/4")
    maker.draw(
        "0 2 5 2", "0 2 2 3", "2 3 5 3", "2 3 2 5", "3 3 3 5", "2 0 2 2", "3 0 3 2", "3 2 5 0"
    )
    words = answered(maker, qtbot, ticket.answers)
    assert "across, " in words  # what it comes out at both ways, in one line
    area = maker.window.tickets.currentWidget()
    assert ticket.minimumSizeHint().width() <= area.viewport().width()
