"""The help: every page leads somewhere, has its pictures, and tells of every trouble."""

from __future__ import annotations

import ast
import re
from pathlib import Path

import pytest
from PySide6.QtCore import Qt, QUrl
from PySide6.QtGui import QTextDocument

import inlet
from inlet.core.figures.craft import craft_picture, craft_pictures
from inlet.files.help_pages import all_sections, help_pages
from inlet.files.program_files import settings_file
from inlet.ui.shell.help_panel import drawn
from inlet.ui.shell.rail import STAGES
from tests.ui import walk

CODES_BY_NAME = {"method", "sliver"}


def codes() -> set[str]:
    """The codes of all problems, read from the code: the word after “error” or “warning”, or given
    to what makes one of them."""
    found = set()
    for file in (Path(inlet.__file__).parent / "core").rglob("*.py"):
        for node in ast.walk(ast.parse(file.read_text("utf-8"))):
            items = node.elts if isinstance(node, ast.Tuple) else []
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
                makes = {"Problem": 1, "_error": 0, "_warning": 0}.get(node.func.id)
                items = node.args[makes:] if makes is not None else []
            elif items and getattr(items[0], "value", "") in ("error", "warning"):
                items = items[1:]
            else:
                items = []
            if items and isinstance(items[0], ast.Constant) and isinstance(items[0].value, str):
                found.add(items[0].value)
    return {code for code in found if re.fullmatch(r"[a-z]+(-[a-z]+)+", code)} | CODES_BY_NAME


def test_every_problem_has_its_section_and_no_section_is_of_none():
    told = {s.anchor for s in help_pages()["trouble"].sections[1:]}
    known = codes() | {"panel-edge", "panel-lacks", "panel-motif"}  # named where they are found
    assert len(known) > 40
    assert told >= known
    assert told - known == set()


def test_every_stage_has_a_page_and_every_link_and_picture_leads_somewhere():
    pages = help_pages()
    assert set(STAGES) <= set(pages)
    for stage in STAGES:
        headings = [s.heading for s in pages[stage].sections]
        assert "What to do first" in headings
        assert "Words for this stage" in headings
    for page in pages.values():
        for link in page.links:
            kind, _, target = link.partition(":")
            name, _, anchor = target.partition("#")
            if kind == "go":
                assert name in STAGES, link
            else:
                assert name in pages, link
                assert not anchor or pages[name].heading_of(anchor), link
        for name in page.pictures:
            assert craft_picture(name) is not None, name
    assert set(craft_pictures()) - set(pages["words"].pictures) <= {
        "stitch-and-flip-corner", "two-stitch-and-flip-corners", "three-stitch-and-flip-corners",
        "snowball", "strips", "petal", "set-in-square",
    }  # fmt: skip


def test_every_picture_shows_something_inside_its_box(qapp):
    for name in craft_pictures():
        picture = craft_picture(name)
        assert picture is not None
        image = drawn(picture)
        colours = {image.pixel(x, y) for x in range(0, image.width(), 3)
                   for y in range(0, image.height(), 3)}  # fmt: skip
        assert len(colours) > 1, name
        edge = [image.pixel(0, y) for y in range(image.height())]
        assert not any(edge), f"{name} is cut off"


@pytest.fixture
def reader(maker, qtbot):
    def read() -> str:
        walk.settle(maker.window)
        return maker.window.help.text.toPlainText()

    maker.read = read
    maker.f1 = lambda: qtbot.keyClick(maker.window, Qt.Key.Key_F1)
    return maker


def test_help_opens_by_key_follows_the_stage_and_closes(reader):
    window = reader.window
    reader.f1()
    assert reader.read().startswith("Draft")
    reader.stage("pressing")
    assert reader.read().startswith("Pressing")
    reader.f1()
    assert window.help.isHidden()
    reader.f1()
    assert not window.help.isHidden()
    assert window.stages.width() >= 300
    reader.window.help.text.anchorClicked.emit(QUrl("go:units"))
    assert window.stage == "units"
    window.help.text.anchorClicked.emit(QUrl("help:words#Nest"))
    assert "They lock together" in reader.read()
    bar = window.help.text.verticalScrollBar()
    assert bar.value() > 0
    picture = window.help.text.document().resource(
        QTextDocument.ResourceType.ImageResource.value, QUrl("picture:nest")
    )
    assert picture is not None
    reader.stage("draft")  # a page that is not the stage's stays open
    assert "They lock together" in reader.read()
    window.help.back.click()
    assert reader.read().startswith("Units")


def test_help_is_searched(reader, qtbot):
    reader.f1()
    line = reader.window.help.line
    qtbot.keyClicks(line, "partial")
    found = reader.read()
    assert "Partial seam (Words of the craft)" in found
    line.clear()
    assert reader.read().startswith("Draft")
    qtbot.keyClicks(line, "xylophone")
    assert "Try another word" in reader.read()
    assert len(all_sections()) > 90


def test_a_sentence_of_trouble_leads_to_its_page(reader, qtbot):
    reader.draw("1 0 1 3/2")
    reader.wait()
    walk.settle(reader.window)
    ticket = reader.window.draft_ticket
    button = next(
        b for b in walk.shown(reader.window)
        if b.toolTip().startswith("What this means") and ticket.isAncestorOf(b)
    )  # fmt: skip
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    assert "Every seam must end on another seam" in reader.read()
    assert reader.window.help.anchor in codes()
    reader.window.say("No.", "files#Pack a project")
    name = "Help for this message"
    about = next(b for b in walk.shown(reader.window) if b.accessibleName() == name)
    qtbot.mouseClick(about, Qt.MouseButton.LeftButton)
    assert reader.window.help.page == "files"


def test_what_the_help_menu_shows(reader):
    window = reader.window
    shown = {}
    for name in ("places_", "log_", "news_", "about_"):
        getattr(window, name).trigger()
        shown[name] = window.reading.text.toPlainText()
        window.reading.close()
    assert inlet.__version__ in shown["about_"]
    assert inlet.__version__ in shown["news_"]
    assert "No error has been noted" in shown["log_"]
    assert str(settings_file()) in shown["places_"]
    window.contents_.trigger()
    assert all(page.title in reader.read() for page in help_pages().values())
