"""The page Centre a motif: a motif dragged and typed, on a photograph, many panels."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPoint
from PySide6.QtGui import QColor, QImage

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import CENTIMETRES
from inlet.core.panels import photo_scale
from inlet.core.project import Cutting, PrintMotif, replace
from inlet.core.project.project import measured_in
from inlet.files.project.project_json import dumps, loads
from inlet.ui.remake.stage import PANELS
from tests.core.panels.test_panels import CREST, project_of
from tests.ui.test_remake_stage import drag


def at_the_page(maker, project):
    maker.session.start(project, None)
    maker.stage("remake")
    maker.window.remake.turn_to(PANELS)
    maker.wait()
    return maker


@pytest.fixture
def panel(maker):
    """A motif 6 x 3 in, short by 4 in above."""
    return at_the_page(maker, project_of())


def parts_of(maker):
    page = maker.window.remake.panels
    return page, page.piece, maker.window.remake_ticket.panels


def test_a_motif_is_dragged_to_where_it_needs_no_join(panel, qtbot):
    page, piece, _ = parts_of(panel)
    assert page.verdict.text() == "Move 5 in from the bottom to the top."
    start = piece.spot_of("motif").toPoint()
    end = piece.frame().at(9, 10).toPoint()  # its middle: 10 in down
    drag(qtbot, piece, start, end)
    panel.wait()
    assert panel.session.block.panel.top == F(17, 2)
    assert page.verdict.text() == "The motif comes to the middle without a join."
    assert panel.session.block.rows == (F(15),)
    drag(qtbot, piece, piece.spot_of("motif-end").toPoint(), piece.frame().at(14, 12).toPoint())
    assert panel.session.block.panel.motif == (F(8), F(7, 2))
    assert "Motif 8 x 3 1/2 in" in panel.window.tape.words()


def test_lengths_are_typed_and_steps_follow(panel):
    page, _, ticket = parts_of(panel)
    panel.type(ticket.lengths["left", None], "1")
    panel.wait()
    assert "Move 3¼ in from the right to the left." in page.verdict.text()
    assert "Cut a strip 3¼ in wide off the right" in page.steps.text()
    panel.type(ticket.lengths["wander", None], "0")
    panel.wait()
    assert "Move 2¾ in from the right" in page.verdict.text()
    for field, text in ((("left", None), "wide"), (("motif", 0), "30"), (("piece", 1), "0")):
        before = panel.session.project
        panel.type(ticket.lengths[field], text)
        assert panel.session.project is before
        assert panel.written()
    panel.type(ticket.lengths["left", None], "1/8")
    panel.wait()
    assert "lies too near the edge on the left" in page.verdict.text()
    assert "a join there would cut into it" in page.about.text()
    assert loads(dumps(panel.session.project)) == panel.session.project


def test_the_motif_goes_by_keys(panel, qtbot):
    from PySide6.QtCore import Qt

    _, piece, _ = parts_of(panel)
    qtbot.keyClick(piece, Qt.Key.Key_Right)
    assert panel.session.block.panel.left == CREST.left + F(1, 8)
    qtbot.keyClick(piece, Qt.Key.Key_N)
    qtbot.keyClick(piece, Qt.Key.Key_Up)
    assert panel.session.block.panel.top == CREST.top - F(1, 8)
    assert panel.session.block.panel.motif == (F(6), F(25, 8))


def test_a_panel_is_not_drawn_on_unless_it_is_let_go(panel):
    panel.session.edit_block(replace(panel.session.block, seams=()))
    assert "Crest is a panel, drawn from its piece and motif" in panel.written()
    assert panel.session.block.seams
    panel.session.edit_block(replace(panel.session.block, finished=(F(12), F(13))))
    assert panel.session.block.rows == (F(3), F(10))
    parts_of(panel)[0].model.let_go()
    panel.session.edit_block(replace(panel.session.block, seams=()))
    assert panel.session.block.seams == ()


def test_a_photograph_is_measured_by_two_places(panel, qtbot, tmp_path):
    """Two places a half of the photograph apart are 12 in: it is 24 in wide. The piece and the
    motif are dragged onto what is seen there."""
    page, piece, ticket = parts_of(panel)
    file = tmp_path / "shirt.jpg"
    image = QImage(480, 400, QImage.Format.Format_RGB32)
    image.fill(QColor("#88aacc"))
    assert image.save(str(file))
    ticket.take_photo(str(tmp_path / "none.jpg"))
    assert "none.jpg: not a picture that can be read." in panel.written()
    ticket.take_photo(str(file))
    for handle, part in (("point-1", 0.25), ("point-2", 0.75)):
        wide = photo_scale(panel.session.block.panel.photo)
        drag(qtbot, piece, piece.spot_of(handle).toPoint(),
             piece.frame().at(part * wide, 0.1 * wide).toPoint())  # fmt: skip
    panel.type(ticket.distance, "12")
    assert photo_scale(panel.session.block.panel.photo) == pytest.approx(24, abs=0.15)
    for handle, place in (("piece-corner", (2, 3)), ("piece-end", (21, 18)),
                          ("motif-end", (11, 12)), ("motif-corner", (6, 8))):  # fmt: skip
        drag(qtbot, piece, piece.spot_of(handle).toPoint(), piece.frame().at(*place).toPoint())
    made = panel.session.block.panel
    near = pytest.approx
    assert [float(side) for side in made.piece] == near([19, 15], abs=0.26)
    assert [float(side) for side in made.motif] == near([5, 4], abs=0.26)
    assert (float(made.left), float(made.top)) == near((4, 5), abs=0.26)
    assert loads(dumps(panel.session.project)) == panel.session.project
    ticket.no_photo.click()
    assert panel.session.block.panel.photo is None
    assert panel.session.block.panel.piece == made.piece
    assert page.piece.frame().scale > 0


def test_a_motif_measured_before_becomes_a_panel(maker):
    motif = PrintMotif(size=(F(5), F(3)), left=F(1), right=F(9), top=F(6), bottom=F(6),
                       finished=(F(10), F(10)))  # fmt: skip
    project = replace(project_of(), blocks=(replace(project_of().blocks[0], panel=None),))
    at_the_page(maker, replace(project, cutting=Cutting(motif=motif)))
    page, _, _ = parts_of(maker)
    page.begin.click()
    maker.wait()
    block = maker.session.block
    assert (block.panel.piece, block.finished) == ((F(15), F(15)), (F(10), F(10)))
    assert page.verdict.text() == "Move 2¾ in from the right to the left."


def test_panels_of_several_shirts_get_one_size(panel):
    """Motifs 6 x 3 and 4 x 5 in, an inch round each: 8 x 7 in holds both."""
    page, _, ticket = parts_of(panel)
    assert not ticket.many.isVisible()
    project = panel.session.project
    other = replace(CREST, motif=(F(4), F(5)), left=F(7), top=F(8))
    gull = replace(project.blocks[0], id="gull", name="Gull", panel=other)
    panel.session.edit(replace(project, blocks=(*project.blocks, gull)))
    assert "All panels" in panel.reads(ticket)
    assert ticket.same.text() == "One size for all: 8 x 7 in"
    ticket.same.click()
    assert {block.finished for block in panel.session.project.blocks} == {(F(8), F(7))}
    panel.type(ticket.margin, "2")
    ticket.own.click()
    assert [block.finished for block in panel.session.project.blocks] == [
        (F(10), F(7)), (F(8), F(9)),
    ]  # fmt: skip
    panel.type(ticket.across, "20")
    assert "Top 20 x 9 in" in panel.reads(page)
    page.grab()


def test_a_piece_in_centimetres(maker):
    at_the_page(maker, measured_in(project_of(), CENTIMETRES))
    page, piece, ticket = parts_of(maker)
    maker.type(ticket.lengths["top", None], "5")
    maker.wait()
    assert "cm" in page.verdict.text()
    piece.move_handle("motif", (4.04, 9.96))
    assert (maker.session.block.panel.left, maker.session.block.panel.top) == (F(4), F(10))
    assert isinstance(piece.spot_of("motif").toPoint(), QPoint)
