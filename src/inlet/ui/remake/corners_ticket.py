"""The ticket of the page “Improvised corners”: bounds, fabrics, counts, pace."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from functools import partial

from PySide6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from inlet.core.improvised import pace_of, pace_text, scrap_pool, seam_text
from inlet.core.numbers import Exact, parse_length, show, vulgar_text
from inlet.core.project import MOST_MINUTES, Rates
from inlet.core.setting import squares_on_top
from inlet.core.words import size_text
from inlet.ui import theme
from inlet.ui.remake.corners_page import CornersPage
from inlet.ui.remake.improvising import MOST_CORNERS
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.inputs import CheckBox
from inlet.ui.widgets.parts import (
    Link,
    ValueEdit,
    button,
    column,
    empty,
    label,
    row,
    rule,
    when_seen,
)

LENGTHS = (("nearest", "Seams end from"), ("farthest", "to"), ("step", "in steps of"))
MOST_LISTED = 12


class CornersTicket(QWidget):
    def __init__(self, page: CornersPage) -> None:
        super().__init__()
        self.page, self.improvising = page, page.improvising
        self.setObjectName("ticketBody")
        layout = column(self, 16, 8)
        self.title = label("", "title", True)
        layout.addWidget(self.title)
        self.body = QWidget()
        body = column(self.body, 0, 8)
        body.addWidget(rule())
        self._add_bounds(body)
        body.addWidget(rule())
        self._add_fabrics(body)
        body.addWidget(rule())
        self._add_counts(body)
        layout.addWidget(self.body)
        layout.addStretch(1)
        when_seen(self, self.refresh, self.improvising.changed, page.shown)()

    def _add_bounds(self, layout: QVBoxLayout) -> None:
        """How seams may lie."""
        grid = QGridLayout()
        grid.setSpacing(theme.px(5))
        self.lengths: dict[str, ValueEdit] = {}
        for i, (name, words) in enumerate(LENGTHS):
            edit = self._edit(words, partial(self._take_length, name))
            self.lengths[name] = edit
            grid.addWidget(label(words, "small", True), i, 0)
            grid.addWidget(edit, i, 1)
        self.steepest = self._edit("Longer side at most, times", self._take_steepest)
        self.number = self._edit("Corners of a square", self._take_number)
        self.number.setToolTip("As 1 to 3, or 2")
        self.seed = self._edit("Chance number", self._take_seed)
        for i, (words, edit) in enumerate(
            (("Longer side at most, times", self.steepest), ("Corners of a square", self.number),
             ("Chance number", self.seed)), len(LENGTHS),
        ):  # fmt: skip
            grid.addWidget(label(words, "small", True), i, 0)
            grid.addWidget(edit, i, 1)
        layout.addWidget(label("How seams lie", "heading"))
        layout.addLayout(grid)
        layout.addLayout(row(button("Draw again", self._again), 1))

    def _add_fabrics(self, layout: QVBoxLayout) -> None:
        """What is sewn on."""
        layout.addWidget(label("Fabrics of the corners", "heading"))
        self.fabric_boxes = column(spacing=3)
        self.boxes: dict[str, CheckBox] = {}
        layout.addLayout(self.fabric_boxes)
        self.contrast = self._check("Only what contrasts", "contrast")
        self.balance = self._check("All equally often", "balance")
        self.cards = self._check("Say where seams lie", "cards")
        self.scraps = ChoiceField("Scraps come from", lambda to: self.improvising.edit(scraps=to))
        self.offcuts = ChoiceField("Behind", lambda to: self.improvising.edit(offcuts=to))
        for widget in (self.contrast, self.balance, self.cards):
            layout.addWidget(widget)
        layout.addLayout(field("Scraps", self.scraps))
        layout.addLayout(field("Behind", self.offcuts))

    def _add_counts(self, layout: QVBoxLayout) -> None:
        """How many, how far, until when."""
        self.counts = label("", "figure", True)
        self.pool = label("", "small", True)
        self.columns, self.rows = (
            self._edit(words, partial(self._take_field, i))
            for i, words in enumerate(("Squares across", "Squares down"))
        )
        self.set_quilt = button("Set the quilt so", self.improvising.set_quilt)
        self.field = QWidget()
        lines = column(self.field, 0, 4)
        lines.addLayout(row(label("Squares", "small"), self.columns, label("x", "small"),
                            self.rows, 1))  # fmt: skip
        lines.addWidget(self.set_quilt)
        self.sewn = self._edit("Corners sewn so far", self._take_sewn)
        self.minutes = self._edit("Minutes it took", self._take_minutes)
        self.progress = QWidget()
        grid = QGridLayout(self.progress)
        grid.setContentsMargins(0, 0, 0, 0)
        for i, (words, edit) in enumerate(
            (("Corners sewn so far", self.sewn), ("Minutes it took", self.minutes))
        ):
            grid.addWidget(label(words, "small", True), i, 0)
            grid.addWidget(edit, i, 1)
        self.pace = label("", "", True)
        self.card = label("", "small", True)
        remove = Link("Take the corners off this square")
        remove.followed.connect(self.improvising.remove)
        for widget in (self.counts, self.field, self.progress, self.pace, self.pool, self.card,
                       remove):  # fmt: skip
            layout.addWidget(widget)

    def _edit(self, name: str, take: Callable[[str], object]) -> ValueEdit:
        edit = ValueEdit(name, take, 44)
        edit.refused.connect(self.improvising.session.said)
        return edit

    def _check(self, words: str, name: str) -> CheckBox:
        box = CheckBox(words)
        box.toggled.connect(lambda on: self.improvising.edit(**{name: on}))
        return box

    # --- showing ------------------------------------------------------------------------------

    def refresh(self) -> None:
        improvising, session = self.improvising, self.improvising.session
        self.title.setText(session.block.title)
        improvised = improvising.improvised
        self.body.setVisible(improvised is not None)
        if improvised is None:
            return
        system = session.measure.system
        for name, edit in self.lengths.items():
            edit.show_value(show(getattr(improvised, name), system=system, ruler=True))
        self.steepest.show_value(show(improvised.steepest))
        fewest, most = improvised.fewest, improvised.most
        self.number.show_value(f"{fewest}" if fewest == most else f"{fewest} to {most}")
        self.seed.show_value(str(improvised.seed))
        self._show_fabrics()
        for box, on in ((self.contrast, improvised.contrast), (self.balance, improvised.balance),
                        (self.cards, improvised.cards)):  # fmt: skip
            box.blockSignals(True)
            box.setChecked(on)
            box.blockSignals(False)
        self.scraps.offer((("cut from fabric", "cut"), ("from the scrap basket", "basket")),
                          improvised.scraps)  # fmt: skip
        self.offcuts.offer((("trimmed to the allowance", "trimmed"), ("left as it is", "left")),
                           improvised.offcuts)  # fmt: skip
        self._show_counts()

    def _show_fabrics(self) -> None:
        improvised, project = self.improvising.improvised, self.improvising.session.project
        assert improvised is not None, "only improvised corners have fabrics"
        ground = self.improvising.fabrics[0]
        ids = [fabric.id for fabric in project.fabrics if fabric.id != ground]
        if list(self.boxes) != ids:
            empty(self.fabric_boxes)
            self.boxes = {}
            for name in ids:
                box = CheckBox()
                box.toggled.connect(partial(self._take_fabric, name))
                self.boxes[name] = box
                self.fabric_boxes.addWidget(box)
        for name, box in self.boxes.items():
            fabric = project.fabric(name)
            box.setText(fabric.title if fabric is not None else name)
            box.blockSignals(True)
            box.setChecked(name in improvised.fabrics)
            box.blockSignals(False)

    def _show_counts(self) -> None:
        improvising, page = self.improvising, self.page
        improvised, session = improvising.improvised, improvising.session
        assert improvised is not None, "only improvised corners are counted"
        in_quilt = improvising.block_of(session.project)
        self.field.setVisible(not in_quilt)
        self.progress.setVisible(in_quilt)
        self.pace.setVisible(in_quilt)
        for edit, number in zip((self.columns, self.rows), improvising.field, strict=True):
            edit.show_value(str(number))
        self.counts.setText(page.number_text())
        self.sewn.show_value(str(improvising.sewn))
        self.minutes.show_value(str(improvising.minutes))
        self.pool.setText("")
        self.card.setText("")
        scene = page.scene
        if scene is None:
            return
        squares = squares_on_top(scene.top, scene.project)
        own = [s for key, s in squares.every() if key[0] == session.block.id]
        pool = scrap_pool(own, session.measure)
        rates = session.project.rates or Rates()
        pace = pace_of(pool, improvising.sewn, improvising.minutes, rates, session.measure)
        self.pace.setText(
            pace_text(pace, date.fromisoformat(session.now[:10])) if pool.corners else ""
        )
        sizes: dict[tuple[Exact, Exact], int] = {}
        for (size, _), number in pool.scraps.items():
            key = size.length, size.width
            sizes[key] = sizes.get(key, 0) + number
        lines = [
            f"{number:,} × {size_text(size, session.measure)}"
            for size, number in sorted(sizes.items(), reverse=True)
        ]
        more = len(lines) - MOST_LISTED
        words = ", ".join(lines[:MOST_LISTED]) + (f" and {more} smaller sizes" if more > 0 else "")
        self.pool.setText(vulgar_text(f"Scraps: {words}." if lines else ""))
        if improvised.cards:
            self._show_card()

    def _show_card(self) -> None:
        """Where the seams of the square that is picked lie."""
        page, measure = self.page, self.improvising.session.measure
        scene, spots = page.scene, page.field.spots
        if scene is None or not spots:
            self.card.setText("Pick a square to see where its seams lie.")
            return
        column_, row_ = spots[-1]
        squares = squares_on_top(scene.top, scene.project)
        square = squares.in_place(column_, row_)
        lines = [f"Row {row_ + 1}, square {column_ + 1}"]
        if square is not None:
            lines += [seam_text(seam, measure) for seam in square.seams]
        self.card.setText(vulgar_text("\n".join(lines)))

    # --- taking -------------------------------------------------------------------------------

    def _take_length(self, name: str, text: str) -> None:
        session = self.improvising.session
        self._checked(**{name: parse_length(text, session.measure.system)})

    def _take_steepest(self, text: str) -> None:
        self._checked(steepest=parse_length(text, self.improvising.session.measure.system))

    def _take_number(self, text: str) -> None:
        numbers = [_whole(part, 0, 4) for part in text.replace("-", " to ").split("to")]
        if len(numbers) > 2 or numbers[0] > numbers[-1]:
            raise ValueError("type a number of corners, as 2, or from the fewest to the most")
        self._checked(fewest=numbers[0], most=numbers[-1])

    def _take_seed(self, text: str) -> None:
        self._checked(seed=_whole(text, -(2**31), 2**31))

    def _checked(self, **changes: object) -> None:
        """Edit; say so where no file holds it."""
        self.improvising.edit(**changes)

    def _take_fabric(self, name: str, on: bool) -> None:
        improvised = self.improvising.improvised
        if improvised is None:
            return
        names = set(improvised.fabrics) | {name} if on else set(improvised.fabrics) - {name}
        ordered = [f.id for f in self.improvising.session.project.fabrics if f.id in names]
        self.improvising.edit(fabrics=tuple(ordered))

    def _again(self) -> None:
        improvised = self.improvising.improvised
        if improvised is not None:
            self.improvising.edit(seed=improvised.seed % 2**31 + 1)

    def _take_field(self, which: int, text: str) -> None:
        number = _whole(text, 1, MOST_ACROSS)
        size = list(self.improvising.field)
        size[which] = number
        self.improvising.field = size[0], size[1]
        self.improvising.changed.emit()

    def _take_sewn(self, text: str) -> None:
        self.improvising.take_sewn(_whole(text, 0, MOST_CORNERS))

    def _take_minutes(self, text: str) -> None:
        self.improvising.take_minutes(_whole(text, 0, MOST_MINUTES))


MOST_ACROSS = 100
"""Squares of a field each way."""


def _whole(text: str, least: int, most: int) -> int:
    """A whole number typed. Raises ``ValueError`` where it is none within the bounds."""
    try:
        number = int(text.replace(",", ""))
    except ValueError:
        raise ValueError("type a whole number") from None
    if not least <= number <= most:
        raise ValueError(f"it must be from {least:,} to {most:,}")
    return number
