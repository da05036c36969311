"""The card of the next cut."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtWidgets import QFrame

from inlet.core.layout import CutCard
from inlet.core.numbers import vulgar_text
from inlet.ui.cutting.ruler import RulerFace
from inlet.ui.guard import guarded
from inlet.ui.widgets.parts import Link, button, column, empty, label, row


class OnCard(Protocol):
    """What is done from the card."""

    def go_on(self) -> None: ...
    def go_back(self) -> None: ...
    def lay_anew(self) -> None: ...
    def keep_left(self) -> None: ...


@guarded
class CutCardPanel(QFrame):
    """The card of the next cut."""

    def __init__(self, on: OnCard) -> None:
        super().__init__()
        self.setObjectName("card")
        layout = column(self, 14, 8)
        self.title = label("", "caption")
        self.figure = label("", "figure")
        self.words = label("", "heading", True)
        self.ruler = RulerFace()
        self.text = label("", "", True)
        self.line = label("", "small", True)
        self.ready = label("", "small", True)
        self.stacks = column(spacing=6)
        self.cautions = label("", "caption", True)
        self.left = Link("Put the leftover with the scraps")
        self.left.followed.connect(on.keep_left)
        self.anew = Link("Discard progress and lay out again")
        self.anew.followed.connect(on.lay_anew)
        self.done = button("Done (space)", on.go_on)
        self.back = button("Back", on.go_back)
        self.fabric = label("", "caption", True)
        for each in (
            self.title, self.figure, self.words, self.ruler, self.text, self.line, self.ready
        ):  # fmt: skip
            layout.addWidget(each)
        layout.addLayout(self.stacks)
        layout.addWidget(self.left)
        layout.addWidget(self.anew)
        layout.addLayout(row(self.back, self.done, 1))
        layout.addWidget(self.cautions)
        layout.addStretch(1)
        layout.addWidget(self.fabric)

    def show_none(self, waits: bool) -> None:
        """Nothing is to be cut, or it is still being laid out (``waits``)."""
        title, text = (
            "Nothing to cut",
            ("Draw a block, and give its patches fabric: its pieces are laid out here."),
        )
        if waits:
            title, text = "Laying out the fabric …", "The first cut is shown here in a moment."
        self.show_card(CutCard(title, None, "", text, "", (), ()), None, 0, "")
        self.ruler.hide()
        self.done.hide()
        self.back.hide()

    def show_card(self, cut_card: CutCard, done: int | None, of: int, fabric: str) -> None:
        self.title.setText(cut_card.title)
        for widget, text in (
            (self.figure, vulgar_text(cut_card.shown)), (self.words, cut_card.words),
            (self.text, vulgar_text(cut_card.text)),
            (self.line, f"All of them: {vulgar_text(cut_card.line)}" if cut_card.line else ""),
            (self.ready, f"Comes off: {cut_card.ready}." if cut_card.ready else ""),
            (self.cautions, " ".join(cut_card.cautions)), (self.fabric, fabric),
        ):  # fmt: skip
            widget.setText(text)
            widget.setVisible(bool(text))
        empty(self.stacks)
        for stack in cut_card.stacks:
            self.stacks.addWidget(
                label(f"Stack {stack.label} is complete: pin its label.", "heading", True)
            )
            self.stacks.addWidget(label(vulgar_text(stack.text), "", True))
            for note in stack.notes:
                self.stacks.addWidget(label(vulgar_text(note), "small", True))
        ended = done is not None and done >= of
        self.left.setVisible(ended)
        self.anew.setVisible(done is not None)
        self.done.setVisible(not ended)
        self.done.setText("Prepared (space)" if done is None else "Done (space)")
        self.back.setVisible(bool(done))
