"""The window in states a demo does not show: starts, odd sizes, long names, other systems."""

from __future__ import annotations

import argparse

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication, QWidget

from inlet.core.numbers.text import parse_length
from inlet.core.project.fabric import Fabric
from inlet.core.project.measure import METRIC
from inlet.core.project.project import Project
from inlet.core.project.value import replace
from inlet.files.project.project_json import FileProblem, save
from inlet.ui.shell.app import DEMO, run
from inlet.ui.shell.rail import STAGES
from tests.blocks import block_of, point, project_of
from tests.sample import sampled

GRID = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"


def options(**given) -> argparse.Namespace:
    usual = {"file": None, "demo": False, "picture": None, "stage": "draft", "block": None,
             "step": 1, "page": 0, "copies": 1,
             "sizes": None, "fabric": 0, "text": 1.0, "tool": "seam", "grey": False,
             "look": None, "show": None}  # fmt: skip
    return argparse.Namespace(**{**usual, **given})


@pytest.mark.parametrize("stage", sampled(STAGES, 3))
def test_pictures_of_every_stage(qapp, tmp_path, stage):
    out = tmp_path / "x.png"
    step = 99 if stage == "piecing" else 6
    assert run(options(demo=True, picture=str(out), stage=stage, block="lantern", step=step)) == 0
    assert out.stat().st_size > 10_000


def test_pictures_that_cannot_be(qapp, tmp_path):
    for wrong in (
        {"demo": True, "stage": "ironing"}, {"demo": True, "block": "none"},
        {"file": str(tmp_path / "none.inlet")},
    ):  # fmt: skip
        with pytest.raises(FileProblem):
            run(options(picture=str(tmp_path / "x.png"), **wrong))
    with pytest.raises(FileProblem, match="cannot be written"):
        run(options(demo=True, picture=str(tmp_path / "no" / "x.png")))


def test_a_damaged_file_opens_an_empty_window_that_says_so(qapp, monkeypatch, tmp_path):
    path = tmp_path / "bad.inlet"
    path.write_text("{")
    shown = []

    def look() -> int:
        windows = [w for w in qapp.topLevelWidgets() if hasattr(w, "message_text")]
        window = next(w for w in windows if w.isVisible())
        shown.append((window.message.isVisible(), window.message_text.text()))
        window.session.close()
        window.close()
        return 0

    monkeypatch.setattr(type(qapp), "exec", lambda *_: look())
    assert run(options(file=str(path))) == 0
    assert shown[0][0]
    assert "bad.inlet: the text is not valid JSON at line 1" in shown[0][1]


@pytest.mark.parametrize(
    "project",
    [
        project_of(block_of(GRID, 3, 3, (3, 3))),
        project_of(block_of(GRID, 3, 3, (60, 20))),
        replace(project_of(block_of(GRID, 3, 3, (24, 24))), measure=METRIC),
        Project(fabrics=(), blocks=(block_of(GRID, 3, 3, fabrics="a"),)),
        Project(
            name="A reading room on the harbour with a name that does not end where it should",
            fabrics=(Fabric(id="a", name="Deep Water in the widest of all possible widths"),),
            blocks=(replace(block_of(GRID, 3, 3, fabrics="a"), name="Heron Bend " * 8),),
        ),
        Project(),
    ],
    ids=["3 in", "oblong", "metric", "no fabric", "long names", "nothing"],
)
def test_stages_in_odd_states(maker, project):
    maker.session.start(project, None)
    maker.wait()
    for stage in STAGES:
        maker.stage(stage)
        QApplication.processEvents()
        maker.window.grab()
        assert maker.window.width() == 1280
        for child in maker.window.stages.currentWidget().findChildren(QWidget):
            # the strip of moves is as long as there are moves: it scrolls sideways
            assert child.width() <= 1280 or child.objectName() == "stripBody"


def test_fabric_laid_by_dragging_over_patches(maker, qtbot):
    maker.session.start(project_of(block_of(GRID, 3, 3, fabrics="a")), None)
    maker.session.pick_fabric("b")
    maker.window.draft.tool_buttons["paint"].click()
    drawing = maker.drawing
    start, end = maker.at(point("1/2", "1/2")), maker.at(point("5/2", "1/2"))
    qtbot.mousePress(drawing, Qt.MouseButton.LeftButton, pos=start)
    for k in range(1, 11):
        spot = start + (end - start) * (k / 10)
        from PySide6.QtCore import QEvent, QPointF
        from PySide6.QtGui import QMouseEvent

        QApplication.sendEvent(
            drawing,
            QMouseEvent(
                QEvent.Type.MouseMove, QPointF(spot), drawing.mapToGlobal(QPointF(spot)),
                Qt.MouseButton.NoButton, Qt.MouseButton.LeftButton,
                Qt.KeyboardModifier.NoModifier,
            ),
        )  # fmt: skip
    qtbot.mouseRelease(drawing, Qt.MouseButton.LeftButton, pos=end)
    assert [p.fabric for p in maker.session.draft.patches] == ["b"] * 3 + ["a"] * 6
    # outside the block nothing happens
    before = maker.session.project
    qtbot.mouseClick(drawing, Qt.MouseButton.LeftButton, pos=QPoint(2, 2))
    assert maker.session.project is before


def test_every_choice_can_be_reached_with_the_tab_key(maker, qtbot):
    reached = set()
    maker.window.topbar.blocks.setFocus()
    for _ in range(60):
        now = QApplication.focusWidget()
        if now is not None:
            reached.add(now)
        qtbot.keyClick(now or maker.window, Qt.Key.Key_Tab)
    bar, ticket = maker.window.topbar, maker.window.draft_ticket
    wanted = {bar.width_edit, bar.height_edit, bar.seam, bar.ruler, bar.style_box, ticket.columns,
              ticket.rows, maker.drawing, maker.window.rail.buttons["draft"]}  # fmt: skip
    assert wanted <= reached
    assert all(w.accessibleName() for w in wanted)


def test_the_top_bar_reads_back_what_it_shows(maker, tmp_path):
    maker.session.start(project_of(block_of(size=(9, 12))), None)
    bar = maker.window.topbar
    for text in ("10 3/4", "7.5", "5½", "90mm"):
        maker.type(bar.width_edit, text)
        assert maker.session.block.finished[0] == parse_length(text)
        shown = bar.width_edit.text()
        maker.type(bar.width_edit, shown)  # typed again as shown, nothing changes
        assert bar.width_edit.text() == shown
        assert maker.session.block.finished[0] == parse_length(text)
    save(maker.session.project, tmp_path / "x.inlet")


def test_messages_go_when_closed_and_plans_name_the_stage_figures(maker):
    maker.session.start(DEMO_PROJECT(), None)
    maker.session.said.emit("Something to know.")
    assert maker.window.message.isVisible()
    close = maker.window.message.findChildren(QWidget)[-1]
    close.click()
    assert not maker.window.message.isVisible()
    maker.wait()
    maker.bot.waitUntil(lambda: maker.session.pressing_known, timeout=20000)
    texts = {stage: b.text() for stage, b in maker.window.rail.buttons.items()}
    assert texts == {
        "draft": "Draft\n21 patches", "remake": "Remake\n3 blocks", "units": "Units\n9 units",
        "cutting": "Cutting\n⅞ yd",
        "piecing": "Piecing\n5 steps", "pressing": "Pressing\n4/4 nest",
        "quilt": "Quilt\n32 blocks", "bench": "Bench\nnot begun",
    }  # fmt: skip


def DEMO_PROJECT():
    from inlet.files.project.project_json import load

    return load(DEMO)
