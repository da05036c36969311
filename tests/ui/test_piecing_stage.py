"""Sewing at the window: a ring, a set-in and a curve, step by step; sittings; the
seam allowance test."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor
from PySide6.QtWidgets import QPushButton

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.marks import nearest_mark
from inlet.core.numbers.text import show
from inlet.core.project import Quilt
from inlet.core.schedule.sittings import sittings
from inlet.files.project.project_json import dumps, loads
from inlet.ui import theme
from inlet.ui.units.rates import RatesDialog
from inlet.ui.widgets.drawing import MovePicture
from tests.blocks import point

MITRE = ("0 0 1 1", "1 1 3 1", "1 1 1 3")


def lines_of(stage) -> dict[str, int]:
    """The marks on the pictures of the card, by kind."""
    out: dict[str, int] = {}
    for picture in stage.card.findChildren(MovePicture):
        for line in picture.move_.lines:
            out[line.kind.split()[0]] = out.get(line.kind.split()[0], 0) + 1
    return out


def sew_through(maker, qtbot) -> list[str]:
    """Every card from the first, what it reads; each must show its size and its pictures."""
    maker.stage("piecing")
    plan = maker.wait()
    assert plan.resewn
    stage = maker.window.piecing
    cards = []
    for i, step in enumerate(plan.steps):
        assert stage.index == i
        words = maker.reads(stage.card)
        if step.measures:
            assert show(nearest_mark(step.measures[0], F(1, 16)), vulgar=True) in words
        assert stage.card.findChildren(MovePicture)
        stage.grab()
        cards.append(words)
        qtbot.mouseClick(stage.onward, Qt.MouseButton.LeftButton)
    assert not stage.onward.isEnabled()
    return cards


def test_a_ring_is_sewn_card_by_card(maker, qtbot):
    maker.draw("0 1 2 1", "2 0 2 2", "1 2 3 2", "1 1 1 3", "1 1 2 2")
    maker.paint("dark", "1 1/2", "5/2 1", "2 5/2", "1/2 2", "5/4 7/4")
    maker.paint("light", "7/4 5/4")
    centre, ring = sew_through(maker, qtbot)
    assert "half-square triangle" in centre
    assert "stop 1¾ in from it" in ring.replace("1 3/4", "1¾")  # from the raw edge
    assert "Go back to the seam left open" in ring
    # the stop on the first seam, and where the last goes on from it
    assert lines_of(maker.window.piecing)["stop"] == 2
    assert "1 partial" in maker.reads(maker.window.piecing_ticket)


def test_a_set_in_seam_is_sewn_and_could_be_spared(maker, qtbot):
    maker.draw(*MITRE)
    maker.paint("dark", "2 1/2")
    maker.paint("light", "1/2 2", "5/2 5/2")
    (card,) = sew_through(maker, qtbot)
    assert "Set in: sew one side from the dot outward" in card
    assert lines_of(maker.window.piecing)["dot"] >= 2
    assert lines_of(maker.window.piecing)["leg"] == 2
    ticket = maker.window.piecing_ticket
    qtbot.waitUntil(lambda: "One more seam" in maker.reads(ticket))
    words = maker.reads(ticket)
    assert "1 corner is pivoted at, as few as can be" in words
    assert "corner square" in words
    ticket.picture.grab()
    draw = next(b for b in ticket.findChildren(QPushButton) if b.text() == "Draw seam 1")
    qtbot.mouseClick(draw, Qt.MouseButton.LeftButton)
    plan = maker.wait()
    assert plan.seams.pivots == 0
    assert plan.resewn
    assert len(plan.draft.patches) == 4
    maker.window.undo_.trigger()
    assert maker.wait().seams.pivots == 1
    # the draft tells it too
    maker.stage("draft")
    qtbot.waitUntil(lambda: "Draw seam 1" in maker.reads(maker.window.draft_ticket))
    assert "2 seams: 1 straight, 1 set in." in maker.reads(maker.window.draft_ticket)
    maker.drawing.grab()


def test_a_curve_is_sewn_with_its_pins(maker, qtbot):
    maker.keys("a")
    maker.window.draft.curve_buttons[True].click()
    maker.clicks(point(0, 0), point(2, 0), point(0, 2))  # centre, where it begins, where it ends
    assert len(maker.session.draft.patches) == 2
    maker.paint("dark", "1/2 1/2")
    maker.paint("light", "5/2 5/2")
    (card,) = sew_through(maker, qtbot)
    assert "convex piece on top" in card
    number = int(card.partition(" pins for")[0].split()[-1])
    assert lines_of(maker.window.piecing)["pin"] == number
    assert "1 curved" in maker.reads(maker.window.piecing_ticket)


def test_sittings_fit_the_time_and_follow_it(maker, qtbot):
    maker.draw("1 0 1 3", "2 0 2 3", "0 1 3 1", "0 2 3 2", "0 0 1 1", "2 2 3 3")
    for i, patch in enumerate(maker.session.draft.patches):
        middle = patch.outline[0].plus(patch.outline[1]).plus(patch.outline[2])
        at = maker.drawing.frame.at(*(float(x) / 3 for x in middle)).toPoint()
        maker.session.pick_fabric(("light", "dark")[i % 2])
        maker.window.draft.tool_buttons["paint"].click()
        qtbot.mouseClick(maker.drawing, Qt.MouseButton.LeftButton, pos=at)
    maker.stage("piecing")
    plan = maker.wait()
    stage = maker.window.piecing
    qtbot.mouseClick(stage.choices.button(1), Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: "At the mat" in maker.reads(stage.sittings))
    words = maker.reads(stage.sittings)
    assert "At the machine" in words
    assert "Thread:" in words
    stage.sittings.grab()
    maker.session.set_copies(40)
    maker.wait()
    before = maker.reads(stage.sittings).count("Sitting ")
    stage.sittings.minutes.setValue(10)
    plan = maker.wait()
    assert plan.rates.sitting == 10
    more = len(sittings(plan.batches, 10))
    assert more > before > 0
    qtbot.waitUntil(lambda: maker.reads(stage.sittings).count("Sitting ") == more)
    maker.session.edit(loads(dumps(maker.session.project)))
    assert maker.session.project.rates.sitting == 10
    assert plan.batches == maker.wait().batches
    # the minutes for single things are set elsewhere, and leave it alone
    dialog = RatesDialog(maker.session.project.rates, plan.measure, maker.window)
    dialog.fields["seam"].setValue(33)
    assert (dialog.rates().seam, dialog.rates().sitting) == (33, 10)


def test_the_seam_test_test_says_where_the_guide_goes(maker, qtbot):
    maker.draw("0 3 3/2 0", "3/2 0 3 3")
    maker.paint("dark", "3/2 2")
    maker.paint("light", "1/4 1/4", "11/4 1/4")
    maker.stage("piecing")
    maker.wait()
    stage = maker.window.piecing
    qtbot.mouseClick(stage.choices.button(2), Qt.MouseButton.LeftButton)
    page = stage.seam_test
    assert "leave the guide where it is" in maker.reads(page)
    maker.type(page.fields["middle"], "15/16")
    maker.wait()
    qtbot.waitUntil(lambda: "Move the guide" in maker.reads(page))
    words = maker.reads(page).replace("1/32", "¹⁄₃₂")
    assert "toward the needle" in words
    assert "1 point is cut off by 0.031 in." in words
    assert maker.session.project.seam_test is not None
    strips_are_to_scale(page.strips)
    for wrong in ("3", "zero", ""):
        maker.type(page.fields["middle"], wrong)
        assert float(maker.session.project.seam_test.middle) == pytest.approx(15 / 16)
    maker.type(page.fields["stitched"], "1/4")
    maker.wait()
    qtbot.waitUntil(lambda: "The fold takes" in maker.reads(page))
    assert page.picture.shown[2].points


def strips_are_to_scale(picture):
    """1 1/2 in strips, the middle one 15/16 in between its seams: each seam takes half of 9/16 in,
    so the outer ones show 1 7/32 in. Counted in pixels of a line across the picture."""
    image = picture.grab().toImage()
    y = image.height() // 5
    row = [QColor(image.pixel(x, y)) for x in range(image.width())]
    edges = [x for x, colour in enumerate(row) if colour.lightness() < 190]
    strips = row[min(edges) : max(edges)]
    middle = [colour.name() for colour in strips].count(theme.PAPER.name())
    wide = 2 * (39 / 32) + 15 / 16
    assert len(strips) / middle == pytest.approx(wide / (15 / 16), rel=0.05)


def test_a_step_done_is_done_wherever_it_is_shown(maker, qtbot):
    """Space ticks it and goes on, backspace takes it back; the quilt, whose count is larger, has
    the same ticks; the file keeps them, and undo takes them back."""
    maker.draw("0 1 3 1", "0 2 3 2", "1 0 1 3", "2 0 2 3", "0 0 1 1", "2 2 3 3")
    maker.paint("dark", "1/4 3/4", "9/4 11/4")
    block = maker.session.block
    maker.session.edit_quilt(Quilt(columns=2, rows=1, block=block.id))
    maker.stage("piecing")
    plan = maker.wait()
    stage = maker.window.piecing
    unit = plan.steps[0]
    assert unit.times == 2
    stage.setFocus()
    qtbot.keyClick(stage, Qt.Key.Key_Space)
    assert stage.index == 1
    assert maker.session.plan is plan  # nothing is planned anew
    (entry,) = maker.session.project.log
    assert (entry.number, entry.size) == (2, unit.measures)
    assert len(entry.at) == len("2026-11-30T19:05")
    qtbot.mouseClick(stage.done, Qt.MouseButton.LeftButton)
    qtbot.keyClick(stage, Qt.Key.Key_Backspace)
    assert stage.index == 1
    assert stage.place.text() == f"step 2 of {len(plan.steps)}"
    stage.go(0)
    assert stage.place.text() == f"step 1 of {len(plan.steps)}, 2 of 2 done"
    assert loads(dumps(maker.session.project)).log == (entry,)
    maker.stage("quilt")
    maker.window.quilt.turn_to(1)
    rows = maker.window.quilt.rows
    qtbot.waitUntil(lambda: bool(rows.steps), timeout=20000)
    assert rows.list.item(0).text().startswith("2/4")
    qtbot.keyClick(rows.list, Qt.Key.Key_Space)
    assert rows.list.item(0).text().startswith("✓")
    assert [e.number for e in maker.session.project.log] == [2, 2]  # no more than 4
    maker.stage("piecing")
    assert stage.place.text().endswith("2 of 2 done, 2 more are there")
    maker.session.undo()
    assert maker.session.project.log == (entry,)
    assert stage.place.text().endswith("2 of 2 done")
