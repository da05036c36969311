"""The pressing stage: the block from behind, every seam to be seen, asked, flipped and pinned."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import (
    QBoxLayout,
    QButtonGroup,
    QFrame,
    QPushButton,
    QWidget,
)

from inlet.core.figures import View
from inlet.core.pressing import (
    Pinned,
    PressingPlan,
    cost_if,
    flip_text,
    junction_text,
    reason,
    way_text,
)
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.pressing.block import PressedPicture
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.flow import FlowLayout, flowing
from inlet.ui.widgets.inputs import PushButton
from inlet.ui.widgets.parts import button, column, label, scrolled

VIEWS: tuple[tuple[View, str], ...] = (("back", "Back"), ("front", "Front"), ("layers", "Layers"))


WORDS, WORDS_BELOW = 236, 640
"""Pixels of the words beside the picture, and of the stage from which on they stand there."""
LOW = 420
"""Nor in a stage lower than this, in units of the text's size."""
ANY_SIZE = 2**24 - 1


@guarded
class PressingStage(QWidget):
    """The picture, what is said of the seam picked, and what can be done with it."""

    pointed = Signal(object)
    moved = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 16, 8)
        self.picture = PressedPicture(session)
        layout.addWidget(self._chooser())
        self.says = label("", "heading", True)
        self.why = label("", "", True)
        self.flip = button("Flip (F)", self.picture.flip)
        self.open = button("Open (O)", self.picture.open_seam)
        self.pin = button("Pin (P)", self.picture.pin)
        self.pin_all = button("Pin its unit or row (R)", self.picture.pin_part)
        self.spin = button("Spin the centre (W)", self.picture.spin)
        self.buttons = (self.flip, self.open, self.pin, self.pin_all, self.spin)
        self.costs = label("", "small", True)
        self.words = QFrame()
        self.words.setObjectName("card")
        inner = column(self.words, 14, 8)
        inner.addWidget(self.says)
        inner.addWidget(self.why)
        inner.addWidget(self.costs)
        inner.addStretch(1)
        keys = QWidget()
        flow = FlowLayout(keys, 0, theme.px(6))
        for each in self.buttons:
            flow.addWidget(each)
        inner.addWidget(keys)
        self.both = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        self.both.setSpacing(theme.px(12))
        self.both.addWidget(self.picture, 1)
        self.side = scrolled(self.words, "page")
        self.both.addWidget(self.side)
        layout.addLayout(self.both, 1)
        self.picture.picked.connect(self._picked)
        self.picture.pointed.connect(self._pointed)
        session.pressed.connect(self._arrived)
        session.changed.connect(self._waiting)
        self._arrived()

    def _chooser(self) -> QWidget:
        """Which side is seen, of which version, of which block."""
        self.views = QButtonGroup(self)
        self.view_buttons: dict[str, QPushButton] = {}
        for view, words in VIEWS:
            new_button = PushButton(words)
            new_button.setCheckable(True)
            new_button.setChecked(view == "back")
            new_button.setAccessibleName(f"Pressing: {words.lower()}")
            new_button.clicked.connect(partial(self.show_view, view))
            self.views.addButton(new_button)
            self.view_buttons[view] = new_button
        self.second = PushButton("Version 2")
        self.second.setCheckable(True)
        self.second.setToolTip("Show how the second version of the block is pressed")
        self.second.clicked.connect(self._turn_version)
        self.new = PushButton("The new block")
        self.new.setCheckable(True)
        self.new.setToolTip("Show how the block made from the slices is pressed")
        self.new.clicked.connect(self._show_new)
        self.figure = label("", "heading")
        return flowing(*self.view_buttons.values(), self.second, self.new, self.figure)

    def show_view(self, view: View) -> None:
        self.picture.view = view
        self.view_buttons[view].setChecked(True)
        self._tell()
        self.picture.update()

    def _show_new(self, new: bool) -> None:
        """The block set of the slices, or its start block: other seams, none of them picked."""
        self.picture.pick(None, None)
        self.session.show_pressing_of_new(new)

    def _turn_version(self, second: bool) -> None:
        self.picture.second = second
        self.picture.arrived()
        self._picked()

    def resizeEvent(self, event: object) -> None:
        """The words beside the picture where there is room, else below it."""
        low = self.height() < theme.px(LOW)
        beside = low or self.width() > WORDS_BELOW * theme.text_scale()
        ways = QBoxLayout.Direction
        self.both.setDirection(ways.LeftToRight if beside else ways.TopToBottom)
        self.side.setMinimumWidth(theme.px(WORDS) if beside else 0)
        self.side.setMaximumWidth(theme.px(WORDS) if beside else ANY_SIZE)
        self.side.setMaximumHeight(ANY_SIZE if beside else self.height() * 2 // 5)

    @property
    def hears(self) -> QWidget:
        """What takes the keys that its card or picture tells of."""
        return self.picture

    def reading(self) -> Reading | None:
        """The seam picked, for the tape."""
        return self.picture.reading()

    def _waiting(self) -> None:
        if self.session.pressing is None:
            self.figure.setText("…")

    def _arrived(self) -> None:
        pressing = self.session.pressing
        self.figure.setText("" if pressing is None else figure_text(pressing))
        self.second.setVisible(pressing is not None and len(pressing.versions) > 1)
        plan = self.session.plan
        self.new.setVisible(plan is not None and bool(plan.then_sewn))
        self.new.setChecked(self.session.presses_new)
        if self.second.isHidden():
            self.second.setChecked(False)
            self.picture.second = False
        self.picture.arrived()
        self._picked()

    def _pointed(self) -> None:
        self.pointed.emit(self.reading())
        self._tell()

    def _picked(self) -> None:
        self._tell()
        self.costs.setText("")
        for each in self.buttons:
            each.setEnabled(False)
        pressing, seam, met = self.session.pressing, self.picture.seam, self.picture.met
        if pressing is None or self.picture.second:  # decided in the first version
            return
        if seam is not None:
            for each in (self.flip, self.open, self.pin, self.pin_all):
                each.setEnabled(True)
            self.open.setText("Close (O)" if seam.toward is None else "Open (O)")
            self.pin.setText("Unpin (P)" if pressing.pinned(seam.span) else "Pin (P)")
        self.spin.setEnabled(self.picture.centre() is not None)
        spun = self.picture.centre_met()
        self.spin.setText(
            "Leave it flat (W)" if spun and spun.state == "whirled" else "Spin the centre (W)"
        )
        if seam is not None or met is not None:
            self._price(pressing)

    def _tell(self) -> None:
        """The seam or junction pointed at, else the one picked, in a sentence."""
        pressing = self.picture.pressing
        seam, met = self.picture.shown()
        if pressing is None:
            wait = self.session.plan is None or not self.session.pressing_known
            self.says.setText("Finding the pressing …" if wait else "There is no seam to press.")
            self.why.setText("")
            return
        if met is not None:
            self.says.setText(f"Junction of {len(met.junction.seats)} seams")
            self.why.setText(junction_text(met))
        elif seam is not None:
            text = way_text(pressing, seam, self.session.project, self.picture.view == "back")
            pinned = ", pinned" if pressing.pinned(seam.span) else ""
            self.says.setText(f"Seam {seam.join.number}: {text}{pinned}")
            self.why.setText(reason(pressing, seam.span, self.session.project))
        else:
            self.says.setText("Point at a seam to read why it goes its way.")
            self.why.setText("Click one to pick it, click it again to flip it.")

    def _price(self, pressing: PressingPlan) -> None:
        """What each thing that can be done would cost, told before it is done."""
        wishes = self.picture.wishes()
        self.costs.setText("Working out what a change costs …")

        def ask() -> list[tuple[str, int]]:
            return [(words, cost_if(pressing, wish)) for words, wish in wishes]

        self.session.think_of_pressing(ask, partial(self._priced, pressing, wishes))

    def _priced(
        self,
        pressing: PressingPlan,
        wishes: list[tuple[str, Pinned]],
        prices: list[tuple[str, int]],
    ) -> None:
        if pressing is not self.session.pressing or wishes != self.picture.wishes():
            return
        self.costs.setText(
            "\n".join(f"{words}: {flip_text(pressing, cost)}" for words, cost in prices)
        )


def figure_text(pressing: PressingPlan) -> str:
    """The stage's figure in words, and how far it is proved."""
    good, crossed = pressing.nesting
    text = f"{good} of {crossed} junctions nest" if crossed else "no seams cross"
    if pressing.gap:
        text += f"; at most {pressing.gap / 1000:.1f} points from the best"
    if len(pressing.versions) > 1:
        text += "; two versions"
    return text
