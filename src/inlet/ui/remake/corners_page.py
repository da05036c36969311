"""The page “Improvised corners”: a scrap tried on a corner, squares drawn by chance."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QVBoxLayout, QWidget

from inlet.core.improvised import corners_of_strip, trial_text
from inlet.core.numbers import Fraction, parse_length, show, vulgar_text
from inlet.core.plan import plan_quilt
from inlet.core.project import Project
from inlet.core.setting import squares_on_top
from inlet.core.words import length_text, size_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.quilt.scene import Scene, TopLook
from inlet.ui.quilt.top_view import TopView
from inlet.ui.remake.corner_picture import CornerPicture
from inlet.ui.remake.improvising import Improvising
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.parts import ValueEdit, button, column, label, when_seen

LARGE_TEXT = 1.4
"""From this size of text on the pictures stand below one another."""


@guarded
class CornersPage(QWidget):
    pointed = Signal(object)
    shown = Signal()

    def __init__(self, improvising: Improvising) -> None:
        super().__init__()
        self.setObjectName("pageBody")
        self.improvising = improvising
        self.scene: Scene | None = None
        self._asked: Project | None = None
        layout = column(self, 0, 8)
        large = theme.text_scale() >= LARGE_TEXT
        pictures: QBoxLayout = QVBoxLayout() if large else QHBoxLayout()
        pictures.setSpacing(theme.px(16))
        pictures.addLayout(self._trial_side(), 2)
        pictures.addLayout(self._field_side(), 3)
        layout.addLayout(pictures, 1)
        self.picture.pointed.connect(self.pointed)
        self._refresh = when_seen(self, self.refresh, improvising.changed)

    def _trial_side(self) -> QVBoxLayout:
        """Does a scrap cover?"""
        improvising, side = self.improvising, column(spacing=6)
        self.verdict = label("", "size", True)
        self.picture = CornerPicture(improvising)
        self.least = label("", "", True)
        asked = QWidget()
        flow = FlowLayout(asked, 0, theme.px(6))
        self.length = ValueEdit("Scrap, along the seam", partial(self._take_scrap, 0), 56)
        self.width_ = ValueEdit("Scrap, across the seam", partial(self._take_scrap, 1), 56)
        take = button("Take the smallest that covers", self.take_least)
        for words, widget in (
            ("Scrap", self.length), ("by", self.width_), ("", take),
        ):  # fmt: skip
            if words:
                flow.addWidget(label(words))
            flow.addWidget(widget)
        for edit in (self.length, self.width_):
            edit.refused.connect(improvising.session.said)
        side.addWidget(self.verdict)
        side.addWidget(self.picture, 1)
        side.addWidget(asked)
        side.addWidget(self.least)
        return side

    def _field_side(self) -> QVBoxLayout:
        """The squares, as they lie in the quilt or in a field."""
        side = column(spacing=6)
        self.number = label("", "size", True)
        self.begin = button("Give this square improvised corners", self.improvising.begin,
                            kind="primary")  # fmt: skip
        self.about = label("", "", True)
        self.field = TopView()
        self.field.setAccessibleName("Squares with improvised corners")
        self.field.marks = False
        self.field.picked.connect(lambda _: self.shown.emit())
        nearer = button("Nearer", lambda: self.field.zoom(1.25))
        farther = button("Farther", lambda: self.field.zoom(0.8))
        whole = button("Whole", self.field.fit)
        self.tools = QWidget()
        flow = FlowLayout(self.tools, 0, theme.px(6))
        for widget in (nearer, farther, whole):
            flow.addWidget(widget)
        for part in (self.number, self.about, self.begin):
            side.addWidget(part)
        side.addWidget(self.field, 1)
        side.addWidget(self.tools)
        return side

    # --- showing ------------------------------------------------------------------------------

    def refresh(self) -> None:
        improvising, session = self.improvising, self.improvising.session
        trial, measure = improvising.trial, session.measure
        self.verdict.setText(vulgar_text(trial_text(trial, measure)))
        self.verdict.setProperty("wrong", not trial.covers)
        system = measure.system
        self.length.show_value(show(trial.scrap.length, system=system, ruler=True))
        self.width_.show_value(show(trial.scrap.width, system=system, ruler=True))
        size = size_text((trial.least.length, trial.least.width), measure)
        usable = system.fabric_width
        number = corners_of_strip(trial, usable)
        self.least.setText(
            vulgar_text(
                f"Smallest scrap for this seam: {size}, its first side along the seam. A strip "
                f"{length_text(usable, measure)} long does {number} corners like this."
            )
        )
        ready = improvising.improvised is not None
        for part in (self.field, self.tools):
            part.setVisible(ready)
        self.begin.setVisible(not ready)
        if not ready:
            self._explain()
            return
        self.field.set_look(TopLook(grey=session.grey))
        laid = improvising.laid
        if self._asked != laid:
            self._asked = laid
            session.think(partial(_scene, laid), partial(self._arrived, laid))
        self._show_number()

    def _explain(self) -> None:
        single = len(self.improvising.session.draft.patches) == 1
        self.number.setText("Scraps over the corners of squares")
        self.about.setVisible(True)
        self.about.setText(
            "Every corner at another angle, none like its neighbours: chance draws them within "
            "your bounds, always the same for its number."
            + ("" if single else " A new square is added to the project for them.")
        )
        words = "Give this square improvised corners" if single else "Add an improvised square"
        self.begin.setText(words)

    def _show_number(self) -> None:
        session = self.improvising.session
        problems = [p.text for p in session.plan.problems if p.code.startswith("corner")
                    ] if session.plan is not None else []  # fmt: skip
        self.about.setVisible(bool(problems))
        self.about.setText(vulgar_text(" ".join(problems)))
        self.number.setText(self.number_text())

    def number_text(self) -> str:
        squares, corners = self.count()
        if not squares:
            return "…" if self.scene is None else "No corners"
        return f"{squares:,} squares, {corners:,} corners"

    def count(self) -> tuple[int, int]:
        """Squares and corners of what is shown."""
        if self.scene is None:
            return 0, 0
        squares = [
            square
            for key, square in squares_on_top(self.scene.top, self.scene.project).every()
            if key[0] == self.improvising.session.block.id
        ]
        return len(squares), sum(len(square.seams) for square in squares)

    def _arrived(self, laid: Project, scene: Scene | None) -> None:
        if self._asked is laid:
            self.scene = scene
            self.field.show_scene(scene)
            self._show_number()
            self.shown.emit()

    # --- the trial ----------------------------------------------------------------------------

    def _take_scrap(self, which: int, text: str) -> None:
        measure = self.improvising.session.measure
        length = parse_length(text, measure.system)
        most = measure.from_inches(Fraction(120))
        if not isinstance(length, Fraction) or not measure.mark <= length <= most:
            raise ValueError(f"it must be from {show(measure.mark)} to {show(most)}")
        scrap = self.improvising.trial.scrap
        sides = [scrap.length, scrap.width]
        sides[which] = length
        self.improvising.take_scrap(sides[0], sides[1], self.improvising.trial.slide)

    def take_least(self) -> None:
        least = self.improvising.trial.least
        self.improvising.take_scrap(least.length, least.width, Fraction(0))


def _scene(project: Project) -> Scene | None:
    plan = plan_quilt(project)
    return Scene(plan.top, project) if plan.top.rows else None
