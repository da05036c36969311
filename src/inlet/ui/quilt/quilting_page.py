"""Lines to quilt along: inside patches, along seams, or a grid all over."""

from __future__ import annotations

from functools import partial
from typing import cast

from PySide6.QtWidgets import QWidget

from inlet.core.numbers import vulgar_text
from inlet.core.project import MOST_ECHOES, Quilt, QuiltingKind, QuiltingLines, replace
from inlet.core.setting import quilted_text, quilting_words, usual_apart, usual_distance
from inlet.core.words import unit_of
from inlet.ui.guard import guarded
from inlet.ui.quilt.fields import LengthEdit, fabric_choices
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.inputs import NumberBox
from inlet.ui.widgets.parts import Link, column, empty, icon_button, label, row, rule

KINDS = [
    ("inside patches", "echo"), ("along the seams", "seams"), ("a grid all over", "grid")
]  # fmt: skip
MOST_LINES = 8


@guarded
class QuiltingPage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 0, 7)
        self.list = column(spacing=7)
        layout.addLayout(self.list)
        self.add = Link("Add quilting lines")
        self.add.followed.connect(self.add_lines)
        layout.addWidget(self.add)
        self.length = label("", "caption", True)
        layout.addWidget(self.length)
        session.quilted.connect(self._say_length)

    @property
    def quilt(self) -> Quilt:
        return self.session.project.quilt or Quilt()

    def refresh(self) -> None:
        project, measure = self.session.project, self.session.measure
        empty(self.list)
        for i, lines in enumerate(self.quilt.quilting):
            name = f"Lines {i + 1}"
            away = icon_button("x", f"Take lines {i + 1} away", partial(self._away, i))
            self.list.addLayout(row(label(name, "heading"), 1, away))
            kind = ChoiceField(f"{name}, where", partial(self._set, i, "kind"))
            kind.offer(KINDS, lines.kind)
            self.list.addLayout(field("", kind))
            distance = LengthEdit(
                self.session, f"{name}, distance", partial(self._set, i, "distance"), True
            )
            usual = usual_apart(measure) if lines.kind == "grid" else usual_distance(measure)
            distance.show_length(lines.distance if lines.distance is not None else usual)
            unit = label(unit_of(measure))
            if lines.kind == "echo":
                fabric = ChoiceField(f"{name}, in which patches", partial(self._set, i, "fabric"))
                fabric.offer(fabric_choices(project, "of every fabric"), lines.fabric)
                many = NumberBox()
                many.setRange(1, MOST_ECHOES)
                many.setValue(lines.repeats)
                many.setAccessibleName(f"{name}, how many")
                many.valueChanged.connect(partial(self._set, i, "repeats"))
                self.list.addLayout(field("", fabric))
                self.list.addLayout(row(many, label("lines,"), distance, unit, 1))
            elif lines.kind == "grid":
                way = ChoiceField(f"{name}, which way", partial(self._set, i, "diagonal"))
                way.offer(
                    [("square to the edge", False), ("on the diagonal", True)], lines.diagonal
                )
                self.list.addLayout(row(distance, unit, label("apart"), 1))
                self.list.addLayout(field("", way))
            words = vulgar_text(quilting_words(lines, project))
            self.list.addWidget(label(words, "caption", True))
            self.list.addWidget(rule())
        self.add.setVisible(len(self.quilt.quilting) < MOST_LINES)
        self._say_length()

    def _say_length(self) -> None:
        """Once it is worked out."""
        plan = self.session.quilt_plan
        text = ""
        if self.quilt.quilting and plan.planned:
            quilted = plan.quilted
            text = f"{quilted_text(quilted.length, quilted.thread, plan.measure)}."
        self.length.setText(text)

    # --- edits --------------------------------------------------------------------------------

    def _edit(self, lines: tuple[QuiltingLines, ...]) -> None:
        self.session.edit_quilt(replace(self.quilt, quilting=lines))

    def add_lines(self) -> None:
        self._edit((*self.quilt.quilting, QuiltingLines()))

    def _away(self, i: int) -> None:
        lines = self.quilt.quilting
        self._edit((*lines[:i], *lines[i + 1 :]))

    def _set(self, i: int, name: str, value: object) -> None:
        lines = list(self.quilt.quilting)
        if i < len(lines):
            if name == "kind":
                lines[i] = QuiltingLines(kind=cast(QuiltingKind, value))
            else:
                lines[i] = replace(lines[i], **{name: value})
            self._edit(tuple(lines))
