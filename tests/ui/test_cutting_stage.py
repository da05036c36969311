"""Fabric cut at the mat, with the mouse and with keys; what there is entered and used up."""

from __future__ import annotations

import re

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QFileDialog, QInputDialog

from inlet.core.draft.tray import tray_units
from inlet.core.layout.laid_places import places_of
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import CENTIMETRES
from inlet.core.project.cutting import Cutting, Have
from inlet.core.project.project import measured_in
from inlet.core.project.value import replace
from inlet.files.project.project_json import load
from inlet.ui.shell.app import DEMO
from inlet.ui.widgets.parts import ValueEdit
from tests.blocks import block_of, project_of, tray_block

SQUARES = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"


class Cutter:
    """A person at the cutting stage."""

    def __init__(self, maker):
        self.maker, self.bot, self.session = maker, maker.bot, maker.session
        self.stage, self.mat = maker.window.cutting, maker.window.cutting.mat
        self.card, self.ticket = maker.window.cutting.card, maker.window.cutting_ticket

    def open(self, project, copies=1):
        self.session.start(project, None)
        self.session.set_copies(copies)
        self.rests()
        self.maker.stage("cutting")
        self.rests()

    def rests(self):
        self.bot.waitUntil(
            lambda: self.session.plan is not None and self.session.at_rest, timeout=20000
        )
        QApplication.processEvents()

    def press(self, key, times=1):
        for _ in range(times):
            self.bot.keyClick(self.mat, key)

    def says(self):
        return self.maker.reads(self.card)

    def done(self):
        return self.session.project.cutting.begun[0].done


@pytest.fixture
def cutter(maker):
    return Cutter(maker)


def nine_patch(size=9, fabrics="aabaabaab"):
    block = replace(block_of(SQUARES, 3, 3, (size, size), fabrics), methods={"nine-patch": "plain"})
    return project_of(block)


def test_what_lies_on_the_mat_stays_while_the_next_plan_is_worked_out(cutter):
    cutter.open(nine_patch(), copies=6)
    lain = cutter.stage.on_mat
    assert lain
    cutter.session.edit_block(replace(cutter.session.block, name="Lantern"))
    for stage in ("units", "cutting"):  # looked at anew before the plan has come
        cutter.maker.window.show_stage(stage)
    assert cutter.session.plan is None
    assert cutter.stage.on_mat is lain
    cutter.rests()
    assert cutter.stage.on_mat is not lain


def test_ten_cuts_left_handed_in_centimetres_back_two_and_on_after_reopening(cutter, tmp_path):
    project = measured_in(nine_patch(), CENTIMETRES)
    block = replace(project.blocks[0], finished=(F(21), F(21)))
    cutter.open(replace(project.with_block(block), cutting=Cutting(handed="left")), copies=6)
    assert "Prepare the fabric" in cutter.says()
    assert "Fold it once, selvage to selvage" in cutter.says()
    assert cutter.mat.shown.left_handed
    frame = cutter.mat._frame(cutter.mat.shown)
    first, last = (frame.box(r) for r in _ends(cutter.mat.shown))
    assert first[0] > last[0]  # the squared end lies to the right
    cutter.press(Qt.Key.Key_Space)  # prepared
    assert "working out what to buy" in cutter.says()  # what is known is of the plan before
    cutter.rests()
    assert "being cut" in cutter.says()
    assert "fingers behind the ruler's edge" in cutter.says()
    assert "Line 1 of" in cutter.says()
    told = []
    for _ in range(10):
        cutter.press(Qt.Key.Key_Space)
        told.append(cutter.says())
        assert "being cut" in told[-1]  # however many cuts are made
    assert any("8.5 cm\neight point five" in card for card in told)  # 7 cm and twice 3/4
    assert cutter.done() == 10
    cutter.press(Qt.Key.Key_Backspace, 2)
    assert cutter.done() == 8
    assert re.search(r"Line \d of \d: .*cut \d of \d", cutter.says())
    cutter.rests()
    card = cutter.says()
    path = tmp_path / "begun.inlet"
    assert cutter.session.save_to(path)
    kept = load(path)
    assert kept == cutter.session.project
    cutter.open(nine_patch())
    cutter.session.start(kept, path)
    cutter.rests()
    assert cutter.session.copies == 6
    assert cutter.says() == card


def _ends(shown):
    """The first strip's place and the last one's."""
    from inlet.core.layout.laid_places import places_of

    rects = [place.at for place in places_of(shown.laid)]
    return min(rects, key=lambda r: r.y), max(rects, key=lambda r: r.y)


def test_every_stack_is_told_when_its_last_piece_comes_off(cutter):
    cutter.open(nine_patch())
    cutter.stage.go_on()
    told = []
    for _ in range(30):
        told.append(cutter.says())
        cutter.press(Qt.Key.Key_Right)
    assert "All cuts of this fabric are made" in cutter.says()
    complete = [text for text in told if "Stack A1 is complete" in text]
    assert len(complete) == 1
    assert "6 × 3½ in squares of A, for A" in complete[0]
    cutter.rests()
    assert "✓" in cutter.maker.reads(cutter.stage.chooser)


def test_what_there_is_is_typed_used_and_not_enough(cutter):
    cutter.open(nine_patch(), copies=8)
    ticket = cutter.ticket
    ticket.page_buttons["have"].click()
    ticket.have.show_fabric("a")
    assert "Nothing entered yet" in cutter.maker.reads(ticket.have)
    ticket.have.add.setCurrentIndex(2)
    ticket.have.add.activated.emit(2)
    cutter.rests()
    assert cutter.session.project.fabrics[0].have == (Have(kind="fat-quarter"),)
    chips = cutter.maker.reads(cutter.stage.chooser)
    assert "A: fat quarter" in chips
    assert "A: new" in chips  # 48 squares: more than one holds
    (size,) = [
        e for e in ticket.have.findChildren(ValueEdit) if e.accessibleName().endswith("size")
    ]
    cutter.maker.type(size, "none")
    assert "Fat quarter, size" in cutter.maker.window.message_text.text()
    assert cutter.session.project.fabrics[0].have == (Have(kind="fat-quarter"),)
    cutter.maker.type(size, "30 x 40")
    cutter.rests()
    assert "A: new" not in cutter.maker.reads(cutter.stage.chooser)


def test_a_price_of_words_and_fabric_that_is_nothing_are_refused(cutter):
    cutter.open(nine_patch())
    cutter.rests()
    cutter.ticket.page_buttons["have"].click()
    says = cutter.maker.window.message_text

    def field(name):
        return next(
            e for e in cutter.ticket.have.findChildren(ValueEdit)
            if e.accessibleName() == name and not e.isHidden()
        )  # fmt: skip

    cutter.ticket.have.show_fabric("a")
    cutter.rests()
    cutter.maker.type(field("Price a yd"), "a lot")
    assert "“a lot” is not a price" in says.text()
    cutter.maker.type(field("Usable width"), "0")
    assert "wider than 0" in says.text()
    assert cutter.session.project.fabrics[0].width is None


def test_another_goal_lays_the_fabric_out_otherwise(cutter):
    cutter.open(nine_patch(), copies=5)
    rules = cutter.ticket.rules
    cutter.ticket.page_buttons["rules"].click()
    rules.folds.setCurrentIndex(0)
    rules.folds.activated.emit(0)
    cutter.rests()
    assert cutter.mat.shown.laid.layers == 1
    rules.every.setValue(1)
    cutter.rests()
    assert cutter.mat.shown.laid.every == 1


def test_the_rail_tells_the_fabric_that_lies_on_the_mat(cutter):
    """Lantern six times takes 2 yd laid out at once and less laid out as well as can be."""
    demo = replace(load(DEMO), quilt=None)
    lantern = next(b for b in demo.blocks if b.name == "Lantern")
    rail = cutter.maker.window.rail.buttons["cutting"]
    cutter.session.start(demo, None)
    cutter.session.show_block(lantern.id)
    cutter.session.set_copies(6)
    cutter.rests()
    assert rail.text() == "Cutting\n2 yd"
    cutter.maker.stage("cutting")
    cutter.rests()
    assert sum(plan.buy for plan in cutter.session.plan.fabric_plans.best) == F(15, 8) * 36
    assert rail.text() == "Cutting\n1⅞ yd"


def test_two_cells_of_the_size_chart_and_what_to_buy(cutter):
    """Squares that finish 3 in and 2 in: cut 3 1/2 and 2 1/2."""
    cutter.open(nine_patch(), copies=2)
    cutter.stage.page_buttons[2].click()
    sizes = cutter.stage.sizes
    cutter.maker.type(sizes.sizes, "6, 9")
    cutter.rests()
    assert sizes.table.cell(0, 3) == "12 × 2½ in"
    assert sizes.table.cell(0, 4) == "12 × 3½ in"
    cutter.maker.type(sizes.sizes, "huge")
    assert "“huge” is not a size" in cutter.maker.window.message_text.text()
    assert sizes.sizes.text() == "6, 9"
    cutter.stage.page_buttons[1].click()
    cutter.rests()
    assert cutter.stage.shopping.table.cell(0, 1) == "¼ yd"
    cutter.stage.shopping.does.click()
    cutter.rests()
    assert "Nothing is entered" in cutter.stage.shopping.notes.text()


def test_templates_are_written_and_the_printer_corrected(cutter, tmp_path, monkeypatch):
    window, says = cutter.maker.window, cutter.maker.window.message_text
    cutter.open(nine_patch())
    window.exports["templates"].trigger()
    assert "needs no template" in says.text()
    cutter.open(load(DEMO))
    cutter.session.show_block("heron-bend")
    cutter.rests()
    for kind in ("pdf", "svg", "dxf"):
        name = str(tmp_path / f"t.{kind}")
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, name=name: (name, ""))
        window.exports["templates"].trigger()
        assert f"t.{kind} is written" in cutter.maker.written()
        assert (tmp_path / f"t.{kind}").stat().st_size > 500
    for typed, printed in (("31/32, 1", (32 / 31, 1)), ("none", (32 / 31, 1))):
        monkeypatch.setattr(QInputDialog, "getText", lambda *_, t=typed, **__: (t, True))
        window.measured_.trigger()
        assert window.settings.printed == pytest.approx(printed)
    assert "“none” is not a size" in says.text()
    monkeypatch.setattr(QInputDialog, "getText", lambda *_, **__: ("1, 1", False))
    window.measured_.trigger()
    for action, name in (
        (window.exports["shopping"], "buy.csv"),
        (window.exports["cuts"], "cuts.pdf"),
    ):
        path = tmp_path / name
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, p=path: (str(p), ""))
        action.trigger()
        assert f"{name} is written" in cutter.maker.written()
        assert path.stat().st_size > 100
    window.exports["sizes"].trigger()
    assert "Type sizes" in says.text()


def test_diamonds_lie_head_to_tail_on_the_mat(cutter):
    """What is drawn of them fills the piece they come from but for its two ends."""
    (star,) = [u for u in tray_units() if u.kind == "eight-point-star"]
    block = replace(tray_block(star), finished=(F(12), F(12)))
    cutter.open(project_of(block), copies=12)
    holding = [
        lying for lying in cutter.stage.on_mat
        if any(place.holds > 1 for place in places_of(lying.laid))
    ]  # fmt: skip
    assert holding
    cutter.stage.choose(cutter.stage.on_mat.index(holding[0]))
    cutter.rests()
    (outlines,) = [found for (_, holds), found in cutter.mat.shown.outlines.items() if holds == 8]
    assert len(outlines) == 8
    notes = cutter.maker.reads(cutter.ticket)
    assert "8 from a strip" in notes, notes
    before = cutter.mat.grab().toImage()
    cutter.press(Qt.Key.Key_Space, 4)
    assert cutter.mat.grab().toImage() != before
    assert cutter.done() == 3
