"""The ticket of the page “Centre a motif”: lengths, fabrics, the photograph, many panels."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QFileDialog, QGridLayout, QVBoxLayout, QWidget

from inlet.core.numbers import Exact, Fraction, parse_length, show, vulgar_text
from inlet.core.words import size_text
from inlet.ui import theme
from inlet.ui.remake.panel_model import LARGEST_PHOTO
from inlet.ui.remake.panels_page import PanelsPage
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.parts import Link, ValueEdit, button, column, label, row, rule, when_seen
from inlet.ui.widgets.pictures import PICTURES, not_a_picture, read_picture

PARTS = (
    ("Piece, wide", "piece", 0), ("Piece, high", "piece", 1), ("Motif, wide", "motif", 0),
    ("Motif, high", "motif", 1), ("Free on the left", "left", None), ("Free above", "top", None),
    ("Lost to wandering", "wander", None), ("Stabiliser beyond", "margin", None),
)  # fmt: skip
MOST_INCHES = 120


class PanelsTicket(QWidget):
    def __init__(self, page: PanelsPage) -> None:
        super().__init__()
        self.page, self.model = page, page.model
        self.setObjectName("ticketBody")
        layout = column(self, 16, 8)
        self.title = label("", "title", True)
        layout.addWidget(self.title)
        self.body = QWidget()
        body = column(self.body, 0, 8)
        body.addWidget(rule())
        self._add_lengths(body)
        body.addWidget(rule())
        self._add_photo(body)
        layout.addWidget(self.body)
        self.many = QWidget()
        self._add_many(column(self.many, 0, 8))
        layout.addWidget(self.many)
        layout.addStretch(1)
        when_seen(self, self.refresh, self.model.changed)()

    def _add_lengths(self, layout: QVBoxLayout) -> None:
        """What is measured, and of which fabric it is."""
        grid = QGridLayout()
        grid.setSpacing(theme.px(5))
        self.lengths: dict[tuple[str, int | None], ValueEdit] = {}
        for i, (words, name, which) in enumerate(PARTS):
            edit = self._edit(words, partial(self._take, name, which))
            self.lengths[name, which] = edit
            grid.addWidget(label(words, "small", True), i, 0)
            grid.addWidget(edit, i, 1)
        self.fabric = ChoiceField("Fabric of the piece", lambda to: self.model.edit(fabric=to))
        self.added = ChoiceField("Fabric of strips added", lambda to: self.model.edit(added=to))
        layout.addWidget(label("Measured", "heading"))
        layout.addLayout(grid)
        layout.addLayout(field("Piece of", self.fabric))
        layout.addLayout(field("Added strips", self.added))

    def _add_photo(self, layout: QVBoxLayout) -> None:
        """A photograph of the piece, and its scale."""
        layout.addWidget(label("Photograph", "heading"))
        self.photo = button("Choose…", self.choose_photo)
        self.no_photo = button("Remove", self.model.drop_photo)
        layout.addLayout(row(self.photo, self.no_photo, 1))
        self.scale = QWidget()
        scale = column(self.scale, 0, 4)
        self.distance = self._edit("The two places are apart", self._take_distance)
        scale.addWidget(
            label("Drag the two places onto the ends of something measured, then the corners of "
                  "the piece and of the motif.", "small", True)
        )  # fmt: skip
        scale.addLayout(row(label("Two places apart", "small"), self.distance, 1))
        layout.addWidget(self.scale)
        loose = Link("Draw on it freely: it is a panel no longer")
        loose.followed.connect(self.model.let_go)
        layout.addWidget(loose)

    def _add_many(self, layout: QVBoxLayout) -> None:
        """All panels of the project sized together."""
        layout.addWidget(rule())
        layout.addWidget(label("All panels", "heading"))
        grid = QGridLayout()
        grid.setSpacing(theme.px(5))
        self.margin = self._edit("Margin round each motif", self._take_margin)
        self.grid = self._edit("Sizes in steps of", self._take_grid)
        self.across = self._edit("Top, wide", self._take_across)
        for i, edit in enumerate((self.margin, self.grid, self.across)):
            grid.addWidget(label(edit.accessibleName(), "small", True), i, 0)
            grid.addWidget(edit, i, 1)
        self.same = button("", self.model.take_same_size)
        self.own = button("A size for each motif", self.model.take_own_sizes)
        layout.addLayout(grid)
        layout.addWidget(self.same)
        layout.addWidget(self.own)

    def _edit(self, name: str, take: Callable[[str], object]) -> ValueEdit:
        edit = ValueEdit(name, take, 44)
        edit.refused.connect(self.model.session.said)
        return edit

    # --- showing ------------------------------------------------------------------------------

    def refresh(self) -> None:
        model, session = self.model, self.model.session
        self.title.setText(session.block.title)
        panel, system = model.panel, session.measure.system
        self.body.setVisible(panel is not None)
        self.many.setVisible(len(model.panels) > 1)
        if panel is not None:
            usual = {"wander": session.measure.squared_off, "margin": 2 * system.coarse}
            for (name, which), edit in self.lengths.items():
                value = getattr(panel, name)
                length: Exact = usual[name] if value is None else value
                if which is not None:
                    length = value[which]
                edit.show_value(show(length, system=system, ruler=True))
            fabrics = [(fabric.title, fabric.id) for fabric in session.project.fabrics]
            self.fabric.offer(fabrics, panel.fabric)
            self.added.offer([("of the same fabric", ""), *fabrics], panel.added)
            self.no_photo.setVisible(panel.photo is not None)
            self.scale.setVisible(panel.photo is not None)
            if panel.photo is not None:
                self.distance.show_value(show(panel.photo.distance, system=system, ruler=True))
        if len(model.panels) > 1:
            for edit, length in ((self.margin, model.usual_margin), (self.grid, model.usual_grid),
                                 (self.across, model.usual_across)):  # fmt: skip
                edit.show_value(show(length, system=system, ruler=True))
            size = size_text(model.same_size, session.measure)
            self.same.setText(vulgar_text(f"One size for all: {size}"))

    # --- taking -------------------------------------------------------------------------------

    def _length(self, text: str, least: Exact) -> Fraction:
        measure = self.model.session.measure
        length = parse_length(text, measure.system)
        most = measure.from_inches(Fraction(MOST_INCHES))
        if not isinstance(length, Fraction) or not least <= length <= most:
            low, high = (show(end, system=measure.system, ruler=True) for end in (least, most))
            raise ValueError(f"it must be from {low} to {high}")
        return length

    def _take(self, name: str, which: int | None, text: str) -> None:
        panel = self.model.panel
        if panel is None:
            return
        if which is None:
            self.model.edit(**{name: self._length(text, Fraction(0))})
            return
        pair = list(getattr(panel, name))
        pair[which] = self._length(text, self.model.session.measure.mark)
        self.model.edit(**{name: (pair[0], pair[1])})

    def choose_photo(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Photograph of the piece", "", PICTURES)
        if name:
            self.take_photo(name)

    def take_photo(self, name: str) -> None:
        """The photograph in a file; a sentence where it is none."""
        image = read_picture(name, LARGEST_PHOTO)
        if image is None:
            self.model.session.said.emit(not_a_picture(name))
        else:
            self.model.take_photo(image)

    def _take_distance(self, text: str) -> None:
        self.model.take_distance(self._length(text, self.model.session.measure.mark))

    def _take_margin(self, text: str) -> None:
        self.model.margin = self._length(text, Fraction(0))
        self.model.changed.emit()

    def _take_grid(self, text: str) -> None:
        self.model.grid = self._length(text, self.model.session.measure.mark)
        self.model.changed.emit()

    def _take_across(self, text: str) -> None:
        self.model.across = self._length(text, self.model.session.measure.mark)
        self.model.changed.emit()
