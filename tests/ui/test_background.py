"""Work off the window's thread: handed over, replaced, stopped; the window closed over it."""

from __future__ import annotations

import gc
import threading
import time
import weakref
from itertools import product

import pytest
from PySide6.QtCore import QObject, Qt
from PySide6.QtWidgets import QFileDialog, QWidget
from shiboken6 import delete

from inlet.core.cancellation import check, tell
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.quilt import Quilt, QuiltingLines
from inlet.core.project.value import replace
from inlet.files.drawings import svg_import
from inlet.files.exports import QUILT_EXPORTS
from inlet.files.project.project_json import load
from inlet.ui.shell.app import DEMO
from inlet.ui.tasks import collector, turns
from inlet.ui.tasks.background import BackgroundTask, close_all, left_at_work
from tests.blocks import project_of
from tests.core.assembly.corpus import herringbone
from tests.sample import sampled
from tests.ui.test_drafting import FOREIGN


@pytest.fixture
def task(qapp):
    made = BackgroundTask(QObject(qapp))
    yield made
    close_all([made])


def until_stopped():
    while True:
        check()
        time.sleep(0.002)


def test_the_latest_wins_and_what_follows_it_is_done_in_order(task, qtbot):
    got, stopped = [], []
    task.start(until_stopped, got.append, stopped=lambda: stopped.append(1), pause=0)
    qtbot.wait(20)
    task.start(until_stopped, got.append, stopped=lambda: stopped.append(2))
    task.start(lambda: "third", got.append)
    task.then(lambda: "fourth", got.append)
    task.then(lambda: "fifth", got.append)
    qtbot.waitUntil(lambda: task.at_rest)
    assert got == ["third", "fourth", "fifth"]
    assert stopped == [2, 1]


def test_it_is_done_in_another_thread_and_handed_over_in_this_one(task, qtbot):
    threads = []
    task.start(threading.get_ident, lambda ident: threads.extend([ident, threading.get_ident()]))
    qtbot.waitUntil(lambda: task.at_rest)
    assert threads[1] == threading.get_ident() != threads[0]


def test_an_error_is_told_and_the_next_is_done(task, qtbot):
    told, errors, got = [], [], []
    task._failed = told.append
    task.start(lambda: 1 / 0, got.append, failed=errors.append)
    task.then(lambda: 7, got.append)
    qtbot.waitUntil(lambda: task.at_rest)
    assert isinstance(errors[0], ZeroDivisionError)
    assert "division" in told[0]
    assert got == [7]


def test_waiting_hands_over_at_once_or_gives_up(task):
    got = []
    task.start(lambda: time.sleep(0.01) or 1, got.append)
    assert task.wait(20)
    assert got == [1]
    task.start(until_stopped, got.append)
    assert not task.wait(0.02)
    assert got == [1]
    assert not task.at_rest


def test_nobody_waits_where_the_job_before_took_longer(task, qtbot):
    """A job of 60 ms of work, then short ones: the first of these is not waited for."""

    def at_work(seconds):
        until = time.thread_time() + seconds
        while time.thread_time() < until:
            pass
        return seconds

    got = []
    for seconds, waited in ((0.06, False), (0.001, False), (0.001, True)):
        task.start(lambda seconds=seconds: at_work(seconds), got.append)
        assert task.wait(0.05 if not waited else 20) is waited
        qtbot.waitUntil(lambda: task.at_rest)
    assert got == [0.06, 0.001, 0.001]


def test_what_is_told_while_at_work_arrives(task, qtbot):
    shares = []
    task.progress.connect(shares.append)
    task.start(lambda: [tell(k / 4) for k in range(4)], lambda _: None)
    qtbot.waitUntil(lambda: task.at_rest and len(shares) == 4)
    assert shares == [0, 0.25, 0.5, 0.75]


class Taker(QWidget):
    def __init__(self, got):
        super().__init__()
        self.got = got

    def take(self, what):
        self.got.append((what, self.isVisible()))


def test_nothing_is_handed_to_a_widget_that_is_gone(task, qtbot, no_error_is_caught):
    got = []
    taker = Taker(got)
    task.start(lambda: 1, taker.take)
    delete(taker)
    qtbot.waitUntil(lambda: task.at_rest)
    assert got == []


def test_nothing_comes_of_what_is_closed(qtbot, qapp):
    task, got = BackgroundTask(QObject(qapp)), []
    task.start(until_stopped, got.append, pause=0)
    qtbot.wait(20)
    close_all([task])
    assert task.at_rest
    task.start(lambda: 1, got.append)
    qtbot.wait(40)
    assert got == []


def test_what_cannot_be_stopped_is_left_and_told(qtbot, qapp):
    """A solver that asks nobody: closing does not wait for it."""
    go_on, got = threading.Event(), []
    task = BackgroundTask(QObject(qapp))
    task.start(lambda: go_on.wait(60), got.append, pause=0)
    qtbot.wait(30)
    began = time.monotonic()
    close_all([task])
    assert time.monotonic() - began < 30
    assert left_at_work()
    go_on.set()
    qtbot.waitUntil(lambda: not left_at_work())
    assert got == []


def test_work_waits_while_the_window_is_busy_or_something_is_urgent_and_not_for_ever(qapp):
    turns.idle()
    began = time.perf_counter()
    turns.give_way()
    assert time.perf_counter() - began < turns.LONGEST  # nothing to wait for
    turns.busy()
    began = time.perf_counter()
    turns.give_way()
    assert time.perf_counter() - began >= turns.LONGEST / 2
    turns.idle()
    time.sleep(turns.OWN)
    with turns.urgent():
        began = time.perf_counter()
        turns.give_way()
        waited = time.perf_counter() - began
        assert waited >= turns.LONGEST / 2
        began = time.perf_counter()
        turns.give_way()
        assert time.perf_counter() - began < waited  # now it has a while for itself


# --- closing the window over every kind of work ---------------------------------------------------


def big():
    """A quilt of eight blocks with much to do in each stage."""
    demo = load(DEMO)
    lines = (QuiltingLines(distance=F(1, 8), repeats=10), QuiltingLines(kind="seams"))
    quilt = replace(demo.quilt or Quilt(), columns=20, rows=20, quilting=lines)
    return replace(demo, quilt=quilt)


def planning(maker, _path):
    block = herringbone(20, 20)
    maker.session.start(project_of(block), None)


def pressing(maker, _path):
    maker.session.start(load(DEMO), None)
    maker.wait()


def laying_out(maker, _path):
    maker.session.start(load(DEMO), None)
    maker.session.set_copies(500)
    maker.window.show_stage("cutting")
    maker.wait()


def setting(maker, _path):
    maker.session.start(big(), None)
    maker.window.show_stage("quilt")


def reaching(maker, _path):
    maker.session.start(load(DEMO), None)
    maker.window.show_stage("quilt")
    maker.window.quilt.turn_to(3)
    maker.window.quilt.target.take("90 x 100")


def shopping(maker, _path):
    maker.session.start(big(), None)
    maker.window.show_stage("cutting")
    maker.window.cutting.turn_to(1)


def reading(maker, path):
    drawing = path / "x.svg"
    drawing.write_text(FOREIGN.replace("scale(4)", "scale(1) " * 30_000))
    maker.window.drawings._take("x", lambda b, s: svg_import.load_svg(drawing, block=b, system=s))


def writing(what):
    def write(maker, _path):
        maker.session.start(big(), None)
        maker.bot.waitUntil(lambda: maker.session.quilt_known, timeout=60000)
        maker.window.exports[what].trigger()
        assert not maker.window.writer.at_rest

    return write


def writing_a_guide(maker, _path):
    maker.session.start(load(DEMO), None)
    maker.wait()
    maker.window.exports["guide"].trigger()
    assert not maker.window.writer.at_rest


KINDS = {
    "planning": planning, "pressing": pressing, "laying out": laying_out, "setting": setting,
    "reaching": reaching, "shopping": shopping, "reading": reading, "guide": writing_a_guide,
    **{each.what: writing(each.what) for each in QUILT_EXPORTS},
}  # fmt: skip


@pytest.mark.parametrize(("kind", "pause"), sampled(product(KINDS, [0, 60]), 3))
def test_the_window_closes_over_every_kind_of_work(maker, tmp_path, monkeypatch, kind, pause):
    target = tmp_path / "out.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(target), ""))
    KINDS[kind](maker, tmp_path)
    maker.bot.wait(pause)
    window = maker.window
    assert window.close()
    assert all(task.closed and task.at_rest for task in window.tasks)
    assert not window.isVisible()
    assert not target.exists() or pause
    assert not list(tmp_path.glob("*.tmp"))
    maker.bot.waitUntil(lambda: not left_at_work(), timeout=30000)


def test_stopped_work_says_so(maker, tmp_path, monkeypatch):
    target = tmp_path / "out.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(target), ""))
    writing("quilt")(maker, tmp_path)
    assert maker.window.stop_work.isVisible()
    maker.window.exports["block"].trigger()
    assert "is still being written" in maker.window.message_text.text()
    maker.window.stop_work.click()
    assert "was stopped; nothing was changed" in maker.written()
    assert not target.exists()


class Circle:
    def __init__(self):
        self.me = self


def test_circles_of_what_was_worked_out_wait_until_nobody_looks(qapp, qtbot, monkeypatch):
    """What is made while work is under way is set aside, and looked through when the user has
    turned to another program for a while, but not while work is under way."""
    monkeypatch.setattr(collector, "AWAY", 40)
    collector.look_through_unseen(qapp)
    turned_to = qapp.applicationStateChanged.emit
    active, inactive = (
        Qt.ApplicationState.ApplicationActive, Qt.ApplicationState.ApplicationInactive
    )  # fmt: skip
    collector.rest()
    circle = Circle()
    gone = weakref.ref(circle)
    del circle
    gc.collect()
    circle = Circle()
    aside = weakref.ref(circle)
    collector.rest_over()
    del circle
    assert gone() is None
    gc.collect()
    assert aside() is not None
    collector.rest()
    turned_to(inactive)
    qtbot.wait(80)
    assert aside() is not None
    collector.rest_over()
    turned_to(inactive)
    turned_to(active)
    qtbot.wait(80)
    assert aside() is not None
    turned_to(inactive)
    qtbot.waitUntil(lambda: aside() is None)
