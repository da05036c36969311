"""Seams flipped, pinned, opened and whirled, as a person does: with the mouse and with keys."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QDialog, QLabel

from inlet.core.draft.patches import draft
from inlet.core.draft.symmetry import turned
from inlet.core.figures.display import FabricArea
from inlet.core.pressing.pins import pin_centre, pin_stretch, pin_within, unpin_all
from inlet.core.project.pressing import BlockPressing, Pin
from inlet.core.project.value import replace
from inlet.files.project.project_json import dumps, loads
from tests.blocks import FABRICS, project_of
from tests.core.pressing.drawn import NAMED
from tests.core.pressing.test_solver import pressed
from tests.core.remake.test_made_from import START, project_of_sliced
from tests.core.remake.test_slices import THIRDS


class Presser:
    """A person at the pressing stage."""

    def __init__(self, maker, name):
        self.maker, self.bot, self.session = maker, maker.bot, maker.session
        block = replace(NAMED[name], pressing=None)
        maker.session.start(replace(project_of(block), fabrics=FABRICS), None)
        self.stage, self.picture = maker.window.pressing, maker.window.pressing.picture
        self.wait()
        maker.stage("pressing")
        QApplication.processEvents()

    def wait(self):
        self.bot.waitUntil(lambda: self.session.pressing is not None, timeout=20000)
        return self.session.pressing

    def at(self, stretch):
        """A place on a seam, on screen, away from its junctions."""
        return self.picture.frame().at(*self.session.pressing.middle(stretch)).toPoint()

    def click(self, where):
        self.bot.mouseMove(self.picture, where)
        self.bot.mouseClick(self.picture, Qt.MouseButton.LeftButton, pos=where)

    def keys(self, *keys):
        for key in keys:
            self.bot.keyClick(self.picture, key)

    def rests(self):
        self.bot.waitUntil(lambda: self.session.at_rest, timeout=20000)

    def now(self, stretch):
        return next(s for s in self.wait().stretches if s[:3] == stretch[:3])

    def block(self):
        return self.session.block


@pytest.fixture
def presser(maker):
    return lambda name: Presser(maker, name)


def test_a_seam_is_asked_and_flipped_by_the_mouse_and_undone(presser):
    it = presser("nine-patch")
    assert it.maker.window.rail.buttons["pressing"].text() == "Pressing\n4/4 nest"
    seam = it.session.pressing.stretches[0]
    it.bot.mouseMove(it.picture, it.at(seam))
    assert "To the dark" in it.stage.why.text() or "nests" in it.stage.why.text()
    it.click(it.at(seam))
    it.rests()
    assert it.stage.costs.text().startswith("Flip: ")
    assert "points more" in it.stage.costs.text()
    cost = it.session.pressing.cost
    it.click(it.at(seam))  # again: flipped, and its equals with it
    flipped = it.now(seam)
    assert {seam.toward, flipped.toward} == set(seam.beside)
    assert it.session.pressing.pinned(flipped.span)
    assert it.session.pressing.cost > cost
    assert "You pinned it so." in it.stage.why.text()
    it.session.undo()
    assert it.now(seam).toward == seam.toward
    assert it.block().pressing is None


def test_keys_pin_open_and_let_go(presser):
    it = presser("nine-patch")
    it.picture.setFocus()
    it.keys(Qt.Key.Key_Right)
    seam = it.picture.seam
    assert seam is it.session.pressing.stretches[0]
    it.keys(Qt.Key.Key_P)
    assert it.wait().pinned(seam.span)
    it.keys(Qt.Key.Key_P)
    assert not it.wait().pinned(seam.span)
    it.keys(Qt.Key.Key_O)
    assert it.now(seam).toward is None
    assert it.session.pressing.nesting[0] < 4
    it.keys(Qt.Key.Key_O)
    assert it.now(seam).toward == seam.toward
    it.keys(Qt.Key.Key_F)
    assert it.now(seam).toward != seam.toward
    it.keys(Qt.Key.Key_R)
    assert len(it.block().pressing.pins) > 1
    it.bot.mouseClick(it.maker.window.pressing_ticket.unpin, Qt.MouseButton.LeftButton)
    assert it.block().pressing.pins == ()
    it.wait()


def test_a_seam_pins_those_of_the_unit_it_is_in(presser):
    """The smallest unit that holds the seam, its last seam too; what lies in no unit, by its row.
    Counted from the places of the plan's units."""
    it = presser("geese")
    it.picture.setFocus()
    units = [p.part.faces for u in it.maker.wait().units for p in u.unit.places]
    whole = 0
    for seam in it.session.pressing.stretches[::3]:
        faces = seam.join.faces
        within = min((u for u in units if faces <= u), key=len, default=faces)
        whole += faces in units
        wanted = {s.span for s in it.wait().stretches if s.join.faces <= within}
        it.click(it.at(seam))
        it.keys(Qt.Key.Key_R)
        assert {s.span for s in it.wait().stretches if it.session.pressing.pinned(s.span)} >= wanted
        assert len(it.block().pressing.pins) == len(wanted)
        it.session.undo()
        it.wait()
    assert whole


def test_a_centre_is_spun_by_key_and_by_button(presser):
    it = presser("nine-patch")
    it.picture.setFocus()
    it.keys(Qt.Key.Key_Down, Qt.Key.Key_W)
    vertex = it.picture.met.junction.vertex
    assert vertex in it.wait().spun
    it.rests()
    assert "spun" in it.stage.why.text()
    it.bot.mouseClick(it.stage.spin, Qt.MouseButton.LeftButton)  # let go of again
    assert it.wait().spun == frozenset()
    where = it.picture.frame().spot(it.session.pressing.at_vertex(vertex).junction.at).toPoint()
    it.click(where)
    assert it.picture.met.junction.vertex == vertex
    it.bot.mouseClick(it.stage.spin, Qt.MouseButton.LeftButton)
    assert vertex in it.wait().spun


def test_methods_settings_and_versions_are_chosen_in_the_ticket(presser):
    it = presser("nine-patch")
    ticket = it.maker.window.pressing_ticket

    def choose(box, index):
        box.setCurrentIndex(index)
        box.activated.emit(index)

    choose(ticket.method, 3)
    assert it.session.project.pressing.method == "open"
    assert it.wait().versions[0] == (None,) * 12
    choose(ticket.method, 2)
    choose(ticket.setting, 2)
    assert it.block().pressing.setting == "one-way"
    ticket.versions.setFocus()
    it.bot.keyClick(ticket.versions, Qt.Key.Key_Space)
    assert it.block().pressing.versions == 2
    assert len(it.wait().versions) == 2
    it.rests()
    assert "8 and 8 of every 16" in it.maker.reads(ticket)
    it.bot.mouseClick(it.stage.second, Qt.MouseButton.LeftButton)
    assert it.picture.pressing is it.session.pressing.second
    it.picture.grab()


def test_weights_are_read_with_their_reasons_and_changed(presser, monkeypatch):
    it = presser("four-patch")
    ticket = it.maker.window.pressing_ticket

    def change(dialog):
        assert "They do not lock" in it.maker.reads(dialog)
        dialog.fields["open"].setValue(0)
        dialog.fields["closed"].setValue(90)
        return QDialog.DialogCode.Accepted

    monkeypatch.setattr("inlet.ui.pressing.ticket.WeightsDialog.exec", change)
    ticket._weigh()
    assert dict(it.session.project.pressing.weights) == {"open": 0, "closed": 90}
    assert it.wait().versions[0] == (None,) * 4


def test_views_and_an_empty_block(presser):
    it = presser("pinwheel")
    for view in ("front", "layers", "back"):
        it.bot.mouseClick(it.stage.view_buttons[view], Qt.MouseButton.LeftButton)
        assert it.picture.view == view
        it.picture.grab()
    it.session.add_block()
    it.bot.waitUntil(lambda: it.session.pressing_known, timeout=20000)
    assert it.session.pressing is None
    it.rests()
    assert it.stage.says.text() == "There is no seam to press."
    it.keys(Qt.Key.Key_F, Qt.Key.Key_W, Qt.Key.Key_Right, Qt.Key.Key_Down)
    it.picture.grab()


def test_pins_are_kept_in_the_file_and_follow_the_block(presser):
    """What is pinned is held after saving, turning and mirroring, and reading again."""
    block = NAMED["dash"]
    plan = pressed(block)
    seam = plan.stretches[3]
    other = seam.beside[seam.toward == seam.beside[0]]
    pinned = pin_stretch(plan, seam, other)
    plan = pressed(pinned, pins=pinned.pressing.pins)
    whole = pin_within(plan, seam.join.faces)
    assert len(whole.pressing.pins) >= 1
    centre = next(m.junction for m in plan.junctions if m.junction.spin)
    both = pin_centre(plan, centre, True)
    project = project_of(both)
    assert loads(dumps(project)) == project
    for turn in ((1, False), (0, True), (3, True)):
        moved = turned(both, turn)
        again = pressed(moved, pins=moved.pressing.pins)
        assert [pin.kept for pin in again.pins] == [True, True]
        if turn == (0, True):  # rows stay rows
            assert again.cost == pressed(both, pins=both.pressing.pins).cost
    assert unpin_all(both).pressing == BlockPressing()
    gone = replace(both, pressing=BlockPressing(pins=(Pin(point=(99, 99), toward="open"),)))
    assert pressed(gone, pins=gone.pressing.pins).pins == ()


def test_advice_stands_under_its_heading(presser):
    it = presser("hourglasses")
    it.rests()

    def words():
        labels = it.maker.window.findChildren(QLabel)
        return [label.text() for label in labels if label.isVisible()]

    it.bot.waitUntil(lambda: "Advice" in words(), timeout=20000)


def test_a_block_made_from_slices_is_seen_as_it_is_pressed_itself(maker, qtbot):
    """Not as its start block, which has other patches."""
    maker.session.start(project_of_sliced(START, THIRDS), None)
    maker.session.show_block("made")
    maker.stage("pressing")
    stage = maker.window.pressing
    patches = {}
    for new in (False, True):
        qtbot.waitUntil(lambda: maker.session.at_rest, timeout=20000)
        if new:
            stage.new.click()
        pressing = stage.picture.pressing
        drawn = stage.picture._figure(stage.picture.frame().placed, pressing)
        backs = [area for area in drawn if isinstance(area, FabricArea) and area.side == "back"]
        patches[new] = len(backs)
    assert patches == {False: len(draft(START).patches), True: len(maker.session.draft.patches)}
    assert patches[True] > patches[False]
