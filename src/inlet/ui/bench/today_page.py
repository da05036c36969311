"""Today's list: what fits the time there is, place by place, each line large enough to tick with a
hand that holds something else."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import groupby

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtGui import QEnterEvent, QFocusEvent, QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSizePolicy, QWidget

from inlet.core.bench import PLACE_TITLES, Portion, Today, entry_text
from inlet.core.numbers import vulgar_text
from inlet.core.project import Measure
from inlet.core.schedule import minutes_text
from inlet.core.words import CAUTIONS
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import NumberBox, PushButton
from inlet.ui.widgets.parts import button, column, empty, label, row

LEAST_ROW = 140
"""Pixels that a line is wide at least: its words wrap."""
MORE = 20
"""Minutes that one goes on for."""
SHORTEST, LONGEST = 5, 600
"""Minutes there may be."""


@guarded
class JobRow(PushButton):
    """A line of the list: a box to tick, what is done to how many, the size to check."""

    looked_at = Signal(int)  # which job is under the hand

    def __init__(self, portion: Portion) -> None:
        super().__init__()
        self.portion = portion
        self.setObjectName("job")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        job, number = portion.job, portion.number
        words = vulgar_text(job.title(number))
        time = minutes_text(portion.minutes) if portion.minutes else ""
        self.setAccessibleName(f"{words}, {time}" if time else words)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(*(theme.px(n) for n in (12, 8, 12, 8)))
        layout.setSpacing(theme.px(12))
        box = QLabel()
        box.setObjectName("box")
        box.setFixedSize(theme.px(24), theme.px(24))
        size, more = parted_size(job.size)
        whole = column(spacing=1)
        whole.addWidget(label(words, "job", True))
        first = number < job.left or job.done
        about = f"{job.done} of {job.times} done" if first and job.times > 1 else ""
        under = ", ".join(filter(None, (time, about, more)))
        if under:
            whole.addWidget(label(under, "caption", True))
        layout.addWidget(box)
        layout.addLayout(whole, 1)
        if size:
            layout.addWidget(label(size, "size"))
        for child in self.findChildren(QLabel):
            child.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)

    def sizeHint(self) -> QSize:
        return QSize(theme.px(LEAST_ROW), self.heightForWidth(max(self.width(), theme.px(320))))

    def minimumSizeHint(self) -> QSize:
        return QSize(theme.px(LEAST_ROW), theme.px(48))

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        layout = self.layout()
        return theme.px(48) if layout is None else max(theme.px(48), layout.heightForWidth(width))

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.looked_at.emit(self.portion.which)

    def enterEvent(self, event: QEnterEvent) -> None:
        super().enterEvent(event)
        self.looked_at.emit(self.portion.which)


def parted_size(text: str) -> tuple[str, str]:
    """A size to check, and what is said of it behind the first comma or word."""
    size, _, more = text.partition(",")
    if len(size) > 20 or " x " in more or "×" in size:
        return "", text
    return size.strip(), more.strip()


@guarded
class TodayPage(QWidget):
    """The time there is, the list by place, what was done today."""

    looked_at = Signal(int)
    ticked = Signal(object)  # a portion that is done
    typed = Signal(int)  # the minutes there are

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("pageBody")
        layout = column(self, 4, 8)
        self.heading = label("", "title", True)
        self.minutes = NumberBox()
        self.minutes.setRange(SHORTEST, LONGEST)
        self.minutes.setSingleStep(5)
        self.minutes.setSuffix(" min")
        self.minutes.setAccessibleName("Time there is today")
        self.minutes.editingFinished.connect(lambda: self.typed.emit(self.minutes.value()))
        self.longer = button(
            f"{MORE} minutes more", lambda: self.typed.emit(self.minutes.value() + MORE)
        )
        layout.addWidget(self.heading)
        layout.addLayout(row(label("I have"), self.minutes, self.longer, 1))
        self.list = column(spacing=6)
        layout.addLayout(self.list)
        self.caution = label(CAUTIONS, "caption", True)
        layout.addWidget(self.caution)
        self.done_heading = label("Done today", "heading")
        self.done = label("", "small", True)
        layout.addWidget(self.done_heading)
        layout.addWidget(self.done)
        layout.addStretch(1)
        self.rows: list[JobRow] = []
        self._listed: Today | None = None

    def show_list(self, listed: Today | None, minutes: int) -> None:
        """The list of today, on which there are so many minutes; None while it is being worked
        out."""
        if listed is not None and listed is self._listed:
            return  # it is shown already
        self._listed = listed
        held = next((row.portion for row in self.rows if row.hasFocus()), None)
        empty(self.list)
        self.rows = []
        self.minutes.setValue(minutes)
        self.heading.setText(_heading(listed))
        portions = listed.portions if listed is not None else ()
        self.caution.setVisible(bool(portions))
        over = listed is not None and not listed.portions and listed.sittings > 0
        self.longer.setVisible(over and minutes + MORE <= LONGEST)
        for place, at_place in groupby(portions, lambda portion: portion.job.place):
            some = list(at_place)
            time = minutes_text(sum(portion.minutes for portion in some))
            self.list.addWidget(label(f"{PLACE_TITLES[place]}, {time}", "heading"))
            for portion in some:
                self._add(portion)
        self._show_done(listed, self.session.measure)
        if held is not None and self.rows:
            named = [row.portion.job.named for row in self.rows]
            at = named.index(held.job.named) if held.job.named in named else next(
                (i for i, r in enumerate(self.rows) if r.portion.which >= held.which), -1
            )  # fmt: skip
            self.rows[at].setFocus()

    def _add(self, portion: Portion) -> None:
        line = JobRow(portion)
        line.clicked.connect(lambda: self.ticked.emit(portion))
        line.looked_at.connect(self.looked_at)
        self.list.addWidget(line)
        self.rows.append(line)

    def _show_done(self, listed: Today | None, measure: Measure) -> None:
        lines = _done_lines(listed, measure)
        self.done_heading.setVisible(bool(lines))
        self.done.setVisible(bool(lines))
        self.done.setText(vulgar_text("\n".join(f"✓  {line}" for line in lines)))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Up and down go from line to line."""
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
        if step is None or not self.rows:
            super().keyPressEvent(event)
            return
        at = next((i for i, line in enumerate(self.rows) if line.hasFocus()), -step)
        self.rows[max(0, min(len(self.rows) - 1, at + step))].setFocus()


def _heading(listed: Today | None) -> str:
    if listed is None:
        return "Working out what is next …"
    if listed.portions:
        return f"{'Left today' if listed.done else 'Today'}: {minutes_text(listed.minutes)}"
    if not listed.sittings:
        return "Everything is done"
    return "Done for today"


def _done_lines(listed: Today | None, measure: Measure) -> Sequence[str]:
    return [entry_text(entry, measure) for entry in listed.done] if listed is not None else ()
