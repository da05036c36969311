"""The bench at the window: today's list ticked, sizes measured, the diary, the timer."""

from __future__ import annotations

import pytest
from PIL import Image
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QFileDialog, QLabel, QPushButton

from inlet.core.bench import made_of
from inlet.core.numbers import Fraction as F
from inlet.core.project import Bench, Quilt, Timer, replace
from inlet.files.photos import photo_folder
from inlet.files.project.project_json import load, loads
from inlet.ui.quilt.stage import ROWS
from inlet.ui.shell.app import DEMO
from inlet.ui.shell.session import Session
from tests.blocks import block_of, project_of

LEFT = Qt.MouseButton.LeftButton
HST = "0 0 1 1 / 1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"
NOW = "2026-11-30T19:05"


@pytest.fixture
def clock(monkeypatch):
    """The time, which a test sets."""

    class Clock:
        now = NOW

    monkeypatch.setattr(Session, "now", property(lambda _: Clock.now))
    return Clock


@pytest.fixture
def bench(maker, clock):
    """A quilt of six blocks of a half-square triangle and squares, at the bench."""
    block = replace(block_of(HST, 3, 3, fabrics="abc"), name="Eff")
    quilt = Quilt(columns=3, rows=2, block=block.id)
    maker.session.start(replace(project_of(block), quilt=quilt), None)
    maker.wait()
    maker.stage("bench")
    maker.bot.waitUntil(lambda: bool(maker.window.bench.today.rows), timeout=20000)
    return maker


def settle(maker):
    stage = maker.window.bench
    maker.bot.waitUntil(lambda: stage.list is not None and maker.session.at_rest, timeout=20000)


def tick(maker, words):
    """Click the line of the list that begins so."""
    line = next(r for r in maker.window.bench.today.rows if r.accessibleName().startswith(words))
    maker.bot.mouseClick(line, LEFT)
    settle(maker)


def test_the_list_is_ticked_and_every_stage_knows(bench, qtbot):
    stage = bench.window.bench
    first = stage.today.rows[0]
    assert first.accessibleName().startswith("Cut A, ")
    assert bench.window.rail.buttons["bench"].text() == "Bench\nnot begun"
    number = first.portion.number
    tick(bench, "Cut A, ")
    assert bench.session.project.cutting.begun[0].done == number
    assert not any(r.accessibleName().startswith("Cut A, ") for r in stage.today.rows)
    assert f"Cut A, {number} cuts" in stage.today.done.text()
    assert bench.window.rail.buttons["bench"].text().endswith("% done")
    while stage.today.rows:
        line = stage.today.rows[0]
        line.setFocus()
        qtbot.keyClick(line, Qt.Key.Key_Space)
        settle(bench)
        if not stage.today.rows and stage.list.sittings:
            assert stage.today.heading.text() == "Done for today"
            qtbot.mouseClick(stage.today.longer, LEFT)
            assert stage.today.rows
    assert stage.today.heading.text() == "Everything is done"
    assert bench.window.rail.buttons["bench"].text() == "Bench\n100 % done"
    bench.stage("piecing")
    bench.wait()
    assert "4 more are there" not in bench.window.piecing.place.text()
    assert "done" in bench.window.piecing.place.text()
    bench.stage("quilt")
    bench.window.quilt.turn_to(ROWS)
    rows = bench.window.quilt.rows
    qtbot.waitUntil(lambda: bool(rows.steps), timeout=20000)
    rows.refresh()
    assert all(rows.list.item(i).text().startswith("✓") for i in range(rows.list.count()))


def test_keys_go_through_the_list_and_undo_takes_a_tick_back(bench, qtbot):
    stage = bench.window.bench
    rows = stage.today.rows
    rows[0].setFocus()
    qtbot.keyClick(rows[0], Qt.Key.Key_Down)
    assert rows[1].hasFocus()
    assert (
        bench.window.bench_ticket.title.text()
        == "Cut B, " + rows[1].portion.job.title(rows[1].portion.job.times).partition(", ")[2]
    )
    before = bench.session.project
    qtbot.keyClick(rows[1], Qt.Key.Key_Space)
    settle(bench)
    assert bench.session.project != before
    bench.session.undo()
    settle(bench)
    assert bench.session.project == before
    assert len(stage.today.rows) == len(rows)


def test_some_of_a_job_are_ticked_and_unpicked_with_a_reason(bench, qtbot):
    stage, ticket = bench.window.bench, bench.window.bench_ticket
    bench.session.edit(replace(bench.session.project, rates=None))
    settle(bench)
    unit = next(j for j in stage.jobs if j.verb == "Press" and j.thing.times == 6)
    stage.look_at(stage.jobs.index(unit))
    for _ in range(3):
        qtbot.mouseClick(ticket.more, LEFT)
        settle(bench)
    assert ticket.done.text() == "3 of 6 done"
    qtbot.mouseClick(ticket.fewer, LEFT)
    settle(bench)
    assert stage.sewn(unit.thing) == 2
    unpicking = ticket.unpicking
    assert unpicking.isVisibleTo(ticket)
    assert unpicking.number.maximum() == 2
    unpicking.why.choose("points cut off")
    qtbot.mouseClick(unpicking.unpick_, LEFT)
    settle(bench)
    last = bench.session.project.log[-1]
    assert (last.did, last.number, last.text) == ("unpicked", 1, "points cut off")
    assert stage.sewn(unit.thing) == 1
    unpicking.why.choose("…")
    unpicking.typed.setText("it frayed")
    qtbot.mouseClick(unpicking.unpick_, LEFT)
    assert bench.session.project.log[-1].text == "it frayed"


def test_the_timer_runs_is_paused_forgotten_and_corrected(bench, qtbot, clock):
    timing = bench.window.bench_ticket.timing
    qtbot.mouseClick(timing.go_, LEFT)
    clock.now = "2026-11-30T19:25"
    timing.refresh()
    assert timing.state.text() == "20 min, running"
    qtbot.mouseClick(timing.go_, LEFT)
    clock.now = "2026-11-30T19:55"
    timing.refresh()
    assert timing.state.text() == "20 min, paused"
    qtbot.mouseClick(timing.go_, LEFT)
    clock.now = "2026-11-30T20:00"
    tick(bench, "Cut A, ")
    assert bench.session.project.log[-1].minutes == 25
    clock.now = "2026-12-01T07:00"
    timing.refresh()
    assert timing.note.isVisibleTo(timing)
    tick(bench, "Cut B, ")
    assert bench.session.project.log[-1].minutes is None
    bench.type(timing.spent, "20:15-19:30")
    assert "ends before it starts" in bench.window.message_text.text()
    bench.type(timing.spent, "19:30-20:15")
    assert bench.session.project.log[-1].minutes == 45
    assert bench.session.project.bench.timer is None
    assert timing.state.text() == "No time is taken"


def test_a_made_size_is_typed_and_every_stage_follows(bench, qtbot):
    stage = bench.window.bench
    before = bench.session.project
    qtbot.mouseClick(stage.page_buttons["made"], LEFT)
    page = stage.made
    assert page.title.text() == "A"
    assert page.figure.text() == "3½ in"
    bench.type(page.edit, "35")
    assert "cannot be what was planned" in bench.window.message_text.text()
    assert page.unit is None
    bench.type(page.edit, "3 3/8")
    settle(bench)
    qtbot.waitUntil(lambda: len(page.effects) == 2, timeout=20000)
    assert page.figure.text() == "3⅜ in"
    assert page.state.text() == "They are even, and off by ⅛ in."
    assert page.effects[0].lines[1] == "Eff, unfinished: 9 1/8 in"
    words = bench.reads(page)
    assert "Cut the rest to match" in words
    plan = bench.wait()
    assert {c.cut for c in plan.cuts if c.shape == "square" and c.crosscut == "none"} >= {
        (F(27, 8), F(27, 8))
    }
    bench.stage("cutting")
    bench.stage("piecing")
    bench.wait()
    bench.window.piecing.go(len(plan.steps) - 1)
    assert "9⅛ in" in bench.reads(bench.window.piecing.card)
    bench.stage("quilt")
    qtbot.waitUntil(lambda: bench.session.quilt_known, timeout=20000)
    bench.window.quilt_ticket.refresh()
    assert bench.window.quilt_ticket.finished.text() == "25⅞ × 17¼ in".replace(" × ", " x ")
    bench.stage("bench")
    ease = next(b for b in page.findChildren(QPushButton) if b.text() == "Ease it in")
    qtbot.mouseClick(ease, LEFT)
    settle(bench)
    assert made_of(bench.session.project, page.thing.thing).answer == "ease"
    for _ in range(2):
        bench.session.undo()
    settle(bench)
    assert bench.session.project == before
    plan = bench.wait()
    assert not any(unit.made for unit in plan.units)


def test_what_is_off_is_made_again_or_forgotten(bench, qtbot):
    stage = bench.window.bench
    press = next(j for j in stage.jobs if j.verb == "Press" and j.thing.times == 6)
    bench.session.tick_job(press, 6)
    settle(bench)
    stage.turn_to("made")
    page = stage.made
    bench.type(page.edit, "2 of 3 3/8, 3 of 3 1/2")
    settle(bench)
    assert "uneven" in page.state.text()
    qtbot.mouseClick(page.again, LEFT)
    settle(bench)
    last = bench.session.project.log[-1]
    assert (last.did, last.number, last.text) == ("unpicked", 5, "off size")
    assert not bench.session.project.made
    bench.type(page.edit, "3 3/8")
    settle(bench)
    qtbot.mouseClick(page.forget, LEFT)
    assert not bench.session.project.made
    assert sum(entry.did == "measured" for entry in bench.session.project.log) == 3


def test_notes_and_photographs_are_in_the_diary(bench, qtbot, tmp_path, monkeypatch):
    stage = bench.window.bench
    stage.turn_to("diary")
    page = stage.diary
    assert page.nothing.isVisibleTo(page)
    bench.type(page.note, "The blade is dull.")
    qtbot.keyClick(page.note, Qt.Key.Key_Return)
    assert bench.session.project.log[-1].text == "The blade is dull."
    assert "Mon 30 Nov 2026" in bench.reads(page)
    assert "The blade is dull." in bench.reads(page)
    qtbot.mouseClick(page.photo_, LEFT)
    assert "Save the project first" in bench.window.message_text.text()
    file = tmp_path / "eff.inlet"
    bench.session.save_to(file)
    source = tmp_path / "laid.png"
    Image.new("RGB", (400, 300), "red").save(source)
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(source), ""))
    page.note.setText("Laid out")
    qtbot.mouseClick(page.photo_, LEFT)
    qtbot.waitUntil(lambda: bool(bench.session.project.log[-1].photo), timeout=10000)
    assert (photo_folder(file) / "2026-11-30-1.jpg").is_file()

    def pictures():
        shown = [w for w in page.findChildren(QLabel) if w.isVisibleTo(page)]
        return [w for w in shown if not w.pixmap().isNull()]

    qtbot.waitUntil(lambda: len(pictures()) == 1, timeout=10000)
    copy = tmp_path / "copy.inlet"
    assert bench.session.save_to(copy)
    assert (photo_folder(copy) / "2026-11-30-1.jpg").is_file()
    assert bench.session.save_to(file)
    (photo_folder(file) / "2026-11-30-1.jpg").unlink()
    page.refresh()
    assert "is not there any more" in bench.reads(page)
    source.write_text("no picture")
    page.note.setText("Kept all the same")
    page.keep(str(source))
    qtbot.waitUntil(lambda: "no photograph" in bench.window.message_text.text(), timeout=10000)
    assert bench.session.project.log[-1].text == "Kept all the same"
    assert loads((bench.session.save_to(file), file.read_text())[1]) == bench.session.project


def test_the_day_wished_and_the_sittings_of_a_week(bench, qtbot):
    ending = bench.window.bench_ticket.ending
    assert ending.pace.isHidden()  # nothing is timed yet
    bench.type(ending.wished, "soon")
    assert "type a day" in bench.window.message_text.text()
    bench.type(ending.wished, "1 Dec 2026")
    assert bench.session.project.bench.finish == "2026-12-01"
    assert "the day you wish" in ending.text.text()
    ending.a_week.setValue(7)
    ending.a_week.editingFinished.emit()
    assert bench.session.project.bench.sittings_a_week == 7
    bench.session.edit(replace(bench.session.project, bench=Bench(finish="no day")))
    settle(bench)
    assert "sitting" in ending.text.text()


def test_the_table_view_goes_through_the_list(bench, qtbot):
    bench.window.table_.trigger()
    table = bench.window.table
    table.showNormal()
    assert table.title.text().startswith("Cut A, ")
    qtbot.keyClick(table, Qt.Key.Key_Space)
    settle(bench)
    qtbot.waitUntil(lambda: table.title.text().startswith("Cut B, "), timeout=10000)
    qtbot.keyClick(table, Qt.Key.Key_Backspace)
    settle(bench)
    qtbot.waitUntil(lambda: table.title.text().startswith("Cut A, "), timeout=10000)
    assert bench.session.project.cutting.begun[0].done == 0
    qtbot.keyClick(table, Qt.Key.Key_Escape)


def test_of_a_project_without_a_quilt_the_block_is_the_work(maker, clock):
    project = replace(load(DEMO), quilt=None, bench=Bench(timer=Timer(since=NOW)))
    maker.session.start(project, None)
    maker.wait()
    maker.stage("bench")
    settle(maker)
    names = {job.thing.name for job in maker.window.bench.jobs if job.thing is not None}
    assert "Make Sluice" in names
    maker.window.bench.turn_to("made")
    page = maker.window.bench.made
    page.list.setCurrentRow(page.list.count() - 1)
    assert page.title.text() == "Sluice"
    maker.type(page.edit, "9 3/8")
    maker.bot.waitUntil(lambda: len(page.effects) == 2, timeout=20000)
    assert "Sluice, unfinished: 9⅜ in" in maker.reads(page)


def test_an_empty_block_has_nothing_to_do(maker, clock):
    maker.stage("bench")
    maker.wait()
    settle(maker)
    for page in ("today", "made", "diary"):
        maker.window.bench.turn_to(page)
        maker.window.bench.grab()
    assert maker.window.bench.made.title.text() == "Nothing can be measured"


def test_all_steps_are_picked_and_ticked_by_keys(bench, qtbot):
    stage = bench.window.bench
    qtbot.mouseClick(stage.page_buttons["steps"], LEFT)
    table = stage.steps.table
    name = next(job.thing.name for job in stage.jobs if job.verb == "Press")
    at = next(i for i, line in enumerate(stage.steps.lines) if line.cells[0] == name)
    table.setFocus()
    table.setCurrentCell(at, 0)
    first = stage.job
    assert first.thing.name == name
    qtbot.keyClick(table, Qt.Key.Key_Space)
    settle(bench)
    assert table.currentRow() == at
    assert bench.session.project.log[-1].what == name
    assert bench.session.project.log[-1].part == first.part
    qtbot.keyClick(table, Qt.Key.Key_Backspace)
    settle(bench)
    assert bench.session.project.log == ()


def test_the_time_there_is_today_fills_the_list(bench, qtbot):
    """Typed, the list takes so long at most and something more would go over it; with less time
    fewer lines are left."""
    stage = bench.window.bench
    lengths = []
    for minutes in (300, 25):
        stage.today.minutes.selectAll()
        qtbot.keyClicks(stage.today.minutes, str(minutes))
        qtbot.keyClick(stage.today.minutes, Qt.Key.Key_Return)
        settle(bench)
        assert stage.minutes == minutes
        assert stage.list.minutes <= minutes
        lengths.append(len(stage.today.rows))
    assert lengths[0] > lengths[1] > 0


def test_the_job_looked_at_is_the_same_job_however_fabric_is_laid_out(bench, qtbot):
    """Narrow fabric comes in more lengths, so more jobs at the mat stand before it."""
    stage, session = bench.window.bench, bench.session
    qtbot.waitUntil(lambda: bool(stage.jobs) and session.at_rest, timeout=20000)
    bench.bot.mouseMove(bench.window, QPoint(1, 1))  # on no line
    which = next(i for i, job in enumerate(stage.jobs) if job.place == "machine")
    looked_at, before = stage.jobs[which], len(stage.jobs)
    assert len({job.named for job in stage.jobs}) == before
    stage.look_at(which)
    narrow = tuple(replace(f, width=F(6)) for f in session.project.fabrics)
    session.edit(replace(session.project, fabrics=narrow))
    qtbot.waitUntil(lambda: len(stage.jobs) != before and session.at_rest, timeout=20000)
    assert stage.job.named == looked_at.named
    assert stage.which != which
