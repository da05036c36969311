"""Parts below one another that stay where they say the same as before: a long list that changes in
one place is not made anew."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QWidget

from inlet.ui.widgets.parts import column, drop

AT_ONCE = 24
"""Lines that are made in one turn: some hundredths of a second."""


class Section(NamedTuple):
    """What a part says, in so many lines, and what makes its widget."""

    says: object
    lines: int
    make: Callable[[], QWidget]


class Sections(QWidget):
    """The first parts are made at once, others in turns, so that the hand need not wait."""

    def __init__(self, spacing: int) -> None:
        super().__init__()
        self._layout = column(self, 0, spacing)
        self._shown: list[tuple[object, QWidget]] = []
        self._waiting: list[tuple[int, Section]] = []
        self._turn = QTimer(self)
        self._turn.setInterval(0)
        self._turn.timeout.connect(self._make_some)

    def show_sections(self, sections: Sequence[Section]) -> None:
        """Show these; those shown already that say the same stay."""
        before, self._shown, self._waiting = self._shown, [], []
        for section in sections:
            same = next((old for old in before if old[0] == section.says), None)
            if same is None:
                self._waiting.append((len(self._shown) + len(self._waiting), section))
            else:
                before.remove(same)
                self._shown.append(same)
        for _, widget in before:
            drop(self._layout, widget)
        for at, (_, widget) in enumerate(self._shown):
            if self._layout.indexOf(widget) != at:
                self._layout.insertWidget(at, widget)
        self._make_some()

    def _make_some(self) -> None:
        """The next parts that are waited for, each at its place."""
        lines = 0
        while self._waiting and lines < AT_ONCE:
            at, section = self._waiting.pop(0)
            widget = section.make()
            self._layout.insertWidget(at, widget)
            self._shown.insert(at, (section.says, widget))
            lines += section.lines
        if self._waiting:
            self._turn.start()
        else:
            self._turn.stop()
