"""The units stage at the window: methods compared and chosen, labels, styles, fabric owned."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QFileDialog

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import show
from inlet.core.project.quilt import Quilt, QuiltPlace
from inlet.core.project.value import replace
from inlet.files.project.project_json import dumps, loads
from inlet.ui.units.board import MethodBoard
from inlet.ui.units.rates import RatesDialog
from tests.blocks import block_of, project_of
from tests.core.planning.test_unit_plan import row_of_three_triangles

FOUR = "1 0 1 1 / 2 0 2 1 / 3 0 3 1 / 0 0 1 1 / 1 0 2 1 / 2 0 3 1"


@pytest.fixture
def at_units(maker):
    """Three half-square triangles and a square, at the units stage, the triangles picked."""
    maker.session.start(project_of(block_of(FOUR, 4, 1, (12, 3), "ab")), None)
    maker.stage("units")
    return picked(maker, "half-square-triangle")


def picked(maker, kind):
    plan = maker.wait()
    maker.session.pick_unit(next(u.unit.label for u in plan.units if u.unit.kind == kind))
    return maker


def order(board: MethodBoard) -> list[str]:
    radios = sorted(board.methods.items(), key=lambda item: item[1].y())
    return [name for name, _ in radios]


def test_methods_are_sorted_by_what_the_maker_cares_about(at_units, qtbot):
    maker, board = at_units, at_units.window.units.board
    maker.reads(board)
    usual = order(board)
    assert usual[0] == "two-at-a-time"
    qtbot.mouseClick(board.headings["over"], Qt.MouseButton.LeftButton)
    maker.reads(board)
    assert order(board)[-1] == "eight-at-a-time"  # five over
    assert board.headings["over"].text().endswith("▾")
    qtbot.mouseClick(board.headings["over"], Qt.MouseButton.LeftButton)
    maker.reads(board)
    assert order(board) == usual
    words = maker.reads(board)
    assert "★" in words
    assert "for" in words


def test_a_method_for_one_unit_or_for_all_of_its_kind(at_units, qtbot):
    maker, board = at_units, at_units.window.units.board
    board.methods["four-at-a-time"].click()
    assert maker.session.block.methods == {"half-square-triangle": "four-at-a-time"}
    maker.wait()
    assert "bias" in maker.reads(maker.window.units_ticket)
    qtbot.mouseClick(board.scope, Qt.MouseButton.LeftButton)
    board.methods["single-triangles"].click()
    assert [c.method for c in maker.session.block.units] == ["single-triangles"]
    assert maker.wait().units[0].in_use.name == "single-triangles"
    board.scope.click()
    board.methods["two-at-a-time"].click()  # for all again: the choice for one is let go
    assert maker.session.block.units == ()
    assert maker.wait().units[0].in_use.name == "two-at-a-time"


def test_a_method_chosen_by_the_plan_is_kept_or_handed_back(at_units, qtbot):
    """For three the plan takes two at a time, for thirty eight; kept, it stays."""
    maker, ticket = at_units, at_units.window.units_ticket
    assert "Chosen for you" in maker.reads(ticket)
    maker.window.units.board.copies.setValue(10)
    assert maker.wait().units[0].in_use.name == "eight-at-a-time"
    maker.reads(ticket)
    qtbot.mouseClick(ticket.chosen, Qt.MouseButton.LeftButton)
    assert [c.method for c in maker.session.block.units] == ["eight-at-a-time"]
    maker.window.units.board.copies.setValue(1)
    assert maker.wait().units[0].in_use.name == "eight-at-a-time"
    assert "Chosen by you" in maker.reads(ticket)
    qtbot.keyClick(ticket.chosen, Qt.Key.Key_Return)
    assert maker.session.block.units == ()
    assert maker.wait().units[0].in_use.name == "two-at-a-time"


def test_compared_for_more_blocks_and_the_quilt(at_units):
    maker, board = at_units, at_units.window.units.board
    board.copies.setValue(5)
    assert maker.wait().units[0].count == 15
    assert "15 A" in maker.reads(board)
    places = (
        QuiltPlace(column=0, row=0, block="other"),
        QuiltPlace(column=0, row=5, block="other"),
    )
    quilt = Quilt(setting="straight", columns=4, rows=3, block="test", places=places)
    project = maker.session.project
    blocks = (*project.blocks, replace(project.blocks[0], id="other"))
    maker.session.edit(replace(project, quilt=quilt, blocks=blocks))
    told = "For the whole quilt: 11 blocks"
    maker.bot.waitUntil(lambda: told in maker.reads(board), timeout=20000)


def test_a_label_of_ones_own_on_every_screen(at_units, monkeypatch, tmp_path):
    maker, ticket = at_units, at_units.window.units_ticket
    maker.type(ticket.label, "Sail")
    assert [c.label for c in maker.session.block.units] == ["Sail"]
    plan = maker.wait()
    assert maker.session.label == "Sail"
    assert {c.label for c in plan.cuts if "Sail" in c.labels} == {"Sail1", "Sail2"}
    assert "stack Sail1" in maker.reads(ticket)
    maker.stage("cutting")
    assert "stack Sail1" in maker.reads(maker.window.cutting_ticket)
    maker.stage("units")
    assert plan.steps[0].makes == "Sail"
    maker.type(ticket.label, "far too long a label")
    assert "up to 12 letters" in maker.window.message_text.text()
    assert ticket.label.text() == "Sail"
    other = next(u.unit.label for u in plan.units if u.unit.kind == "square")
    maker.type(ticket.label, other)
    assert f"another unit is labelled {other}" in maker.window.message_text.text()
    # it stays with its unit when the block is turned, and in the file
    maker.session.turn_block((1, True))
    assert "Sail" in [u.unit.label for u in maker.wait().units]
    assert loads(dumps(maker.session.project)) == maker.session.project
    sheet = tmp_path / "labels.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(sheet), ""))
    maker.window.exports["labels"].trigger()
    maker.written()
    assert sheet.read_bytes().startswith(b"%PDF")


def test_a_unit_built_with_another_says_so(maker):
    """A four-patch in the middle of a square on its point is made first."""
    drawn = (
        "1/2 0 1 1/2 / 1 1/2 1/2 1 / 1/2 1 0 1/2 / 0 1/2 1/2 0 / 3/4 1/4 1/4 3/4 / 1/4 1/4 3/4 3/4"
    )
    block = block_of(drawn, size=(8, 8), fabrics="abc")
    maker.session.start(project_of(block), None)
    outer, inner = maker.wait().units
    maker.stage("units")
    for unit, built in ((outer, True), (inner, False)):
        maker.session.pick_unit(unit.unit.label)
        words = maker.reads(maker.window.units_ticket)
        assert (f"Built with {inner.unit.label} (four-patch), made first" in words) == built


def test_a_unit_of_the_trim_style(at_units):
    maker, ticket = at_units, at_units.window.units_ticket
    ticket.style_box.activated.emit(2)
    ticket.style_box.setCurrentIndex(2)
    plan = maker.wait()
    assert [u.style for u in plan.units] == ["trim", "exact"]
    words = maker.reads(ticket)
    assert "then trim to 3½ in" in words
    assert "4 in" in words
    maker.type(ticket.oversize[1], "1/4")
    plan = maker.wait()
    assert {p.cut for p in plan.units[0].in_use.pieces} == {(F(33, 8), F(33, 8))}
    assert any(m.do == "trim" for m in plan.units[0].in_use.moves)
    for refused in ("5", "0"):
        maker.type(ticket.oversize[0], refused)
        assert "above 0, and an inch at most" in maker.window.message_text.text()
        maker.window.message_text.setText("")
    assert maker.session.measure.larger[0] > 0


def test_a_unit_from_fabric_the_maker_owns(at_units):
    maker, ticket = at_units, at_units.window.units_ticket
    maker.type(ticket.stock, "10 squares")
    plan = maker.wait()
    assert plan.units[0].stock.width == 10
    assert "four at a time: up to just over 6⅛ in finished" in maker.reads(ticket)
    assert "from 1 of yours" in maker.reads(ticket)
    assert all(c.owned == ("A" in c.labels) for c in plan.cuts)
    for wrong in ("ten squares", "5 squares, 4 squares"):
        maker.type(ticket.stock, wrong)
        assert "10 squares is kept" in maker.window.message_text.text()
    ticket.stock.clear()
    maker.bot.keyClick(ticket.stock, Qt.Key.Key_Return)
    assert maker.wait().units[0].stock is None
    assert maker.session.block.units == ()


def test_strip_sets_at_the_cutting_table(at_units):
    """Bars by strip set: what to sew is listed, with what squaring takes, for block or project."""
    maker = at_units
    bars = block_of("0 1 3 1 / 0 2 3 2", 3, 3, (6, 6), "aba")
    other = replace(block_of("0 1 2 1", 2, 2, (4, 4), "ab"), id="two", name="Two")
    maker.session.start(project_of(bars, other), None)
    maker.wait()
    maker.stage("cutting")
    ticket = maker.window.cutting_ticket
    assert "None in the methods in use." in maker.reads(ticket)
    maker.bot.waitUntil(lambda: maker.session.at_rest, timeout=20000)
    ticket.cut_list.asked_whole.emit()
    assert "for Two A" in maker.reads(ticket)
    ticket.cut_list.asked_whole.emit()
    maker.window.units.board.methods["strip-set"].click()
    (one,) = maker.wait().sets
    maker.bot.waitUntil(lambda: maker.session.at_rest, timeout=20000)
    assert f"1 set to sew: 1 of {show(one.lengths[0], vulgar=True)} in" in maker.reads(ticket)
    maker.stage("cutting")
    ticket.turn_to("rules")
    maker.type(ticket.rules.squaring, "1")
    assert maker.wait().sets[0].lengths[0] == one.lengths[0] + F(1, 2)
    maker.type(ticket.rules.squaring, "4")
    assert "from 0 to 3 inches" in maker.window.message_text.text()


def test_minutes_are_counted_at_the_makers_rates(at_units, monkeypatch):
    maker, board = at_units, at_units.window.units.board

    def slower(dialog: RatesDialog) -> int:
        dialog.fields["seam"].setValue(600)
        return QDialog.DialogCode.Accepted

    before = maker.reads(board)
    monkeypatch.setattr(RatesDialog, "exec", slower)
    board._rates()
    assert maker.session.project.rates.seam == 600
    maker.wait()
    assert maker.reads(board) != before
    assert loads(dumps(maker.session.project)).rates.seam == 600


def test_hands_and_moves_are_told(maker):
    maker.session.start(project_of(row_of_three_triangles("lllr")), None)
    maker.stage("units")
    plan = maker.wait()
    assert "Handed: 3 A and 1 A rev" in maker.reads(maker.window.units_ticket)
    assert "of the other hand" in maker.reads(maker.window.units_ticket)
    moves = maker.reads(maker.window.units.moves)
    cut = show(plan.units[0].in_use.pieces[0].cut[0], vulgar=True)
    assert f"Cut {cut} in squares: 2 of" in moves
    assert "Lay each on a plain square" in moves
    maker.session.pick_unit("A rev")
    assert "come out of the runs of A" in maker.reads(maker.window.units.moves)
    assert maker.window.units.reading() is not None
    maker.window.units.apart.pull_apart()
    maker.window.units.apart._pulled(0.0)
    maker.window.grab()


def test_what_other_blocks_could_use_is_told_when_they_are_known(maker):
    """A plan does not wait for the other blocks; once they are known it says what it offers."""
    big = replace(block_of(FOUR, 4, 1, (12, 3), "ab"), id="big", name="Big",
                  methods={"half-square-triangle": "eight-at-a-time"})  # fmt: skip
    small = [
        replace(block_of("0 0 1 1", size=(2, 2)), id=f"s{i}", name=f"Small {i}") for i in (1, 2)
    ]
    maker.session.start(project_of(big, *small), None)
    plan = maker.wait()
    assert [o.what.number for o in plan.offers] == [5]
    maker.bot.waitUntil(lambda: bool(maker.session.plan.offers[0].uses), timeout=20000)
    assert [use[0] for use in maker.session.plan.offers[0].uses] == ["Small 1", "Small 2"]
    arrived = []
    maker.session.planned.connect(lambda: arrived.append(maker.session.plan))
    maker.session.set_copies(2)
    maker.wait()
    maker.bot.wait(120)
    assert len(arrived) == 1  # all are known: nothing is planned twice


def test_arrow_keys_go_through_all_units_and_round(at_units, qtbot):
    apart, session = at_units.window.units.apart, at_units.session
    labels = [unit.unit.label for unit in at_units.wait().units]
    assert len(labels) > 1
    session.pick_unit(labels[-1])
    for label in labels:
        qtbot.keyClick(apart, Qt.Key.Key_Right)
        assert session.label == label
    qtbot.keyClick(apart, Qt.Key.Key_Up)
    assert session.label == labels[-2]


def test_the_focus_stays_where_the_units_chosen_for_are_told(at_units, qtbot):
    board = at_units.window.units.board
    for _ in range(2):
        board.scope.setFocus()
        qtbot.keyClick(board.scope, Qt.Key.Key_Space)
        qtbot.waitUntil(lambda: at_units.window.focusWidget() is board.scope)
