"""A quilt set, laid out by hand, coloured and sized in the real window."""

from __future__ import annotations

from types import SimpleNamespace

import pytest
from PIL import Image
from pypdf import PdfReader
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QApplication, QFileDialog, QPushButton

from inlet.core.bench import progress
from inlet.core.draft.value import grey_of
from inlet.core.geometry.polygon import edges, squared_length
from inlet.core.layout.laid_places import places_of
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.numbers.text import vulgar_text
from inlet.core.project.cutting import Have
from inlet.core.project.quilt import (
    Backing,
    Binding,
    Border,
    Colourway,
    Quilt,
    QuiltingLines,
    QuiltPlace,
    Sashing,
    Triangles,
)
from inlet.core.project.value import replace
from inlet.core.setting.places import in_quilt
from inlet.files.project.project_json import load, save
from inlet.ui.quilt.top_view import TopView
from inlet.ui.shell.app import DEMO
from inlet.ui.widgets.choices import ChoiceField
from inlet.ui.widgets.parts import ValueEdit
from tests.blocks import block_of, project_of

EFF = replace(block_of("0 1 3 1 / 1 1 1 3 / 1 2 3 2", 3, 3, (9, 9), "abcd"), id="f", name="Eff")
HELD = Qt.KeyboardModifier


class Setter:
    """A person at the quilt stage."""

    def __init__(self, maker):
        self.maker, self.bot, self.session = maker, maker.bot, maker.session
        self.stage, self.ticket = maker.window.quilt, maker.window.quilt_ticket
        self.top = self.stage.top

    def open(self, project):
        self.session.start(project, None)
        self.rests()
        self.maker.stage("quilt")
        self.rests()

    def rests(self):
        self.bot.waitUntil(
            lambda: self.session.plan is not None and self.session.at_rest, timeout=30000
        )
        QApplication.processEvents()

    def knows(self):
        """The quilt's plan has come; the best layout of its fabrics may still be under way."""
        assert self.plan is not None
        QApplication.processEvents()

    @property
    def plan(self):
        """The plan of the quilt as it is now; it may come after the hand has gone on."""
        self.bot.waitUntil(lambda: self.session.quilt_known, timeout=30000)
        return self.session.quilt_plan

    def page(self, name):
        self.ticket.page_buttons[name].click()
        self.rests()

    def choose(self, name, data):
        """In the choice of that name on the ticket."""
        found = next(
            c for c in self.ticket.findChildren(ChoiceField)
            if c.accessibleName() == name and not c.isHidden()
        )  # fmt: skip
        assert found.findData(data) >= 0, (name, data)
        found.choose(data)
        self.rests()

    def type(self, name, text):
        found = next(
            e for e in self.ticket.findChildren(ValueEdit)
            if e.accessibleName() == name and not e.isHidden()
        )  # fmt: skip
        self.maker.type(found, text)
        self.rests()

    def click(self, spot, button=Qt.MouseButton.LeftButton, held=HELD.NoModifier):
        self.bot.mouseClick(self.top, button, held, self.top.middle_of(spot).toPoint())

    def press(self, key, held=HELD.NoModifier):
        self.bot.keyClick(self.top, key, held)
        self.sees()

    def drag(self, one, other):
        start, end = (self.top.middle_of(spot).toPoint() for spot in (one, other))
        self.bot.mousePress(self.top, Qt.MouseButton.LeftButton, pos=start)
        for share in (0.3, 0.7, 1.0):
            at = start + (end - start) * share
            self.bot.mouseMove(self.top, QPoint(round(at.x()), round(at.y())))
        self.bot.mouseRelease(self.top, Qt.MouseButton.LeftButton, pos=end)
        self.sees()

    def sees(self):
        """The top as it is now is shown: beside other work it comes a little after the hand."""
        self.bot.waitUntil(lambda: self.session.quilt_known, timeout=10000)
        QApplication.processEvents()

    @property
    def quilt(self):
        return self.session.project.quilt

    @property
    def problems(self):
        return self.ticket.problems.text()


@pytest.fixture
def setter(maker):
    return Setter(maker)


def test_three_by_four_on_point_with_sashing_corners_and_borders(setter):
    """10 1/2 in pitch: 3 · 10 1/2 · √2 = 44.548 in and 59.397; two borders of 2 and 5 add 14."""
    setter.open(project_of(EFF))
    assert "no places yet" in setter.problems
    setter.ticket.setting.columns.setValue(3)
    setter.ticket.setting.rows.setValue(4)
    assert "no block yet" in setter.problems
    setter.choose("Block", "f")
    setter.choose("Setting", "on-point")
    setter.type("Sashing, width", "1 1/2")
    setter.choose("Sashing fabric", "b")
    setter.choose("Corner squares", "d")
    setter.choose("Setting triangles, fabric", "c")
    setter.page("edges")
    setter.ticket.edges.add.followed.emit()
    setter.rests()
    setter.ticket.edges.add.followed.emit()
    setter.rests()
    setter.type("Border 2, width", "5")
    setter.choose("Border 2, kind", "mitred")
    size = setter.plan.size
    assert size == (F(63, 2) * ROOT2 + 14, 42 * ROOT2 + 14)
    assert "58⁹⁄₁₆" in setter.ticket.finished.text()
    assert setter.problems == ""
    assert "18 places" in setter.ticket.inside.text()
    setter.choose("Binding fabric", "a")
    setter.choose("Backing fabric", "b")
    assert "Backing: 2 widths" in setter.stage.words.text()
    setter.type("Border 1, width", "wide")
    assert "“wide”" in setter.maker.window.message_text.text()
    assert setter.quilt.borders[0].width == 2


def test_a_block_turned_by_key_is_named_as_the_odd_one(setter, tmp_path):
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=4, rows=4, block="f")))
    setter.click((1, 2))
    setter.press(Qt.Key.Key_R)
    assert [(p.column, p.row, p.turn) for p in setter.quilt.places] == [(1, 2, 90)]
    assert "Row 3, block 2 lies a quarter turn too far right" in setter.ticket.place.odd.text()
    assert setter.top.odd == ((1, 2),)
    setter.press(Qt.Key.Key_R, HELD.ShiftModifier)
    assert setter.quilt.places == ()
    assert setter.top.odd == ()
    setter.press(Qt.Key.Key_M)
    assert setter.quilt.places[0].mirror is True
    setter.press(Qt.Key.Key_Delete)
    assert setter.quilt.places == ()
    setter.press(Qt.Key.Key_Right)
    setter.press(Qt.Key.Key_Down)
    assert setter.top.spots == [(2, 3)]
    setter.press(Qt.Key.Key_R)
    save(setter.session.project, tmp_path / "q.inlet")
    assert load(tmp_path / "q.inlet") == setter.session.project
    setter.session.undo()
    assert setter.quilt.places == ()


def test_a_block_in_the_hand_whose_place_is_gone_is_let_go(setter, no_error_is_caught):
    """The quilt gets smaller while the last column is dragged."""
    quilt = Quilt(columns=4, rows=2, block="f")
    setter.open(replace(project_of(EFF, replace(EFF, id="g", name="Gee")), quilt=quilt))
    start, end = (setter.top.middle_of(spot).toPoint() for spot in ((3, 1), (0, 0)))
    setter.bot.mousePress(setter.top, Qt.MouseButton.LeftButton, pos=start)
    for at in ((start + end) / 2, end):
        setter.bot.mouseMove(setter.top, at)
    setter.session.edit_quilt(replace(quilt, columns=2))
    setter.sees()
    setter.top.grab()
    setter.bot.mouseRelease(setter.top, Qt.MouseButton.LeftButton, pos=QPoint(9, 9))
    assert setter.quilt.places == ()


def test_blocks_are_changed_over_by_dragging_and_looked_at_near_and_far(setter):
    project = project_of(EFF, replace(EFF, id="g", name="Gee"))
    setter.open(replace(project, quilt=Quilt(columns=4, rows=3, block="f")))
    setter.click((0, 0))
    setter.choose("Block in this place", "block g")
    assert [(p.column, p.row, p.block) for p in setter.quilt.places] == [(0, 0, "g")]
    setter.drag((0, 0), (2, 1))
    assert [(p.column, p.row, p.block) for p in setter.quilt.places] == [(2, 1, "g")]
    assert setter.top.spots == [(2, 1)]
    before = setter.top.grab().toImage()
    setter.press(Qt.Key.Key_Plus)
    near = setter.top.grab().toImage()
    assert near != before
    assert setter.top.spot_under(setter.top.middle_of((2, 1))) == (2, 1)
    setter.press(Qt.Key.Key_0)
    setter.stage.seams.click()
    without = setter.top.grab().toImage()
    assert without != before
    setter.stage.afar.click()
    assert setter.top.grab().toImage() != without
    setter.stage.afar.click()
    setter.bot.mouseDClick(
        setter.top, Qt.MouseButton.LeftButton, pos=setter.top.middle_of((1, 1)).toPoint()
    )
    middle = QPointF(setter.top.width() / 2, setter.top.height() / 2)
    assert (setter.top.middle_of((1, 1)) - middle).manhattanLength() < 3
    setter.press(Qt.Key.Key_Return)  # the block that is picked last is drawn
    assert setter.maker.window.stage == "draft"


def test_a_motif_of_four_turned_blocks_on_point(setter):
    """Eight by eight blocks become four by four motifs, 18 in each; three by two on point are
    3 · 18√2 by 2 · 18√2, of 6 + 2 motifs: 32 blocks."""
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=8, rows=8, block="f")))
    setter.ticket.setting.motif.followed.emit()
    setter.rests()
    assert (setter.quilt.columns, setter.quilt.rows) == (4, 4)
    setter.ticket.setting.columns.setValue(3)
    setter.ticket.setting.rows.setValue(2)
    setter.choose("Setting", "on-point")
    setter.choose("Setting triangles, fabric", "d")
    assert setter.plan.size == (54 * ROOT2, 36 * ROOT2)
    assert in_quilt(setter.session.project, "f") == 32
    assert setter.maker.window.rail.buttons["quilt"].text() == "Quilt\n32 blocks"


def test_a_size_is_reached_by_a_proposal(setter):
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=2, rows=2, block="f")))
    setter.stage.page_buttons[3].click()
    page = setter.stage.target
    setter.maker.type(page.edit, "large")
    assert "56 x 70" in setter.maker.window.message_text.text()
    setter.maker.type(page.edit, "56 x 70")
    setter.bot.waitUntil(lambda: len(page.found) > 1, timeout=30000)
    setter.rests()
    for found in page.found:
        wide, high = (float(x) for x in found.proposal.size)
        assert abs(wide - 56) + abs(high - 70) < 9
        assert found.scene.top.size == found.proposal.size
    (first, *_) = [b for b in page.findChildren(QPushButton) if b.text() == "Take this one"]
    first.click()
    setter.rests()
    assert setter.plan.size == page.found[0].proposal.size
    assert setter.quilt == page.found[0].proposal.quilt


def test_a_measured_quilt_changes_what_its_border_is_cut(setter):
    """Three by three 9 in blocks measure 27 1/2 raw; typed 27 3/4 x 28, the sides are cut 28 and
    the ends 27 3/4 + 4."""
    quilt = Quilt(columns=3, rows=3, block="f", borders=(Border(width=F(2), fabric="b"),))
    setter.open(replace(project_of(EFF), quilt=quilt))
    setter.stage.page_buttons[1].click()
    rows = setter.stage.rows

    def border():
        at = next(i for i, s in enumerate(rows.steps) if s.title.startswith("Border 1"))
        rows.list.setCurrentRow(at)
        return rows.text.text()

    assert "sides, cut 27½ in, then the top and bottom, cut 31½ in" in border()
    setter.page("edges")
    setter.type("Border 1, the quilt measured", "27 3/4")
    assert "56 x 70" in setter.maker.window.message_text.text()
    setter.type("Border 1, the quilt measured", "27 3/4 x 28")
    assert setter.quilt.borders[0].measured == (F(111, 4), F(28))
    assert "sides, cut 28 in, then the top and bottom, cut 31¾ in" in border()
    setter.type("Border 1, the quilt measured", "27 3/4 x 1/2")
    assert "two seam allowances" in setter.maker.window.message_text.text()
    assert setter.quilt.borders[0].measured == (F(111, 4), F(28))


def test_six_colourways_are_scattered_one_pinned_and_scattered_again(setter):
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=5, rows=4, block="f")))
    setter.page("colours")
    colours = setter.ticket.colours
    for _ in range(6):
        colours.add.followed.emit()
    setter.knows()
    for i, fabric in enumerate("bcdefa"):
        setter.choose(f"Colourway {i + 1}: A becomes", fabric)
    boxes = [f"Colourway {i}, shuffled" for i in range(1, 7)]
    for name in boxes:
        box = next(b for b in colours.findChildren(type(colours.rules["apart"]))
                   if b.accessibleName() == name and not b.isHidden())  # fmt: skip
        box.click()
        setter.knows()

    def ways():
        top = setter.plan.top
        placed = [p.lying.placed for row in top.rows for p in row.pieces]
        return {(p.column, p.row): p.colourway for p in placed}

    first = ways()
    assert len(set(first.values())) == 6
    assert all(first[c, r] != first[c + 1, r] for c in range(4) for r in range(4))
    assert all(first[c, r] != first[c, r + 1] for c in range(5) for r in range(3))
    setter.click((2, 2))
    pinned = next(w for w in setter.quilt.colourways if w.id != first[2, 2]).id
    setter.choose("Colourway in this place", pinned)
    assert ways()[2, 2] == pinned
    setter.page("colours")
    colours.again.click()
    setter.knows()
    other = ways()
    assert other[2, 2] == pinned
    assert other != first
    colours.seed.setValue(1)
    setter.knows()
    again = ways()
    assert again[2, 2] == pinned
    setter.session.undo()
    setter.session.redo()
    assert ways() == again


def test_every_step_has_its_picture(setter):
    """Rows, borders and the backing are each drawn; no two pictures of them are alike."""
    quilt = Quilt(
        setting="on-point", columns=2, rows=2, block="f",
        backing=Backing(fabric="c", seam="across"),
        borders=(Border(width=F(2), fabric="b"), Border(width=F(3), fabric="d", kind="mitred")),
        binding=Binding(fabric="a"), triangles=Triangles(fabric="c"),
    )  # fmt: skip
    setter.open(replace(project_of(EFF), quilt=quilt))
    setter.stage.page_buttons[1].click()
    setter.rests()
    rows, seen = setter.stage.rows, []
    assert rows.steps[0].sewn is not None
    for i, step in enumerate(rows.steps):
        rows.list.setCurrentRow(i)
        QApplication.processEvents()
        assert rows.title.text() == step.title
        assert rows.sewn.isVisible() == (step.sewn is not None) != rows.picture.isVisible()
        if step.sewn is not None:  # as at the piecing stage: what is made, how many, the size
            assert f"make {step.sewn[1].times}" in setter.maker.reads(rows.sewn)
        if step.of:
            image = rows.picture.grab().toImage()
            assert image not in seen, step.title
            seen.append(image)
    # Rows 1 and 3 together, row 2, borders, the backing.
    assert len(seen) == 2 + 2 + 1


def test_rows_are_ticked_off_with_the_space_bar_and_kept(setter, tmp_path):
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=2, rows=2, block="f")))
    setter.stage.page_buttons[1].click()
    setter.rests()
    rows = setter.stage.rows
    first = rows.steps[0]
    assert first.times > 1
    setter.bot.keyClick(rows.list, Qt.Key.Key_Space)  # a chain is done at once
    assert setter.stage.rows.done == {first.name: first.times}
    for _ in range(40):
        if rows.title.text() == "Make 4 × Eff":
            break
        setter.bot.keyClick(rows.list, Qt.Key.Key_Space)
    before = setter.stage.rows.done
    chains = [step for step in rows.steps if step.at_once]  # units and parts of the block
    assert chains
    assert before == {step.name: step.times for step in chains}
    for _ in range(5):
        setter.bot.keyClick(rows.list, Qt.Key.Key_Space)
    done = {**before, "Make Eff": 4}
    assert setter.stage.rows.done == {**done, "Lay it out": 1}
    assert rows.title.text() == "Sew row 1"
    setter.bot.keyClick(rows.list, Qt.Key.Key_Backspace)
    assert setter.stage.rows.done == done
    save(setter.session.project, tmp_path / "q.inlet")
    assert progress(load(tmp_path / "q.inlet").log, rows.things).done == done
    setter.ticket.setting.rows.setValue(3)  # two blocks more: four are made already
    setter.rests()
    titles = [rows.list.item(i).text() for i in range(rows.list.count())]
    assert "4/6  Make 6 × Eff" in titles
    assert not rows.spare.isVisible()
    setter.ticket.setting.rows.setValue(1)  # two blocks fewer: they are spare
    setter.rests()
    assert "2 × Eff, 9½ in" in rows.spare.text()
    assert rows.spare.isVisible()
    setter.ticket.setting.rows.setValue(3)
    setter.rests()
    assert not rows.spare.isVisible()
    assert titles[0] == f"{chains[0].times}/{chains[0].times * 3 // 2}  {rows.steps[0].title}"


def test_the_sittings_of_the_whole_quilt_follow_the_time_there_is(setter):
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=3, rows=4, block="f")))
    setter.stage.page_buttons[2].click()
    setter.rests()
    page = setter.stage.sittings
    before = setter.maker.reads(page)
    assert "Sew 4 rows" in before
    page.minutes.setValue(15)
    setter.rests()
    after = setter.maker.reads(page)
    assert after.count("Sitting ") > before.count("Sitting ")
    work = setter.plan.work
    assert all(sitting.minutes <= 15 for sitting in work.sittings)
    assert sum(s.minutes for s in work.sittings) == pytest.approx(work.minutes)


def test_quilting_lines_are_drawn_and_measured(setter):
    """Four 9 in blocks echoed 1/2 in inside every patch, then a grid; the top shows them."""
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=2, rows=2, block="f")))
    setter.page("quilting")
    setter.ticket.quilting.add.followed.emit()
    setter.rests()
    setter.type("Lines 1, distance", "1/2")
    assert "of thread" in setter.ticket.quilting.length.text()
    patches = setter.session.draft.patches
    perimeters = [
        sum(float(squared_length(p, q)) ** 0.5 for p, q in edges(patch.outline))
        for patch in patches
    ]
    wanted = 4 * sum(length - 8 * 0.5 for length in perimeters)
    assert setter.plan.quilted.length == pytest.approx(wanted)
    setter.choose("Lines 1, where", "grid")
    setter.type("Lines 1, distance", "nothing")
    assert "“nothing”" in setter.maker.window.message_text.text()
    shown = setter.top.grab().toImage()
    setter.page("setting")  # away from their page they show only if asked for
    without = setter.top.grab().toImage()
    assert without != shown
    setter.stage.lines.click()
    assert setter.top.grab().toImage() == shown


def test_a_quilt_too_large_is_refused_and_the_old_one_kept(setter):
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=90, rows=90, block="f")))
    setter.ticket.setting.columns.setValue(200)
    assert "10000" in setter.maker.window.message_text.text()
    assert (setter.quilt.columns, setter.quilt.rows) == (90, 90)
    assert setter.ticket.setting.columns.value() == 90


def test_the_demo_quilt_is_shown_whole(setter):
    setter.open(load(DEMO))
    assert setter.quilt is not None
    assert setter.problems == ""
    assert "To buy" in setter.stage.words.text()


def test_the_whole_quilt_is_cut_at_the_mat(setter, tmp_path):
    """Its fabric with borders and binding, cut by cut; kept, and gone on with after reopening."""
    quilt = Quilt(
        columns=2, rows=2, block="f", borders=(Border(width=F(2), fabric="b"),),
        binding=Binding(fabric="b"),
    )  # fmt: skip
    setter.open(replace(project_of(EFF), quilt=quilt))
    setter.maker.stage("cutting")
    setter.rests()
    stage = setter.maker.window.cutting
    stage.scope.setCurrentIndex(1)
    stage.scope.activated.emit(1)
    setter.rests()
    of_b = [lying for lying in stage.on_mat if lying.plan.fabric == "b"]
    labels = {place.label for lying in of_b for place in places_of(lying.laid)}
    assert {"Border 1, sides", "Binding"} <= labels
    ticket = setter.maker.window.cutting_ticket
    assert "stack Binding" in setter.maker.reads(ticket)
    assert ticket.count.isHidden()
    stage.choose(stage.on_mat.index(of_b[0]))
    for _ in range(4):
        setter.bot.keyClick(stage.mat, Qt.Key.Key_Space)
        setter.rests()
    (begun,) = setter.session.project.cutting.begun
    assert (begun.block, begun.fabric, begun.done) == ("", "b", 3)
    assert "cut 2 of 4" in setter.maker.reads(stage.card)
    assert vulgar_text("All of them: Cut 4 strips 2 1/2 in") in setter.maker.reads(stage.card)
    path = tmp_path / "q.inlet"
    save(setter.session.project, path)
    setter.open(load(path))
    setter.maker.stage("cutting")
    stage.scope.setCurrentIndex(1)
    stage.scope.activated.emit(1)
    setter.rests()
    assert "cut 2 of 4" in setter.maker.reads(stage.card)
    plan = setter.plan
    assert [c.begun for c in plan.fabric_plans.best if c.fabric == "b"] == [1]


def test_whether_what_there_is_does_is_asked_of_the_quilt(setter):
    """Fabric for the blocks, not for the border round them: the page says so, and of one block that
    it does."""
    bolt = (Have(kind="bolt", width=F(42), length=F(12)),)
    project = project_of(EFF)
    fabrics = tuple(replace(fabric, have=bolt) for fabric in project.fabrics)
    quilt = Quilt(columns=2, rows=2, block="f", borders=(Border(width=F(9), fabric="b"),))
    setter.open(replace(project, fabrics=fabrics, quilt=quilt))
    setter.maker.stage("cutting")
    setter.rests()
    stage = setter.maker.window.cutting
    stage.page_buttons[1].click()
    setter.rests()
    page = stage.shopping
    assert page.scope.currentData() == "project"  # once there is a quilt, it is bought for
    page.scope.setCurrentIndex(0)
    page.scope.activated.emit(0)
    setter.rests()
    page.does.click()
    setter.rests()
    assert page.notes.text().startswith("Yes")
    page.scope.setCurrentIndex(1)
    page.scope.activated.emit(1)
    setter.rests()
    page.does.click()
    setter.rests()
    assert page.notes.text().startswith("Not enough B for")
    assert "Leave out border 1" in page.notes.text()


def test_a_first_quilt_a_made_size_a_row_and_a_motif_of_what_is_picked(setter):
    project = project_of(EFF, replace(EFF, id="g", name="Gee"))
    setter.open(project)
    assert setter.stage.empty.isVisible()
    setter.stage.begin_.click()
    setter.rests()
    assert (setter.quilt.columns, setter.quilt.rows, setter.quilt.block) == (4, 5, "f")
    assert setter.quilt.setting == "straight"
    setter.type("The block measured when made", "9 1/4")
    assert setter.quilt.made == {"f": (F(37, 4), F(37, 4))}
    assert setter.plan.size == (35, F(175, 4))
    setter.type("The block measured when made", "small")
    assert "“small”" in setter.maker.window.message_text.text()
    setter.type("The block measured when made", " ")
    assert setter.plan.size == (36, 45)
    setter.click((3, 1))
    setter.ticket.place.in_row.setValue(3)
    setter.rests()
    assert setter.quilt.row_lengths == (4, 3)
    assert "filled up: choose a filler fabric" in setter.problems
    setter.ticket.place.in_row.setValue(4)
    setter.rests()
    setter.click((0, 0))
    setter.press(Qt.Key.Key_R)
    for spot in ((1, 0), (0, 1), (1, 1)):
        setter.click(spot, held=HELD.ShiftModifier)
    setter.ticket.place.motif.followed.emit()
    setter.rests()
    assert (setter.quilt.columns, setter.quilt.rows) == (2, 2)
    assert [p.turn for p in setter.quilt.motifs[0].places] == [90]
    setter.session.show_block("f")
    setter.session.delete_block()
    assert "lay in the quilt 16 times" in setter.maker.window.message_text.text()
    setter.rests()
    assert "no block yet" in setter.problems


def test_the_top_is_moved_and_looked_at_with_the_mouse(setter):
    """The wheel goes nearer about the pointer; the right button moves the top, and changes
    nothing of it; a click beside it picks nothing; the tape tells what is under the pointer."""
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=4, rows=3, block="f")))
    top = setter.top
    before, quilt = top.frame_, setter.quilt
    at = top.middle_of((1, 1))
    wheel = QWheelEvent(
        at, top.mapToGlobal(at), QPoint(), QPoint(0, 120), Qt.MouseButton.NoButton,
        HELD.NoModifier, Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(top, wheel)
    assert top.frame_.m11() == pytest.approx(1.25 * before.m11())
    assert (top.middle_of((1, 1)) - at).manhattanLength() < 1e-6
    start = at.toPoint()
    setter.bot.mousePress(top, Qt.MouseButton.RightButton, pos=start)
    setter.bot.mouseMove(top, start + QPoint(40, 25))
    setter.bot.mouseRelease(top, Qt.MouseButton.RightButton, pos=start + QPoint(40, 25))
    moved = top.middle_of((1, 1)) - at
    assert (moved.x(), moved.y()) == pytest.approx((40, 25))
    assert setter.quilt is quilt
    assert top.spots == []
    setter.bot.mouseMove(top, top.middle_of((2, 1)).toPoint())
    assert "Eff, row 2, block 3" in setter.maker.window.tape.words()
    setter.click((2, 1))
    setter.click((3, 1), held=HELD.ShiftModifier)
    assert top.spots == [(2, 1), (3, 1)]
    setter.click((2, 1), held=HELD.ShiftModifier)
    assert top.spots == [(3, 1)]
    setter.bot.mouseClick(top, Qt.MouseButton.LeftButton, pos=QPoint(3, 3))
    assert top.spots == []
    assert "No place is picked" in setter.ticket.place.where.text()


def test_what_the_top_shows_is_the_fabric_that_lies_there(setter):
    """Four plain fabrics: the middle of each place is its fabric's colour, in grey view its grey;
    a colourway changes it, and another fabric colour at once."""
    plain = replace(block_of(size=(6, 6), fabrics="a"), id="p", name="Plain")
    quilt = Quilt(
        columns=2, rows=2, block="p",
        colourways=(Colourway(id="w", fabrics={"a": "e"}),),
        places=(
            QuiltPlace(column=1, row=0, colourway="w"), QuiltPlace(column=0, row=1, fabric="c")
        ),
    )  # fmt: skip
    setter.open(replace(project_of(plain), quilt=quilt))
    colours = {f.id: f.colour for f in setter.session.project.fabrics}

    def seen(spot):
        at = setter.top.middle_of(spot).toPoint() - QPoint(0, 50)  # clear of what is written there
        return setter.top.grab().toImage().pixelColor(at).name()

    wanted = {(0, 0): "a", (1, 0): "e", (0, 1): "c", (1, 1): "a"}
    assert {spot: seen(spot) for spot in wanted} == {s: colours[c] for s, c in wanted.items()}
    setter.drag((0, 1), (1, 1))  # plain squares are places, too
    assert (seen((0, 1)), seen((1, 1))) == (colours["a"], colours["c"])
    setter.drag((1, 1), (0, 1))
    fabric = replace(setter.session.project.fabric("a"), colour="#cc2211")
    top = setter.plan.top
    setter.session.edit(setter.session.project.with_fabric("a", fabric))
    QApplication.processEvents()
    assert seen((1, 1)) == "#cc2211"
    assert setter.plan.top is top  # another colour moves nothing
    setter.maker.window.grey.trigger()
    QApplication.processEvents()
    assert seen((1, 1)) == grey_of("#cc2211")
    setter.maker.window.grey.trigger()


def test_guide_picture_and_lines_are_written_from_the_menu(setter, tmp_path, monkeypatch):
    quilt = Quilt(columns=2, rows=2, block="f", quilting=(QuiltingLines(),))
    setter.open(replace(project_of(EFF), quilt=quilt))
    window = setter.maker.window

    def write(action, name):
        path = tmp_path / name
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(path), ""))
        action.trigger()
        assert f"{path.name} is written" in setter.maker.written()
        return path

    assert "Cutting" in "".join(
        page.extract_text() for page in PdfReader(write(window.exports["quilt"], "q.pdf")).pages
    )
    assert (
        write(window.exports["guide"], "again.pdf").stat().st_size > 1000
    )  # of the quilt, at its stage
    sheet = PdfReader(write(window.exports["labels"], "labels.pdf")).pages[0].extract_text()
    assert "Row 2" in sheet
    assert "4 blocks, unfinished 9 1/2 in" in sheet
    with Image.open(write(window.exports["quilt-picture"], "q.png")) as picture:
        assert picture.size == (2400, 2400)
    assert "<use " in write(window.exports["quilt-picture"], "q.svg").read_text()
    assert write(window.exports["quilting"], "lines.svg").read_text().count("<path ") == 4 * 4
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: ("", ""))
    window.message.hide()
    window.exports["quilt"].trigger()
    assert not window.message.isVisible()
    setter.session.edit_quilt(replace(quilt, block=""))
    window.exports["quilt-picture"].trigger()
    assert "no block yet" in window.message_text.text()


def test_grey_text_size_and_centimetres_leave_the_quilt_as_it_is(setter):
    """The ticket reads in centimetres after the change, blocks of 22.86 and strips of 2.54 cm as
    they are cut to the millimetre; twice as large text makes the stage anew,
    with the same quilt on it."""
    quilt = Quilt(columns=3, rows=4, block="f", sashing=Sashing(width=F(1), fabric="b"))
    setter.open(replace(project_of(EFF), quilt=quilt))
    assert setter.ticket.finished.text() == "29 x 39 in"
    setter.maker.window.cm_.trigger()
    setter.rests()
    assert setter.ticket.finished.text() == "73.6 x 98.7 cm"
    assert setter.quilt.sashing.width == F(254, 100)
    setter.session.undo()
    assert setter.quilt == quilt
    setter.maker.window.larger_.trigger()
    setter.rests()
    again = Setter(setter.maker)
    again.rests()
    assert again.ticket.finished.text() == "29 x 39 in"
    assert len(again.top.scene.blocks) == 12
    again.maker.window.smaller_.trigger()


def test_colourways_are_named_taken_away_and_blocks_are_drawn_from_the_top(setter):
    setter.open(replace(project_of(EFF), quilt=Quilt(columns=2, rows=2, block="f")))
    setter.page("colours")
    colours = setter.ticket.colours
    colours.add.followed.emit()
    setter.rests()
    setter.type("Colourway 1, name", "Dusk")
    setter.choose("Dusk: B becomes", "e")
    assert [(w.name, w.fabrics) for w in setter.quilt.colourways] == [("Dusk", {"b": "e"})]
    setter.type("Colourway 1, name", " ")
    assert "a colourway has a name" in setter.maker.window.message_text.text()
    setter.click((1, 0))
    setter.choose("Colourway in this place", setter.quilt.colourways[0].id)
    assert [b.name for b in setter.plan.blocks] == ["Eff", "Eff in Dusk"]
    setter.choose("Block in this place", "fabric d")
    assert setter.quilt.places[0].fabric == "d"
    setter.session.undo()
    setter.page("colours")
    colours._away(setter.quilt.colourways[0].id)
    setter.rests()
    assert setter.quilt.colourways == ()
    assert all(not place.colourway for place in setter.quilt.places)
    setter.click((0, 1))
    setter.press(Qt.Key.Key_Return)
    assert (setter.maker.window.stage, setter.session.block_id) == ("draft", "f")


def test_edges_are_added_pieced_and_taken_away(setter):
    """A border of a 9 in block round 18 in fits without a spacer; of 7 in ones, which come to
    6 7/8 in as they are cut, it needs one."""
    small = replace(EFF, id="s", name="Small", finished=(F(7), F(7)))
    setter.open(replace(project_of(EFF, small), quilt=Quilt(columns=2, rows=2, block="f")))
    setter.page("edges")
    setter.ticket.edges.add.followed.emit()
    setter.rests()
    setter.choose("Border 1, kind", "pieced")
    assert "choose the block it repeats" in setter.problems
    setter.choose("Border 1, block", "f")
    assert setter.plan.size == (36, 36)
    setter.choose("Border 1, block", "s")
    assert setter.ticket.finished.text() == vulgar_text("34 5/8 in")
    assert "Without a spacer the block would be" in setter.maker.reads(setter.ticket.edges)
    assert [r.label for r in setter.plan.top.borders] == [
        "Border 1, spacer", "Border 1"
    ]  # fmt: skip
    setter.ticket.edges._away(0)
    setter.rests()
    assert setter.quilt.borders == ()
    setter.type("Backing, past the edge", "3")
    assert setter.quilt.backing.overage == 3
    setter.type("Batting, past the edge", "2")
    assert setter.plan.batting == (22, 22)
    setter.choose("Binding fabric", "a")
    setter.choose("Binding, cut", "bias")
    assert setter.plan.binding.square is not None


def test_a_top_without_a_width_is_not_scaled(qtbot):
    """Nothing lies there to be shown, and nothing divides by its size."""
    view = TopView()
    qtbot.addWidget(view)
    for size in ((0.0, 9.0), (9.0, 0.0)):
        view.scene = SimpleNamespace(size=size)
        assert view.frame_.isIdentity()
    view.scene = SimpleNamespace(size=(9.0, 9.0))
    assert not view.frame_.isIdentity()
