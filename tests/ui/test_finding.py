"""Finding any action, page or field by its words."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QMenu, QPushButton
from shiboken6 import delete

from inlet.files.exports import BY_NAME
from inlet.files.project.project_json import load
from inlet.ui.shell.app import DEMO
from tests.ui import walk

CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def finder(maker, qtbot):
    """A person who opens the line, types, and reads what is found."""
    maker.session.start(load(DEMO), None)
    maker.wait()
    window = maker.window

    def find(words: str) -> list[str]:
        qtbot.keyClick(window, Qt.Key.Key_K, CTRL)
        assert window.search.isVisible()
        qtbot.keyClicks(window.search.line, words)
        return [window.search.list.item(i).text() for i in range(window.search.list.count())]

    maker.find = find
    maker.enter = lambda: qtbot.keyClick(window.search.line, Qt.Key.Key_Return)
    return maker


@pytest.mark.parametrize(
    ("words", "first", "stage"),
    [
        ("yardage", "Shopping list", "cutting"),
        ("left handed", "How I cut", "cutting"),
        ("bobbin", "", "piecing"),
        ("border", "Edges", "quilt"),
        ("diary", "Diary", "bench"),
    ],
)
def test_pages_and_fields_are_gone_to(finder, words, first, stage):
    found = finder.find(words)
    place = next(i for i, text in enumerate(found) if text.lower().startswith(first.lower()))
    for _ in range(place):
        finder.bot.keyClick(finder.window.search.line, Qt.Key.Key_Down)
    finder.enter()
    walk.settle(finder.window)
    assert not finder.window.search.isVisible()
    assert finder.window.stage == stage
    focus = QApplication.focusWidget()
    assert focus is not None
    assert focus.isVisible()
    assert not focus.visibleRegion().isEmpty()


def test_actions_are_done_by_the_words_people_use(finder):
    before = finder.session.block
    assert finder.find("rotate")[0].startswith("Turn it a quarter")
    finder.enter()
    assert finder.session.block != before
    assert "Undo" in finder.find("take back")[0]
    finder.enter()
    assert finder.session.block == before
    assert finder.find("seam allow")[0].startswith("Seam allowance")
    finder.enter()
    assert QApplication.focusWidget() is finder.window.topbar.seam


def test_what_is_not_there_is_said_and_escape_goes_back(finder, qtbot):
    finder.window.topbar.seam.setFocus()
    assert finder.find("xylophone") == []
    assert finder.window.search.none.isVisible()
    finder.enter()
    qtbot.keyClick(finder.window.search.line, Qt.Key.Key_Escape)
    assert not finder.window.search.isVisible()
    assert QApplication.focusWidget() is finder.window.topbar.seam


def test_all_that_is_in_the_menu_is_found_and_no_list_of_it_is_long(finder):
    menus = [finder.window.topbar.menu_button.menu()]
    titles = set()
    while menus:
        menu = menus.pop()
        entries = [a for a in menu.actions() if not a.isSeparator()]
        assert 0 < len(entries) <= 13 or menu is finder.window.recent_menu
        for action in entries:
            inner = action.menu()
            if isinstance(inner, QMenu):
                menus.append(inner)
            elif action.isEnabled():
                titles.add(action.text().replace("&", "").rstrip("…"))
    offered = {command.title for command in finder.window.commands()}
    assert titles <= offered
    assert {e.menu.replace("&", "").rstrip("…") for e in BY_NAME.values()} <= titles


def test_every_field_found_can_be_gone_to(finder):
    """Each leads to its stage."""
    window = finder.window
    acts = {c.title for c in window.action_commands()}
    stages = ("draft", "units", "cutting", "quilt", "bench")
    fields = [
        c for c in window.commands()
        if c.title not in acts and c.where.split(",")[0].lower() in stages
    ]  # fmt: skip
    assert len(fields) > 60
    for command in fields[::4]:
        command.do()
        walk.settle(window)
        assert window.stage == command.where.split(",")[0].lower(), command.title


def test_what_was_made_anew_since_it_was_listed_is_not_gone_to(maker):
    """A button of a list that is filled again, between looking for it and going to it."""
    bench = maker.window.bench
    passing = QPushButton("Passing by", bench.forecast)
    (command,) = [c for c in maker.window.commands() if c.title == "Passing by"]
    passing.setParent(None)
    delete(passing)
    command.do()
    assert maker.window.stage == "draft"
    window = maker.window
    lasting = QPushButton("Lasting", bench.forecast)
    (command,) = [c for c in window.commands() if c.title == "Lasting"]
    command.do()
    assert window.stage == "bench"
    delete(lasting)
