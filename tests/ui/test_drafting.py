"""Drafting at the window: curves, compass, symmetry, bands, units, sizes, values, drawings."""

from __future__ import annotations

import base64
import os
import threading

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QApplication, QFileDialog, QMessageBox, QPushButton

from inlet.core.draft import tray
from inlet.core.draft.patches import draft
from inlet.core.geometry.outline import outline_area
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import area
from inlet.core.memo import forget_all
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.numbers.systems import CENTIMETRES
from inlet.core.project.value import replace
from inlet.core.units import known
from inlet.files.drawings.svg import block_svg
from inlet.files.project.project_json import load, save
from inlet.files.project.recovery import Desk
from inlet.ui.draft.fabrics import FabricDialog
from inlet.ui.widgets.parts import Link
from tests.blocks import block_of, in_fabrics, point, project_of

GRID = ("1 0 1 3", "2 0 2 3", "0 1 3 1", "0 2 3 2")
LEFT = Qt.MouseButton.LeftButton


def repeat(maker, *keys: str) -> None:
    for key, knob in maker.window.draft.dial.knobs.items():
        if knob.isChecked() != (key in keys):
            maker.bot.mouseClick(knob, LEFT)


def patches(maker):
    return maker.session.draft.patches


def bands(maker, columns: str, rows: str) -> None:
    maker.type(maker.window.draft_ticket.columns, columns)
    maker.type(maker.window.draft_ticket.rows, rows)


def test_a_curved_block_of_four_arcs_by_quarter_turns(maker):
    bands(maker, "4", "4")
    repeat(maker, "quarter")
    maker.keys("a")
    maker.drag("0 1 1 0")  # an arc about the corner, bowed towards the middle
    assert maker.drawing.tool.key == "curve"
    maker.keys(Qt.Key.Key_Z)
    assert len(maker.session.block.seams) == 4
    corner = draft(maker.session.block).patches
    assert len(corner) == 5
    first = {p.arcs[0][1] for p in corner if len(p.arcs) == 1}
    # Drawn clockwise from (0, 1) to (1, 0) the centre is the cell's inner corner; F flips it.
    quarter = F(9, 4)
    assert Point(quarter, quarter) in first
    maker.window.undo_.trigger()
    maker.keys("f")
    maker.drag("0 1 1 0")
    assert {p.arcs[0][1] for p in patches(maker) if len(p.arcs) == 1} == {
        point(0, 0), point(9, 0), point(0, 9), point(9, 9)
    }  # fmt: skip
    sizes = sorted(outline_area(p.shape) for p in patches(maker))
    assert all(abs(size - 3.14159265 * 81 / 16 / 4) < 1e-6 for size in sizes[:4])
    repeat(maker)
    maker.window.draft.curve_buttons[True].click()
    maker.clicks(point(0, 0), point(3, 0), point(0, 3))  # centre, where it begins, where it ends
    assert len(patches(maker)) == 6
    assert {p.code for p in maker.wait().errors} == {"patch-without-fabric"}
    maker.window.turn_.trigger()
    maker.type(maker.window.topbar.width_edit, "12")
    assert len(patches(maker)) == 6
    assert len([p for p in patches(maker) if p.arcs]) == 6


def test_an_exact_eight_point_star_by_swing(maker):
    bands(maker, "2", "2")
    repeat(maker, "quarter", "left-right")
    maker.keys("w")
    maker.clicks(point(0, 0), point(1, 1))  # half the diagonal into the compass
    assert "Distance in the compass" in maker.window.tape.words()
    maker.clicks(point(0, 0))  # and carried from a corner along its sides
    assert len(maker.session.block.marks) == 8
    near, k = Point(2 - ROOT2, F(0)), 2 - ROOT2
    maker.keys("s")
    maker.clicks(near)
    # Shift keeps to 45°: where that line meets the middle of the block.
    held = Qt.KeyboardModifier.ShiftModifier
    apex = Point(F(1), ROOT2 - 1)
    maker.bot.mouseClick(maker.drawing, LEFT, held, maker.at(apex))
    maker.clicks(apex, point(1, 1))
    maker.clicks(point(1, 1), near)  # a slip, taken back
    maker.window.undo_.trigger()
    maker.clicks(near)
    maker.bot.mouseClick(maker.drawing, LEFT, held, maker.at(Point(k, k)) + QPoint(2, 1))
    maker.clicks(Point(k, k), point(1, 1))  # square off from two marks
    assert draft(maker.session.block).arrangement.faults == ()
    found = sorted((area(p.outline) for p in patches(maker)), key=float)
    side = 9 * (1 - ROOT2 / 2)
    assert len(found) == 16
    assert found.count(side * side) == 4
    assert found.count(side * side / ROOT2) == 8
    maker.keys("w")
    maker.window.draft.clear_marks.click()
    assert maker.session.block.marks == ()


def test_bands_typed_dragged_put_in_and_taken_out(maker):
    bands(maker, "2:1:2", "2:1:2")
    assert maker.session.block.columns == (F(2), F(1), F(2))
    maker.draw("2 0 2 5", "3 0 3 5", "0 2 5 2", "0 3 5 3")
    assert [round(float(area(p.outline)), 2) for p in patches(maker)][:3] == [12.96, 6.48, 12.96]
    bands(maker, "2, 1 1/2, 2", "3, 3, 3")
    assert maker.session.block.finished == (F(11, 2), F(9))
    assert len(patches(maker)) == 9
    ruler = maker.drawing.rulers
    box = ruler._boxes()[0]
    frame = maker.drawing.frame
    y = int(box.center().y())
    start, end = (QPoint(round(frame.at(x, 0).x()), y) for x in (2, 2.52))
    maker.bot.mouseMove(maker.drawing, start)
    maker.bot.mousePress(maker.drawing, LEFT, pos=start)
    maker.bot.mouseMove(maker.drawing, end)
    assert "Column 1, finished 2½ in" in maker.window.tape.words()
    maker.bot.mouseRelease(maker.drawing, LEFT, pos=end)
    assert maker.session.block.columns == (F(5, 2), F(1), F(2))
    assert len(patches(maker)) == 9
    menu = {a.text(): a for a in ruler.menu(0, 1).actions()}
    menu["Put a column in on the right"].trigger()
    assert maker.session.block.columns == (F(5, 2), F(1), F(1), F(2))
    assert maker.session.block.finished[0] == F(13, 2)
    assert len(patches(maker)) == 12
    {a.text(): a for a in ruler.menu(0, 2).actions()}["Take this column out"].trigger()
    assert len(patches(maker)) == 9
    maker.type(maker.window.draft_ticket.rows, "3, 200")
    assert "larger than a block can be" in maker.window.message_text.text()


def test_units_dropped_turned_and_repeated(maker):
    shown = maker.window.draft_ticket.tray
    assert not shown.isVisible()
    maker.keys("u")
    assert shown.isVisible()
    maker.clicks(point("1/2", "1/2"))
    assert "Choose a unit" in maker.window.message_text.text()
    maker.session.pick_fabric("dark")
    maker.unit("Half-square triangle")
    maker.clicks(point("1/2", "1/2"))
    assert {p.fabric for p in patches(maker)} == {"dark", "light", None}
    maker.keys("r")
    repeat(maker, "half")
    maker.clicks(point("5/2", "1/2"))
    assert len([p for p in patches(maker) if len(p.outline) == 3]) == 6
    repeat(maker)
    maker.unit("Flying geese")
    maker.keys("r")  # upright again: two cells long by itself
    before = len(patches(maker))
    maker.clicks(point("1/2", "3/2"))
    goose = [p for p in patches(maker) if len(p.outline) == 3 and area(p.outline) == 9]
    assert len(goose) == 1
    assert len(patches(maker)) > before
    maker.unit("Quarter circle")
    maker.drag("1/2 5/2 3/2 5/2")  # a box two cells long
    assert "stay round" in maker.window.message_text.text()
    maker.clicks(point("5/2", "5/2"))
    assert any(p.arcs for p in patches(maker))
    # what lies in a cell is turned there, and taken up
    maker.keys(Qt.Key.Key_Escape)
    maker.bot.mouseMove(maker.drawing, maker.at(point("5/2", "5/2")))
    before = {p.arcs for p in patches(maker) if p.arcs}
    maker.bot.keyClick(maker.drawing, Qt.Key.Key_R, Qt.KeyboardModifier.ShiftModifier)
    after = {p.arcs for p in patches(maker) if p.arcs}
    assert after != before
    for _ in range(3):
        maker.bot.keyClick(maker.drawing, Qt.Key.Key_R, Qt.KeyboardModifier.ShiftModifier)
    assert {p.arcs for p in patches(maker) if p.arcs} == before
    menu = maker.drawing.tool.menu(maker.drawing.to_screen(point("5/2", "5/2")))
    menu.actions()[2].trigger()
    assert maker.drawing.tray_unit.words == "Piece of Block 1"
    menu = maker.drawing.tool.menu(maker.drawing.to_screen(point("1/2", "3/2")))
    menu.actions()[1].trigger()
    assert "reaches out of that cell" in maker.window.message_text.text()
    # by keys alone: the cursor walks over the cells
    maker.keys(Qt.Key.Key_Escape, Qt.Key.Key_Right, Qt.Key.Key_Right, Qt.Key.Key_Space)
    assert any(p.arcs for p in patches(maker) if 3 <= p.outline[0].x <= 6)


def test_the_tray_is_worked_out_off_the_windows_thread(maker, monkeypatch):
    """Units are arranged and found elsewhere, in any turn; the hand never waits for them."""
    threads = []

    def watched(work):
        def call(*args):
            threads.append((work.__name__, threading.current_thread()))
            return work(*args)

        return call

    maker.session.start(
        project_of(replace(block_of(" / ".join((*GRID, "0 0 1 1")), 3, 3), name="Skiff")), None
    )
    maker.wait()
    forget_all()
    monkeypatch.setattr(tray, "arrange", watched(tray.arrange))
    monkeypatch.setattr(known, "find_units", watched(known.find_units))
    maker.keys("u")
    maker.unit("Ring")
    maker.unit("Half-square triangle A of Skiff")
    maker.keys("r")
    maker.unit("Flying geese")
    assert {name for name, _ in threads} == {"arrange", "find_units"}
    assert threading.main_thread() not in {thread for _, thread in threads}


def test_a_unit_of_another_block_is_dropped(maker):
    source = replace(in_fabrics(block_of(" / ".join((*GRID, "0 0 1 1")), 3, 3), "ab"), name="Skiff")
    maker.session.start(project_of(source), None)
    maker.window.add_.trigger()
    maker.keys("u")
    blocks = maker.window.draft_ticket.tray.blocks
    blocks.setCurrentIndex(blocks.findData("test"))
    blocks.activated.emit(0)
    maker.unit("Half-square triangle A of Skiff")
    maker.clicks(point("1/2", "1/2"))
    assert {p.fabric for p in patches(maker)} == {"a", "b", None}


def test_painting_and_erasing_repeat_too(maker):
    maker.draw(*GRID)
    repeat(maker, "quarter")
    maker.paint("dark", "1/2 1/2")
    assert [p.fabric for p in patches(maker)].count("dark") == 4
    maker.click("1", "1/2", "erase")
    assert len(patches(maker)) == 5
    maker.keys("e")
    assert maker.session.group != ()


def test_the_lock_keeps_to_45_degrees_until_let_go(maker):
    maker.keys("s", "l")
    assert maker.window.draft.lock.isChecked()
    maker.drag("0 0 2 21/10")
    assert [s.ends for s in maker.session.block.seams] == [(point(0, 0), point(2, 2))]
    maker.drag("0 0 1 3", shift=True)
    assert maker.session.block.seams[-1].ends == (point(0, 0), point(1, 3))
    maker.keys("l")
    maker.drag("3 0 2 3")
    assert maker.session.block.seams[-1].ends == (point(2, 3), point(3, 0))


def test_a_seam_ends_where_a_curve_meets_the_grid(maker):
    maker.keys("a")
    maker.drag("0 2 2 0")
    maker.keys("s")
    arc = maker.session.block.seams[0].curve
    x = 2 - 3**0.5  # where the arc about (2, 2) meets the line half way down the second row
    maker.drag("3 3 3 3")
    spot = maker.drawing.to_screen(point(1, "1/4")).toPoint()
    found = maker.drawing.snap(QPointF(spot))
    assert arc.centre is not None
    assert found.x == 1
    assert abs(float(found.y) - x) < 1e-11


def test_drawn_points_are_reached_by_keys(maker):
    maker.draw("0 0 3 1")
    maker.keys("s", Qt.Key.Key_Escape, ".", ".", ".")
    first = maker.drawing.key_cursor
    assert first in maker.session.draft.arrangement.points
    maker.keys(",")
    assert maker.drawing.key_cursor != first


# --- sizes, values, checks --------------------------------------------------------------------


def size_buttons(sizes) -> list[QPushButton]:
    return [b for b in sizes.near.findChildren(QPushButton) if not b.isHidden()]


def test_sizes_are_live_and_one_click_away(maker):
    maker.draw(*GRID)
    maker.type(maker.window.topbar.width_edit, "10")
    maker.wait()
    sizes = maker.window.draft_ticket.sizes
    words = maker.reads(sizes)
    assert "10 in is not ruler-friendly" in words
    assert "0.042 under the next mark" in words
    near = {b.text(): b for b in size_buttons(sizes)}
    assert set(near) == {"9¾ in", "10⅛ in", "25.2 cm", "25.5 cm"}
    near["9¾ in"].click()
    maker.wait()
    assert maker.session.block.finished == (F(39, 4), F(39, 4))
    assert "is ruler-friendly" in maker.reads(sizes)
    maker.type(sizes.stock, "2 1/2 strips, 5 in squares")
    assert "2½ in strips → 6 in, all units" in maker.reads(sizes)
    maker.type(sizes.stock, "5 ribbons")
    assert "neither strips, squares nor scraps" in maker.window.message_text.text()
    metric = next(b for b in size_buttons(sizes) if b.text().endswith("cm"))
    metric.click()
    assert maker.session.measure.system is CENTIMETRES
    assert maker.wait().ruler_friendly.misses == ()


def test_values_too_near_are_marked_and_the_class_can_be_changed(maker, monkeypatch, tmp_path):
    maker.draw("0 0 3 3")
    maker.paint("light", "2 1")
    maker.paint("medium", "1 2")
    assert not maker.wait().problems
    medium = maker.session.project.fabric("medium")
    dialog = FabricDialog(maker.session, medium, maker.window)
    dialog.colour = "#e2dccb"
    dialog.notes.setPlainText("from the tide basket")
    dialog.take()
    (told,) = maker.wait().problems
    assert told.code == "value-near"
    links = maker.window.draft_ticket.findChildren(Link)
    maker.bot.mouseClick(next(link for link in links if "close in value" in link.text()), LEFT)
    assert tuple(maker.drawing._flash) == told.at
    menu = maker.window.draft_ticket.fabrics.values["medium"].menu()
    next(a for a in menu.actions() if a.text() == "Dark").trigger()
    assert maker.wait().problems == ()
    assert maker.session.project.fabric("medium").notes == "from the tide basket"
    picture = tmp_path / "print.png"
    image = QImage(600, 300, QImage.Format.Format_RGB32)
    image.fill(Qt.GlobalColor.darkRed)
    image.save(str(picture))
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_a, **_k: (str(picture), ""))
    dialog = FabricDialog(maker.session, maker.session.project.fabric("dark"), maker.window)
    dialog.choose_picture()
    maker.type(dialog.shows, "3 in")
    dialog.take()
    shown = maker.session.project.fabric("dark").print
    assert shown.width == 3
    assert QImage.fromData(base64.b64decode(shown.image)).width() == 480
    maker.paint("dark", "2 1")
    frame = maker.drawing.frame
    spot = frame.at(8, 2).toPoint()
    assert maker.drawing.grab().toImage().pixelColor(spot).name() == "#800000"
    dialog = FabricDialog(maker.session, maker.session.project.fabric("dark"), maker.window)
    dialog.instead.setCurrentIndex(dialog.instead.findData("light"))
    dialog.take()
    assert {p.fabric for p in patches(maker)} == {"light", "medium"}
    assert maker.session.project.fabric("dark") is None


def test_checks_lead_to_their_place_by_keys(maker):
    maker.draw("0 1 2 1")
    maker.wait()
    links = maker.window.draft_ticket.findChildren(Link)
    link = next(made for made in links if "stops inside" in made.text())
    maker.bot.keyClick(link, Qt.Key.Key_Return)
    assert tuple(maker.drawing._flash) == (point(2, 1),)


# --- blocks and drawings ----------------------------------------------------------------------


def test_blocks_are_turned_mirrored_copied_and_moved(maker):
    maker.draw("0 0 3 1")
    window, session = maker.window, maker.session
    window.turn_.trigger()
    assert [s.ends for s in session.block.seams] == [(point(2, 3), point(3, 0))]
    window.mirror_.trigger()
    assert [s.ends for s in session.block.seams] == [(point(0, 0), point(1, 3))]
    window.copy_.trigger()
    assert [b.title for b in session.project.blocks] == ["Block 1", "Block 1 copy"]
    assert session.block.seams == session.project.blocks[0].seams
    window.copy_.trigger()
    titles = ["Block 1", "Block 1 copy", "Block 1 copy copy"]
    assert [b.title for b in session.project.blocks] == titles
    window.earlier_.trigger()
    assert [b.title for b in session.project.blocks] == [titles[0], titles[2], titles[1]]
    window.later_.trigger()
    assert [b.title for b in session.project.blocks] == titles
    window.delete_.trigger()
    session.show_block(session.project.blocks[1].id)
    window.earlier_.trigger()
    assert [b.title for b in session.project.blocks] == ["Block 1 copy", "Block 1"]
    assert session.block.title == "Block 1 copy"


FOREIGN = """<?xml version="1.0"?>
<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 500 500">
 <defs><style>.a{stroke:#000}</style></defs>
 <g transform="translate(50 50)"><g transform="scale(4)" class="a">
  <path d="m0 0h90v90h-90z"/>
  <path d="M30,0 v90 m30,-90 v90 M0 30 h90 m-90 30 h90"/>
  <path d="m 30 0 a 30 30 0 0 1 -30 30"/>
  <g transform="rotate(90 45 45)"><path d="M30 0A30 30 0 0 1 0 30"/></g>
  <polyline points="60,60 90,90.2"/><line x1="30" y1="90" x2="0" y2="60"/>
  <text x="4" y="4">Heron</text>
 </g></g></svg>"""


def test_a_drawing_of_another_program_becomes_a_block(maker, monkeypatch, tmp_path):
    path = tmp_path / "heron.svg"
    path.write_text(FOREIGN)
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_a, **_k: (str(path), ""))
    maker.window.import_.trigger()
    maker.bot.waitUntil(lambda: maker.session.block.title == "heron")
    block = maker.session.block
    assert (block.title, block.columns, block.finished) == ("heron", (F(1),) * 3, (F(9), F(9)))
    assert len(patches(maker)) == 13
    assert sum(bool(p.arcs) for p in patches(maker)) == 4
    assert point(3, 3) in {p for s in block.seams for p in s.ends}
    assert "Left out: 1 × text" in maker.window.message_text.text()
    path.write_text("no drawing")
    maker.window.import_.trigger()
    said = maker.window.message_text
    maker.bot.waitUntil(lambda: "not an SVG drawing" in said.text())
    shapes = {p.shape for p in patches(maker)}
    QApplication.clipboard().setText(block_svg(maker.session.project, block))
    maker.window.paste_.trigger()
    maker.bot.waitUntil(lambda: maker.session.block.id != block.id)
    assert {p.shape for p in patches(maker)} == shapes
    target = tmp_path / "out.svg"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(target), ""))
    maker.window.exports["block"].trigger()
    maker.written()
    assert "<svg" in target.read_text()


def test_reading_a_drawing_can_be_stopped(maker):
    before = maker.session.project
    lines = "".join(f'<line x1="{n}" y1="0" x2="{1000 - n}" y2="900"/>' for n in range(900))
    QApplication.clipboard().setText(
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 900">{lines}</svg>'
    )
    maker.window.paste_.trigger()
    assert maker.window.stop_work.isVisible()
    maker.window.stop_work.click()
    maker.bot.waitUntil(lambda: "was stopped" in maker.window.message_text.text())
    assert not maker.window.stop_work.isVisible()
    assert maker.session.project is before


# --- safety of work ---------------------------------------------------------------------------


@pytest.fixture
def say(monkeypatch):
    """What every question is answered with, and what was asked."""
    asked: list[str] = []

    def answer(name: str) -> list[str]:
        value = getattr(QMessageBox.StandardButton, name)

        def question(_parent, _title, text, *_rest):
            asked.append(text)
            return value

        monkeypatch.setattr(QMessageBox, "question", question)
        return asked

    return answer


def test_unsaved_work_is_put_by_and_offered_after_a_crash(maker, say, tmp_path, monkeypatch):
    path = tmp_path / "reed.inlet"
    save(project_of(block_of("1 0 1 3", 3, 3)), path)
    maker.window._open(path)
    maker.draw("2 0 2 3")
    maker.bot.waitUntil(lambda: '"project": "' in maker.window.desk.file.read_text())
    project = maker.session.project
    left = maker.window.desk.file
    record = left.read_text().replace(f'"pid": {os.getpid()}', '"pid": 999999')
    (left.parent / "999999-x.json").write_text(record)
    maker.window.desk.leave()
    maker.window.desk = Desk()
    maker.session.start(load(path), path)
    asked = say("Yes")
    maker.window.offer_left_work(tmp_path / "another.inlet")
    assert asked == []
    maker.window.offer_left_work(path)
    assert "reed.inlet" in asked[0]
    assert maker.session.project == project
    assert maker.session.history.unsaved
    assert not (left.parent / "999999-x.json").exists()
    maker.window.offer_left_work()
    assert len(asked) == 1


def test_a_file_open_or_changed_elsewhere_is_noticed(maker, say, tmp_path):
    path = tmp_path / "reed.inlet"
    save(project_of(block_of("1 0 1 3", 3, 3)), path)
    other = Desk()
    other.keep(None, path)
    maker.window._open(path)
    assert "open in another Inlet window" in maker.window.message_text.text()
    other.leave()
    maker.draw("2 0 2 3")
    save(project_of(block_of("0 1 3 1", 3, 3)), path)
    asked = say("Cancel")
    assert not maker.window.save()
    assert "saved by another window" in asked[0]
    assert maker.session.history.unsaved
    say("Save")
    assert maker.window.save()
    assert load(path) == maker.session.project


def test_work_taken_up_is_not_saved_over_a_newer_file_unasked(maker, say, tmp_path):
    path = tmp_path / "reed.inlet"
    save(project_of(block_of("1 0 1 3", 3, 3)), path)
    maker.window._open(path)
    maker.draw("2 0 2 3")
    maker.window.put_by()
    left = maker.window.desk.file
    record = left.read_text().replace(f'"pid": {os.getpid()}', '"pid": 999999')
    maker.window.desk.leave()
    (left.parent / "999999-x.json").write_text(record)
    newer = project_of(block_of("0 1 3 1", 3, 3))
    save(newer, path)  # by another window, after the crash
    maker.window.desk = Desk()
    say("Yes")
    maker.window.offer_left_work()
    assert len(maker.session.block.seams) == 2
    asked = say("Cancel")
    assert not maker.window.save()
    assert "saved by another window" in asked[-1]
    assert load(path) == newer


def test_a_name_that_gets_an_ending_replaces_nothing_unasked(maker, say, tmp_path, monkeypatch):
    typed, real = tmp_path / "reed", tmp_path / "reed.inlet"
    real.write_text("somebody's")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(typed), ""))
    asked = say("Cancel")
    assert not maker.window.save_as()
    assert "reed.inlet exists already" in asked[0]
    assert "kept as reed.inlet~" in asked[0]
    assert real.read_text() == "somebody's"
    (tmp_path / "reed.svg").write_text("somebody's")
    maker.window.exports["block"].trigger()
    assert "reed.svg exists already" in asked[1]
    assert (tmp_path / "reed.svg").read_text() == "somebody's"
    say("Yes")
    assert maker.window.save_as()
    assert load(real) == maker.session.project
    assert (tmp_path / "reed.inlet~").read_text() == "somebody's"
    assert not typed.exists()
    maker.window.exports["block"].trigger()
    assert "reed.svg is written" in maker.written()
    assert (tmp_path / "reed.svg~").read_text() == "somebody's"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(real), ""))
    maker.window.exports["block"].trigger()
    assert "an export does not replace it" in maker.window.message_text.text()
    assert load(real) == maker.session.project


def test_pointing_off_the_block_and_back_is_quiet(maker):
    maker.draw("0 0 3 3")
    for at in (QPointF(2, 2), QPointF(maker.drawing.width() - 2, 3)):
        maker.bot.mouseMove(maker.drawing, at.toPoint())
        maker.bot.mouseClick(maker.drawing, LEFT, pos=at.toPoint())
        maker.bot.mouseClick(maker.drawing, Qt.MouseButton.RightButton, pos=at.toPoint())
    assert len(patches(maker)) == 2
