"""No error of ours ends the window, and no class that Qt calls goes without its guard."""

from __future__ import annotations

import ast
import os
import re
import signal
import subprocess
import sys
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QCloseEvent
from PySide6.QtWidgets import QWidget

import inlet.ui
from inlet.core.draft.regrid import insert_band
from inlet.core.layout.progress import begin
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Choice
from inlet.core.project.pressing import BlockPressing, Pin
from inlet.core.project.quilt import Motif, Quilt
from inlet.core.project.value import replace
from inlet.files.project.project_json import dumps, loads
from inlet.files.project.recovery import Desk
from inlet.ui import guard
from inlet.ui.shell import session as sessions
from inlet.ui.shell.app import DEMO
from tests.blocks import block_of, point, project_of
from tests.fuzz.hand import Hand


def test_every_class_that_qt_calls_is_guarded():
    bare, seen = [], 0
    for file in Path(inlet.ui.__file__).parent.rglob("*.py"):
        for node in ast.walk(ast.parse(file.read_text("utf-8"))):
            if not isinstance(node, ast.ClassDef) or not node.bases:
                continue
            names = [f.name for f in node.body if isinstance(f, ast.FunctionDef)]
            if not any("Delegate" in ast.unparse(base) for base in node.bases):
                names = [n for n in names if n != "paint"]  # a drawing tool's, not Qt's
            if any(n in guard.ANSWERS or n.endswith("Event") for n in names):
                seen += 1
                marks = [getattr(d, "id", "") for d in node.decorator_list]
                if "guarded" not in marks:
                    bare.append(f"{file.name}: {node.name}")
    assert seen > 20
    assert bare == []


@guard.guarded
class Faulty(QWidget):
    def paintEvent(self, event) -> None:
        raise ValueError("a paint that fails")

    def sizeHint(self):
        raise ValueError("a size that fails")

    def mousePressEvent(self, event) -> None:
        raise ValueError("a press that fails")

    def closeEvent(self, event: QCloseEvent) -> None:
        raise ValueError("a close that fails")


def test_an_error_in_a_paint_is_noted_said_and_the_work_put_by(maker, qtbot, no_error_is_caught):
    maker.draw("1 0 1 3")
    faulty = Faulty(maker.window)
    faulty.resize(50, 50)
    faulty.show()
    qtbot.waitUntil(lambda: bool(no_error_is_caught))
    qtbot.mouseClick(faulty, Qt.MouseButton.LeftButton)
    assert not faulty.close()  # and nothing is closed over an error
    faulty.hide()
    faulty.deleteLater()
    said = maker.window.message_text
    qtbot.waitUntil(lambda: "Your work is kept" in said.text())
    log = guard.log_file().read_text("utf-8")
    assert "in paintEvent\nValueError" in log
    assert "a paint that fails" not in log  # nothing that might be the maker's
    assert str(Path.home()) not in log
    desk = maker.window.desk.file.read_text("utf-8")
    assert '\\"1\\", \\"0\\"' in desk
    maker.draw("2 0 2 3")  # the window lives
    assert len(maker.session.block.seams) == 2
    no_error_is_caught.clear()


def test_an_error_on_a_picture_in_memory_does_not_end_the_process(
    maker, qtbot, no_error_is_caught, monkeypatch
):
    """A picture that is let go of while it is painted on does."""
    maker.draw("1 0 1 3")
    maker.stage("pressing")
    monkeypatch.setattr("inlet.ui.pressing.block.pressed_figure", lambda *_: {}["no figure"])
    maker.window.pressing.picture.grab()
    assert no_error_is_caught
    monkeypatch.undo()
    maker.window.pressing.picture.grab()
    maker.stage("draft")
    no_error_is_caught.clear()


def test_all_that_is_painted_on_in_memory_is_let_go_of_in_order():
    """A painter on anything but a widget, or what is given, stands in a ``with``."""
    ui = Path(inlet.ui.__file__).parent
    lines = [line for file in ui.rglob("*.py") for line in file.read_text("utf-8").splitlines()]
    painters = [line.strip() for line in lines if re.search(r"\bQPainter\(\w", line)]
    assert len(painters) > 30
    assert [p for p in painters if "QPainter(self)" not in p and not p.startswith("with ")] == []


def test_the_same_error_is_noted_once(no_error_is_caught):
    told = []
    guard.listeners.append(told.append)
    for _ in range(50):
        try:
            raise KeyError("the same")
        except KeyError as error:
            guard.note(error)
    guard.listeners.remove(told.append)
    assert len(told) == 1
    no_error_is_caught.clear()


def test_a_block_that_no_file_holds_is_not_taken(maker):
    maker.draw("1 0 1 3")
    before = maker.session.project
    block = maker.session.block
    for _ in range(12):  # ever more bands, until the block is larger than any can be
        maker.session.take_bands(insert_band(maker.session.block, 0, 0, F(10)))
    assert loads(dumps(maker.session.project)) == maker.session.project != before
    assert "larger than a block can be" in maker.window.message_text.text()
    held = maker.session.project
    maker.session.edit_block(replace(block, rows=(F(1), F(10**30, 10**30 + 7), F(1))))
    assert "rows[1]" in maker.window.message_text.text()
    assert maker.session.project is held


def begun_project():
    """Two blocks with a unit choice and a pin each; fabric of the first is being cut."""
    project = project_of(block_of("0 0 1 1", 1, 1), replace(block_of("0 1 1 0", 1, 1), id="two"))
    plan = plan_block(project, project.blocks[0])
    (fabric,) = plan.fabric_plans.at_once[0].laid
    project = begin(project, project.blocks[0].id, 1, plan.fabric_plans.at_once[0].fabric, fabric)
    pin = BlockPressing(pins=(Pin(point=(F(1, 2), F(1, 2)), toward="open"),))
    choice = Choice(point=(F(3, 4), F(1, 2)), label="Sail")
    chosen = tuple(replace(b, units=(choice,), pressing=pin) for b in project.blocks)
    return replace(project, blocks=chosen)


def test_while_fabric_is_being_cut_every_block_can_be_edited(maker):
    maker.session.start(begun_project(), None)
    for block in maker.session.project.blocks:
        maker.session.show_block(block.id)
        said = maker.window.message_text.text()
        maker.session.edit_block(replace(block, name=f"{block.id} anew"))
        assert maker.session.block.name == f"{block.id} anew"
        assert maker.window.message_text.text() == said
    maker.session.copy_block()
    assert maker.session.block.name == "two anew copy"
    maker.session.add_block()
    assert maker.session.block.title == "Block 4"


def test_what_is_refused_goes_back_to_what_is_kept(maker):
    motif = Motif(id="m", columns=10, rows=10, block=maker.session.block_id)
    quilt = Quilt(setting="straight", columns=4, rows=5, block="m", motifs=(motif,))
    maker.session.edit_quilt(quilt)
    maker.window.show_stage("quilt")
    columns = maker.window.quilt_ticket.setting.columns
    with maker.bot.waitSignal(maker.session.changed, timeout=20000):
        columns.setValue(90)
    assert "45000 blocks; 20000 are the most" in maker.window.message_text.text()
    maker.bot.waitUntil(lambda: columns.value() == 4)
    assert maker.session.project.quilt == quilt


def test_the_block_shown_is_always_there_whatever_is_refused(maker, monkeypatch):
    maker.session.start(begun_project(), None)
    before, shown = maker.session.project, maker.session.block
    monkeypatch.setattr(sessions.project_json, "why_not_kept", lambda *_: "No file holds that")
    maker.session.copy_block()
    maker.session.add_block()
    maker.session.delete_block()
    assert not maker.session.take_block(block_of("1 0 1 1", 2, 1))
    assert maker.session.project is before
    assert maker.session.block is shown
    assert "No file holds that. Nothing was changed." in maker.window.message_text.text()
    monkeypatch.undo()
    maker.session.add_block()
    added = maker.session.block_id
    maker.session.undo()
    assert maker.session.block in maker.session.project.blocks
    maker.session.redo()
    assert maker.session.block_id == added
    for _ in range(4):
        maker.session.delete_block()
        assert maker.session.block in maker.session.project.blocks
    assert not maker.session.edit(replace(maker.session.project, blocks=()))
    maker.session.show_block("nowhere")
    assert maker.session.block in maker.session.project.blocks
    for stage in ("units", "cutting", "piecing", "pressing", "quilt", "draft"):
        maker.window.show_stage(stage)
    maker.wait()


def test_a_block_that_cannot_be_drawn_is_not_taken(maker, monkeypatch, no_error_is_caught):
    maker.draw("1 0 1 3")
    before = maker.session.project
    real = sessions.draft

    def broken(block):
        if len(block.seams) > 1:
            raise RuntimeError("cannot be drawn")
        return real(block)

    monkeypatch.setattr(sessions, "draft", broken)
    maker.draw("2 0 2 3")
    assert maker.session.project is before
    two = '"seams": [{"line": [["0","0"],["1","1"]]}, {"line": [["1","0"],["0","1"]]}]'
    other = loads('{"format": "inlet", "version": 1, "blocks": [{"id": "x", %s}]}' % two)  # noqa: UP031
    assert not maker.session.start(other, None)
    assert maker.session.project is before
    assert "cannot draw" in maker.window.message_text.text()
    no_error_is_caught.clear()


def test_a_place_kept_by_the_unit_tool_does_not_outlive_the_bands(maker):
    maker.type(maker.window.draft_ticket.columns, "6")
    maker.type(maker.window.draft_ticket.rows, "6")
    maker.keys("u")
    maker.unit("Half-square triangle")
    maker.bot.mouseMove(maker.drawing, maker.at(point("11/2", "11/2")))
    maker.keys(Qt.Key.Key_Right)
    maker.session.undo()
    maker.session.undo()
    assert maker.session.block.grid == (3, 3)
    maker.drawing.repaint()
    tool = maker.drawing.tools["unit"]
    assert tool.here is None or max(tool.here) < 3


def test_a_cell_kept_by_the_unit_tool_does_not_outlive_the_divisions(maker):
    maker.keys("u")
    maker.unit("Half-square triangle")
    maker.drawing.divide_by(4)
    maker.bot.mouseMove(maker.drawing, maker.at(point("47/16", "47/16")))
    assert maker.drawing.tools["unit"].here == (11, 11)
    maker.drawing.divide_by(1)
    maker.drawing.repaint()
    assert maker.drawing.tools["unit"].here == (2, 2)


def test_a_heading_pressed_while_the_plan_is_on_its_way(maker):
    maker.draw("0 0 3 3")
    maker.window.show_stage("units")
    maker.bot.waitUntil(lambda: bool(maker.window.units.board.headings))
    board = maker.window.units.board
    heading = board.headings["cuts"]
    maker.session.set_copies(7)
    assert maker.session.plan is None
    heading.click()
    board._turn_scope()
    maker.bot.waitUntil(lambda: maker.session.plan is not None)


@pytest.mark.parametrize("seed", range(2))
def test_a_random_hand(qapp, seed, no_error_is_caught):
    hand = Hand(seed)
    found = hand.work(50)
    hand.leave()
    # How long events take depends on the machine here; ./fuzz measures it.
    assert [w for w in found.wrong if " s while" not in w and " took " not in w] == []
    assert not no_error_is_caught


def test_ctrl_c_leaves_the_work_on_the_desk(tmp_path):
    env = {**os.environ, "XDG_STATE_HOME": str(tmp_path), "QT_QPA_PLATFORM": "offscreen"}
    program = (
        "import sys; from PySide6.QtCore import QTimer; from inlet.ui.shell import app, window\n"
        "from inlet.core.project.project import replace\n"
        "class Window(window.Window):\n"
        "    def met_file(self):\n"
        "        self.session.edit(replace(self.session.project, name='Half way'))\n"
        "        QTimer.singleShot(0, lambda: print('open', flush=True))\n"
        "app.Window = Window\n"
        "from inlet.command_line import main; sys.exit(main(sys.argv[1:]))"
    )
    run = subprocess.Popen(
        [sys.executable, "-c", program, str(DEMO)],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        env=env,
    )
    assert run.stdout is not None
    assert run.stdout.readline() == "open\n"
    run.send_signal(signal.SIGINT)
    _, said = run.communicate(timeout=30)
    assert run.returncode == 130
    assert said.splitlines()[-1] == "inlet: stopped"
    (left,) = Desk(tmp_path / "inlet" / "desks").left_behind()
    assert left.project.name == "Half way"


def test_the_log_turns_over_and_keeps_the_one_before(tmp_path, monkeypatch):
    monkeypatch.setattr(guard, "log_file", lambda: tmp_path / "logs" / "errors.log")
    monkeypatch.setattr(guard, "LARGEST_LOG", 2_000)
    for number in range(140):
        assert guard.log(type(f"Error{number}", (ValueError,), {})("100 % wrong"))
        guard._noted.clear()  # as if the last were long ago
    assert not (guard.log(ValueError("again")) and guard.log(ValueError("again")))
    log, before = guard.log_file(), tmp_path / "logs" / "errors.log.1"
    assert "Error139" in log.read_text("utf-8")
    assert max(log.stat().st_size, before.stat().st_size) <= 2_000
    assert sorted(p.name for p in log.parent.iterdir()) == ["errors.log", "errors.log.1"]
