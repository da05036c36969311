"""The widgets everything is built from."""

from __future__ import annotations

import random
from collections import Counter
from functools import partial

import pytest
from PySide6.QtCore import QPointF, QRect, QRectF, Qt
from PySide6.QtGui import QColor, QImage, QPainter
from PySide6.QtWidgets import QApplication, QPushButton, QWidget

from inlet.core.figures.display import bounds_of
from inlet.core.figures.moves import lines_figure
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import NumberError
from inlet.core.plan.block import plan_block
from inlet.core.project.measure import INCH, METRIC, Measure
from inlet.core.project.project import Project
from inlet.core.table.moves import DrawnLine
from inlet.core.table.sheets import square_sheet
from inlet.ui import theme
from inlet.ui.shell.settings import MOST_RECENT, Settings
from inlet.ui.shell.tape import Reading, Tape
from inlet.ui.tasks import planner as planning
from inlet.ui.tasks.background import close_all
from inlet.ui.tasks.planner import Planner
from inlet.ui.widgets.drawing import ScreenFrame, draw_sheet
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.painting import draw_figure
from inlet.ui.widgets.parts import ValueEdit, button, column, empty, label
from inlet.ui.widgets.sections import Section, Sections
from tests.blocks import block_of, project_of


@pytest.fixture(autouse=True)
def look(qapp):
    theme.apply(qapp)


def test_a_value_is_taken_when_done_and_kept_when_wrong(qtbot):
    taken = []

    def take(text: str) -> None:
        if text == "bad":
            raise NumberError("that is bad")
        taken.append(text)

    edit = ValueEdit("Width", take)
    qtbot.addWidget(edit)
    edit.show_value("9")
    said = []
    edit.refused.connect(said.append)
    edit.editingFinished.emit()
    assert taken == []  # nothing was changed
    edit.setText("10")
    edit.editingFinished.emit()
    assert taken == ["10"]
    edit.setText("bad")
    edit.editingFinished.emit()
    assert (edit.text(), taken) == ("9", ["10"])
    assert said == ["Width: that is bad; 9 is kept."]
    assert edit.property("wrong")
    edit.show_value("9")
    assert not edit.property("wrong")


def test_labels_show_fractions_as_a_ruler_says_them(qtbot):
    made = label("cut 3 7/8 x 1/2 in", "size")
    qtbot.addWidget(made)
    assert made.text() == "cut 3⅞ x ½ in"


def test_emptied_layouts_hold_nothing(qtbot):
    parent = QWidget()
    qtbot.addWidget(parent)
    layout = column(parent)
    inner = column()
    clicks = []
    inner.addWidget(button("x", lambda: clicks.append(1)))
    layout.addLayout(inner)
    layout.addWidget(label("y"))
    inner.itemAt(0).widget().click()
    assert clicks == [1]
    empty(layout)
    assert layout.count() == 0


def test_a_flow_goes_on_in_a_new_line(qtbot):
    parent = QWidget()
    qtbot.addWidget(parent)
    flow = FlowLayout(parent, 0, 4)
    buttons = [QPushButton("xxxxxxxx") for _ in range(6)]
    for one in buttons:
        flow.addWidget(one)
    wide, high = buttons[0].sizeHint().width(), buttons[0].sizeHint().height()
    assert flow.count() == 6
    assert flow.heightForWidth(10 * wide) == high
    assert flow.heightForWidth(3 * wide + 8) == 2 * high + 4
    assert flow.heightForWidth(wide) == 6 * high + 20
    flow.setGeometry(QRect(0, 0, 3 * wide + 8, 200))
    tops = [b.y() for b in buttons]
    assert tops == [0, 0, 0, high + 4, high + 4, high + 4]
    assert flow.takeAt(9) is None
    assert flow.itemAt(-1) is None


def test_a_frame_fits_and_goes_back():
    frame = ScreenFrame.fit(QRectF(10, 20, 200, 100), (0, 0, 4, 4))
    assert frame.scale == 25
    assert frame.at(0, 0) == QPointF(60, 20)
    assert frame.at(4, 4) == QPointF(160, 120)
    for x, y in ((0.0, 0.0), (1.25, 3.5)):
        assert frame.back(frame.at(x, y)) == (x, y)


def test_fabric_is_drawn_in_its_colour_and_grey_as_its_lightness(qapp):
    project = project_of(block_of())
    sheet = square_sheet(F(4), "a")
    colours = []
    for grey in (False, True):
        image = QImage(40, 40, QImage.Format.Format_RGB32)
        painter = QPainter(image)
        frame = ScreenFrame.fit(
            QRectF(0, 0, 40, 40),
            bounds_of([tuple(p.floats() for p in outline) for outline, _ in sheet]),
        )
        draw_sheet(painter, frame, sheet, project, grey=grey)
        painter.end()
        colours.append(QColor(image.pixel(20, 20)))
    assert colours[0].name() == "#f0f0f0"
    assert colours[1].name() == "#f0f0f0"
    assert theme.fabric_colour("#ff0000", grey=True).name() == "#7f7f7f"
    assert theme.fabric_colour(None) == theme.NO_FABRIC


@pytest.mark.parametrize("colour", ["#000000", "#24566b", "#cf5b3c", "#e4e3da", "#ffffff"])
def test_words_on_fabric_can_be_read(colour):
    fabric = QColor(colour)
    ink = theme.ink_on(fabric)

    def light(c: QColor) -> float:
        parts = [v / 12.92 if v <= 0.04045 else ((v + 0.055) / 1.055) ** 2.4
                 for v in (c.redF(), c.greenF(), c.blueF())]  # fmt: skip
        return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2]

    high, low = sorted((light(fabric), light(ink)), reverse=True)
    assert (high + 0.05) / (low + 0.05) >= 3


def test_the_look_has_ink_to_read():
    for name in ("stage-draft", "undo-2", "tool-seam"):
        assert not theme.icon(name).isNull()
    assert theme.font().family() == theme.FAMILY
    theme.apply(QApplication.instance(), 99)
    assert theme.text_scale() == 3.0


# --- the tape -----------------------------------------------------------------------------------


def test_the_tape_says_what_it_shows(qtbot):
    tape = Tape()
    qtbot.addWidget(tape)
    assert tape.words() == ""
    inch, metric = INCH, METRIC
    tape.read(Reading("Fog", F(3), F(7, 2), F(7, 2)), inch)
    assert tape.words() == "Fog, finished 3 in, exact 3½ in, cut 3½ in"
    assert tape.accessibleDescription() == tape.words()
    tape.read(Reading("Block", F(9), F(19, 2)), inch)
    assert tape.words() == "Block, finished 9 in, unfinished 9½ in"
    tape.read(Reading("Nebel", F(8), F(19, 2), F(19, 2)), metric)
    assert tape.words() == "Nebel, finished 8 cm, exact 9.5 cm, cut 9.5 cm"
    for width in (1200, 400, 60):
        tape.resize(width, 84)
        assert not tape.grab().isNull()


def test_the_tape_is_to_scale(qtbot):
    """The finished stretch is as long, against the whole tape, as the sizes say."""
    tape = Tape()
    qtbot.addWidget(tape)
    tape.resize(1200, 84)
    spans = []
    for finished in (F(4), F(8)):
        tape.read(Reading("x", finished, finished + F(1, 2)), Measure())
        image = tape.grab().toImage()
        y = round(image.height() * 0.40)
        solid = [x for x in range(image.width())
                 if QColor(image.pixel(x, y)).name() == theme.INK_SOFT.name()]  # fmt: skip
        paper = [x for x in range(image.width())
                 if QColor(image.pixel(x, y)).name() == theme.PAPER.name()]  # fmt: skip
        spans.append((max(solid) - min(solid)) / (max(paper) - min(solid)))
        assert 1170 < max(paper) < 1190  # its end is in the window
    # from the near end of the finished stretch to the far end of the tape: f + 1/4 + 1
    assert spans[0] == pytest.approx(4 / 5.25, abs=0.01)
    assert spans[1] == pytest.approx(8 / 9.25, abs=0.01)


# --- plans and settings -------------------------------------------------------------------------


def test_only_the_newest_question_is_answered_last(qtbot):
    planner = Planner()
    got = []
    planner.done.connect(got.append)
    blocks = [block_of("0 0 1 1", size=(n, n)) for n in range(3, 12)]
    for block in blocks:
        planner.ask(project_of(block), block, 1)
    qtbot.waitUntil(lambda: bool(got) and got[-1].block is blocks[-1], timeout=20000)
    assert len(got) < len(blocks)
    close_all(planner.tasks)


def test_a_defect_in_planning_is_said_and_planning_goes_on(qtbot, monkeypatch):
    planner = Planner()
    got, broken = [], []
    planner.done.connect(got.append)
    planner.broke.connect(broken.append)

    def fail(*_question, **_more):
        raise ZeroDivisionError("oh")

    block = block_of()
    monkeypatch.setattr(planning, "plan_block", fail)
    planner.ask(project_of(block), block, 1)
    qtbot.waitUntil(lambda: bool(broken), timeout=10000)
    assert "ZeroDivisionError" in broken[0]
    monkeypatch.setattr(planning, "plan_block", plan_block)
    planner.ask(project_of(block), block, 1)
    qtbot.waitUntil(lambda: bool(got), timeout=10000)
    close_all(planner.tasks)


def test_settings_survive_and_forgive(tmp_path):
    settings = Settings()
    assert settings.recent == []
    assert settings.text == 1.0
    for i in range(MOST_RECENT + 3):
        settings.opened(tmp_path / f"{i}.inlet")
    settings.opened(tmp_path / "5.inlet")
    settings.text = 1.5
    again = Settings()
    assert again.recent[0] == (tmp_path / "5.inlet").resolve()
    assert len(again.recent) == MOST_RECENT
    assert again.text == 1.5
    for damaged in ("{", "[]", '{"recent": 3, "text": "large"}', '{"text": 9, "recent": [1]}'):
        settings.path.write_text(damaged)
        assert Settings().recent == []
        assert Settings().text == 1.0
    settings.path.write_text('{"text": 99, "paper": "a4", "printed": [1, 1.5], "later": {}}')
    assert (Settings().text, Settings().paper, Settings().printed) == (1.0, "a4", (1, 1.5))


def test_keys_that_mean_nothing_here_are_let_through(maker, qtbot):
    drawing = maker.drawing
    before = maker.session.project
    for key in (Qt.Key.Key_0, Qt.Key.Key_9, Qt.Key.Key_Q, Qt.Key.Key_Tab):
        qtbot.keyClick(drawing, key)
    assert maker.session.project is before
    assert maker.drawing.tool.key == "seam"
    assert maker.drawing.key_cursor is None


def test_lines_and_arrows_of_no_length_are_not_drawn(qapp):
    """A press arrow whose ends fall together once stopped the picture of its step."""
    picture = QImage(60, 60, QImage.Format.Format_RGB32)
    picture.fill(0)
    blank = picture.copy()
    painter = QPainter(picture)
    here = Point(F(1), F(1))
    frame = ScreenFrame.fit(QRectF(0, 0, 60, 60), (0, 0, 2, 2))
    lines = [DrawnLine(kind, here, here) for kind in ("press", "seam", "cut")]
    draw_figure(painter, lines_figure(lines, frame.placed), Project())
    painter.end()
    assert picture == blank
    painter = QPainter(picture)
    draw_figure(painter, lines_figure([DrawnLine("dot", here, here)], frame.placed), Project())
    painter.end()
    assert picture != blank


def test_sections_that_say_the_same_stay_and_all_come_in_order(qtbot):
    """Any list after any other: each said once or more, short or long, whole or not yet."""
    chance = random.Random(4)
    sections = Sections(2)
    qtbot.addWidget(sections)

    def widgets() -> list[QWidget]:
        layout = sections.layout()
        return [layout.itemAt(i).widget() for i in range(layout.count())]

    def shows(wanted: list[str]) -> bool:
        return [w.text() for w in widgets()] == wanted

    for _ in range(60):
        before = {w: w.text() for w in widgets()}
        says = [
            chance.choice("abcdef") * chance.choice([1, 60]) for _ in range(chance.randrange(7))
        ]
        sections.show_sections([Section(s, len(s), partial(label, s)) for s in says])
        if chance.random() < 0.7:  # else another list comes before this one is whole
            qtbot.waitUntil(partial(shows, says))
            new = [w.text() for w in widgets() if w not in before]
            assert Counter(new) == Counter(says) - Counter(before.values())
