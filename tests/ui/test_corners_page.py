"""The page Improvised corners at the window: a scrap is tried, squares are drawn by chance."""

from __future__ import annotations

from math import hypot

import pytest
from PySide6.QtCore import QPoint, Qt

from inlet.core.bench import progress, quilt_things
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import CENTIMETRES
from inlet.core.plan import plan_quilt
from inlet.core.project.project import Project, measured_in
from inlet.ui.remake.stage import CORNERS
from tests.core.plan.test_improvised import FABRICS, SQUARE
from tests.ui.test_remake_stage import drag

PLAIN = SQUARE.__class__(
    id="pebble", name="Pebble", finished=(F(4), F(4)), fabric_at=SQUARE.fabric_at
)


@pytest.fixture
def corners(maker):
    """A plain square at the page Improvised corners."""
    return at_the_page(maker, Project(fabrics=FABRICS, blocks=(PLAIN,)))


def at_the_page(maker, project):
    maker.session.start(project, None)
    maker.stage("remake")
    maker.window.remake.turn_to(CORNERS)
    maker.wait()
    return maker


def parts_of(maker):
    page = maker.window.remake.corners
    return page, page.picture, maker.window.remake_ticket.corners


def test_the_seam_is_dragged_until_the_scrap_no_longer_covers(corners, qtbot):
    """A scrap 4 by 2 in: an end of the seam is dragged outward by eighths; it covers as long as
    the corner's depth and an allowance are no more than 2 in, and its seam with allowances 4 in."""
    page, picture, _ = parts_of(corners)
    corners.type(page.length, "4")
    corners.type(page.width_, "2")
    seen = set()
    for eighths in range(8, 37):
        start = picture.spot_of("along").toPoint()
        end = picture.frame().at(eighths / 8, 0).toPoint()
        drag(qtbot, picture, start, end)
        trial = page.improvising.trial
        assert trial.seam.along == F(eighths, 8)
        a, b = float(trial.seam.along), float(trial.seam.down)
        long = hypot(a, b)
        deep = a * b / long
        covers = deep + 0.25 <= 2 and long * (deep + 0.25) / deep <= 4
        assert trial.covers == covers
        words = corners.reads(page)
        assert ("It does not cover the corner" in words) == (not covers)
        seen.add(covers)
    assert seen == {True, False}
    assert "The seam's end along the top edge" in corners.window.tape.words()
    page.take_least()
    assert page.improvising.trial.covers


def test_the_trial_goes_by_keys_and_the_scrap_slides(corners, qtbot):
    page, picture, _ = parts_of(corners)
    before = page.improvising.trial
    qtbot.keyClick(picture, Qt.Key.Key_Right)
    assert page.improvising.trial.seam.along == before.seam.along + F(1, 8)
    qtbot.keyClick(picture, Qt.Key.Key_N)
    qtbot.keyClick(picture, Qt.Key.Key_Up)
    assert page.improvising.trial.seam.down == before.seam.down - F(1, 8)
    middle = picture.spot_of("scrap").toPoint()
    drag(qtbot, picture, middle, middle + QPoint(-60, 40))
    assert page.improvising.trial.slide > 0  # toward the upright edge
    assert not page.improvising.trial.covers
    for text in ("0", "nothing", "√2", "500"):
        corners.type(page.length, text)
        assert page.improvising.trial.scrap == before.scrap
        assert "is kept" in corners.written()


def test_a_square_gets_corners_and_the_quilt_is_set_with_it(corners, qtbot):
    page, _, ticket = parts_of(corners)
    assert not page.field.isVisible()
    page.begin.click()
    corners.wait()
    assert corners.session.block.improvised.fabrics == ("mist", "silt", "deep", "buoy")
    corners.type(ticket.columns, "9")
    corners.type(ticket.rows, "x")
    corners.type(ticket.rows, "7")
    qtbot.waitUntil(lambda: page.number.text().startswith("63 squares"))
    assert corners.session.project.quilt is None
    ticket.set_quilt.click()
    corners.wait()
    qtbot.waitUntil(lambda: page.number.text().startswith("63 squares"))
    plan = plan_quilt(corners.session.project)
    number = plan.steps[0].times
    assert page.count() == (63, number)
    corners.type(ticket.sewn, "30")
    corners.type(ticket.minutes, "20")
    last = corners.session.project.log[-1]
    assert (last.did, last.what, last.minutes) == ("timed", plan.steps[0].name, 20)
    corners.type(ticket.minutes, "19")
    assert "the log has 20 minutes of it" in corners.window.message_text.text()
    assert f"{number - 30} corners left, at your pace of 90 an hour" in corners.reads(ticket)
    ticked = progress(corners.session.project.log, quilt_things(plan.steps))
    assert ticked[:2] == ({plan.steps[0].name: 30}, ())
    ticket.boxes["silt"].click()
    ticket.cards.click()
    corners.wait()
    qtbot.waitUntil(lambda: page.scene is not None and page.scene.project is page.improvising.laid)
    qtbot.mouseClick(page.field, Qt.MouseButton.LeftButton,
                     pos=page.field.middle_of((2, 1)).toPoint())  # fmt: skip
    assert "Row 2, square 3" in corners.reads(ticket)
    (block,) = plan_quilt(corners.session.project).blocks
    assert "silt" not in {fabric for square in block.squares for fabric in square.fabrics}


def test_bounds_are_typed_and_what_cannot_be_is_told(corners, qtbot):
    page, _, ticket = parts_of(corners)
    page.begin.click()
    before = corners.wait().block.improvised
    corners.type(ticket.number, "3 to 1")
    assert "fewest" in corners.written()
    corners.type(ticket.lengths["nearest"], "4 1/2")
    assert "lies nearer to the corner" in corners.written()
    assert corners.session.block.improvised == before
    corners.type(ticket.number, "2")
    corners.type(ticket.lengths["farthest"], "1 1/2")
    plan = corners.wait()
    assert {len(square.seams) for square in plan.squares} == {2}
    corners.type(ticket.lengths["nearest"], "1/4")
    corners.type(ticket.lengths["farthest"], "1/4")
    qtbot.waitUntil(lambda: "No seam across a corner" in corners.reads(page))
    assert page.number.text() == "No corners"


def test_a_block_of_more_patches_keeps_itself_and_a_new_square_is_added(maker):
    maker.draw("1 0 1 3")
    maker.stage("remake")
    maker.window.remake.turn_to(CORNERS)
    maker.wait()
    page, _, _ = parts_of(maker)
    before = maker.session.project.blocks
    page.begin.click()
    maker.wait()
    assert maker.session.project.blocks[:-1] == before
    assert maker.session.block.improvised is not None
    assert maker.session.block.finished == (F(9, 2), F(9, 2))


def test_centimetres_have_marks_of_their_own(maker):
    project = measured_in(Project(fabrics=FABRICS, blocks=(PLAIN,)), CENTIMETRES)
    at_the_page(maker, project)
    page, _, ticket = parts_of(maker)
    page.begin.click()
    maker.wait()
    assert ticket.lengths["step"].text() == "0.5"
    trial = page.improvising.trial
    assert trial.covers
    assert trial.seam.along % F(1, 10) == 0
