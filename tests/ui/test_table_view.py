"""The table view: one step on the whole screen, gone through by large keys and clicks."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPoint, Qt

from inlet.core.project import Cutting, replace
from inlet.files.project.project_json import load
from inlet.ui.at_table.view import BACK, ONWARD, size_first
from inlet.ui.shell.app import DEMO

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def demo(maker):
    maker.session.start(load(DEMO), None)
    maker.wait()
    return maker


def at_the_table(maker, qtbot, stage):
    """The table view of a stage, as large as a small screen."""
    maker.stage(stage)
    maker.wait()
    maker.window.table_.trigger()
    table = maker.window.table
    table.showNormal()
    table.resize(1280, 800)
    qtbot.waitExposed(table)
    return table


def test_steps_are_gone_through_by_any_large_key(demo, qtbot):
    table = at_the_table(demo, qtbot, "piecing")
    steps = demo.session.plan.steps
    stage = demo.window.piecing
    for at, key in enumerate(ONWARD[: len(steps) - 1], 1):
        qtbot.keyClick(table, key)
        assert stage.index == min(at, len(steps) - 1)
        assert f"Step {stage.index + 1} of {len(steps)}" in table.place.text()
    for key in BACK:
        before = stage.index
        qtbot.keyClick(table, key)
        assert stage.index <= before
    qtbot.keyClick(table, Qt.Key.Key_Escape)
    assert demo.window.table is None


@pytest.mark.parametrize("hand", ["right", "left"])
def test_a_click_goes_on_and_on_the_free_hands_side_back(demo, qtbot, hand):
    project = replace(demo.session.project, cutting=Cutting(handed=hand))
    demo.session.edit(project)
    table = at_the_table(demo, qtbot, "piecing")
    stage = demo.window.piecing
    ends = [QPoint(1200, 400), QPoint(60, 400)]
    onward, back = ends if hand == "right" else ends[::-1]
    start = stage.index
    qtbot.mouseClick(table, LEFT, pos=onward)
    assert stage.index == start + 1
    middle = table.figure.mapTo(table, QPoint(5, 5))  # a label does not take the click
    qtbot.mouseClick(table, LEFT, pos=middle if hand == "left" else onward)
    assert stage.index == start + 2
    qtbot.mouseClick(table, LEFT, pos=back)
    assert stage.index == start + 1


def test_the_size_is_the_largest_thing_and_fits_the_screen(demo, qtbot):
    table = at_the_table(demo, qtbot, "piecing")
    for _ in demo.session.plan.steps:
        card = table.source.card()
        letters = {w: w.font().pixelSize() for w in (table.title, table.figure, table.words)}
        if card.figure:
            assert letters[table.figure] == max(letters.values())
            wide = table.figure.fontMetrics().horizontalAdvance(table.figure.text())
            assert wide <= table.width()
        qtbot.keyClick(table, Qt.Key.Key_Space)
    table.resize(800, 480)
    assert table.figure.font().pixelSize() >= 12


def test_cuts_made_at_the_table_are_made_at_the_mat(demo, qtbot):
    table = at_the_table(demo, qtbot, "cutting")
    qtbot.waitUntil(lambda: table.source.card() is not None, timeout=20000)
    qtbot.keyClick(table, Qt.Key.Key_Space)  # prepared
    qtbot.keyClick(table, Qt.Key.Key_Space)
    qtbot.waitUntil(lambda: table.title.text().startswith("Line 2"))
    assert demo.session.project.cutting.begun[0].done == 1
    assert demo.window.cutting.cut_card.title in table.title.text()
    qtbot.keyClick(table, Qt.Key.Key_Backspace)
    assert demo.session.project.cutting.begun[0].done == 0


def test_quilt_steps_done_at_the_table_are_done_in_the_list(demo, qtbot):
    demo.stage("quilt")
    table = at_the_table(demo, qtbot, "quilt")
    rows = demo.window.quilt.rows
    qtbot.waitUntil(lambda: bool(rows.steps), timeout=30000)
    first = rows.steps[0]
    qtbot.keyClick(table, Qt.Key.Key_Space)
    assert rows.done == {first.name: first.times if first.at_once else 1}
    assert [entry.what for entry in demo.session.project.log] == [first.name]
    qtbot.keyClick(table, Qt.Key.Key_Backspace)
    assert demo.session.project.log == ()


def test_pressing_shows_which_way_each_seam_goes(demo, qtbot):
    table = at_the_table(demo, qtbot, "pressing")
    qtbot.waitUntil(lambda: demo.session.pressing is not None, timeout=20000)
    said = set()
    for _ in demo.session.plan.steps:
        said.add(table.words.text())
        qtbot.keyClick(table, Qt.Key.Key_Space)
    assert any("Press" in words for words in said)
    log = demo.session.project.log
    assert {entry.part or entry.what.partition(" ")[0] for entry in log} == {"Make", "Sew"}
    place = table.place.text()
    assert "1 of 1 pressed" in place
    demo.stage("bench")
    for _ in demo.session.plan.steps:
        qtbot.keyClick(table, Qt.Key.Key_Backspace)
    assert demo.session.project.log == ()


def test_the_table_goes_with_its_window(demo, qtbot):
    table = at_the_table(demo, qtbot, "piecing")
    demo.session.history.mark_saved()
    demo.window.close()
    assert not table.isVisible()
    assert demo.window.table is None


def test_a_size_is_parted_behind_its_unit():
    assert size_first("3 1/2 x 6 1/4 in, generous by 1/64 in", "in") == (
        "3 1/2 × 6 1/4 in", "generous by 1/64 in",
    )  # fmt: skip
    assert size_first("29 5/8 in without the triangles", "in") == (
        "29 5/8 in", "without the triangles",
    )  # fmt: skip
    assert size_first("", "in") == ("", "")
