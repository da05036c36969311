"""The window from the first seam to the printed page."""

from __future__ import annotations

from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QColor
from PySide6.QtWidgets import QApplication, QColorDialog, QFileDialog, QInputDialog, QMessageBox

from inlet.core.draft.patches import draft
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.marks import nearest_mark
from inlet.core.numbers.text import show, vulgar_text
from inlet.core.project.value import replace
from inlet.files.exports import BY_NAME
from inlet.files.packing import pack
from inlet.files.project.project_json import load
from inlet.files.whole import previous_version
from inlet.ui import theme
from inlet.ui.draft.fabrics import FabricDialog
from inlet.ui.shell.app import DEMO
from inlet.ui.shell.rail import STAGES
from tests.blocks import point
from tests.sample import sampled

GRID = ("1 0 1 3", "2 0 2 3", "0 1 3 1", "0 2 3 2")
HSTS = ("0 0 1 1", "2 2 3 3")


@pytest.fixture
def answer(monkeypatch):
    """What the next file dialogs and questions are answered with."""

    def give(path: Path | str = "", button: str | None = None, text: str = "") -> None:
        chosen = (str(path), "")
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: chosen)
        monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_a, **_k: chosen)
        monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: (text, bool(text)))
        if button:
            value = getattr(QMessageBox.StandardButton, button)
            monkeypatch.setattr(QMessageBox, "question", lambda *_a, **_k: value)

    return give


def test_from_drawing_to_the_printed_guide(maker, answer, tmp_path, qtbot):
    maker.draw(*GRID, *HSTS)
    assert len(maker.session.draft.patches) == 11
    maker.paint("dark", "3/4 1/4", "11/4 9/4", "3/2 3/2")
    maker.paint("light", "1/4 3/4", "9/4 11/4")
    maker.paint("medium", "3/2 1/2", "1/2 3/2", "5/2 3/2", "3/2 5/2", "5/2 1/2", "1/2 5/2")
    maker.type(maker.window.topbar.width_edit, "10 3/4")
    assert maker.session.block.finished == (F(43, 4), F(43, 4))
    assert maker.wait().resewn

    maker.stage("units")
    plan = maker.wait()
    hst = next(u for u in plan.units if u.unit.kind == "half-square-triangle")
    assert hst.count == 2
    maker.session.pick_unit(hst.unit.label)
    ticket = maker.reads(maker.window.units_ticket)
    # 10 3/4 on three: finished 3 7/12, cut 3 7/12 + 1/2 + √2/4 = 4.437, on a sixteenth 4 7/16
    assert "half-square triangle" in ticket
    assert "4⁷⁄₁₆ in" in ticket
    assert hst.in_use.pieces[0].cut == (F(71, 16), F(71, 16))

    path = tmp_path / "gate.inlet"
    answer(path)
    qtbot.keyClick(maker.window, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)
    assert load(path) == maker.session.project
    assert not maker.session.history.unsaved
    project = maker.session.project
    maker.window.new()
    assert maker.session.project != project
    maker.window.open()
    assert maker.session.project == project
    maker.wait()

    guide = tmp_path / "gate.pdf"
    maker.window.a4_.trigger()
    answer(guide)
    maker.window.exports["guide"].trigger()
    maker.written()
    pages = PdfReader(guide).pages
    assert round(pages[0].mediabox.width) == 595
    text = "\n".join(page.extract_text() for page in pages)
    assert "finished 10¾ in" in text
    assert f"{vulgar_text(show(hst.in_use.pieces[0].cut[0]))} in" in text


def test_erasing_undo_and_redo(maker, qtbot):
    maker.draw(*GRID)
    nine = maker.session.project
    maker.click("1", "1/2", "erase")
    assert len(maker.session.draft.patches) == 8
    maker.click("3/2", "5/2", "erase")  # no seam is near
    assert len(maker.session.draft.patches) == 8
    ctrl = Qt.KeyboardModifier.ControlModifier
    qtbot.keyClick(maker.window, Qt.Key.Key_Z, ctrl)
    assert maker.session.project is nine
    for _ in GRID:
        maker.window.undo_.trigger()
    assert maker.session.block.seams == ()
    assert not maker.window.undo_.isEnabled()
    for _ in GRID:
        maker.window.redo_.trigger()
    assert maker.session.project is nine


def test_a_seam_by_two_clicks_and_one_let_go(maker, qtbot):
    drawing = maker.drawing
    for spot in (point(0, 0), point(3, 3)):
        qtbot.mouseClick(drawing, Qt.MouseButton.LeftButton, pos=maker.at(spot))
    assert [s.ends for s in maker.session.block.seams] == [(point(0, 0), point(3, 3))]
    qtbot.mouseClick(drawing, Qt.MouseButton.LeftButton, pos=maker.at(point(1, 0)))
    qtbot.keyClick(drawing, Qt.Key.Key_Escape)
    qtbot.mouseClick(drawing, Qt.MouseButton.LeftButton, pos=maker.at(point(2, 0)))
    qtbot.mouseClick(drawing, Qt.MouseButton.RightButton, pos=maker.at(point(2, 0)))
    assert len(maker.session.block.seams) == 1


def test_a_block_drawn_and_painted_by_keys_alone(maker, qtbot):
    drawing = maker.drawing
    drawing.setFocus()
    keys = Qt.Key
    qtbot.keyClick(drawing, keys.Key_S)
    qtbot.keyClick(drawing, keys.Key_Right)  # the cursor appears at the corner
    qtbot.keyClick(drawing, keys.Key_Right)
    qtbot.keyClick(drawing, keys.Key_Space)
    for _ in range(3):
        qtbot.keyClick(drawing, keys.Key_Down)
    qtbot.keyClick(drawing, keys.Key_Space)
    assert [s.ends for s in maker.session.block.seams] == [(point(1, 0), point(1, 3))]
    qtbot.keyClick(drawing, keys.Key_Escape)
    qtbot.keyClicks(drawing, "3")  # the third fabric, and the tool to lay it
    qtbot.keyClick(drawing, keys.Key_Right)
    qtbot.keyClick(drawing, keys.Key_Space)
    assert [p.fabric for p in maker.session.draft.patches] == ["dark", None]
    qtbot.keyClick(drawing, keys.Key_E)
    qtbot.keyClick(drawing, keys.Key_Right)  # from the middle of a band to its line
    qtbot.keyClick(drawing, keys.Key_Down)
    qtbot.keyClick(drawing, keys.Key_Return)
    assert maker.session.block.seams == ()
    for i, stage in enumerate(STAGES):
        key = keys(keys.Key_1.value + i)
        qtbot.keyClick(maker.window, key, Qt.KeyboardModifier.ControlModifier)
        assert maker.window.stage == stage


def test_snapping_to_parts_of_a_band(maker):
    maker.window.draft.snap_buttons[3].click()
    maker.draw("0 1/3 3 1/3")
    maker.window.draft.snap_buttons[1].click()
    maker.draw("1 0 1 3", "2 0 1 1/3")  # and to the crossing just made
    ends = {p for s in maker.session.block.seams for p in s.ends}
    assert {point(0, "1/3"), point(1, "1/3")} <= ends


@pytest.mark.parametrize(
    ("field", "text", "says"),
    [
        ("width_edit", "nine", "is not a size"), ("width_edit", "0", "above 0"),
        ("width_edit", "-3", "above 0"), ("width_edit", "400", "larger than a block can be"),
        ("height_edit", "1/0", "divides by zero"), ("seam", "9", "at most"),
    ],
)  # fmt: skip
def test_bad_sizes_keep_the_old_one_and_say_why(maker, field, text, says):
    edit = getattr(maker.window.topbar, field)
    before, project = edit.text(), maker.session.project
    maker.type(edit, text)
    assert edit.text() == before
    assert maker.session.project is project
    assert maker.window.message.isVisible()
    assert says in maker.window.message_text.text()
    assert "is kept" in maker.window.message_text.text()


def test_measure_ruler_style_and_bands(maker):
    maker.draw(*GRID, *HSTS)
    bar = maker.window.topbar
    maker.type(bar.height_edit, "12 in")
    assert maker.session.block.finished == (F(9), F(12))
    maker.type(bar.height_edit, "9")
    maker.type(bar.seam, "3/8")
    bar.ruler.setCurrentIndex(2)
    bar.ruler.activated.emit(2)
    bar.style_box.setCurrentText("trim")
    bar.style_box.activated.emit(1)
    measure = maker.session.measure
    assert (measure.seam, measure.ruler, measure.style) == (F(3, 8), F(1, 16), "trim")
    assert any(u.in_use.trim_to for u in maker.wait().units)
    maker.type(maker.window.draft_ticket.columns, "2:1:2")
    assert maker.session.block.columns == (F(2), F(1), F(2))
    maker.type(maker.window.draft_ticket.rows, "none")
    assert maker.session.block.rows == (F(1),) * 3
    maker.window.cm_.trigger()
    assert maker.session.block.finished[0] == F(2286, 100)
    assert bar.width_edit.text() == "22.86 cm"


def test_methods_are_chosen_on_the_card(maker, qtbot):
    maker.draw(*GRID, *HSTS)
    maker.paint("dark", "3/4 1/4", "11/4 9/4")
    maker.stage("units")
    plan = maker.wait()
    label = next(u.unit.label for u in plan.units if u.unit.kind == "half-square-triangle")
    maker.session.pick_unit(label)
    maker.window.units.board.methods["four-at-a-time"].click()
    assert maker.session.block.methods == {"half-square-triangle": "four-at-a-time"}
    plan = maker.wait()
    chosen = next(u for u in plan.units if u.unit.label == label)
    assert chosen.in_use.name == "four-at-a-time"
    text = show(chosen.in_use.pieces[0].cut[0], vulgar=True)
    assert text in maker.reads(maker.window.units_ticket)
    # clicking a unit on the stage picks it
    polygon, unit = next(h for h in maker.window.units.apart._hot if h[1].unit.label != label)
    spot = polygon.boundingRect().center().toPoint()
    qtbot.mouseClick(maker.window.units.apart, Qt.MouseButton.LeftButton, pos=spot)
    assert maker.session.label == unit.unit.label
    qtbot.keyClick(maker.window.units.apart, Qt.Key.Key_Right)
    assert maker.session.label != unit.unit.label


def test_cutting_for_more_blocks(maker, qtbot):
    maker.draw(*GRID)
    maker.paint("dark", "1/2 1/2")
    block = replace(maker.session.block, methods={"checkerboard": "plain", "nine-patch": "plain"})
    maker.session.edit_block(block)
    maker.stage("cutting")
    maker.wait()
    maker.window.cutting_ticket.copies.setValue(12)
    plan = maker.wait()
    assert sum(c.number for c in plan.cuts) == 12 * 9
    qtbot.waitUntil(lambda: maker.session.at_rest, timeout=20000)
    words = maker.reads(maker.window.cutting_ticket)
    assert "12 ×" in words
    assert "3½" in words
    maker.window.grab()
    mat = maker.window.cutting.mat
    place, _ = mat.shown.places[0]
    left, top, right, bottom = mat._frame(mat.shown).box(place.at)
    qtbot.mouseMove(mat, QPoint(int(left + right) // 2, int(top + bottom) // 2))
    assert "Stack" in maker.window.tape.words()
    assert "3½ in" in maker.window.tape.words()


def test_steps_forward_and_back_with_their_size_to_check(maker, qtbot):
    maker.draw(*GRID, *HSTS)
    for i, patch in enumerate(maker.session.draft.patches):
        x, y = maker.drawing.frame.back(maker.drawing.frame.polygon(patch.outline)[0])
        assert x >= -1e-9
        assert y >= -1e-9
        maker.session.pick_fabric(("light", "dark")[i % 2])
    for cell in ("3/4 1/4", "1/4 3/4", "9/4 11/4", "11/4 9/4", "3/2 1/2", "1/2 3/2", "5/2 3/2",
                 "3/2 5/2", "3/2 3/2", "5/2 1/2", "1/2 5/2"):  # fmt: skip
        maker.paint("dark" if cell.startswith("3/4") else "light", cell)
    maker.stage("piecing")
    plan = maker.wait()
    assert plan.resewn
    stage = maker.window.piecing
    qtbot.waitUntil(lambda: maker.session.at_rest, timeout=20000)  # how it is pressed, too
    for step in plan.steps:
        words = maker.reads(stage)
        assert plan.press(step).text in words
        assert show(nearest_mark(step.measures[0], F(1, 16)), vulgar=True) in words
        assert f"step {step.number} of {len(plan.steps)}" in words
        qtbot.mouseClick(stage.onward, Qt.MouseButton.LeftButton)
    assert not stage.onward.isEnabled()
    assert "unfinished 9½ in" in maker.window.tape.words()
    qtbot.keyClick(stage, Qt.Key.Key_Left)
    assert stage.index == len(plan.steps) - 2
    maker.window.piecing_ticket.group.button(0).click()
    assert stage.index == 0


def test_what_cannot_be_sewn_is_said_in_the_ticket_and_the_card(maker):
    maker.draw("1 1 2 1", "2 1 2 2", "2 2 1 2", "1 2 1 1")
    maker.paint("dark", "1/2 1/2", "3/2 3/2")
    assert maker.wait().assembly is None
    assert "touches no other seam" in maker.reads(maker.window.draft_ticket)
    maker.stage("piecing")
    assert "Not ready to sew" in maker.reads(maker.window.piecing)


def test_the_tape_reads_what_is_pointed_at(maker, qtbot):
    maker.draw("0 0 3 3")
    maker.window.draft.tool_buttons["paint"].click()
    qtbot.mouseMove(maker.drawing, maker.at(point("3/2", "1/20")))
    # the leg of a 9 in triangle: 9 + 1/2 + √2/4 = 9.854
    assert "finished 9 in" in maker.window.tape.words()
    assert "cut 9⅞ in" in maker.window.tape.words()
    maker.window.draft.tool_buttons["seam"].click()
    qtbot.mouseClick(maker.drawing, Qt.MouseButton.LeftButton, pos=maker.at(point(0, 0)))
    qtbot.mouseMove(maker.drawing, maker.at(point(2, 0)))
    assert "Seam being drawn, finished 6 in" in maker.window.tape.words()


def test_blocks_and_fabrics_of_a_project(maker, answer, monkeypatch):
    window, session = maker.window, maker.session
    window.add_.trigger()
    assert len(session.project.blocks) == 2
    answer(text="Skiff")
    window.rename_.trigger()
    assert session.block.title == "Skiff"
    assert window.topbar.blocks.currentText() == "Skiff"
    window.topbar.blocks.activated.emit(0)
    assert session.block.title == "Block 1"
    window.delete_.trigger()
    assert [b.title for b in session.project.blocks] == ["Skiff"]
    window.delete_.trigger()
    assert "at least one block" in window.message_text.text()
    fabrics = window.draft_ticket.fabrics
    fabrics.add_fabric()
    assert session.fabric == session.project.fabrics[-1].id
    monkeypatch.setattr(QColorDialog, "getColor", lambda *_a, **_k: QColor("#123456"))
    dialog = FabricDialog(session, session.project.fabrics[0], window)
    dialog.choose_colour()
    dialog.take()
    assert session.project.fabrics[0].colour == "#123456"
    answer(text="Reading room")
    window.name_.trigger()
    assert "Reading room" in window.windowTitle()


def test_unsaved_changes_are_asked_about(maker, answer, tmp_path):
    window = maker.window
    leave = window.may_leave_really
    assert leave()
    maker.draw("1 0 1 3")
    assert window.windowTitle().startswith("*")
    answer(button="Cancel")
    assert not leave()
    answer(button="Discard")
    assert leave()
    answer("", button="Save")  # and then no file is chosen
    assert not leave()
    path = tmp_path / "kept.inlet"
    answer(path, button="Save")
    assert leave()
    assert load(path) == maker.session.project
    maker.draw("2 0 2 3")
    window.save_.trigger()
    assert len(load(previous_version(path)).blocks[0].seams) == 1
    assert window.settings.recent == [path.resolve()]
    window._fill_recent()
    window.recent_menu.actions()[0].trigger()
    assert maker.session.path == path.resolve()


def test_files_that_cannot_be_opened_or_saved_lose_nothing(maker, answer, tmp_path):
    maker.draw("1 0 1 3")
    project = maker.session.project
    damaged = tmp_path / "damaged.inlet"
    damaged.write_text('{"format": "inlet", "version": 9, "blocks": []}')
    for path in (damaged, tmp_path, tmp_path / "missing.inlet"):
        maker.window._open(path)
        assert maker.session.project is project
        assert path.name in maker.window.message_text.text()
    answer(tmp_path / "no" / "such" / "x.inlet")
    assert not maker.window.save()
    assert "cannot be saved here" in maker.window.message_text.text()
    maker.window.print_.trigger()
    assert maker.session.history.unsaved


def test_large_text_grey_view_and_every_demo_block(maker, tmp_path):
    maker.session.start(load(DEMO), None)
    for block in sampled(maker.session.project.blocks, 3):
        maker.session.show_block(block.id)
        maker.wait()
        for stage in STAGES:
            maker.stage(stage)
            assert not maker.window.grab().isNull()
    maker.window.grey.trigger()
    shot = maker.window.draft.drawing.grab().toImage()
    centre = QColor(shot.pixel(shot.width() // 2 + 20, shot.height() // 2 + 7))
    assert centre.saturation() < 60
    for _ in range(5):
        maker.window.larger_.trigger()
    QApplication.processEvents()
    assert theme.text_scale() == 2.0
    maker.stage("cutting")
    assert not maker.window.grab().isNull()


def test_the_newest_drawing_wins(maker):
    for i in range(12):
        maker.type(maker.window.topbar.width_edit, str(6 + i))
    plan = maker.wait()
    assert plan.block.finished[0] == 17
    assert draft(plan.block).patches == maker.session.draft.patches


def test_the_menu_offers_everything_that_can_be_written(maker):
    """The command line reads the same table."""
    menu = maker.window.topbar.menu_button.menu()
    offered, menus = set(), [menu]
    while menus:
        actions = menus.pop().actions()
        menus += [action.menu() for action in actions if action.menu()]
        offered |= {action.text() for action in actions}
    assert {export.menu for export in BY_NAME.values()} <= offered
    assert {export.prints for export in BY_NAME.values()} - {""} <= offered


def test_a_packed_project_is_unpacked_aside_and_opened(maker, qtbot, tmp_path, monkeypatch):
    project = load(DEMO)
    parcel, there = tmp_path / "reed.zip", tmp_path / "there"
    pack(project, None, parcel)
    asked = "inlet.ui.shell.project_window.QFileDialog"
    monkeypatch.setattr(f"{asked}.getOpenFileName", lambda *_a, **_k: (str(parcel), ""))
    monkeypatch.setattr(f"{asked}.getExistingDirectory", lambda *_a, **_k: str(there))
    maker.window.unpack_.trigger()
    qtbot.waitUntil(lambda: maker.session.path == there / "reed.inlet", timeout=20000)
    assert maker.session.project == project
    maker.window.unpack_.trigger()
    text = maker.window.message_text
    qtbot.waitUntil(lambda: "is there already" in text.text(), timeout=20000)
    assert maker.session.project == project
