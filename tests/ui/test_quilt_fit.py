"""Edges of a quilt that differ, in the window: seen on the top, told on the ticket, answered."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QColor
from PySide6.QtWidgets import QPushButton

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.quilt import Border, Quilt, Sashing
from inlet.ui import theme
from inlet.ui.widgets.parts import Link
from tests.core.plan.test_quilt_fit import at, blocks, of, three_in_a_row
from tests.ui.test_quilt_stage import Setter


@pytest.fixture
def setter(maker):
    return Setter(maker)


def use(setter, title):
    """Take an answer by its button."""
    buttons = setter.ticket.fit.findChildren(QPushButton)
    next(b for b in buttons if b.accessibleName() == f"Use: {title}").click()
    setter.rests()


def test_where_edges_differ_is_marked_and_an_answer_is_taken(setter):
    """A lozenge lies in the middle of each seam; bands on marks make all three come out alike."""
    setter.open(three_in_a_row())
    assert "differ by up to ⁵⁄₆₄ in at 2 seams" in setter.problems
    seam = setter.plan.apart[0]

    def is_marked():
        x, y = ((a + b) / 2 for a, b in zip(seam.begin, seam.end, strict=True))
        spot = setter.top.frame_.map(QPointF(x, y)).toPoint()
        return setter.top.grab().toImage().pixelColor(spot) == QColor(theme.ACCENT)

    assert is_marked()
    setter.stage.apart.click()
    assert not is_marked()
    setter.stage.apart.click()
    setter.page("fit")
    assert "Crossed is" in setter.ticket.fit.differs.text()
    assert "Churn has points at the edge" in setter.maker.reads(setter.ticket.fit)
    use(setter, "Bands on marks")
    assert setter.session.measure.awkward == "bands"
    assert setter.ticket.fit.differs.text() == "All edges meet within a thread."
    assert not setter.stage.apart.isVisible()
    setter.session.undo()
    setter.rests()
    assert len(setter.plan.apart) == 2
    use(setter, "Another size")
    assert {block.finished for block in setter.session.project.blocks} == {(F(21, 2), F(21, 2))}
    assert setter.ticket.fit.answers == ()


def test_trimming_is_in_use_and_may_be_given_up(setter):
    nine, crossed, _ = blocks(F(43, 4))
    spots = at(1, 0, "crossed"), at(0, 1, "crossed")
    setter.open(of(Quilt(columns=2, rows=2, block="nine", places=spots), nine, crossed))
    setter.page("fit")
    assert [a.remedy for a in setter.ticket.fit.answers if a.in_use] == ["trim"]
    assert any(step.title == "Trim 2 × Crossed" for step in setter.plan.steps)
    use(setter, "Ease")
    assert setter.quilt.uneven == "ease"
    assert "Crossed is" in setter.ticket.fit.differs.text()
    (usual,) = setter.ticket.fit.findChildren(Link)
    setter.bot.keyClick(usual, Qt.Key.Key_Return)
    setter.rests()
    assert setter.quilt.uneven == ""
    assert setter.ticket.fit.differs.text() == "All edges meet within a thread."


def test_a_size_as_made_is_typed_and_all_follows(setter):
    """12 in blocks that measured 12 7/16: sashing, rows and border follow; undo brings all back."""
    nine = blocks(F(12))[0]
    quilt = Quilt(
        columns=3, rows=2, block="nine", sashing=Sashing(width=F(1), fabric="a"),
        borders=(Border(width=F(2), fabric="c"),),
    )  # fmt: skip
    setter.open(of(quilt, nine))
    before = setter.plan
    assert setter.ticket.finished.text() == "42 x 29 in"
    setter.type("The block measured when made", "12 7/16")
    sash = {cut.cut for cut in setter.plan.setting.cuts}
    assert (F(3, 2), F(199, 16)) in sash
    assert setter.ticket.finished.text() == "41¹³⁄₁₆ x 28⅞ in"
    assert setter.plan.rows[0].length == F(613, 16)
    border = next(c for c in setter.plan.setting.cuts if c.label.endswith("sides"))
    assert border.cut[1] == 2 * F(191, 16) + 1 + F(1, 2)
    setter.session.undo()
    setter.rests()
    assert setter.plan.size == before.size
    assert setter.quilt == quilt


def test_blocks_turned_to_nest_may_lie_as_they_are_placed(setter):
    """Nine patches: every other one is turned; the mark of its turn moves to its next corner."""
    nine = blocks(F(9))[0]
    setter.open(of(Quilt(columns=2, rows=2, block="nine"), nine))
    page = setter.ticket.setting
    assert "Every other Nine is turned a quarter" in page.nests_words.text()
    assert set(setter.top.turned_to_nest) == {("nine", 0, 1), ("nine", 1, 0)}
    page.nests.click()
    setter.rests()
    assert setter.quilt.as_placed
    assert setter.top.turned_to_nest == {}
    assert page.nests_words.text() == "Every block lies as it is placed."
    page.nests.click()
    setter.rests()
    assert not setter.quilt.as_placed
    assert page.nests.isChecked()
