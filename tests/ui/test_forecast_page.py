"""What will it do?, Practise and the simulated maker in the window."""

from __future__ import annotations

from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel

from inlet.core.bench.jobs import share_done
from inlet.core.draft.tray import tray_units
from inlet.core.hand.exercises import EXERCISES
from inlet.core.hand.practice import with_practice
from inlet.core.numbers.text import vulgar_text
from inlet.core.tolerance.outlook import look_ahead
from inlet.core.tolerance.sewing_hand import BEGINNER, THREAD, USUAL
from inlet.core.tolerance.words import advice_lines, forecast_lines, risk_line
from inlet.files.project.project_json import load
from inlet.ui.shell.actions import DEMO
from tests.blocks import block_of, project_of, tray_block

WAIT = 30_000
TRAY = {unit.words: unit for unit in tray_units()}


def texts(lines):
    widgets = [lines.itemAt(i).widget() for i in range(lines.count())]
    return [widget.text() for widget in widgets if isinstance(widget, QLabel)]


def opened(maker, block, page):
    maker.session.start(project_of(block), None)
    maker.wait()
    maker.stage("bench")
    maker.window.bench.page_buttons[page].click()
    return getattr(maker.window.bench, page)


def test_the_page_says_what_the_core_says_for_each_hand(maker, qtbot):
    page = opened(maker, tray_block(TRAY["Flying geese"]), "forecast")
    qtbot.waitUntil(lambda: page.outlook is not None and page.advice is not None, timeout=WAIT)
    plan = maker.session.plan
    result = look_ahead(plan, plan, USUAL, "a usual seam")
    assert page.title.text() == vulgar_text(risk_line(result.forecast, "a usual seam"))
    said = forecast_lines(result.forecast, result.shares, maker.session.measure)
    assert texts(page.lines) == [vulgar_text(line) for line in said]
    helps = advice_lines(page.advice, result.forecast)
    assert texts(page.help) == [vulgar_text(line) for line in helps]
    page.whose.choose("beginner")
    qtbot.waitUntil(lambda: page.outlook.whose == "a beginner's hand", timeout=WAIT)
    wild = look_ahead(plan, plan, BEGINNER, "a beginner's hand")
    assert page.title.text() == vulgar_text(risk_line(wild.forecast, "a beginner's hand"))


def test_the_slider_redraws_the_block_at_once_and_the_chances_follow(maker, qtbot):
    page = opened(maker, tray_block(TRAY["Strips"], 4), "forecast")
    qtbot.waitUntil(lambda: page.outlook is not None, timeout=WAIT)
    page.far.setChecked(False)
    drawn, told = [], []
    for key, threads in ((Qt.Key.Key_Right, 1), (Qt.Key.Key_Left, -1)):
        page.wider.setValue(0)
        page.wider.setFocus()
        for _ in range(4):
            QTest.keyClick(page.wider, key)
        assert page.inches == threads * THREAD
        down = [y for piece in page.picture.look.pieces for _, y in piece.corners]
        drawn.append(max(down) - min(down))
        qtbot.waitUntil(lambda: page._at == page.inches and not page._trying, timeout=WAIT)
        told.append(page.outlook.forecast.block.middle[1])
    # a thread wider and a thread narrower: of two seams, on both sides
    for wide, narrow in (drawn, told):
        assert abs(narrow - wide - 2 * 2 * 2 * THREAD) < 0.004
    assert page.wider_words.text() == "A thread narrower: the seam takes 0.234 in."


def test_pointing_at_the_block_lays_its_spread_on_the_tape(maker, qtbot):
    page = opened(maker, tray_block(TRAY["Flying geese"], 4), "forecast")
    qtbot.waitUntil(lambda: page.outlook is not None, timeout=WAIT)
    picture = page.picture
    middle = QPoint(picture.width() // 2, picture.height() // 2)
    qtbot.mouseMove(picture, middle + QPoint(3, 3))
    qtbot.mouseMove(picture, middle)
    tape = maker.window.tape
    qtbot.waitUntil(lambda: tape.reading is not None and tape.reading.between is not None)
    low, high = page.outlook.forecast.block.low[0], page.outlook.forecast.block.high[0]
    assert tape.reading.between == (low, high)
    assert f"comes out {low:.2f} to {high:.2f} in" in tape.words()
    tape.grab()


def test_a_block_of_one_piece_has_no_forecast_and_the_ticket_no_line(maker, qtbot):
    page = opened(maker, block_of("", 1, 1, (6, 6), "a"), "forecast")
    qtbot.waitUntil(lambda: page.outlook is not None, timeout=WAIT)
    assert texts(page.lines) == ["This block has no seams, or cannot be sewn yet."]
    assert not page.picture.isVisible()
    maker.stage("draft")
    maker.wait()
    assert not maker.window.draft_ticket.risk.link.isVisible()


def test_the_line_on_the_ticket_leads_to_the_page(maker, qtbot):
    maker.session.start(project_of(tray_block(TRAY["Flying geese"])), None)
    maker.wait()
    link = maker.window.draft_ticket.risk.link
    qtbot.waitUntil(lambda: link.isVisible() and "at risk" in link.text(), timeout=WAIT)
    qtbot.mouseClick(link, Qt.MouseButton.LeftButton)
    bench = maker.window.bench
    assert (maker.window.stage, bench.page) == ("bench", "forecast")
    qtbot.waitUntil(lambda: bench.forecast.title.text() == link.text(), timeout=WAIT)


def test_what_is_measured_reaches_the_ticket(maker, qtbot):
    """Four exercises with a wide seam: the line is of the maker's seam from then on."""
    project = project_of(tray_block(TRAY["Flying geese"]))
    maker.session.start(project, None)
    maker.wait()
    link = maker.window.draft_ticket.risk.link
    qtbot.waitUntil(lambda: link.text().endswith("with a usual seam."), timeout=WAIT)
    for size in ("3 1/4 x 6 1/2", "3 5/16 x 6 1/2", "3 1/4 x 6 1/2", "3 5/16 x 6 1/2"):
        project, _ = with_practice(project, EXERCISES[0], size, "2026-12-01T19:00")
    maker.session.edit(project)
    qtbot.waitUntil(lambda: link.text().endswith("with your seam."), timeout=WAIT)


def test_a_simulated_maker_fills_the_log_and_undo_empties_it(maker, qtbot):
    page = opened(maker, tray_block(TRAY["Nine-patch"]), "hand")
    qtbot.waitUntil(lambda: page.simulated.isVisible(), timeout=WAIT)
    session = maker.session
    page.simulated.buttons["beginner"].click()
    qtbot.waitUntil(lambda: len(session.project.log) > 5, timeout=WAIT)
    qtbot.waitUntil(lambda: bool(session.jobs) and share_done(session.jobs) > 0.999, timeout=WAIT)
    session.undo()
    assert not session.project.log


def test_an_exercise_is_shown_measured_and_followed_by_the_next(maker, qtbot):
    page = opened(maker, tray_block(TRAY["Strips"]), "practise")
    qtbot.waitUntil(lambda: page.exercise is not None, timeout=WAIT)
    assert page.title.text() == "Three strips"
    assert "It comes first" in page.why.text()
    page.measured.setFocus()
    qtbot.keyClicks(page.measured, "3 3/8 x 6 1/2")
    qtbot.keyClick(page.measured, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: "0.031 in more than planned" in page.says.text(), timeout=WAIT)
    assert page.title.text() == "Three strips"
    qtbot.keyClicks(page.measured, "3 1/2 x 6 1/2")
    qtbot.keyClick(page.measured, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: page.title.text() == "A nested four-patch", timeout=WAIT)
    assert page.says.text().startswith("Three strips: Well done")
    assert len(maker.session.project.log) == 2
    qtbot.keyClicks(page.measured, "nine")
    qtbot.keyClick(page.measured, Qt.Key.Key_Return)
    assert len(maker.session.project.log) == 2
    page.choice.choose("curve")
    qtbot.waitUntil(lambda: page.title.text() == "A curve with pins", timeout=WAIT)
    before = len(maker.session.project.blocks)
    page.add.click()
    assert len(maker.session.project.blocks) == before + 1


def test_the_quilt_shows_its_rows(maker, qtbot):
    maker.session.start(load(DEMO), None)
    maker.stage("bench")
    maker.window.bench.turn_to("forecast")
    page = maker.window.bench.forecast
    qtbot.waitUntil(lambda: page.quilt is not None, timeout=60_000)
    assert page.rows.isVisible()
    assert texts(page.quilt_lines)[0].split()[-1].rstrip(".") in ("pinned", "seam")
    page.rows.grab()
    assert len(page.quilt.rows) == 17


def test_what_is_advised_is_done_by_a_click_and_undone(maker, qtbot):
    """Geese of single triangles: another way leaves less off, and becomes the block's."""
    page = opened(maker, tray_block(TRAY["Flying geese"]), "forecast")
    qtbot.waitUntil(lambda: bool(page.do_it), timeout=WAIT)
    session = maker.session
    before = session.project
    wanted = next(each.project for each in page.advice if each.project is not None)
    page.do_it[0].click()
    assert session.project == wanted != before
    session.undo()
    assert session.project == before
