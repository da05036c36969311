"""The remake stage at the window: cuts dragged and typed, pieces turned and swapped, offers."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPoint, Qt

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import CENTIMETRES
from inlet.core.numbers.text import vulgar_text
from inlet.core.project.block import curved
from inlet.core.project.made_from import Cuts
from inlet.core.project.project import Project, measured_in
from inlet.core.project.value import replace
from inlet.core.remake.follow import laid_of
from inlet.core.remake.set_again import Laid
from inlet.ui.remake.stage import GALLERY
from tests.blocks import FABRICS
from tests.core.remake.test_made_from import START, project_of_sliced
from tests.core.remake.test_slices import THIRDS

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def remaking(maker):
    """A block of four half-square triangles that measures 11 1/4, to be cut in thirds."""
    maker.session.start(Project(fabrics=FABRICS, blocks=(START,)), None)
    maker.stage("remake")
    maker.wait()
    return maker


def cut_spot(picture, axis, off):
    """A place on a cut that lies so far from the centre, a quarter along it."""
    wide, high = map(float, picture.slicing.start.finished)
    x, y = (wide / 2 + off, high / 4) if axis == 0 else (wide / 4, high / 2 + off)
    return picture.frame().at(x, y).toPoint()


def place_spot(picture, column, row):
    how = picture.slicing.how
    size = how.set_again.block.finished
    spot = picture.frame(how).at(
        *(float(size[a]) * (k + 0.5) / 3 for a, k in enumerate((column, row)))
    )
    return spot.toPoint()


def drag(bot, widget, start: QPoint, end: QPoint):
    bot.mousePress(widget, LEFT, pos=start)
    bot.mouseMove(widget, (start + end) / 2)
    bot.mouseMove(widget, end)
    bot.mouseRelease(widget, LEFT, pos=end)


def test_a_cut_is_dragged_along_the_marks_and_read_on_the_tape(remaking, qtbot):
    """The cut on the other side goes along; one that would leave nothing stays where it was."""
    maker, window = remaking, remaking.window
    picture, slicing = window.remake.slice_page.start, window.slicing
    assert slicing.made_from.cuts == THIRDS
    drag(qtbot, picture, cut_spot(picture, 0, 1.875), cut_spot(picture, 0, 2.51))
    assert slicing.made_from.cuts == Cuts((F(-5, 2), F(5, 2)), THIRDS.level)
    assert "Cut 2 1/2 in right of the centre" in window.tape.words()
    drag(qtbot, picture, cut_spot(picture, 0, -2.5), cut_spot(picture, 0, -0.1))
    assert slicing.how is not None  # it came as near the centre as its slice can be
    assert slicing.made_from.cuts.upright == (F(-3, 8), F(3, 8))
    assert maker.session.project.blocks == (START,)
    qtbot.keyClick(picture, Qt.Key.Key_Left)
    assert slicing.made_from.cuts.upright == (F(-1, 2), F(1, 2))


def test_a_cut_through_the_centre_goes_where_the_arrow_says(remaking, qtbot):
    """It is its own mirror image."""
    picture, slicing = remaking.window.remake.slice_page.start, remaking.window.slicing
    slicing.cut(Cuts((F(0),), ()))
    qtbot.keyClick(picture, Qt.Key.Key_Right)
    assert slicing.made_from.cuts.upright == (F(1, 8),)
    assert picture.held == (0, 0)


def test_pieces_are_turned_and_swapped_and_kept_as_a_block(remaking, qtbot):
    maker, window = remaking, remaking.window
    result, slicing = window.remake.slice_page.result, window.slicing
    ticket = window.remake_ticket.slices
    qtbot.mouseClick(result, LEFT, pos=place_spot(result, 1, 0))
    qtbot.keyClick(result, Qt.Key.Key_R)
    assert laid_of(slicing.made_from)[1] == Laid(1, 1)
    drag(qtbot, result, place_spot(result, 0, 0), place_spot(result, 2, 1))
    assert [laid_of(slicing.made_from)[i].piece for i in (0, 5)] == [5, 0]
    assert "Piece 1" in maker.reads(ticket)
    qtbot.keyClick(result, Qt.Key.Key_Left, Qt.KeyboardModifier.ShiftModifier)
    assert [laid_of(slicing.made_from)[i].piece for i in (4, 5)] == [0, 4]
    ticket.keep.click()
    made = maker.session.block
    assert made.name == "Start sliced"
    assert made.finished == (F(39, 4), F(39, 4))
    plan = maker.wait()
    assert plan.asked.block is made
    assert plan.asked.resewn
    qtbot.keyClick(result, Qt.Key.Key_R)  # edits go to the block now
    assert maker.session.block.made_from != made.made_from
    maker.session.undo()
    maker.session.undo()
    assert maker.session.project.blocks == (START,)


def test_slices_that_take_long_are_worked_out_aside(remaking, qtbot, monkeypatch):
    """What was shown stays for so long, and nothing is turned that is not seen; why nothing can be
    is said, too."""
    monkeypatch.setattr("inlet.ui.remake.slicing.ARCS_AT_ONCE", -1)
    maker, window = remaking, remaking.window
    page, slicing, keep = window.remake.slice_page, window.slicing, window.remake_ticket.slices.keep
    before = slicing.how
    slicing.cut_in_parts(2)
    laid = laid_of(slicing.made_from)
    assert slicing.how is before
    assert not keep.isEnabled()
    assert page.result_words.text() == "Working out the new block …"
    qtbot.keyClick(page.result, Qt.Key.Key_R)
    assert "still being worked out" in window.message_text.text()
    assert laid_of(slicing.made_from) == laid
    qtbot.waitUntil(keep.isEnabled)
    assert [len(slicing.how.slices), len(before.slices)] == [4, 9]
    assert page.result_words.text().startswith("New block")
    slicing.choose(0)
    qtbot.keyClick(page.result, Qt.Key.Key_R)
    assert laid_of(slicing.made_from) == (Laid(0, 1), *laid[1:])
    qtbot.waitUntil(lambda: not slicing.waits)
    bent = curved((F(0), F(0)), (F(1), F(1)), (F(0), F(1)))
    stretched = replace(START, columns=(F(1),), rows=(F(1),), finished=(F(9), F(6)), seams=(bent,))
    maker.session.start(Project(fabrics=FABRICS, blocks=(stretched,)), None)
    qtbot.waitUntil(lambda: "are not sliced" in page.fault.text())
    qtbot.waitUntil(lambda: maker.session.at_rest)  # it is not asked for again and again


def test_arrangements_are_offered_and_taken(remaking, qtbot):
    maker, page = remaking, remaking.window.remake.slice_page
    qtbot.waitUntil(lambda: bool(page.thumbnails.buttons))
    assert len(page.thumbnails.buttons) == min(12, len(page._offered[1]))
    page.thumbnails.buttons[2].click()
    assert laid_of(maker.window.slicing.made_from) == page._offered[1][2].laid
    page.view_buttons[3].click()
    assert page.result.across == 3
    maker.reads(page)


def test_cuts_are_typed_and_what_cannot_be_is_said(remaking, qtbot):
    maker, ticket, slicing = remaking, remaking.window.remake_ticket.slices, remaking.window.slicing
    maker.type(ticket.cuts[1], "above 2, below 3")
    assert slicing.made_from.cuts.level == (F(-2), F(3))
    maker.type(ticket.cuts[0], "9")
    assert slicing.made_from.cuts.upright == THIRDS.upright
    assert "outside the block" in maker.window.message_text.text()
    maker.type(ticket.measured, "11 1/8 x 11")
    assert maker.session.project.quilt.made == {"start": (F(89, 8), F(11))}
    maker.wait()
    slicing.choose(0)  # the slice is cut as the start block comes out, as Piecing says it, too
    assert ticket.piece_size.text().startswith(vulgar_text("cut 3 11/16 x 3 1/2 in"))
    page = maker.window.remake.slice_page
    assert page.start_words.text() == vulgar_text("Start, sewn: 11 1/8 x 11 in")
    assert vulgar_text("as cut 9 5/8 x 9 1/2 in") in page.result_words.text()
    maker.window.remake.slice_page.result.setFocus()
    slicing.choose(1)
    slicing.flip()
    assert "wrong side" not in maker.window.message_text.text()  # it is its own mirror image


def test_diagonal_cuts_of_a_square_are_not_proposed_for_a_block_that_is_none(remaking, qtbot):
    """The block before was to be cut along its diagonals; this one has none to be cut along."""
    maker, slicing = remaking, remaking.window.slicing
    slicing.cut_along(True)
    assert slicing.diagonal
    oblong = replace(START, id="oblong", finished=(F(12), F(9)))
    maker.session.start(replace(maker.session.project, blocks=(START, oblong)), None)
    maker.session.show_block("oblong")
    maker.stage("remake")
    picture = maker.window.remake.slice_page.start
    qtbot.mouseClick(picture, LEFT, pos=picture.rect().center())
    assert not slicing.diagonal
    assert slicing.frame == (F(12), F(9))


def test_a_made_block_follows_and_is_not_drawn_on(maker, qtbot):
    maker.session.start(project_of_sliced(START, THIRDS), None)
    session = maker.session
    session.show_block("made")
    made = session.block
    session.edit_block(replace(made, finished=(F(9), F(9))))
    assert session.block is made
    assert "made from Start" in maker.window.message_text.text()
    start = session.project.block("start")
    session.edit_block(replace(start, finished=(F(12), F(12))))
    assert session.block.finished == (F(11), F(11))
    session.edit_block(replace(start, finished=(F(1), F(1))))
    assert session.block.finished == (F(11), F(11))
    assert "lies outside the block" in maker.window.message_text.text()
    maker.stage("remake")
    maker.window.remake_ticket.slices.let_go.click()
    assert session.block.made_from is None
    session.undo()
    session.show_block("start")
    session.delete_block()
    assert session.project.blocks[0].made_from is None
    assert session.project.blocks[0].finished == (F(11), F(11))


def test_a_way_to_set_it_is_chosen_and_an_exchange_made_a_colourway(remaking, qtbot):
    maker, stage = remaking, remaking.window.remake
    stage.page_buttons[GALLERY].click()
    page = stage.gallery
    qtbot.waitUntil(lambda: bool(page.pictures.buttons))
    chosen = page.offered[1]
    page.pictures.buttons[1].click()
    quilt = maker.session.project.quilt
    assert (quilt.columns, quilt.rows, quilt.block) == (4, 4, "start")
    ticket = maker.window.remake_ticket.gallery
    assert chosen.words in maker.reads(ticket)
    ticket.keep.click()
    assert page.kept == [chosen]
    page.way_buttons["fabrics"].click()
    qtbot.waitUntil(lambda: "exchange" in page.words.text())
    number = len(page.offered)
    page.every.setChecked(True)
    qtbot.waitUntil(lambda: len(page.offered) > number)
    page.pictures.buttons[number].click()
    (way,) = maker.session.project.quilt.colourways
    assert way.block == "start"
    page.pictures.buttons[number].click()
    assert len(maker.session.project.quilt.colourways) == 1
    assert "has that colourway" in maker.window.message_text.text()
    maker.session.undo()
    maker.session.undo()
    assert maker.session.project.quilt is None
    page.kept_pictures.buttons[0].click()  # sets the quilt again
    assert maker.session.project.quilt == quilt


def test_a_made_block_follows_what_changes_all_blocks(maker):
    """A fabric put away, the project in centimetres: its start block changes with it."""
    maker.session.start(project_of_sliced(START, THIRDS), None)
    session = maker.session
    assert session.edit(session.project.in_place_of("a", "c"))
    made = session.project.block("made")
    assert {spot.fabric for spot in made.fabric_at} == {"b", "c"}
    assert session.edit(measured_in(session.project, CENTIMETRES))
    made = session.project.block("made")
    seam = session.measure.seam
    assert made.finished[0] == F(43, 4) * F("2.54") - 4 * seam
    assert maker.wait().resewn


def test_a_block_is_cut_along_its_diagonals(remaking, qtbot):
    """On point, through both diagonals; a cut is dragged, triangles change places, the block is
    kept, trimmed and proved."""
    maker, window = remaking, remaking.window
    slicing, page = window.slicing, window.remake.slice_page
    ticket = window.remake_ticket.slices
    ticket.way_buttons[True].click()
    assert slicing.made_from.cuts == Cuts((F(0),), (F(0),), True)
    maker.type(ticket.cuts[0], "1")
    assert slicing.made_from.cuts.upright == (F(-1), F(1))
    frame = page.start.frame()
    wide, high = map(float, slicing.frame)
    start, end = (frame.at(wide / 2 + off, high * 0.4).toPoint() for off in (1, 1.51))
    drag(qtbot, page.start, start, end)
    assert slicing.made_from.cuts.upright == (F(-3, 2), F(3, 2))
    maker.type(ticket.cuts[0], "centre")
    slicing.swap(0, 3)
    assert [piece.piece for piece in laid_of(slicing.made_from)] == [3, 1, 2, 0]
    qtbot.waitUntil(lambda: "arrangement" in page.offer_words.text())
    page.show_repeats(2)
    page.result.grab()
    page.show_repeats(1)
    ticket.keep.click()
    plan = maker.wait()
    assert plan.asked.resewn
    assert "trim the block to 10 1/2 in" in next(step for step in plan.steps if step.cuts).text
    assert "corners, trimmed with the block" in maker.reads(ticket)
    page.start.grab()
    page.result.grab()
    ticket.way_buttons[False].click()
    assert not maker.session.block.made_from.cuts.diagonal


def test_the_new_block_is_pressed_and_pinned_too(remaking, qtbot):
    """The stage Pressing shows the start block's seams, or those of the block set of its slices."""
    maker, window = remaking, remaking.window
    window.remake_ticket.slices.keep.click()
    plan = maker.wait()
    maker.stage("pressing")
    stage = window.pressing
    qtbot.waitUntil(lambda: maker.session.pressing is not None, timeout=20000)
    assert maker.session.pressing.seams.draft is plan.draft
    assert stage.new.isVisible()
    stage.new.click()
    assert maker.session.pressing is plan.asked.pressing.best
    assert maker.session.pressing.seams.draft is plan.asked.draft
    stage.picture.pick(maker.session.pressing.stretches[0], None)
    stage.pin.click()
    maker.wait()
    assert len(maker.session.block.pressing.pins) == 1
    assert maker.session.block.made_from is not None
    stage.picture.grab()
    stage.new.click()
    qtbot.waitUntil(lambda: maker.session.pressing is not None, timeout=20000)
    assert maker.session.pressing.seams.draft is maker.session.plan.draft


def test_a_piece_pointed_at_is_read_on_the_tape_as_it_is_cut(remaking, qtbot):
    """11 1/4 in thirds: pieces of 3 3/4, of which 3 1/4 show."""
    picture = remaking.window.remake.slice_page.result
    qtbot.mouseMove(picture, place_spot(picture, 1, 1))
    words = vulgar_text(remaking.window.tape.words())
    assert "cut 3¾ in" in words
    assert "3¼ in" in words
