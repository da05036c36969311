"""Every page at many sizes, in both looks: nothing overlaps, nothing is cut off, all is read."""

from __future__ import annotations

import os
import subprocess
import sys
from itertools import product

import numpy as np
import pytest
from PIL import Image
from PySide6.QtCore import QEvent, QPoint, Qt
from PySide6.QtGui import QAccessible, QColor, QImage
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractSpinBox,
    QApplication,
    QComboBox,
    QLabel,
    QLineEdit,
    QWidget,
)

from inlet.files.project.project_json import load
from inlet.ui import theme
from inlet.ui.shell.app import DEMO
from inlet.ui.shell.panels import LEAST_STAGE, Breadth, WindowRoom, folded_panels, stage_share
from inlet.ui.shell.rail import STAGES
from tests.sample import sampled
from tests.ui import walk

SCALES, ROOMS = (1.0, 1.25, 1.5, 2.0), ((1024, 700), (1280, 800), (2560, 1440))
SIZES = list(product(SCALES, ROOMS, ("light", "dark")))


@pytest.fixture
def demo(maker):
    """The demo in the window, and waiting until nothing is being worked out."""
    maker.session.start(load(DEMO), None)
    maker.wait()
    maker.rest = lambda: maker.bot.waitUntil(lambda: maker.session.at_rest, timeout=20000)
    return maker


def dressed(maker, scale: float, look: str = "light") -> None:
    maker.window.settings.look = look
    maker.window.dress_again(scale)
    walk.settle(maker.window)


@pytest.mark.parametrize(
    ("scale", "size", "look"),
    [(1.0, (1280, 800), "light"), (2.0, (1280, 800), "dark"), *sampled(SIZES, 3)],
)
def test_nothing_overlaps_no_word_is_cut_and_all_is_read(demo, scale, size, look):
    """And every control has a name and a role, as a screen reader is told."""
    window = demo.window
    dressed(demo, scale, look)
    window.resize(*size)
    walk.settle(window)
    found, measured = [], 0
    for page in walk.pages(window, waited=demo.rest):
        wrong = [*walk.overlaps(window), *walk.cut_texts(window), *unnamed(window)]
        if scale == 2.0:  # strokes of smaller letters are not of one colour
            faint, number = faint_words(window)
            wrong, measured = wrong + faint, measured + number
        found += [f"{page}: {bad}" for bad in wrong]
        assert walk.stage_share(window) >= LEAST_STAGE, page
        assert (window.width(), window.height()) == size, page
    assert not found, "\n".join(dict.fromkeys(found))
    assert measured > 200 or scale < 2


def unnamed(window) -> list[str]:
    """Controls without a name or a role, by Qt's accessibility interface."""
    found = []
    for w in walk.shown(window):
        if isinstance(w, QLineEdit) and isinstance(w.parent(), QComboBox | QAbstractSpinBox):
            continue
        if isinstance(w, QAbstractButton | QLineEdit | QComboBox | QAbstractSpinBox):
            told = QAccessible.queryAccessibleInterface(w)
            if not told.text(QAccessible.Text.Name) or told.role() == QAccessible.Role.NoRole:
                found.append(f"{type(w).__name__} {w.objectName()} {w.toolTip()} has no name")
    return found


def faint_words(window) -> tuple[list[str], int]:
    """Words too near to their ground, measured in the picture of the window: the ground of a label
    is the colour most of it has, its words the colour farthest from that. And how many were
    measured."""
    image = window.grab().toImage().convertToFormat(QImage.Format.Format_RGB32)
    high, wide = image.height(), image.width()
    pixels = np.frombuffer(image.constBits(), np.uint32).reshape(high, -1)[:, :wide]
    faint, measured = [], 0
    for w in walk.shown(window):
        if not isinstance(w, QLabel | QAbstractButton) or not w.text() or not w.isEnabled():
            continue
        box = w.visibleRegion().boundingRect()
        left, top = w.mapTo(window, box.topLeft()).toTuple()
        part = pixels[top : top + box.height(), left : left + box.width()]
        if part.size < 200 or box.height() < w.fontMetrics().height():
            continue
        colours, counts = np.unique(part, return_counts=True)
        ground = QColor.fromRgb(int(colours[counts.argmax()]))
        best = max(contrast(ground, QColor.fromRgb(int(c))) for c in colours)
        measured += 1
        if best < 4.5:
            faint.append(f"{walk.named(w)} has a contrast of {best:.1f}")
    return faint, measured


def test_the_walk_sees_what_is_wrong(demo):
    """A label put over another, and a button too narrow for its words, are noticed."""
    window = demo.window
    demo.stage("units")
    demo.rest()
    walk.settle(window)
    ticket = window.units_ticket
    assert not walk.overlaps(window)
    over = QLabel("over", ticket)
    under = next(c for c in ticket.children() if isinstance(c, QLabel) and c.isVisible())
    over.setGeometry(under.geometry())
    over.show()
    assert any("over" in bad for bad in walk.overlaps(window))
    words = QLabel("words that take some room", ticket)
    words.setGeometry(0, 0, 30, 20)
    words.show()
    assert any("take some room" in bad for bad in walk.cut_texts(window))


# --- panels ---------------------------------------------------------------------------------------


def test_panels_fold_by_themselves_only_as_far_as_needed():
    """Against every set of panels: the fewest of the order that leave the stage enough."""
    panels = {"tape": Breadth(84, 34), "bar": Breadth(110, 50), "rail": Breadth(108, 54),
              "ticket": Breadth(310, 40)}  # fmt: skip
    order = list(panels)
    for width, height in product(range(500, 2600, 150), range(400, 1500, 110)):
        room = WindowRoom(width, height)
        folded = folded_panels(room, panels, {})
        enough = [n for n in range(5)
                  if stage_share(room, panels, frozenset(order[:n])) >= LEAST_STAGE]  # fmt: skip
        assert folded == frozenset(order[: min(enough, default=4)])
        kept = folded_panels(room, panels, {"ticket": False, "rail": True})
        assert "ticket" not in kept
        assert "rail" in kept


def test_panels_fold_by_key_and_stay_so(demo, qtbot):
    window = demo.window
    assert window.folded == {"tape"}
    for key, panel in ((Qt.Key.Key_F8, "ticket"), (Qt.Key.Key_F7, "rail")):
        qtbot.keyClick(window, key)
        assert panel in window.folded
    assert not window.tickets.isVisible()
    width = window.stages.width()
    assert "9 units" in window.rail.buttons["units"].toolTip()
    qtbot.keyClick(window, Qt.Key.Key_F9)
    assert window.tape.height() > 60
    qtbot.mouseClick(window.ticket_fold.button, Qt.MouseButton.LeftButton)
    assert window.tickets.isVisible()
    assert window.stages.width() < width
    window.resize(1000, 640)
    assert {"rail"} <= window.folded
    assert "ticket" not in window.folded  # the maker opened it
    qtbot.keyClick(window, Qt.Key.Key_F6)
    assert window.topbar.folded == ("bar" in window.folded)


def test_a_folded_top_bar_opens_its_fields(demo, qtbot):
    window, bar = demo.window, demo.window.topbar
    dressed(demo, 2.0)
    bar = window.topbar
    assert bar.folded
    assert bar.summary.text().startswith("9 in, seam ¼ in")
    qtbot.mouseClick(bar.summary, Qt.MouseButton.LeftButton)
    assert bar.popup.isVisible()
    demo.type(bar.width_edit, "10")
    assert demo.session.block.finished[0] == 10
    bar.popup.hide()
    assert bar.summary.text().startswith("10 in")


# --- looks ----------------------------------------------------------------------------------------


def luminance(colour: tuple[float, float, float]) -> float:
    """Relative luminance of WCAG 2, of parts from 0 to 1."""
    linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in colour]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one: QColor, other: QColor) -> float:
    light, dark = sorted((luminance(c.getRgbF()[:3]) for c in (one, other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


def test_colours_of_both_looks_keep_their_distance():
    for look in (theme.LIGHT, theme.DARK):
        for words, ground in product(("ink", "ink-soft", "accent"), ("ground", "panel", "paper")):
            assert contrast(QColor(look[words]), QColor(look[ground])) >= 4.5, (words, ground)
        for ground in ("ink", "accent"):  # what is chosen, and what is said
            assert contrast(QColor(look["paper"]), QColor(look[ground])) >= 4.5


def test_the_look_follows_the_system_unless_one_is_chosen(demo, monkeypatch):
    window = demo.window
    window.settings.look = "system"
    dressed(demo, 1.0, "system")
    monkeypatch.setattr(theme, "_system_is_dark", lambda _app: True)
    window._system_look(None)
    assert theme.is_dark()
    dressed(demo, 1.0, "light")
    window._system_look(None)
    assert not theme.is_dark()


def test_twice_the_pixels_are_twice_as_sharp(tmp_path):
    """On a screen of twice the pixels the same lies at the same places."""
    sizes = []
    for factor in ("1", "2"):
        out = tmp_path / f"{factor}.png"
        env = {**os.environ, "QT_SCALE_FACTOR": factor, "QT_QPA_PLATFORM": "offscreen"}
        args = ["--demo", "--stage", "units", "--picture", str(out)]
        subprocess.run([sys.executable, "-m", "inlet", *args], env=env, check=True)
        with Image.open(out) as picture:
            sizes.append(picture.size)
            grey = picture.convert("L").resize((320, 200))
            pixels = np.asarray(grey, dtype=float)
        if factor == "1":
            before = pixels
    assert sizes == [(1280, 800), (2560, 1600)]
    assert np.abs(pixels - before).mean() < 4


def test_the_dark_look_changes_no_fabric(demo):
    def centre():
        image = demo.window.draft.drawing.grab().toImage()
        return QColor(image.pixel(image.width() // 2, image.height() // 2 + 20))

    before, ground = centre(), theme.GROUND.name()
    demo.window.looks["dark"].trigger()
    walk.settle(demo.window)
    assert demo.window.settings.look == "dark"
    assert theme.is_dark()
    assert theme.GROUND.name() != ground
    assert centre() == before == QColor(demo.session.project.fabric("buoy").colour)
    demo.window.looks["light"].trigger()
    walk.settle(demo.window)
    assert theme.GROUND.name() == ground


# --- made anew -----------------------------------------------------------------------------------


def test_pages_made_anew_show_what_they_showed(demo):
    """Another text size and the first again: stages made late take up all that is known by then."""
    window = demo.window
    rest = demo.rest

    # Not of the first two stages: the line of points at risk and small pictures come in turns of
    # their own, after all is at rest.
    def pictures() -> dict[str, QImage]:
        return {page: window.grab().toImage() for page in walk.pages(window, waited=rest)
                if not page.startswith(("draft", "remake"))}  # fmt: skip

    dressed(demo, 1.0)
    before = pictures()
    dressed(demo, 1.3)
    dressed(demo, 1.0)
    after = pictures()
    assert len(before) > 30
    assert [page for page in before if before[page] != after[page]] == []


def test_stages_are_made_ahead_and_those_of_before_go(demo):
    """Six changes of the text size leave about as many widgets as one: what is being shown at the
    moment comes and goes."""
    window = demo.window
    dressed(demo, 1.0)
    demo.bot.waitUntil(lambda: "bench_ticket" in vars(window), timeout=10000)
    numbers = []
    for _ in range(3):
        dressed(demo, 1.3)
        dressed(demo, 1.0)
        demo.bot.waitUntil(lambda: "bench_ticket" in vars(window), timeout=10000)
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
        numbers.append(len(QApplication.allWidgets()))
    assert numbers[-1] < numbers[0] + 40, numbers


# --- keys and names -------------------------------------------------------------------------------


@pytest.mark.parametrize("stage", STAGES)
def test_tab_goes_as_one_reads(demo, stage):
    """From line to line: what is reached next lies below, or to the right on the same line; and it
    shows that it has the keys."""
    window = demo.window
    demo.session.pick_fabric("fog")
    demo.stage(stage)
    demo.rest()
    walk.settle(window)
    _, ticket = window.pair(stage)
    fields = [w for w in ticket.findChildren(QWidget)
              if w.isVisible() and w.focusPolicy() & Qt.FocusPolicy.TabFocus]  # fmt: skip
    if not fields:
        return
    fields[0].setFocus(Qt.FocusReason.TabFocusReason)
    last, steps = None, 0
    while (now := QApplication.focusWidget()) is not None and ticket.isAncestorOf(now):
        at = now.mapTo(ticket, QPoint(0, now.height() // 2))  # it scrolls
        if last is not None:
            below, right = at.y() - last[0].y(), at.x() - last[0].x()
            assert below > 0 or (abs(below) < last[1] and right > 0), walk.named(now)
        last, steps = (at, now.height()), steps + 1
        demo.bot.keyClick(now, Qt.Key.Key_Tab)
        if steps > len(fields):
            break
    assert steps
