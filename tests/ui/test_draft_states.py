"""The draft stage in its other states: by keys, oblong, large text, narrow, half done."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication, QToolButton

from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.project.measure import METRIC
from inlet.core.project.value import replace
from inlet.ui.draft.tools import TOOLS
from tests.blocks import block_of, in_fabrics, point, project_of

KEYS = Qt.Key
LEFT = Qt.MouseButton.LeftButton


@pytest.mark.parametrize("tool", TOOLS, ids=lambda t: t.key)
def test_each_tool_is_taken_up_by_its_letter_and_says_what_it_waits_for(maker, tool):
    maker.keys("e" if tool.letter != "E" else "s", tool.letter.lower())
    assert maker.drawing.tool.key == tool.key
    assert maker.window.draft.tool_buttons[tool.key].isChecked()
    assert maker.drawing.tool.prompt()
    maker.bot.mouseMove(maker.drawing, maker.at(point(1, 1)))
    assert not maker.drawing.grab().isNull()
    maker.bot.mouseClick(maker.drawing, Qt.MouseButton.MiddleButton, pos=maker.at(point(1, 1)))
    maker.keys(KEYS.Key_Escape)


def test_an_empty_block_says_how_to_begin_until_the_pointer_comes(maker):
    def words() -> int:
        """Columns of the middle of the block in which anything is drawn over it."""
        drawing = maker.drawing
        image = drawing.grab().toImage()
        middle = maker.at(point("1/2", "1/2"))
        colours = {image.pixel(middle.x() + dx, middle.y() + dy)
                   for dx in range(-40, 40) for dy in range(-30, 30)}  # fmt: skip
        return len(colours)

    maker.session.edit_block(replace(maker.session.block, columns=(F(1),), rows=(F(1),)))
    maker.keys("s")
    bare = words()
    maker.bot.mouseMove(maker.drawing, maker.at(point(0, 0)))
    assert words() < bare


def test_a_curve_by_keys_alone(maker):
    maker.keys("a", KEYS.Key_Right, KEYS.Key_Down, KEYS.Key_Space)
    maker.keys(KEYS.Key_Right, KEYS.Key_Up, "f", KEYS.Key_Return)
    (seam,) = maker.session.block.seams
    assert seam.curve.ends == (point(0, 1), point(1, 0))
    assert seam.curve.centre == point(0, 0)


def test_a_distance_carried_by_keys_alone(maker):
    maker.keys("w", KEYS.Key_Right, KEYS.Key_Space)
    assert "other end" in maker.drawing.tool.prompt()
    maker.keys(KEYS.Key_Right, KEYS.Key_Down, KEYS.Key_Space)
    assert "carry it from" in maker.drawing.tool.prompt()
    maker.keys(KEYS.Key_Up, KEYS.Key_Left, KEYS.Key_Space)
    assert set(maker.session.block.marks) == {(ROOT2, F(0)), (F(0), ROOT2)}
    maker.keys("s", ".")  # over the points drawn: from the corner to the mark on the top edge
    assert maker.drawing.key_cursor == Point(ROOT2, F(0))
    maker.clicks(Point(ROOT2, F(0)), point(2, 2))
    maker.keys("e")
    maker.clicks(Point(F(0), ROOT2))
    assert maker.session.block.marks == ((ROOT2, F(0)),)
    maker.keys("w")
    maker.clicks(point(0, 0), point(1, 1), point("3/2", 1))
    assert "No edge or seam" in maker.window.message_text.text()


def test_the_compass_is_emptied_when_another_block_is_shown(maker):
    maker.keys("w")
    maker.clicks(point(0, 0), point(1, 1))
    maker.window.copy_.trigger()
    assert "first end" in maker.drawing.tool.prompt()


def test_the_tape_reads_the_radius_of_a_curve_and_of_its_template(maker):
    maker.draw("1 0 1 3", "0 1 3 1")
    maker.keys("a", "f")
    maker.drag("0 1 1 0")
    maker.keys("c")
    maker.bot.mouseMove(maker.drawing, maker.at(point("6/10", "6/10")))
    assert "finished 3 in, unfinished 3¼ in" in maker.window.tape.words()  # r + s, bulging out
    maker.bot.mouseMove(maker.drawing, maker.at(point("8/10", "8/10")))
    assert "finished 3 in, unfinished 2¾ in" in maker.window.tape.words()  # r - s, hollow
    maker.bot.mouseMove(maker.drawing, maker.at(point("1/2", "1/40")))
    assert "this side, finished 3 in" in maker.window.tape.words()


def test_nothing_is_drawn_between_one_point_and_itself(maker):
    maker.clicks(point(1, 1), point(1, 1))
    maker.keys("a")
    maker.clicks(point(1, 1), point(1, 1))
    maker.window.draft.curve_buttons[True].click()
    maker.clicks(point(1, 1), point(2, 1), point(0, 1))  # opposite: no arc
    assert maker.session.block.seams == ()
    assert "No arc there" in maker.window.message_text.text()
    assert maker.drawing.tool.start is None


def test_a_fold_is_drawn_while_the_drawing_is_repeated_by_it(maker):
    knob, drawing = maker.window.draft.dial.knobs["left-right"], maker.drawing
    maker.draw("0 0 3 3")

    def along_the_fold() -> set[int]:
        image = drawing.grab().toImage()
        top, foot = maker.at(point("3/2", "1/8")), maker.at(point("3/2", "11/8"))
        return {image.pixel(top.x(), y) for y in range(top.y(), foot.y())}

    before = along_the_fold()
    knob.click()
    assert len(along_the_fold() - before) > 0
    knob.click()
    assert along_the_fold() == before


def test_an_oblong_block_offers_the_symmetries_it_has(maker):
    knobs = maker.window.draft.dial.knobs
    maker.type(maker.window.topbar.height_edit, "6")
    assert {key for key, knob in knobs.items() if knob.isEnabled()} == {
        "half", "left-right", "up-down"
    }  # fmt: skip
    knobs["half"].click()
    maker.draw("0 0 1 1")
    assert len(maker.session.block.seams) == 2
    maker.keys("a")
    maker.drag("1 1 2 0")  # the first curve gives the grid a square unit; cells are 3 by 2
    assert maker.session.block.scale[0] == maker.session.block.scale[1]
    assert all(s.arc is None or s.curve.centre for s in maker.session.block.seams)
    maker.type(maker.window.topbar.height_edit, "9")
    assert "curve-not-round" in {p.code for p in maker.wait().problems}
    count = len(maker.session.block.seams)
    maker.drag("0 0 1 0")
    assert "not round at its size" in maker.window.message_text.text()
    assert len(maker.session.block.seams) == count


def test_at_twice_the_text_every_control_is_reached_and_the_block_is_seen(maker):
    maker.session.start(project_of(in_fabrics(block_of("0 0 3 3", 3, 3), "ab")), None)
    for _ in range(5):
        maker.window.larger_.trigger()
    QApplication.processEvents()
    window, stage = maker.window, maker.window.draft
    stage.use("curve")
    maker.bot.waitUntil(lambda: stage.drawing.frame.scale * 9 > 160)
    assert window.width() <= 1280
    assert window.tickets.currentWidget().widget().minimumSizeHint().width() <= 440
    for made in stage.findChildren(QToolButton):
        if made.isVisible():
            inside = stage.rect().adjusted(-1, -1, 1, 1)
            at = made.mapTo(stage, QPoint(0, 0))
            assert inside.contains(at)
            assert inside.contains(at + QPoint(made.width() - 1, made.height() - 1))
            assert made.accessibleName() or made.text()


def test_a_narrow_window_keeps_tools_in_one_row(maker):
    maker.window.resize(1024, 700)
    QApplication.processEvents()
    tops = {b.mapTo(maker.window, QPoint(0, 0)).y()
            for b in maker.window.draft.tool_buttons.values()}  # fmt: skip
    assert len(tops) == 1


def test_metric_sizes_bands_and_stock(maker):
    block = replace(block_of("1 0 1 2 / 0 1 2 1", 2, 2, (20, 20)), columns=(F(1), F(1)))
    metric = METRIC
    maker.session.start(replace(project_of(block), measure=metric), None)
    maker.type(maker.window.draft_ticket.columns, "6 cm, 60mm")
    assert maker.session.block.finished[0] == 12
    maker.wait()
    sizes = maker.window.draft_ticket.sizes
    assert "6 strips, 12 squares" in sizes.stock.text()
    assert "cm" in maker.reads(sizes)
    box = maker.drawing.rulers._boxes()[0]
    assert box.width() > 0
    assert maker.drawing.rulers.menu(1, 0).actions()[0].text() == "Put a row in above"
    equal = next(a for a in maker.drawing.rulers.menu(0, 0).actions() if "equal" in a.text())
    equal.trigger()
    assert len(set(maker.session.block.columns)) == 1


def test_a_drag_that_would_pass_the_next_line_stops_before_it(maker):
    ruler = maker.drawing.rulers
    frame, y = maker.drawing.frame, int(ruler._boxes()[0].center().y())
    places = [QPoint(round(frame.at(x, 0).x()), y) for x in (3, 4, 8)]
    maker.bot.mousePress(maker.drawing, LEFT, pos=places[0])
    for place in places[1:]:
        maker.bot.mouseMove(maker.drawing, place)
    maker.bot.mouseRelease(maker.drawing, LEFT, pos=places[-1])
    assert maker.session.block.columns == (F(4, 3), F(2, 3), F(1))
    maker.bot.mousePress(maker.drawing, LEFT, pos=places[1])
    maker.bot.mouseRelease(maker.drawing, LEFT, pos=places[1])
    assert len(maker.session.block.columns) == 3
