"""The hand learnt from the log, at the bench and from the command line."""

from __future__ import annotations

import re

from inlet.command_line import main
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import vulgar_text
from inlet.core.project import Rates, replace
from inlet.files.project.project_json import load, save
from inlet.ui import theme
from tests.core.hand.test_hand import logged
from tests.core.hand.test_minutes import slow_log


def test_the_hand_is_told_the_same_at_the_bench_and_from_the_command_line(
    maker, qtbot, tmp_path, capsys
):
    narrow = F(19, 2) - F(1, 8)
    _, project = logged(*[(narrow, F(19, 2))] * 4)
    path = tmp_path / "strips.inlet"
    save(project, path)
    assert main(["log", str(path), "--hand"]) == 0
    told = capsys.readouterr().out.splitlines()
    assert "Your seam takes 0.281 in" in told[0]
    maker.session.start(project, path)
    maker.wait()
    maker.stage("bench")
    bench = maker.window.bench
    bench.page_buttons["hand"].click()
    page = bench.hand
    qtbot.waitUntil(lambda: page.picture.estimate is not None, timeout=20000)
    words = [
        lines.itemAt(i).widget().text()
        for lines in (page.lines, page.times)
        for i in range(lines.count())
    ]
    assert words == [vulgar_text(line) for line in told]
    shown = page.picture.grab().toImage()
    row = [shown.pixelColor(x, shown.height() // 2) for x in range(shown.width())]
    assert theme.ACCENT in row  # the learnt seam
    reds = [x for x, colour in enumerate(row) if colour == theme.ACCENT]
    left, wide = theme.px(16), shown.width() / shown.devicePixelRatio() - 2 * theme.px(16)
    expected = (left + wide * (9 / 32) / (2.2 * 0.25)) * shown.devicePixelRatio()
    assert abs(sum(reds) / len(reds) - expected) < 3


def test_without_measurements_the_page_says_what_to_do(maker):
    maker.stage("bench")
    maker.wait()
    maker.window.bench.turn_to("hand")
    page = maker.window.bench.hand
    maker.bot.waitUntil(lambda: page.hand is not None, timeout=20000)
    assert "type their sizes at Made sizes" in maker.reads(page)
    assert not page.picture.isVisible()


def test_learnt_minutes_become_the_rates_at_the_bench_and_from_the_command_line(
    maker, qtbot, tmp_path, capsys
):
    _, project = slow_log(2.0)
    path, changed = tmp_path / "slow.inlet", tmp_path / "changed.inlet"
    save(project, path)
    command = ["log", str(path), "--copies", "96", "--hand"]
    assert main(command) == 0
    told = next(line for line in capsys.readouterr().out.splitlines() if "Sewing takes" in line)
    assert re.match(r"Sewing takes (19[7-9]|20[0-3]) % of the time your rates say", told)
    assert main([*command, "--use-rates", "-o", str(changed)]) == 0
    assert "Sewing takes as long as your rates say" in capsys.readouterr().out
    assert load(changed).rates == replace(Rates(), seam=20, length=30)
    maker.session.start(project, path)
    maker.session.set_copies(96)
    maker.wait()
    maker.stage("bench")
    maker.window.bench.turn_to("hand")
    page = maker.window.bench.hand
    qtbot.waitUntil(lambda: page.use_rates.isVisible(), timeout=20000)
    assert vulgar_text(told) in maker.reads(page)
    page.use_rates.click()
    assert maker.session.project.rates == load(changed).rates
    qtbot.waitUntil(lambda: not page.use_rates.isVisible(), timeout=20000)
    maker.session.undo()
    assert maker.session.project.rates is None
